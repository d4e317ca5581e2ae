import { atan2, cos, length2, sin } from '../number/trig.ts';

/** In-place radix-2 FFT of `n` values starting at `offset`, `stride` apart (Cooley & Tukey 1965). */
function fft(re: Float64Array, im: Float64Array, offset: number, stride: number, n: number): void {
  for (let i = 1, j = 0; i < n; i++) {
    let bit = n >> 1;
    for (; j & bit; bit >>= 1) j ^= bit;
    j ^= bit;
    if (i < j) {
      const p = offset + i * stride;
      const q = offset + j * stride;
      [re[p], re[q]] = [re[q], re[p]];
      [im[p], im[q]] = [im[q], im[p]];
    }
  }
  for (let size = 2; size <= n; size <<= 1) {
    const half = size >> 1;
    const turn = TILE / size;
    for (let i = 0; i < n; i += size)
      for (let k = 0; k < half; k++) {
        const cr = TURN_COS[k * turn];
        const ci = TURN_SIN[k * turn];
        const p = offset + (i + k) * stride;
        const q = p + half * stride;
        const xr = re[q] * cr - im[q] * ci;
        const xi = re[q] * ci + im[q] * cr;
        re[q] = re[p] - xr;
        im[q] = im[p] - xi;
        re[p] += xr;
        im[p] += xi;
      }
  }
}

const TILE = 64;
const TURN_COS = Float64Array.from({ length: TILE / 2 }, (_, k) => cos((-2 * Math.PI * k) / TILE));
const TURN_SIN = Float64Array.from({ length: TILE / 2 }, (_, k) => sin((-2 * Math.PI * k) / TILE));
const WINDOW = Float64Array.from({ length: TILE }, (_, i) => 0.5 - 0.5 * cos((2 * Math.PI * (i + 0.5)) / TILE));
const HOP = 64;

/**
 * Looks for dots and hatching: 64-pixel tiles are windowed and transformed; a tile counts as periodic when one peak holds most of the
 * energy of its middle band. `dots` is near 1 when the peak has a partner at right angles.
 */
export function measurePeriod(
  L: Float32Array,
  width: number,
  height: number,
): { share: number; length: number; angle: number; dots: number } {
  const re = new Float64Array(TILE * TILE);
  const im = new Float64Array(TILE * TILE);
  const power = (x: number, y: number): number => {
    const i = ((y + TILE) % TILE) * TILE + ((x + TILE) % TILE);
    return re[i] * re[i] + im[i] * im[i];
  };
  let tiles = 0;
  let hits = 0;
  let weights = 0;
  let lengths = 0;
  let c2 = 0;
  let s2 = 0;
  let dots = 0;
  for (let ty = 0; ty + TILE <= height; ty += HOP)
    for (let tx = 0; tx + TILE <= width; tx += HOP) {
      // Every other tile, as on a chessboard, tells enough.
      if (((tx + ty) / HOP) & 1) continue;
      tiles++;
      let mean = 0;
      for (let y = 0; y < TILE; y++) for (let x = 0; x < TILE; x++) mean += L[(ty + y) * width + tx + x];
      mean /= TILE * TILE;
      let variance = 0;
      for (let y = 0; y < TILE; y++)
        for (let x = 0; x < TILE; x++) {
          const d = L[(ty + y) * width + tx + x] - mean;
          variance += d * d;
          re[y * TILE + x] = d * WINDOW[x] * WINDOW[y];
          im[y * TILE + x] = 0;
        }
      if (variance / (TILE * TILE) < 1e-4) continue;
      for (let y = 0; y < TILE; y++) fft(re, im, y * TILE, 1, TILE);
      for (let x = 0; x <= 31; x++) fft(re, im, x, TILE, TILE);
      let total = 0;
      let peak = 0;
      let px = 0;
      let py = 0;
      for (let y = -30; y <= 30; y++)
        for (let x = 0; x <= 30; x++) {
          const f2 = x * x + y * y;
          if (f2 < 25 || f2 > 900 || (x === 0 && y < 0)) continue;
          const p = power(x, y);
          total += p;
          if (p > peak) {
            peak = p;
            px = x;
            py = y;
          }
        }
      if (total <= 0) continue;
      let around = 0;
      for (let y = -1; y <= 1; y++) for (let x = px > 0 ? -1 : 0; x <= 1; x++) around += power(px + x, py + y);
      const ratio = around / total;
      const frequency = length2(px, py);
      if (ratio < 0.28 || frequency < 6) continue;
      // Only x ≥ 0 was transformed; the partner at right angles is folded into that half by symmetry.
      const [ox, oy] = py <= 0 ? [-py, px] : [py, -px];
      let partner = 0;
      for (let y = -1; y <= 1; y++) for (let x = ox > 0 ? -1 : 0; x <= 1; x++) partner = Math.max(partner, power(ox + x, oy + y));
      const line = atan2(py, px) + Math.PI / 2;
      hits++;
      weights += ratio;
      lengths += (ratio * TILE) / frequency;
      c2 += ratio * cos(2 * line);
      s2 += ratio * sin(2 * line);
      dots += ratio * Math.min(1, (2 * partner) / peak);
    }
  if (weights === 0) return { share: 0, length: 0, angle: 0, dots: 0 };
  return { share: hits / tiles, length: lengths / weights, angle: 0.5 * atan2(s2, c2), dots: dots / weights };
}
