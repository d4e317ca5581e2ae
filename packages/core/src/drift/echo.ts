import { toLabPlanes } from '../colour/oklab.ts';
import { resizePicture } from '../image/resize.ts';
import type { Picture } from '../image/types.ts';

/** A region of a picture that repeats a region of a source; boxes are 0–1 of each frame, `match` is their correlation. */
export interface Echo {
  here: Region;
  there: Region;
  match: number;
}

export interface Region {
  x: number;
  y: number;
  width: number;
  height: number;
}

const SIDE = 128;
const PATCH = 14;
const STEP = 4;
const LEAST_MATCH = 0.88;
/** Patches that must move together before a likeness is more than chance. */
const LEAST_PATCHES = 6;

interface Patches {
  columns: number;
  rows: number;
  /** Each patch with its mean taken away and brought to length 1; all 0 where nothing is drawn. */
  values: Float32Array;
}

function patchesOf(picture: Picture): Patches & { width: number; height: number } {
  const long = Math.max(picture.width, picture.height);
  const width = Math.max(PATCH, Math.round((picture.width * SIDE) / long));
  const height = Math.max(PATCH, Math.round((picture.height * SIDE) / long));
  const { L } = toLabPlanes(resizePicture(picture, width, height));
  const columns = Math.floor((width - PATCH) / STEP) + 1;
  const rows = Math.floor((height - PATCH) / STEP) + 1;
  const area = PATCH * PATCH;
  const values = new Float32Array(columns * rows * area);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const o = (r * columns + c) * area;
      let mean = 0;
      for (let y = 0; y < PATCH; y++) for (let x = 0; x < PATCH; x++) mean += L[(r * STEP + y) * width + c * STEP + x];
      mean /= area;
      let energy = 0;
      for (let y = 0; y < PATCH; y++)
        for (let x = 0; x < PATCH; x++) {
          const d = L[(r * STEP + y) * width + c * STEP + x] - mean;
          values[o + y * PATCH + x] = d;
          energy += d * d;
        }
      // A patch with next to nothing in it is like every other such.
      const k = energy / area > 0.003 ? 1 / Math.sqrt(energy) : 0;
      for (let i = 0; i < area; i++) values[o + i] *= k;
    }
  return { columns, rows, values, width, height };
}

/**
 * Regions of a picture that repeat a region of a source: patches are matched by normalised correlation at a common scale, and kept where
 * neighbours moved by the same way (coherence after Ashikhmin 2001; Barnes et al. 2009). Best first, at most four.
 */
export function echoesOf(picture: Picture, source: Picture): Echo[] {
  const p = patchesOf(picture);
  const q = patchesOf(source);
  const area = PATCH * PATCH;
  const groups = new Map<number, { cells: number[]; sum: number }>();
  const span = 2 * Math.max(q.columns, p.columns, q.rows, p.rows) + 1;
  for (let i = 0; i < p.columns * p.rows; i++) {
    let best = -1;
    let high = LEAST_MATCH;
    const a = i * area;
    if (isEmpty(p.values, a, area)) continue;
    for (let j = 0; j < q.columns * q.rows; j++) {
      const b = j * area;
      let dot = 0;
      for (let k = 0; k < area; k++) dot += p.values[a + k] * q.values[b + k];
      if (dot > high) {
        high = dot;
        best = j;
      }
    }
    if (best < 0) continue;
    const dx = (best % q.columns) - (i % p.columns);
    const dy = Math.floor(best / q.columns) - Math.floor(i / p.columns);
    const key = dy * span + dx;
    const group = groups.get(key) ?? { cells: [], sum: 0 };
    group.cells.push(i);
    group.sum += high;
    groups.set(key, group);
  }
  const out: Echo[] = [];
  for (const [key, { cells, sum }] of groups) {
    if (cells.length < LEAST_PATCHES) continue;
    const dy = Math.round(key / span);
    const dx = key - dy * span;
    const xs = cells.map(i => i % p.columns);
    const ys = cells.map(i => Math.floor(i / p.columns));
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    // Scattered patches that happen to agree are no region.
    if (cells.length < 0.25 * (x1 - x0 + 1) * (y1 - y0 + 1)) continue;
    const box = (x: number, y: number, w: number, h: number): Region => ({
      x: (x * STEP) / w,
      y: (y * STEP) / h,
      width: ((x1 - x0) * STEP + PATCH) / w,
      height: ((y1 - y0) * STEP + PATCH) / h,
    });
    out.push({
      here: box(x0, y0, p.width, p.height),
      there: box(x0 + dx, y0 + dy, q.width, q.height),
      match: sum / cells.length,
    });
  }
  return out.sort((a, b) => b.here.width * b.here.height - a.here.width * a.here.height).slice(0, 4);
}

function isEmpty(values: Float32Array, from: number, count: number): boolean {
  for (let k = from; k < from + count; k++) if (values[k] !== 0) return false;
  return true;
}
