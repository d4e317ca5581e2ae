import { kernels, put, room, within } from './heap.ts';
/** For each place of a result: the first of two neighbours in the source and how far towards the second it lies, 0–1. */
export interface Places {
  first: Int32Array;
  part: Float32Array;
}

/**
 * Places of `count` pixels of a result on a side of `from` pixels, centre on centre; `shift` in source pixels moves them. Held inside the
 * source.
 */
export function placesAlong(from: number, count: number, shift = 0): Places {
  const first = new Int32Array(count);
  const part = new Float32Array(count);
  const scale = from / count;
  for (let i = 0; i < count; i++) {
    const at = Math.min(Math.max((i + 0.5) * scale - 0.5 + shift, 0), from - 1);
    first[i] = Math.min(Math.floor(at), Math.max(0, from - 2));
    part[i] = from > 1 ? at - first[i] : 0;
  }
  return { first, part };
}

/** Reads a plane in kernel memory at `across` × `down` places by straight lines, and writes `weight` times it to `to`, or adds it there. */
export function interpolateAt(
  from: number,
  w: number,
  h: number,
  across: Places,
  down: Places,
  to: number,
  weight = 1,
  add = false,
): void {
  within(() => {
    const { length: width } = across.first;
    const { length: height } = down.first;
    const [left, part, top, low] = [across.first, across.part, down.first, down.part].map(put);
    const row = room((w + 1) * 4);
    kernels.bilinear(from, w, h > 1 ? w * 4 : 0, left, part, width, top, low, height, to, weight, add ? 1 : 0, row);
  });
}
