import { atan2, length2 } from '../number/trig.ts';
import { clamp } from '../number/scalar.ts';
import { measureThickness } from './thickness.ts';
import type { Fingerprint } from './types.ts';
import type { View } from './view.ts';

const CLEAR_EDGE = 0.045;
const FAINT_EDGE = 0.012;

export function measureLine(view: View): Fingerprint['line'] {
  const { planes, slopes, flow } = view;
  const { width, height, L } = planes;
  const n = L.length;
  let edges = 0;
  let strong = 0;
  let c2 = 0;
  let s2 = 0;
  let coherent = 0;
  let gradients = 0;
  let turned = 0;
  let clear = 0;
  for (let y = 0, i = 0; y < height; y++) {
    const row = Math.min(flow.height - 1, y >> 1) * flow.width;
    for (let x = 0; x < width; x++, i++) {
      const g = slopes.size[i];
      if (g <= FAINT_EDGE) continue;
      const j = row + Math.min(flow.width - 1, x >> 1);
      const tx = flow.tx[j];
      const ty = flow.ty[j];
      const weight = g * flow.coherence[j];
      c2 += weight * (tx * tx - ty * ty);
      s2 += weight * 2 * tx * ty;
      coherent += weight;
      gradients += g;
      if (g <= CLEAR_EDGE) continue;
      edges++;
      strong += g;
      // Across a straight edge the slope stands at right angles to the course; along a wandering one it turns away.
      const k = flow.coherence[j] * flow.coherence[j];
      const off = (slopes.x[i] * tx + slopes.y[i] * ty) / g;
      turned += k * off * off;
      clear += k;
    }
  }
  const thin = measureThickness(L, view.around, width, height);
  return {
    edge: edges / n,
    sharpness: edges > 0 ? strong / edges : 0,
    dark: thin.dark,
    light: thin.light,
    width: thin.width,
    raggedness: clear > 0 ? clamp((turned / clear) * 5) : 0,
    coherence: gradients > 0 ? coherent / gradients : 0,
    direction: 0.5 * atan2(s2, c2),
    agreement: coherent > 0 ? length2(c2, s2) / coherent : 0,
  };
}
