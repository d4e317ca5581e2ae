import { blurWide } from '../image/filter.ts';

/**
 * How light each place is among the places around it that count (`weight` 1; 0 leaves one out): deviations from their mean, in units of
 * their spread. Every large shape so has its own lights and darks, however dark it is as a whole. `near` is lightness without its finest
 * grain; `reach` is in pixels.
 */
export function localLight(near: Float32Array, weight: Float32Array, width: number, height: number, reach: number): Float32Array {
  const n = near.length;
  const sums = new Float32Array(n);
  const squares = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    sums[i] = near[i] * weight[i];
    squares[i] = sums[i] * near[i];
  }
  const weights = blurWide(weight, width, height, reach);
  const means = blurWide(sums, width, height, reach);
  const powers = blurWide(squares, width, height, reach);
  const out = squares;
  for (let i = 0; i < n; i++) {
    const k = 1 / (weights[i] + 1e-4);
    const mean = means[i] * k;
    out[i] = (near[i] - mean) / (Math.sqrt(Math.max(0, powers[i] * k - mean * mean)) + 0.02);
  }
  return out;
}
