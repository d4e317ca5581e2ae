import { kernels, placesAlong, plane, put, room, take, within, zeros } from '@zinc/kernels';
import { blurAt } from '../image/filter.ts';
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
  const { width, height } = out;
  return within(() => {
    const covers = plane(n * used.length);
    const first = put(new Float32Array(n).fill(-1));
    const second = zeros(n);
    const slot = room(n);
    const own = put(labels);
    used.forEach((j, k) => {
      const soft = covers + k * n * 4;
      within(() => kernels.coverOf(own, put(tableOf(colourOf, j)), n, soft));
      blurAt(soft, w, h, radius);
      kernels.contend(soft, n, first, second, slot, k);
    });
    kernels.addDifference(first, zeros(n), second, n, 1);
    const margin = take(first, new Float32Array(n));
    const across = placesAlong(w, width);
    const down = placesAlong(h, height);
    const [left, part, top, low] = [across.first, across.part, down.first, down.part].map(put);
    const colours = put(Float32Array.from(used.flatMap(j => [palette[j].L, palette[j].a, palette[j].b])));
    const [L, a, b] = [plane(width * height), plane(width * height), plane(width * height)];
    const index = room(width * height);
    // The lead of a straight edge's winner rises by 0.8 ÷ σ a sketch pixel; this turns lead into distance in full-size pixels.
    const sharp = Math.max(0.55, radius) / (0.8 * (w / width));
    kernels.drawAreas(covers, n * 4, slot, colours, w, h, left, part, width, top, low, height, sharp, L, a, b, index);
    take(L, out.L);
    take(a, out.a);
    take(b, out.b);
    const names = put(Uint8Array.from({ length: 256 }, (_, k) => used[k] ?? 0));
    const named = (at: number, count: number): Uint8Array => {
      kernels.relabel(at, count, names);
      return take(at, new Uint8Array(count));
    };
    return { width, height, index: named(index, width * height), margin, sketchIndex: named(slot, n) };
  });
}

/** 1 for each cluster that is given colour `j`, as a table of bytes. */
function tableOf(colourOf: number[], j: number): Uint8Array {
  const table = new Uint8Array(256);
  colourOf.forEach((of, c) => (table[c] = of === j ? 1 : 0));
  return table;
}
