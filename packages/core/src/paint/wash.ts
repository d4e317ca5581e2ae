import { blur } from '../image/filter.ts';
import type { Lab, LabPlanes } from '../image/types.ts';
import { noisePlane } from '../number/noise.ts';
import { clamp } from '../number/scalar.ts';
import { exp, log } from '../number/trig.ts';

/**
 * Diluted pigment on paper, in place: each pixel's colour is taken as absorption over the paper (Beer–Lambert, the thin-layer limit of
 * Kubelka–Munk) whose density pools at rims and varies with the sheet, so light areas thin out towards paper instead of going grey.
 * `u` is pixels per 1/512 of the picture.
 */
export function dilutePigment(planes: LabPlanes, paper: Lab, amount: number, edge: number, u: number, seed: number): void {
  const { width, height, L, a, b } = planes;
  const near = blur(L, width, height, 0.8 * u);
  const wide = blur(L, width, height, 3 * u);
  const pools = noisePlane(width, height, 70 * u, seed + 1, 5);
  const blooms = noisePlane(width, height, 16 * u, seed + 2, 3);
  const granules = noisePlane(width, height, Math.max(1, 2.2 * u), seed + 3, 2);
  for (let i = 0; i < L.length; i++) {
    const ink = clamp((paper.L - L[i]) * 4 + Math.sqrt((a[i] - paper.a) ** 2 + (b[i] - paper.b) ** 2) * 4);
    if (ink <= 0.01) continue;
    const rim = clamp((wide[i] - near[i]) * 8);
    const density = clamp(
      1 + amount * ink * (edge * 0.7 * rim + 0.42 * pools[i] + 0.2 * blooms[i] + 0.12 * granules[i] - 0.12),
      0.35,
      1.9,
    );
    const light = clamp(L[i] / paper.L, 0.02, 1.2);
    L[i] = paper.L * exp(density * log(light));
    // Thin layers of pigment are purer than thick ones: chroma grows more slowly than density.
    const purity = density < 1 ? 0.35 + 0.65 * density : 1 + 0.45 * (density - 1);
    a[i] = paper.a + (a[i] - paper.a) * purity;
    b[i] = paper.b + (b[i] - paper.b) * purity;
  }
}
