/** A source of numbers in [0, 1), repeatable for its seed. */
export type Random = () => number;

/** Integer finaliser (32 bits in, 32 bits out) with good avalanche: every input bit reaches every output bit. */
export function mix32(x: number): number {
  let h = x >>> 0;
  h = Math.imul(h ^ (h >>> 16), 0x7feb352d);
  h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
  return (h ^ (h >>> 16)) >>> 0;
}

/** {@link mix32} backwards: the multipliers are the inverses of its own modulo 2³². */
export function unmix32(x: number): number {
  let h = (x ^ (x >>> 16)) >>> 0;
  h = Math.imul(h, 0x43021123);
  h = Math.imul(h ^ (h >>> 15) ^ (h >>> 30), 0x1d69e2a5);
  return (h ^ (h >>> 16)) >>> 0;
}

/** 32-bit hash of a text (FNV-1a, then {@link mix32}). */
export function hashText(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return mix32(h);
}

/** The generator for one named pass: adding a pass never changes the numbers another one draws. */
export function randomFor(seed: number, pass: string): Random {
  let state = mix32(seed ^ hashText(pass));
  return () => {
    state = (state + 0x9e3779b9) >>> 0;
    return mix32(state) / 4294967296;
  };
}

/** A number in [0, 1) that belongs to the lattice point (x, y) under `seed`. */
export function latticeHash(x: number, y: number, seed: number): number {
  return mix32(Math.imul(x | 0, 0x27d4eb2d) ^ Math.imul(y | 0, 0x165667b1) ^ seed) / 4294967296;
}
