import { kernels, put, take, within, zeros } from '@zinc/kernels';
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
  const sums = within(() => {
    const [sx, sy, size, tx, ty, coherence] = [slopes.x, slopes.y, slopes.size, flow.tx, flow.ty, flow.coherence].map(put);
    const at = zeros(16);
    const { width: fw, height: fh } = flow;
    kernels.edgeSums(sx, sy, size, width, height, tx, ty, coherence, fw, fh, FAINT_EDGE, CLEAR_EDGE, at);
    return take(at, new Float64Array(8));
  });
  const [edges, strong, c2, s2, coherent, gradients, turned, clear] = sums;
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
