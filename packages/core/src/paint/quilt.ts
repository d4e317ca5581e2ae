import { randomFor } from '../number/random.ts';

const BLOCK = 20;
const OVERLAP = 7;
const TRIES = 48;

/**
 * A larger piece of texture from a smaller square one by image quilting (Efros & Freeman 2001): square blocks are laid in rows, each chosen to agree
 * with what is there and cut to it along the path of least difference. Returns `count` blocks a side and the side in pixels.
 */
export function quilt(swatch: Float32Array, side: number, count: number, seed: number): { tile: Float32Array; size: number } {
  const step = BLOCK - OVERLAP;
  const size = count * step + OVERLAP;
  const tile = new Float32Array(size * size);
  const random = randomFor(seed, 'quilt');
  const room = side - BLOCK + 1;
  for (let by = 0; by < count; by++)
    for (let bx = 0; bx < count; bx++) {
      const x0 = bx * step;
      const y0 = by * step;
      let best = 0;
      let least = Infinity;
      for (let k = 0; k < TRIES; k++) {
        const from = ((random() * room) | 0) * side + ((random() * room) | 0);
        let off = 0;
        for (let y = 0; y < BLOCK && off < least; y++)
          for (let x = 0; x < BLOCK; x++) {
            if (!((bx > 0 && x < OVERLAP) || (by > 0 && y < OVERLAP))) continue;
            const d = tile[(y0 + y) * size + x0 + x] - swatch[from + y * side + x];
            off += d * d;
          }
        if (off < least) {
          least = off;
          best = from;
        }
      }
      const difference = (x: number, y: number): number => {
        const d = tile[(y0 + y) * size + x0 + x] - swatch[best + y * side + x];
        return d * d;
      };
      const left = bx > 0 ? cheapestCut((along, across) => difference(across, along)) : null;
      const top = by > 0 ? cheapestCut((along, across) => difference(along, across)) : null;
      for (let y = 0; y < BLOCK; y++)
        for (let x = 0; x < BLOCK; x++) {
          if ((left && x < left[y]) || (top && y < top[x])) continue;
          tile[(y0 + y) * size + x0 + x] = swatch[best + y * side + x];
        }
    }
  return { tile, size };
}

/** For each place along an overlap, where across it the cut runs, so that the differences on it are least (dynamic programming). */
function cheapestCut(difference: (along: number, across: number) => number): Uint8Array {
  const cost = new Float32Array(BLOCK * OVERLAP);
  for (let a = 0; a < BLOCK; a++)
    for (let c = 0; c < OVERLAP; c++) {
      let before = 0;
      if (a > 0) {
        before = cost[(a - 1) * OVERLAP + c];
        if (c > 0) before = Math.min(before, cost[(a - 1) * OVERLAP + c - 1]);
        if (c < OVERLAP - 1) before = Math.min(before, cost[(a - 1) * OVERLAP + c + 1]);
      }
      cost[a * OVERLAP + c] = difference(a, c) + before;
    }
  const path = new Uint8Array(BLOCK);
  for (let c = 1; c < OVERLAP; c++)
    if (cost[(BLOCK - 1) * OVERLAP + c] < cost[(BLOCK - 1) * OVERLAP + path[BLOCK - 1]]) path[BLOCK - 1] = c;
  for (let a = BLOCK - 2; a >= 0; a--) {
    const at = path[a + 1];
    path[a] = at;
    for (const c of [at - 1, at + 1])
      if (c >= 0 && c < OVERLAP && cost[a * OVERLAP + c] < cost[a * OVERLAP + path[a]]) path[a] = c;
  }
  return path;
}
