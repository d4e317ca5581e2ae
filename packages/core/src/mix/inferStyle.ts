import { REACHES, type Fingerprint, type PaletteColour } from '../measure/types.ts';
import { clamp, lerp, smoothstep } from '../number/scalar.ts';
import { PATCH_SCALE, STYLE_FIELDS, type Style, type StyleAmounts, type StyleField } from './style.ts';

const sum = (values: number[], from: number, to: number): number => values.slice(from, to).reduce((s, v) => s + v, 0);

/** The media a fingerprint points to, 0–1 each; several may hold in part. */
export interface Media {
  hatch: number;
  dots: number;
  dry: number;
  carve: number;
  wash: number;
  brush: number;
  flat: number;
  shadow: number;
}

/** Which marks would leave such a measurement. The figures at which each begins and is certain were read off made-up references of every kind. */
export function mediaOf(f: Fingerprint): Media {
  const { line, texture, colour } = f;
  const { period } = texture;
  const dotted = smoothstep(0.5, 0.9, period.dots);
  const hatch = smoothstep(0.15, 0.5, period.share * (1 - 0.9 * dotted)) * smoothstep(0.12, 0.35, line.edge);
  const dots = smoothstep(0.06, 0.18, period.share * dotted);
  const dry = smoothstep(0.6, 0.95, line.raggedness) * smoothstep(0.18, 0.32, line.edge) * (1 - hatch) * (1 - dots);
  const wash = smoothstep(0.14, 0.27, texture.rim) * smoothstep(0.13, 0.07, line.edge) * smoothstep(0.3, 0.6, texture.flatness);
  const carve =
    smoothstep(0.003, 0.007, sum(line.light, 0, 3)) *
    smoothstep(4.4, 2.8, colour.inks) *
    smoothstep(0.5, 0.75, texture.flatness) *
    (1 - hatch) *
    (1 - dots) *
    (1 - dry) *
    (1 - wash);
  const brush = clamp(
    Math.max(
      dry,
      smoothstep(0.15, 0.3, texture.softness) *
        smoothstep(0.01, 0.03, texture.across[1]) *
        (1 - hatch) *
        (1 - wash) *
        (1 - dots) *
        (1 - carve),
    ),
  );
  const flat = smoothstep(0.3, 0.52, texture.flatness - 0.25 * texture.softness) * (1 - hatch) * (1 - 0.9 * dry);
  return { hatch, dots, dry, carve, wash, brush, flat, shadow: smoothstep(0.003, 0.009, texture.shadow.depth) * flat };
}

/** How far a surface is brushwork and nothing that the painter has marks of its own for, 0–1. */
function brushworkOf(m: Media): number {
  return (1 - m.hatch) * (1 - m.dots) * (1 - m.carve) * (1 - m.dry) * (1 - m.wash) * (1 - m.flat * (1 - m.brush));
}

/** Width of the marks of a surface: the distance across at which change has reached four fifths of its most. */
function markWidth(across: number[]): number {
  const wanted = 0.8 * Math.max(...across);
  for (let r = 0; r < across.length; r++) {
    if (across[r] < wanted) continue;
    if (r === 0) return REACHES[0];
    return lerp(REACHES[r - 1], REACHES[r], (wanted - across[r - 1]) / Math.max(1e-6, across[r] - across[r - 1]));
  }
  return REACHES[REACHES.length - 1];
}

