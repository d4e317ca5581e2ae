import { clamp } from '../number/scalar.ts';
import { exp } from '../number/trig.ts';
import type { Plane } from './types.ts';

function boxRows(from: Float32Array, to: Float32Array, width: number, height: number, radius: number): void {
  const k = 1 / (2 * radius + 1);
  for (let y = 0; y < height; y++) {
    const o = y * width;
    let sum = from[o] * radius;
    for (let x = 0; x < radius; x++) sum += from[o + Math.min(x, width - 1)];
    for (let x = 0; x < width; x++) {
      sum += from[o + (x + radius < width ? x + radius : width - 1)];
      to[o + x] = sum * k;
      sum -= from[o + (x > radius ? x - radius : 0)];
    }
  }
}

function boxColumns(from: Float32Array, to: Float32Array, width: number, height: number, radius: number): void {
  const k = 1 / (2 * radius + 1);
  const sums = new Float32Array(width);
  for (let x = 0; x < width; x++) sums[x] = from[x] * radius;
  for (let y = 0; y < radius; y++) {
    const o = Math.min(y, height - 1) * width;
    for (let x = 0; x < width; x++) sums[x] += from[o + x];
  }
  for (let y = 0; y < height; y++) {
    const o = y * width;
    const enter = (y + radius < height ? y + radius : height - 1) * width;
    const leave = (y > radius ? y - radius : 0) * width;
    for (let x = 0; x < width; x++) {
      sums[x] += from[enter + x];
      to[o + x] = sums[x] * k;
      sums[x] -= from[leave + x];
    }
  }
}

function fiveTap(from: Float32Array, width: number, height: number, sigma: number): Float32Array {
  const near = exp(-1 / (2 * sigma * sigma));
  const far = exp(-4 / (2 * sigma * sigma));
  const k = 1 / (1 + 2 * near + 2 * far);
  const rows = new Float32Array(from.length);
  const out = new Float32Array(from.length);
  for (let y = 0; y < height; y++) {
    const o = y * width;
    for (let x = 0; x < width; x++) {
      const l1 = x > 0 ? x - 1 : 0;
      const r1 = x < width - 1 ? x + 1 : x;
      const l2 = x > 1 ? x - 2 : 0;
      const r2 = x < width - 2 ? x + 2 : width - 1;
      rows[o + x] = k * (from[o + x] + near * (from[o + l1] + from[o + r1]) + far * (from[o + l2] + from[o + r2]));
    }
  }
  for (let y = 0; y < height; y++) {
    const o = y * width;
    const u1 = (y > 0 ? y - 1 : 0) * width;
    const d1 = (y < height - 1 ? y + 1 : y) * width;
    const u2 = (y > 1 ? y - 2 : 0) * width;
    const d2 = (y < height - 2 ? y + 2 : height - 1) * width;
    for (let x = 0; x < width; x++)
      out[o + x] = k * (rows[o + x] + near * (rows[u1 + x] + rows[d1 + x]) + far * (rows[u2 + x] + rows[d2 + x]));
  }
  return out;
}

/**
 * Gaussian blur of one plane; `sigma` in pixels. Small sigmas by five taps, large ones by repeated running boxes, so the cost does
 * not grow with sigma. Edges repeat their last pixel.
 */
export function blur(plane: Float32Array, width: number, height: number, sigma: number): Float32Array {
  if (sigma < 0.3) return plane.slice();
  if (sigma < 1.2) return fiveTap(plane, width, height, sigma);
  const passes = 3;
  const radius = Math.max(1, Math.round((Math.sqrt((12 * sigma * sigma) / passes + 1) - 1) / 2));
  const a = new Float32Array(plane.length);
  const b = new Float32Array(plane.length);
  boxRows(plane, a, width, height, radius);
  boxColumns(a, b, width, height, radius);
  for (let p = 1; p < passes; p++) {
    boxRows(b, a, width, height, radius);
    boxColumns(a, b, width, height, radius);
  }
  return b;
}

/** Each 2 × 2 block averaged; an odd last row or column is dropped. */
export function halve(plane: Plane): Plane {
  const { width: w, height: h, data } = plane;
  const width = Math.max(1, w >> 1);
  const height = Math.max(1, h >> 1);
  const out = new Float32Array(width * height);
  const right = w > 1 ? 1 : 0;
  const down = h > 1 ? w : 0;
  for (let y = 0; y < height; y++)
    for (let x = 0, i = 2 * y * w; x < width; x++, i += 2)
      out[y * width + x] = 0.25 * (data[i] + data[i + right] + data[i + down] + data[i + down + right]);
  return { width, height, data: out };
}

/** Bilinear resampling of one plane; good for enlarging and for small reductions. */
export function resamplePlane(plane: Plane, width: number, height: number): Float32Array {
  const { width: w, height: h, data } = plane;
  if (w === width && h === height) return data.slice();
  const out = new Float32Array(width * height);
  const sx = w / width;
  const sy = h / height;
  const left = new Int32Array(width);
  const part = new Float32Array(width);
  for (let x = 0; x < width; x++) {
    const gx = clamp((x + 0.5) * sx - 0.5, 0, w - 1);
    left[x] = Math.min(Math.floor(gx), Math.max(0, w - 2));
    part[x] = w > 1 ? gx - left[x] : 0;
  }
  const next = w > 1 ? 1 : 0;
  const row = new Float32Array(w + 1);
  for (let y = 0, o = 0; y < height; y++) {
    const gy = clamp((y + 0.5) * sy - 0.5, 0, h - 1);
    const yi = Math.min(Math.floor(gy), Math.max(0, h - 2));
    const v = h > 1 ? gy - yi : 0;
    const r0 = yi * w;
    const r1 = h > 1 ? r0 + w : r0;
    for (let x = 0; x < w; x++) row[x] = data[r0 + x] + (data[r1 + x] - data[r0 + x]) * v;
    for (let x = 0; x < width; x++, o++) {
      const i = left[x];
      const p = row[i];
      out[o] = p + (row[i + next] - p) * part[x];
    }
  }
  return out;
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
