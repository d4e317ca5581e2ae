import type { Fingerprint } from '../measure/types.ts';
import { clamp, lerp, smoothstep } from '../number/scalar.ts';
import { STYLE_FIELDS, type Style, type StyleAmounts, type StyleField } from './style.ts';

/** The style a fingerprint suggests: which marks would leave such a measurement, and how strongly. */
export function inferStyle(f: Fingerprint): Style {
  const { line, texture, colour, light } = f;
  const dotted = texture.period.dots;
  const hatch =
    smoothstep(0.15, 0.5, texture.period.share * (1 - 0.8 * smoothstep(0.5, 0.95, dotted))) * smoothstep(0.12, 0.35, line.edge);
  const fewInks = smoothstep(4.2, 2.6, colour.inks);
  const carve = smoothstep(0.006, 0.016, line.light) * fewInks * (1 - hatch);
  const flat = smoothstep(0.1, 0.45, texture.flatness - 0.6 * texture.softness);
  const soft = smoothstep(0.13, 0.09, line.sharpness);
  const wash = clamp(
    Math.max(flat * soft, smoothstep(0.2, 0.45, texture.softness) * soft) * smoothstep(0.1, 0.05, line.edge) * (1 - carve),
  );
  const brush = clamp(
    smoothstep(0.15, 0.35, texture.softness) * smoothstep(0.03, 0.08, line.edge) * (1 - hatch) * (1 - 0.7 * wash),
  );
  const fineness = texture.bands[1] / (texture.bands[3] + 1e-4);
  const amounts: StyleAmounts = {
    paletteAmount: 1,
    shareAmount: hatch > 0.5 ? 0.2 : 0.45,
    hueKeep: lerp(0.55, 0.9, smoothstep(2, 4.5, colour.inks)),
    toneAmount: lerp(0.6, lerp(0.2, 0.45, wash), flat),
    outline: clamp(hatch * 0.85 + smoothstep(0.004, 0.02, line.dark) * 0.6 * (1 - wash)),
    outlineWidth: line.width * 0.55,
    outlineRag: carve * 0.5 + line.raggedness * 0.5,
    lightLines: carve * 0.95,
    edgeKeep: 0.8 * flat * (1 - hatch),
    hatch,
    hatchGap: texture.period.share > 0.1 ? texture.period.length : 5,
    hatchAngle: hatch > 0.1 ? texture.period.angle : line.direction,
    hatchFollow: lerp(0.85, 0.25, smoothstep(0.6, 0.98, line.agreement)),
    cross: smoothstep(0.3, 0.65, light.contrast) * 0.8,
    carve,
    carveGap: line.width * 1.7,
    flat: clamp(Math.max(flat * (1 - 0.55 * wash), hatch * 0.3)),
    smooth: lerp(1.5, 3.4, Math.max(flat, brush)),
    brush,
    brushSize: 5 + 6 * clamp(1 - fineness),
    brushLength: lerp(3, 8, line.coherence),
    bristle: clamp(0.35 + fineness * 0.4),
    wash,
    washEdge: clamp(0.5 + texture.rim * 1.5),
    grain: clamp(texture.grain * 26),
  };
  return { palette: colour.palette.map(c => ({ ...c })), tone: [...light.tone], amounts: clampAmounts(amounts) };
}

/** The same amounts with each held in its declared range. */
export function clampAmounts(amounts: StyleAmounts): StyleAmounts {
  const out = { ...amounts };
  for (const key of Object.keys(STYLE_FIELDS) as StyleField[])
    out[key] = clamp(out[key], STYLE_FIELDS[key].from, STYLE_FIELDS[key].to);
  return out;
}
