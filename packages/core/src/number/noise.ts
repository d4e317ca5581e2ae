import { latticeHash } from './random.ts';

/** Smooth value noise in [0, 1] at (x, y): one lattice cell is one unit wide. */
export function valueNoise(x: number, y: number, seed: number): number {
  const xi = Math.floor(x);
  const yi = Math.floor(y);
  let u = x - xi;
  let v = y - yi;
  u = u * u * (3 - 2 * u);
  v = v * v * (3 - 2 * v);
  const a = latticeHash(xi, yi, seed);
  const b = latticeHash(xi + 1, yi, seed);
  const c = latticeHash(xi, yi + 1, seed);
  const d = latticeHash(xi + 1, yi + 1, seed);
  return (a + (b - a) * u) * (1 - v) + (c + (d - c) * u) * v;
}

/** Sum of `octaves` of {@link valueNoise}, each half as strong and twice as fine; in [0, 1]. */
export function fractalNoise(x: number, y: number, seed: number, octaves = 4): number {
  let sum = 0;
  let total = 0;
  let weight = 0.5;
  for (let o = 0; o < octaves; o++) {
    sum += weight * valueNoise(x, y, seed + o * 17);
    total += weight;
    weight *= 0.5;
    x *= 2.03;
    y *= 2.03;
  }
  return sum / total;
}

/**
 * A whole plane of fractal noise, roughly in [−1, 1]; the coarsest lattice cell is `cell` pixels wide. Lattices are hashed once and
 * interpolated row by row, so the cost is a few operations a pixel whatever the cell.
 */
export function noisePlane(width: number, height: number, cell: number, seed: number, octaves = 3): Float32Array {
  const out = new Float32Array(width * height);
  let weight = 0.5;
  let total = 0;
  let size = Math.max(1, cell);
  for (let o = 0; o < octaves; o++) {
    const gw = Math.ceil(width / size) + 2;
    const gh = Math.ceil(height / size) + 2;
    const lattice = new Float32Array(gw * gh);
    for (let y = 0, i = 0; y < gh; y++) for (let x = 0; x < gw; x++, i++) lattice[i] = latticeHash(x, y, seed + o * 31) - 0.5;
    for (let y = 0, i = 0; y < height; y++) {
      const gy = y / size;
      const row = Math.floor(gy);
      let v = gy - row;
      v = v * v * (3 - 2 * v);
      const r0 = row * gw;
      for (let x = 0; x < width; x++, i++) {
        const gx = x / size;
        const col = Math.floor(gx);
        let u = gx - col;
        u = u * u * (3 - 2 * u);
        const p = r0 + col;
        const top = lattice[p] + (lattice[p + 1] - lattice[p]) * u;
        const bottom = lattice[p + gw] + (lattice[p + gw + 1] - lattice[p + gw]) * u;
        out[i] += weight * (top + (bottom - top) * v);
      }
    }
    total += weight;
    if (size <= 1) break;
    weight *= 0.55;
    size = Math.max(1, size / 2.1);
  }
  const gain = 2 / total;
  for (let i = 0; i < out.length; i++) out[i] *= gain;
  return out;
}
