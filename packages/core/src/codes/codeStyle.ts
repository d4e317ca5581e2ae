import { fromLabPlanes, labDistance2 } from '../colour/oklab.ts';
import { drift } from '../drift/drift.ts';
import { paletteDistance } from '../drift/components.ts';
import { measure } from '../measure/measure.ts';
import type { Fingerprint } from '../measure/types.ts';
import { clampAmounts, inferStyle, mediaOf } from '../mix/inferStyle.ts';
import { neutralStyle, type Style, type StyleAmounts } from '../mix/style.ts';
import { fractalNoise } from '../number/noise.ts';
import { clamp, lerp } from '../number/scalar.ts';
import { paint } from '../paint/paint.ts';
import type { Picture } from '../image/types.ts';
import { CODE_FIELDS, decodeStyle, encodeStyle, type CodeField, type CodeSettings } from './code.ts';
import { codePalette, PALETTE_COUNT } from './palettes.ts';

/** The media a code can name, in the order of their numbers; the order never changes. */
export const FAMILIES = [
  'block print',
  'engraving',
  'gouache',
  'wash',
  'cut paper',
  'spot print',
  'pastel',
  'thick paint',
] as const;

/** What each medium does before the settings of a code move it. */
const MEDIA: Record<(typeof FAMILIES)[number], Partial<StyleAmounts>> = {
  'block print': { flat: 1, smooth: 2.4, carve: 1, lightLines: 0.9, edgeKeep: 0.7, outlineRag: 0.4, shareAmount: 0.5 },
  engraving: { flat: 0.3, smooth: 1.4, hatch: 1, outline: 0.85, shareAmount: 0.2 },
  gouache: { flat: 0.8, smooth: 2.4, brush: 1, bristle: 0.7, brushLength: 10, swirl: 0.15, edgeKeep: 0.5 },
  wash: { flat: 0.55, smooth: 2.4, wash: 1, washEdge: 0.7, washBleed: 0.8, edgeKeep: 0.3 },
  'cut paper': { flat: 1, smooth: 2.6, shadow: 1, simplify: 0.8, edgeKeep: 0.6 },
  'spot print': { flat: 1, smooth: 2.2, spot: 1, tint: 0.5, edgeKeep: 0.4 },
  pastel: { flat: 0.05, smooth: 2.2, brush: 1, tooth: 0.9, bristle: 0.9, brushLength: 8, swirl: 0.5, relief: 0 },
  'thick paint': { flat: 0.05, smooth: 2, brush: 1, relief: 1, bristle: 0.7, brushLength: 8, swirl: 0.9 },
};

const part = (key: CodeField, v: number): number => v / (CODE_FIELDS[key].steps - 1);

/** The style that settings of a code stand for. It is the same for ever: what a code of version 1 gives never changes. */
export function styleOfSettings(s: CodeSettings): Style {
  const family = FAMILIES[s.family];
  const at = (key: CodeField): number => part(key, s[key]);
  const chroma = lerp(0.55, 1.25, at('chroma'));
  const palette = codePalette(s.palette, s.lead).map(c => ({ ...c, a: c.a * chroma, b: c.b * chroma }));
  const base: StyleAmounts = { ...neutralStyle().amounts, ...MEDIA[family], hueKeep: 0.75 };
  const scale = at('scale');
  const amount = lerp(0.75, 1, at('amount'));
  for (const key of ['carve', 'hatch', 'brush', 'wash', 'shadow'] as const) base[key] *= amount;
  base.hatchGap = lerp(3.2, 8, scale);
  base.carveGap = lerp(4, 9, scale);
  base.brushSize = lerp(2.6, 8.5, scale);
  base.dotGap = lerp(4, 9, scale);
  base.outlineWidth = lerp(0.9, 2.6, scale);
  base.hatchAngle = (s.angle / 8) * Math.PI - Math.PI / 2;
  base.dotAngle = base.hatchAngle;
  base.shadowAngle = 0.4 + (s.angle / 8) * 1.2;
  base.outline = Math.max(base.outline, at('line') * 0.7);
  base.cross = at('line') * 0.8;
  base.groundWork = family === 'engraving' || family === 'pastel' ? at('amount') * 0.8 : 0;
  base.tint = at('amount');
  base.simplify = clamp(base.simplify * 0.5 + at('simplify') * 0.6);
  base.smooth += at('simplify');
  base.grain = at('grain') * 0.5;
  base.wobble = at('wobble') * 0.9;
  base.misregister = lerp(0.4, 4, at('wobble'));
  base.brushJitter = lerp(0.2, 0.8, at('wobble'));
  base.toneAmount = 0.3;
  return { palette, tone: toneOf(s), amounts: clampAmounts(base) };
}

/** Seventeen quantiles from key (low to airy) and contrast. */
function toneOf(s: CodeSettings): number[] {
  const middle = lerp(0.52, 0.86, part('key', s.key));
  const reach = lerp(0.22, 0.62, part('contrast', s.contrast));
  return Array.from({ length: 17 }, (_, i) => {
    const t = i / 16;
    // More of a picture is light than dark.
    const curve = t * t * (3 - 2 * t) * 0.45 + Math.sqrt(t) * 0.55;
    return clamp(middle + reach * (curve - 0.62) + 0.12 * t, 0.12, 0.97);
  });
}

/** The style of a code. Throws StyleCodeError when it cannot be read. */
export function styleOfCode(code: string): Style {
  return styleOfSettings(decodeStyle(code));
}

