import { kernels, put, room, take, within } from '@zinc/kernels';
import { checkPicture, type Picture } from './types.ts';

/** Bytes looked at at a time. */
const BLOCK = 65536;

/** For each place along one side of the result: the first source place it draws on, how many, and their weights (which sum to 1). */
interface Taps {
  first: Int32Array;
  count: number;
  weights: Float32Array;
}

/** Area average when a side shrinks; straight line between the two nearest when it grows. */
function tapsFor(from: number, to: number): Taps {
  const scale = from / to;
  const span = Math.max(1, scale);
  const count = Math.min(from, Math.floor(span) + 2);
  const first = new Int32Array(to);
  const weights = new Float32Array(to * count);
  for (let i = 0; i < to; i++) {
    const middle = (i + 0.5) * scale;
    const low = middle - span / 2;
    const high = middle + span / 2;
    const start = Math.min(from - count, Math.max(0, Math.floor(low)));
    first[i] = start;
    let total = 0;
    for (let k = 0; k < count; k++) {
      const at = start + k;
      let w = Math.min(high, at + 1) - Math.max(low, at);
      // What lies beyond a border repeats the last place.
      if (at === 0 && low < 0) w += -low;
      if (at === from - 1 && high > from) w += high - from;
      if (w < 0) w = 0;
      weights[i * count + k] = w;
      total += w;
    }
    for (let k = 0; k < count; k++) weights[i * count + k] /= total;
  }
  return { first, count, weights };
}

function isOpaque(data: Uint8ClampedArray): boolean {
  for (let start = 0; start < data.length; start += BLOCK) {
    const part = data.subarray(start, start + BLOCK);
    if (!within(() => kernels.isOpaque(put(part), part.length / 4))) return false;
  }
  return true;
}

/**
 * Picture at another size: area average when it shrinks, bilinear when it grows; alpha-weighted, so edges keep their colour. Rows and
 * columns are done one after the other, each source row once. Throws PictureError on a malformed picture.
 */
export function resizePicture(picture: Picture, width: number, height: number): Picture {
  checkPicture(picture);
  const { width: w, height: h, data: from } = picture;
  if (w === width && h === height) return { width, height, data: from.slice() };
  const opaque = isOpaque(from);
  const data = new Uint8ClampedArray(width * height * 4);
  if (opaque && w === 2 * width && h === 2 * height) {
    halveOpaque(from, w, data, width, height);
    return { width, height, data };
  }
  const across = tapsFor(w, width);
  const down = tapsFor(h, height);
  const lane = width * 4;
  const sums = new Float32Array(lane);
  // A source row may serve two rows of the result, so the last few made are kept.
  const kept = new Map<number, Float32Array>();
  for (let y = 0; y < height; y++) {
    sums.fill(0);
    for (let k = 0; k < down.count; k++) {
      const weight = down.weights[y * down.count + k];
      if (weight === 0) continue;
      const at = down.first[y] + k;
      let row = kept.get(at);
      if (!row) {
        row = new Float32Array(lane);
        shrinkRow(from, at * w * 4, row, across, width, opaque);
        kept.set(at, row);
      }
      for (let i = 0; i < lane; i++) sums[i] += weight * row[i];
    }
    for (const at of kept.keys()) if (y + 1 === height || at < down.first[y + 1]) kept.delete(at);
    const o = y * lane;
    if (opaque)
      for (let i = 0; i < lane; i += 4) {
        data[o + i] = sums[i];
        data[o + i + 1] = sums[i + 1];
        data[o + i + 2] = sums[i + 2];
        data[o + i + 3] = 255;
      }
    else
      for (let i = 0; i < lane; i += 4) {
        const alpha = sums[i + 3];
        if (alpha > 0) {
          data[o + i] = sums[i] / alpha;
          data[o + i + 1] = sums[i + 1] / alpha;
          data[o + i + 2] = sums[i + 2] / alpha;
        }
        data[o + i + 3] = alpha;
      }
  }
  return { width, height, data };
}

/** Halves an opaque picture, a band of rows at a time. */
function halveOpaque(from: Uint8ClampedArray, w: number, to: Uint8ClampedArray, width: number, height: number): void {
  const rows = Math.max(1, Math.floor(16384 / width));
  for (let y = 0; y < height; y += rows)
    within(() => {
      const band = Math.min(rows, height - y);
      const at = room(band * width * 4);
      kernels.halveRgba(put(from.subarray(8 * y * w, 8 * (y + band) * w)), w, 2 * band, at);
      take(at, to.subarray(y * width * 4, (y + band) * width * 4));
    });
}

function shrinkRow(from: Uint8ClampedArray, start: number, row: Float32Array, taps: Taps, width: number, opaque: boolean): void {
  const { first, count, weights } = taps;
  for (let x = 0, q = 0, o = 0; x < width; x++, o += 4) {
    let i = start + first[x] * 4;
    let r = 0;
    let g = 0;
    let b = 0;
    let alpha = 0;
    for (let k = 0; k < count; k++, i += 4, q++) {
      const weight = opaque ? weights[q] : weights[q] * from[i + 3];
      r += weight * from[i];
      g += weight * from[i + 1];
      b += weight * from[i + 2];
      alpha += weight;
    }
    row[o] = r;
    row[o + 1] = g;
    row[o + 2] = b;
    row[o + 3] = alpha;
  }
}
