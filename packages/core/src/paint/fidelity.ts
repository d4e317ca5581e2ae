import { blurWide } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import type { Style } from '../mix/style.ts';
import { lerp } from '../number/scalar.ts';
import { pow } from '../number/trig.ts';

/** How closely content is kept, 0–1, for subject and ground apart. */
export interface Fidelity {
  subject: number;
  ground: number;
}

/** The style with stroke size, simplification and wobble held back as far as fidelity says. */
export function holdBack(style: Style, fidelity: Fidelity): Style {
  const f = Math.max(fidelity.subject, fidelity.ground);
  if (f <= 0) return style;
  const s = { ...style.amounts };
  s.smooth *= 1 - 0.85 * f;
  s.simplify *= 1 - f;
  s.wobble *= 1 - f;
  s.washBleed *= 1 - 0.7 * f;
  s.misregister *= 1 - 0.8 * f;
  s.brushSize = lerp(s.brushSize, 2, 0.75 * f);
  s.brushLength = lerp(s.brushLength, 2.5, 0.5 * f);
  s.relief *= 1 - 0.6 * f;
  s.outlineRag *= 1 - f;
  return { ...style, amounts: s };
}

/**
 * Gives the painting back the content's own modelling, in place: lightness finer than about a fiftieth of the picture (a
 * fifteenth at full fidelity) becomes the content's, as far as fidelity says, while colours, large tones and marks of colour stay the painting's.
 */
export function returnDetail(painted: LabPlanes, own: LabPlanes, fidelity: Fidelity, mask?: Float32Array): void {
  const { width, height } = painted;
  const most = Math.max(fidelity.subject, fidelity.ground);
  const reach = (Math.max(width, height) / 512) * (12 + 30 * most * most * most);
  const p = blurWide(painted.L, width, height, reach);
  const q = blurWide(own.L, width, height, reach);
  const weight = (f: number): number => 1 - pow(1 - f, 1.7);
  const subject = weight(fidelity.subject);
  const ground = weight(fidelity.ground);
  for (let i = 0; i < p.length; i++) {
    const t = mask ? ground + (subject - ground) * mask[i] : subject;
    if (t <= 0) continue;
    const own0 = own.L[i] - q[i];
    painted.L[i] += (own0 - (painted.L[i] - p[i])) * t;
  }
}
