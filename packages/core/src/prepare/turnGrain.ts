import { blur } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import { randomFor } from '../number/random.ts';
import { clamp } from '../number/scalar.ts';
import { cos, sin } from '../number/trig.ts';

/** Radius of a patch and distance between patches, in 512ths of the picture; marks finer than FINE are what turns. */
const RADIUS = 15;
const GAP = 13;
const FINE = 4;

/**
 * Turns every mark of a picture by an angle where it stands, in place, while shapes stay: what is finer than a few pixels is taken off, turned
 * in patches that overlap, and laid on again. Patches are blended so that the contrast stays (after Heitz & Neyret 2018).
 */
export function turnGrain(planes: LabPlanes, angle: number, unit: number, seed: number): void {
  const { width: w, height: h, L } = planes;
  const base = shapesOf(L, w, h, FINE * unit);
  const fine = L.map((v, i) => v - base[i]);
  const random = randomFor(seed, 'turnGrain');
  const [c, s] = [cos(angle), sin(angle)];
  const sum = new Float32Array(w * h);
  const weights = new Float32Array(w * h);
  const radius = RADIUS * unit;
  const gap = GAP * unit;
  for (let gy = 0; (gy - 1) * gap < h; gy++)
    for (let gx = 0; (gx - 1) * gap < w; gx++) {
      const mx = (gx + (gy & 1) * 0.5 + 0.2 * (random() - 0.5)) * gap;
      const my = (gy + 0.2 * (random() - 0.5)) * gap;
      for (let y = Math.max(0, Math.floor(my - radius)); y <= Math.min(h - 1, my + radius); y++)
        for (let x = Math.max(0, Math.floor(mx - radius)); x <= Math.min(w - 1, mx + radius); x++) {
          const dx = x - mx;
          const dy = y - my;
          const d2 = (dx * dx + dy * dy) / (radius * radius);
          if (d2 >= 1) continue;
          const fx = clamp(mx + c * dx + s * dy, 0, w - 1.001);
          const fy = clamp(my - s * dx + c * dy, 0, h - 1.001);
          const i = (fy | 0) * w + (fx | 0);
          const [tx, ty] = [fx - (fx | 0), fy - (fy | 0)];
          const right = (fx | 0) + 1 < w ? 1 : 0;
          const down = (fy | 0) + 1 < h ? w : 0;
          const v =
            (fine[i] * (1 - tx) + fine[i + right] * tx) * (1 - ty) +
            (fine[i + down] * (1 - tx) + fine[i + down + right] * tx) * ty;
          const weight = (1 - d2) * (1 - d2);
          sum[y * w + x] += weight * v;
          weights[y * w + x] += weight * weight;
        }
    }
  for (let i = 0; i < L.length; i++) L[i] = clamp(base[i] + (weights[i] > 0 ? sum[i] / Math.sqrt(weights[i]) : fine[i]));
}

/** What is left when fine marks are smoothed away but edges of shapes stay: a guided filter (He, Sun & Tang 2013) of the lightness by itself. */
function shapesOf(L: Float32Array, w: number, h: number, sigma: number): Float32Array {
  const mean = blur(L, w, h, sigma);
  const square = blur(
    L.map(v => v * v),
    w,
    h,
    sigma,
  );
  const slope = mean.map((m, i) => {
    const variance = Math.max(0, square[i] - m * m);
    return variance / (variance + 0.02);
  });
  const rest = blur(
    mean.map((m, i) => m * (1 - slope[i])),
    w,
    h,
    sigma,
  );
  const soft = blur(slope, w, h, sigma);
  return L.map((v, i) => soft[i] * v + rest[i]);
}
