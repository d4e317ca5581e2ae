import type { Lab, LabPlanes } from '../image/types.ts';
import { noisePlane } from '../number/noise.ts';
import { latticeHash } from '../number/random.ts';
import { clamp } from '../number/scalar.ts';

/** Paper tooth and specks, in place, only as strong as was measured. `unit` is full-size pixels per 1/512 of the picture. */
export function layGrain(out: LabPlanes, paper: Lab, amount: number, unit: number, seed: number): void {
  const { width, height, L } = out;
  const tooth = noisePlane(width, height, Math.max(1.5, 3.2 * unit), seed, 3);
  const cell = 1 / Math.max(1, unit);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const speck = latticeHash(x * cell, y * cell, seed);
      const ink = clamp((paper.L - L[i]) * 2);
      L[i] += amount * (0.018 * tooth[i] + (speck - 0.5) * 0.03);
      if (speck > 1 - 0.07 * amount * ink) L[i] += (paper.L - L[i]) * 0.6 * amount;
    }
}
