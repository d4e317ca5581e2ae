import { blur, blurWide } from '../image/filter.ts';

/**
 * How light each place is among the places around it that count (`weight` 1; 0 leaves one out): deviations from their mean, in units of
 * their spread. Every large shape so has its own lights and darks, however dark it is as a whole. `fine` and `reach` in pixels.
 */
export function localLight(
  L: Float32Array,
  weight: Float32Array,
  width: number,
  height: number,
  fine: number,
  reach: number,
): Float32Array {
  const near = blur(L, width, height, fine);
  const sums = new Float32Array(L.length);
  const squares = new Float32Array(L.length);
  for (let i = 0; i < L.length; i++) {
    sums[i] = near[i] * weight[i];
    squares[i] = sums[i] * near[i];
  }
  const weights = blurWide(weight, width, height, reach);
  const means = blurWide(sums, width, height, reach);
  const powers = blurWide(squares, width, height, reach);
  for (let i = 0; i < L.length; i++) {
    const k = 1 / (weights[i] + 1e-4);
    const mean = means[i] * k;
    near[i] = (near[i] - mean) / (Math.sqrt(Math.max(0, powers[i] * k - mean * mean)) + 0.02);
  }
  return near;
}
