import { floatsAt, kernels, plane, put, within } from '@zinc/kernels';
import { atan2, cos, length2, sin } from '../number/trig.ts';
import type { Fingerprint } from './types.ts';

const TILE = 64;
const TURNS = Float32Array.from({ length: TILE }, (_, k) =>
  k < TILE / 2 ? cos((-2 * Math.PI * k) / TILE) : sin((-2 * Math.PI * (k - TILE / 2)) / TILE),
);
const WINDOW = Float32Array.from({ length: TILE }, (_, i) => 0.5 - 0.5 * cos((2 * Math.PI * (i + 0.5)) / TILE));
const HOP = 64;

/**
 * Looks for dots and hatching: 64-pixel tiles are windowed and transformed; a tile counts as periodic when one peak holds most of the
 * energy of its middle band. `dots` is near 1 when the peak has a partner at right angles.
 */
export function measurePeriod(L: Float32Array, width: number, height: number): Fingerprint['texture']['period'] {
  return within(() => periodsOf(put(L), width, height));
}

function periodsOf(at: number, width: number, height: number): Fingerprint['texture']['period'] {
  const [window, turns] = [WINDOW, TURNS].map(put);
  const [re, im] = [plane(TILE * TILE), plane(TILE * TILE)];
  const powers = floatsAt(re, TILE * TILE);
  const power = (x: number, y: number): number => powers[((y + TILE) % TILE) * TILE + ((x + TILE) % TILE)];
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
      if (kernels.spectrum(at, width, tx, ty, TILE, window, turns, 1e-4, re, im) < 1e-4) continue;
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
