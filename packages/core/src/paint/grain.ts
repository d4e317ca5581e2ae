import { kernels, put, take, within } from '@zinc/kernels';
import type { Lab, LabPlanes } from '../image/types.ts';
import { noisePlane } from '../number/noise.ts';

/** Paper tooth and specks, in place, only as strong as was measured. `unit` is full-size pixels per 1/512 of the picture. */
export function layGrain(out: LabPlanes, paper: Lab, amount: number, unit: number, seed: number): void {
  const { width, height, L } = out;
  const tooth = noisePlane(width, height, Math.max(1.5, 3.2 * unit), seed, 3);
  within(() => {
    const at = put(L);
    kernels.layGrain(at, put(tooth), width, height, 1 / Math.max(1, unit), paper.L, amount, seed);
    take(at, L);
  });
}
