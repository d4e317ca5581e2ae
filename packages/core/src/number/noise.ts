import { interpolateAt, kernels, plane, take, within, zeros, type Places } from '@zinc/kernels';
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

/** Places of pixels in a lattice `size` pixels wide, eased, so that the noise has no corners. */
function easedPlaces(count: number, size: number): Places {
  const first = new Int32Array(count);
  const part = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    const at = i / size;
    first[i] = Math.floor(at);
    const t = at - first[i];
    part[i] = t * t * (3 - 2 * t);
  }
  return { first, part };
}

/**
 * A whole plane of fractal noise, roughly in [−1, 1]; the coarsest lattice cell is `cell` pixels wide. Lattices are hashed once and
 * interpolated row by row, so the cost is a few operations a pixel whatever the cell.
 */
export function noisePlane(width: number, height: number, cell: number, seed: number, octaves = 3): Float32Array {
  return within(() => {
    const out = zeros(width * height);
    let weight = 0.5;
    let total = 0;
    let size = Math.max(1, cell);
    for (let o = 0; o < octaves; o++) {
      const gw = Math.ceil(width / size) + 2;
      const gh = Math.ceil(height / size) + 2;
      within(() => {
        const lattice = plane(gw * gh);
        kernels.lattice(gw, gh, seed + o * 31, lattice);
        interpolateAt(lattice, gw, gh, easedPlaces(width, size), easedPlaces(height, size), out, weight, true);
      });
      total += weight;
      if (size <= 1) break;
      weight *= 0.55;
      size = Math.max(1, size / 2.1);
    }
    kernels.scale(out, width * height, 2 / total);
    return take(out, new Float32Array(width * height));
  });
}
