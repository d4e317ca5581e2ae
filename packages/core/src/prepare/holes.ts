import { resamplePlane } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';

/** The surroundings are searched on a copy no longer than this; finer pixels come from the same places. */
export const LONGEST = 512;

/** Where the patch around each pixel comes from: index of its middle, −1 where nothing was asked. */
export type Field = Int32Array;

export interface Level {
  planes: LabPlanes;
  hole: Uint8Array;
}

export interface Frame {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The box of the hole with as much again around it, or null when there is no hole. */
export function surroundings({ width, height }: LabPlanes, hole: Uint8Array): Frame | null {
  let [left, top, right, foot] = [width, height, -1, -1];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!hole[y * width + x]) continue;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      foot = Math.max(foot, y);
    }
  if (right < 0) return null;
  const more = Math.max(24, Math.round(1.2 * Math.max(right - left, foot - top)));
  const l = Math.max(0, left - more);
  const t = Math.max(0, top - more);
  return { left: l, top: t, width: Math.min(width, right + more + 1) - l, height: Math.min(height, foot + more + 1) - t };
}

export function cut(planes: LabPlanes, hole: Uint8Array, f: Frame): Level {
  const n = f.width * f.height;
  const out: LabPlanes = {
    width: f.width,
    height: f.height,
    L: new Float32Array(n),
    a: new Float32Array(n),
    b: new Float32Array(n),
  };
  const part = new Uint8Array(n);
  for (let y = 0; y < f.height; y++) {
    const from = (f.top + y) * planes.width + f.left;
    for (const key of ['L', 'a', 'b'] as const) out[key].set(planes[key].subarray(from, from + f.width), y * f.width);
    part.set(hole.subarray(from, from + f.width), y * f.width);
  }
  return { planes: out, hole: part };
}

export function paste(planes: LabPlanes, { planes: part, hole }: Level, f: Frame): void {
  for (let y = 0; y < f.height; y++)
    for (let x = 0; x < f.width; x++) {
      const i = y * f.width + x;
      if (!hole[i]) continue;
      const to = (f.top + y) * planes.width + f.left + x;
      planes.L[to] = part.L[i];
      planes.a[to] = part.a[i];
      planes.b[to] = part.b[i];
    }
}

/** Half the size; a pixel is in the hole when any of its four was, and its colour is that of those that were not. */
export function half({ planes, hole }: Level): Level {
  const w = planes.width >> 1;
  const h = planes.height >> 1;
  const out: LabPlanes = {
    width: w,
    height: h,
    L: new Float32Array(w * h),
    a: new Float32Array(w * h),
    b: new Float32Array(w * h),
  };
  const small = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const four = [0, 1, planes.width, planes.width + 1].map(d => 2 * y * planes.width + 2 * x + d);
      const whole = four.filter(i => !hole[i]);
      const from = whole.length > 0 ? whole : four;
      const i = y * w + x;
      small[i] = whole.length < 4 ? 1 : 0;
      for (const key of ['L', 'a', 'b'] as const) out[key][i] = from.reduce((s, j) => s + planes[key][j], 0) / from.length;
    }
  return { planes: out, hole: small };
}

/** Middles of patches, `reach` pixels each way, that are whole. */
export function sourcesOf({ planes: { width: w, height: h }, hole }: Level, reach: number): Int32Array {
  const out: number[] = [];
  // Rows of sums tell in one look whether a patch holds any of the hole.
  const sums = new Int32Array((w + 1) * (h + 1));
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      sums[(y + 1) * (w + 1) + x + 1] =
        hole[y * w + x] + sums[y * (w + 1) + x + 1] + sums[(y + 1) * (w + 1) + x] - sums[y * (w + 1) + x];
  for (let y = reach; y < h - reach; y++)
    for (let x = reach; x < w - reach; x++) {
      const [l, t, r, f] = [x - reach, y - reach, x + reach + 1, y + reach + 1];
      const inside = sums[f * (w + 1) + r] - sums[t * (w + 1) + r] - sums[f * (w + 1) + l] + sums[t * (w + 1) + l];
      if (inside === 0) out.push(y * w + x);
    }
  return Int32Array.from(out);
}

/** The hole takes the colours that were found on the coarser copy. */
export function take({ planes, hole }: Level, { planes: from }: Level): void {
  for (const key of ['L', 'a', 'b'] as const) {
    const wide = resamplePlane({ width: from.width, height: from.height, data: from[key] }, planes.width, planes.height);
    for (let i = 0; i < hole.length; i++) if (hole[i]) planes[key][i] = wide[i];
  }
}

/** Fine pixels come from the same places as the coarse ones, so the filling is as sharp as its surroundings. */
export function bringUp(fine: Level, coarse: Level, field: Field): void {
  const [w, h] = [fine.planes.width, fine.planes.height];
  const [cw, ch] = [coarse.planes.width, coarse.planes.height];
  const [kx, ky] = [w / cw, h / ch];
  take(fine, coarse);
  const { L, a, b } = fine.planes;
  for (let i = 0; i < fine.hole.length; i++) {
    if (!fine.hole[i]) continue;
    const x = i % w;
    const y = (i / w) | 0;
    const at = Math.min(ch - 1, (y / ky) | 0) * cw + Math.min(cw - 1, (x / kx) | 0);
    if (field[at] < 0) continue;
    const fx = Math.round(x + ((field[at] % cw) - (at % cw)) * kx);
    const fy = Math.round(y + (((field[at] / cw) | 0) - ((at / cw) | 0)) * ky);
    const from = Math.min(h - 1, Math.max(0, fy)) * w + Math.min(w - 1, Math.max(0, fx));
    if (fine.hole[from]) continue;
    L[i] = L[from];
    a[i] = a[from];
    b[i] = b[from];
  }
}
