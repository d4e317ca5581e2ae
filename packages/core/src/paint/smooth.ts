import { kernels, plane, put, take, within } from '@zinc/kernels';
import type { LabPlanes } from '../image/types.ts';

/**
 * Edge-keeping smoothing: each pixel takes the mean of the calmest of eight windows around it, softly weighted (a box-window form of
 * the Kuwahara filter; Kyprianidis et al. 2009). `radius` in pixels.
 */
export function smoothKeepingEdges(planes: LabPlanes, radius: number): LabPlanes {
  const r = Math.round(radius);
  if (r < 1) return planes;
  const { width, height } = planes;
  const n = width * height;
  return within(() => {
    const [L, a, b] = [put(planes.L), put(planes.a), put(planes.b)];
    const padded = (width + 2 * r) * (height + 2 * r);
    const room = plane(15 * (padded + 8) + (2 * r + 8) * (width + 2 * r));
    kernels.smoothKeepingEdges(L, a, b, width, height, r, Math.max(1, Math.round(r / 2)), room);
    const out = (at: number): Float32Array => take(at, new Float32Array(n));
    return { width, height, L: out(L), a: out(a), b: out(b) };
  });
}