/** As large as fingerprints are measured, for marks keep their size only then. */
const SPECIMEN = 512;
let specimen: Picture | undefined;

/** A fixed small picture on which a code is shown when it has to be measured: shaded rounds of several colours on a light ground. */
function specimenPicture(): Picture {
  if (specimen) return specimen;
  const n = SPECIMEN * SPECIMEN;
  const planes = { width: SPECIMEN, height: SPECIMEN, L: new Float32Array(n), a: new Float32Array(n), b: new Float32Array(n) };
  const rounds = [
    { x: 0.33, y: 0.36, r: 0.22, L: 0.5, a: 0.16, b: 0.06 },
    { x: 0.68, y: 0.32, r: 0.17, L: 0.55, a: -0.08, b: 0.09 },
    { x: 0.62, y: 0.68, r: 0.24, L: 0.68, a: 0.06, b: 0.13 },
    { x: 0.26, y: 0.74, r: 0.16, L: 0.4, a: -0.02, b: -0.1 },
  ];
  for (let y = 0, i = 0; y < SPECIMEN; y++)
    for (let x = 0; x < SPECIMEN; x++, i++) {
      planes.L[i] = 0.95;
      planes.b[i] = 0.015;
      for (const c of rounds) {
        const u = (x / SPECIMEN - c.x) / c.r;
        const v = (y / SPECIMEN - c.y) / c.r;
        const d = u * u + v * v;
        if (d >= 1) continue;
        const light = 0.24 * (-0.55 * u - 0.65 * v) + 0.1 * Math.sqrt(1 - d) - 0.05;
        const vein = fractalNoise(x * 0.034, y * 0.034, 7, 3) - 0.5;
        planes.L[i] = clamp(c.L + light + vein * 0.1);
        planes.a[i] = c.a;
        planes.b[i] = c.b;
      }
    }
  specimen = fromLabPlanes(planes);
  return specimen;
}

/** What a code measures, painted on a fixed specimen: its target fingerprint. */
export function fingerprintOfCode(code: string): Fingerprint {
  return measure(paint(specimenPicture(), styleOfCode(code), 1, 1907));
}

/** The nearest step of a setting to a share 0–1. */
const step = (key: CodeField, share: number): number => Math.round(clamp(share) * (CODE_FIELDS[key].steps - 1));
const inverse = (from: number, to: number, v: number): number => (v - from) / (to - from);

/**
 * The code that comes closest to a fingerprint, and its drift from it: medium and settings are read off the fingerprint, then the likeliest
 * media and palettes are painted on the specimen and compared.
 */
export function nearestCode(fingerprint: Fingerprint): { code: string; drift: number } {
  const m = mediaOf(fingerprint);
  const { amounts: a, tone } = inferStyle(fingerprint);
  const scores = [
    m.carve,
    m.hatch,
    m.brush * m.flat * (1 - m.dry),
    m.wash,
    m.shadow + 0.3 * m.flat * (1 - m.carve),
    m.dots,
    m.dry,
    m.brush * (1 - m.flat) * (1 - m.dry),
  ];
  const families = scores
    .map((score, family) => ({ score, family }))
    .sort((p, q) => q.score - p.score)
    .filter((f, k, all) => k === 0 || (k === 1 && f.score > 0.6 * all[0].score));
  const chromaOf = (list: { a: number; b: number }[]): number => Math.max(...list.map(c => Math.sqrt(c.a * c.a + c.b * c.b)));
  const palettes = Array.from({ length: PALETTE_COUNT }, (_, number) => {
    const row = codePalette(number);
    const off = row.reduce((sum, c) => sum + Math.min(...fingerprint.colour.palette.map(f => labDistance2(c, f, 1.6))), 0);
    return { number, score: paletteDistance(row, fingerprint.colour.palette) + 0.6 * Math.sqrt(off / row.length) };
  })
    .sort((p, q) => p.score - q.score)
    .slice(0, 2);
  let best: { code: string; drift: number } | undefined;
  for (const { family } of families)
    for (const { number } of palettes) {
      const gain = chromaOf(fingerprint.colour.palette) / Math.max(0.02, chromaOf(codePalette(number)));
      const size = [
        inverse(4, 9, a.carveGap),
        inverse(3.2, 8, a.hatchGap),
        inverse(2.6, 8.5, a.brushSize),
        0.4,
        0.5,
        inverse(4, 9, a.dotGap),
        inverse(2.6, 8.5, a.brushSize),
        inverse(2.6, 8.5, a.brushSize),
      ][family];
      const code = encodeStyle({
        family,
        palette: number,
        key: step('key', inverse(0.52, 0.86, tone[8])),
        scale: step('scale', size),
        amount: step('amount', Math.max(a.groundWork, a.tint * m.dots, 0.5)),
        line: step('line', a.outline),
        angle: Math.round(((family === 5 ? a.dotAngle : a.hatchAngle) + Math.PI / 2) / (Math.PI / 8)) % 8,
        contrast: step('contrast', inverse(0.22, 0.62, fingerprint.light.contrast)),
        simplify: step('simplify', a.simplify),
        grain: step('grain', a.grain * 2),
        wobble: step('wobble', a.wobble),
        chroma: step('chroma', inverse(0.55, 1.25, gain)),
        lead: 0,
      });
      const off = drift(fingerprintOfCode(code), fingerprint).total;
      if (!best || off < best.drift) best = { code, drift: off };
    }
  // At least one medium and two palettes were tried, so there is one.
  return best!;
}
