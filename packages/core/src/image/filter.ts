import { interpolateAt, kernels, placesAlong, plane as planeRoom, put, take, within } from '@zinc/kernels';
import { exp } from '../number/trig.ts';
import type { Plane } from './types.ts';

/** From this sigma on three running boxes cost less than taps. */
const TAPS_BELOW = 2.6;

/**
 * Gaussian blur of one plane; `sigma` in pixels. Small sigmas by taps, large ones by repeated running boxes, so the cost does
 * not grow with sigma. Edges repeat their last pixel.
 */
export function blur(plane: Float32Array, width: number, height: number, sigma: number): Float32Array {
  if (sigma < 0.3) return plane.slice();
  return within(() => {
    const at = put(plane);
    blurAt(at, width, height, sigma);
    return take(at, new Float32Array(plane.length));
  });
}

/** {@link blur} of a plane in kernel memory, in place. */
export function blurAt(at: number, width: number, height: number, sigma: number): void {
  if (sigma < 0.3) return;
  within(() => {
    const spare = planeRoom(width * height);
    if (sigma < TAPS_BELOW) {
      const reach = sigma < 1.2 ? 2 : Math.ceil(2.2 * sigma);
      const weights = Array.from({ length: reach + 1 }, (_, k) => exp((-k * k) / (2 * sigma * sigma)));
      const total = 2 * weights.reduce((sum, v) => sum + v, 0) - 1;
      const taps = put(Float32Array.from(weights, v => v / total));
      kernels.tapBlur(at, spare, width, height, taps, reach);
      return;
    }
    const passes = 3;
    const radius = Math.max(1, Math.round((Math.sqrt((12 * sigma * sigma) / passes + 1) - 1) / 2));
    kernels.boxBlur(at, spare, planeRoom(width), width, height, radius, passes);
  });
}

/** Each 2 × 2 block averaged; an odd last row or column is dropped. */
export function halve(plane: Plane): Plane {
  const { width: w, height: h, data } = plane;
  const width = Math.max(1, w >> 1);
  const height = Math.max(1, h >> 1);
  if (w > 1 && h > 1)
    return within(() => {
      const from = put(data);
      const to = planeRoom(width * height);
      kernels.halve(from, w, h, to);
      return { width, height, data: take(to, new Float32Array(width * height)) };
    });
  // A single row or column is halved along its length.
  const out = new Float32Array(width * height);
  const step = w > 1 || h > 1 ? 1 : 0;
  for (let i = 0; i < out.length; i++) out[i] = 0.5 * (data[2 * i] + data[2 * i + step]);
  return { width, height, data: out };
}

/** Bilinear resampling of one plane; good for enlarging and for small reductions. */
export function resamplePlane(plane: Plane, width: number, height: number): Float32Array {
  const { width: w, height: h, data } = plane;
  if (w === width && h === height) return data.slice();
  return within(() => {
    const from = put(data);
    const to = planeRoom(width * height);
    interpolateAt(from, w, h, placesAlong(w, width), placesAlong(h, height), to);
    return take(to, new Float32Array(width * height));
  });
}

/**
 * Gaussian blur for large sigmas, worked out on a plane reduced until the sigma is about 2.5 pixels and brought back; `sigma` in pixels of
 * the plane given.
 */
export function blurWide(plane: Float32Array, width: number, height: number, sigma: number): Float32Array {
  let low: Plane = { width, height, data: plane };
  let left = sigma;
  while (left >= 5 && Math.min(low.width, low.height) > 8) {
    low = halve(low);
    left /= 2;
  }
  if (low.data === plane) return blur(plane, width, height, sigma);
  return resamplePlane({ ...low, data: blur(low.data, low.width, low.height, left) }, width, height);
}
