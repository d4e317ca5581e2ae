import type { Lab, LabPlanes } from '../image/types.ts';

/** Lays one colour over the planes with the coverage (0–1) of each pixel times `amount`, in place. */
export function layInk(planes: LabPlanes, coverage: Float32Array, ink: Lab, amount: number): void {
  const { L, a, b } = planes;
  for (let i = 0; i < coverage.length; i++) {
    const c = coverage[i] * amount;
    if (c <= 0) continue;
    L[i] += (ink.L - L[i]) * c;
    a[i] += (ink.a - a[i]) * c;
    b[i] += (ink.b - b[i]) * c;
  }
}
