import { blur } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import { noisePlane } from '../number/noise.ts';
import type { Sketch } from './sketch.ts';

/** Flat colour areas at full size. */
export interface Areas {
  width: number;
  height: number;
  /** Palette index of each pixel. */
  index: Uint8Array;
  /** How clearly the winner won, 0 at an edge to 1 well inside, at sketch size. */
  margin: Float32Array;
  /** Palette index at sketch size. */
  sketchIndex: Uint8Array;
}

/** Labels looked up at places that wander by up to `reach` sketch pixels: edges cut, torn or bled by hand. */
function wander(labels: Uint8Array, width: number, height: number, reach: number, cell: number, seed: number): Uint8Array {
  const dx = noisePlane(width, height, cell, seed, 3);
  const dy = noisePlane(width, height, cell, seed + 977, 3);
  const out = new Uint8Array(labels.length);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      let px = (x + dx[i] * reach + 0.5) | 0;
      let py = (y + dy[i] * reach + 0.5) | 0;
      px = px < 0 ? 0 : px >= width ? width - 1 : px;
      py = py < 0 ? 0 : py >= height ? height - 1 : py;
      out[i] = labels[py * width + px];
    }
  return out;
}

/**
 * Lays flat colour areas into `out` (full size): coverage of each palette colour is smoothed at sketch size, the strongest wins, and the
 * edge between the two strongest is drawn antialiased at full size. `radius` in sketch pixels says how small a scrap survives; `wobble`
 * (sketch pixels) and its `cell` let edges wander.
 */
export function layAreas(
  sketch: Sketch,
  out: LabPlanes,
  settings: { radius: number; wobble: number; cell: number; seed: number },
): Areas {
  const { width: w, height: h, assignment, palette } = sketch;
  const { radius, wobble, cell, seed } = settings;
  const { colourOf } = assignment;
  const labels = wobble > 0.3 ? wander(assignment.labels, w, h, wobble, cell, seed) : assignment.labels;
  const used = [...new Set(colourOf)].sort((p, q) => p - q);
  const n = w * h;
  const covers: Float32Array[] = [];
  const sketchIndex = new Uint8Array(n);
  const slot = new Uint8Array(n);
  const first = new Float32Array(n).fill(-1);
  const second = new Float32Array(n);
  const cover = new Float32Array(n);
  used.forEach((j, k) => {
    const own = Uint8Array.from(colourOf, c => (c === j ? 1 : 0));
    for (let i = 0; i < n; i++) cover[i] = own[labels[i]];
    const soft = blur(cover, w, h, radius);
    covers.push(soft);
    for (let i = 0; i < n; i++) {
      const v = soft[i];
      if (v > first[i]) {
        second[i] = first[i] < 0 ? 0 : first[i];
        first[i] = v;
        slot[i] = k;
      } else if (v > second[i]) second[i] = v;
    }
  });
  for (let i = 0; i < n; i++) {
    sketchIndex[i] = used[slot[i]];
    first[i] -= second[i];
  }
  const index = drawAreas(out, covers, slot, used, palette, w, h, radius);
  return { width: out.width, height: out.height, index, margin: first, sketchIndex };
}

function drawAreas(
  out: LabPlanes,
  covers: Float32Array[],
  slot: Uint8Array,
  used: number[],
  palette: { L: number; a: number; b: number }[],
  w: number,
  h: number,
  radius: number,
): Uint8Array {
  const { width, height, L, a, b } = out;
  const index = new Uint8Array(width * height);
  const kL = Float32Array.from(used, j => palette[j].L);
  const kA = Float32Array.from(used, j => palette[j].a);
  const kB = Float32Array.from(used, j => palette[j].b);
  const sx = w / width;
  const sy = h / height;
  // The lead of a straight edge's winner rises by 0.8 ÷ σ a sketch pixel; this turns lead into distance in full-size pixels.
  const sharp = Math.max(0.55, radius) / (0.8 * sx);
  const left = new Int32Array(width);
  const part = new Float32Array(width);
  for (let x = 0; x < width; x++) {
    const gx = Math.min(Math.max((x + 0.5) * sx - 0.5, 0), w - 1);
    left[x] = Math.min(Math.floor(gx), Math.max(0, w - 2));
    part[x] = w > 1 ? gx - left[x] : 0;
  }
  const next = w > 1 ? 1 : 0;
  for (let y = 0, o = 0; y < height; y++) {
    const gy = Math.min(Math.max((y + 0.5) * sy - 0.5, 0), h - 1);
    const yi = Math.min(Math.floor(gy), Math.max(0, h - 2));
    const v = h > 1 ? gy - yi : 0;
    const r0 = yi * w;
    const r1 = h > 1 ? r0 + w : r0;
    for (let x = 0; x < width; x++, o++) {
      const p = r0 + left[x];
      const q = r1 + left[x];
      const k0 = slot[p];
      const k1 = slot[p + next];
      const k2 = slot[q];
      const k3 = slot[q + next];
      if (k0 === k1 && k0 === k2 && k0 === k3) {
        L[o] = kL[k0];
        a[o] = kA[k0];
        b[o] = kB[k0];
        index[o] = used[k0];
        continue;
      }
      const t = part[x];
      let best = k0;
      let other = -1;
      let high = -1;
      let low = -1;
      for (let c = 0; c < 4; c++) {
        const k = c === 0 ? k0 : c === 1 ? k1 : c === 2 ? k2 : k3;
        if (k === best && c > 0) continue;
        if (k === other) continue;
        const plane = covers[k];
        const top = plane[p] + (plane[p + next] - plane[p]) * t;
        const value = top + (plane[q] + (plane[q + next] - plane[q]) * t - top) * v;
        if (value > high) {
          if (c > 0) {
            other = best;
            low = high;
          }
          best = k;
          high = value;
        } else if (value > low) {
          other = k;
          low = value;
        }
      }
      let share = 0.5 + (high - low) * sharp;
      if (share > 1 || other < 0) share = 1;
      const k = other < 0 ? best : other;
      L[o] = kL[k] + (kL[best] - kL[k]) * share;
      a[o] = kA[k] + (kA[best] - kA[k]) * share;
      b[o] = kB[k] + (kB[best] - kB[k]) * share;
      index[o] = used[best];
    }
  }
  return index;
}