/** The style a fingerprint suggests: its palette and tone, and the marks of the media it points to. */
export function inferStyle(f: Fingerprint): Style {
  const { line, texture, colour, light } = f;
  const m = mediaOf(f);
  const run = clamp(1 - texture.along[0] / Math.max(0.002, texture.across[0]));
  const thick = smoothstep(0.006, 0.02, sum(line.light, 1, 5)) * (1 - m.dry);
  const amounts: StyleAmounts = {
    paletteAmount: 1,
    shareAmount: m.hatch > 0.5 ? 0.2 : 0.45,
    hueKeep: lerp(0.55, 0.9, smoothstep(2, 4.5, colour.inks)),
    toneAmount: lerp(lerp(0.6, 0.3, Math.max(m.flat, m.wash)), 0.08, m.dry),
    outline: clamp(m.hatch * 0.9 + smoothstep(0.004, 0.014, sum(line.dark, 0, 4)) * 0.45 * m.carve),
    outlineWidth: line.width * 0.55,
    outlineRag: m.carve * 0.35 + line.raggedness * 0.4,
    lightLines: m.carve * 0.9,
    edgeKeep: 0.9 * m.flat * (1 - m.hatch) * (1 - 0.6 * m.wash) * (1 - 0.5 * m.dots),
    hatch: m.hatch,
    hatchGap: texture.period.share > 0.1 ? texture.period.length : 5,
    hatchAngle: m.hatch > 0.1 ? texture.period.angle : line.direction,
    hatchFollow: lerp(0.85, 0.3, smoothstep(0.6, 0.98, line.agreement)),
    cross: smoothstep(0.3, 0.65, light.contrast) * 0.8,
    carve: m.carve,
    carveGap: clamp(line.width * 1.5, 4.5, 9),
    groundWork: smoothstep(0.7, 0.35, texture.flatness) * Math.max(m.hatch, m.brush) * smoothstep(0.26, 0.14, light.bare),
    simplify: m.flat * smoothstep(0.16, 0.04, line.raggedness) * (1 - m.brush) * (1 - m.dots),
    flat: clamp(Math.max(m.flat, m.dots, m.hatch * 0.25, 0.55 * m.wash, 0.25 * m.brush * (1 - m.dry))),
    smooth: lerp(1.2, 2.6, Math.max(m.flat, m.brush)),
    brush: m.brush,
    // Paper tooth breaks marks up, so that they look narrower and shorter than they were drawn.
    brushSize: clamp(0.62 * markWidth(texture.across) + 2 * m.dry + 3.4 * thick, 2.4, 10),
    brushLength: lerp(lerp(3.5, 11, smoothstep(0.2, 0.75, run)), 8, m.dry),
    brushJitter: clamp(texture.jitter * 18 + texture.across[1] * 5),
    bristle: clamp(0.3 + texture.across[0] * 14),
    swirl: smoothstep(0.6, 0.2, line.agreement),
    relief: thick,
    tooth: m.dry,
    wash: m.wash,
    washEdge: clamp(texture.rim * 2),
    washBleed: clamp(0.3 + line.raggedness * 2),
    spot: m.dots,
    tint: clamp(texture.period.share * 2),
    dotGap: texture.period.share > 0.05 ? texture.period.length : 6,
    dotAngle: texture.period.angle,
    misregister: m.dots * 2.4,
    shadow: m.shadow,
    shadowAngle: texture.shadow.angle,
    wobble: clamp(smoothstep(0.1, 0.45, line.raggedness) * m.flat * (1 - m.dots)),
    // Lines, dots, pools and sticks are drawn as such; what is left of a surface is brushwork.
    patch: f.swatch ? clamp(f.swatch.rms / PATCH_SCALE) * brushworkOf(m) : 0,
    grain: clamp(texture.grain * 26) * (1 - m.hatch),
  };
  return {
    palette: pigmentsOf(colour.palette, m.dry),
    tone: [...light.tone],
    amounts: clampAmounts(amounts),
    swatch: f.swatch,
  };
}

/** What dry sticks were made of: seen through the gaps of paper tooth, their colours have mixed with the sheet's. */
function pigmentsOf(palette: PaletteColour[], dry: number): PaletteColour[] {
  const paper = palette.reduce((p, c) => (c.share > p.share ? c : p), palette[0]);
  return palette.map(c => {
    if (c === paper) return { ...c };
    const k = 1 + 1.1 * dry;
    const L = clamp(paper.L + (c.L - paper.L) * k, 0.05, 0.99);
    return { L, a: paper.a + (c.a - paper.a) * k, b: paper.b + (c.b - paper.b) * k, share: c.share };
  });
}

/** The same amounts with each held in its declared range. */
export function clampAmounts(amounts: StyleAmounts): StyleAmounts {
  const out = { ...amounts };
  for (const key of Object.keys(STYLE_FIELDS) as StyleField[])
    out[key] = clamp(out[key], STYLE_FIELDS[key].from, STYLE_FIELDS[key].to);
  return out;
}
