import { fractalNoise } from '@zinc/core/number/noise';
import { clamp } from '@zinc/core/number/scalar';
import { pow, sin } from '@zinc/core/number/trig';
import type { Lab } from '@zinc/core';
import { mixLab, type Paint } from './canvas.ts';

/** Half-width of a leaf along its length, 0 at both ends, 1 at its widest. */
export function leafWidth(t: number): number {
  return pow(sin(Math.PI * pow(clamp(t, 0.001, 0.999), 0.8)), 0.9);
}

/** A leaf's surface: a rib, side veins and a mottled blade. */
export function leafPaint(blade: Lab, vein: Lab, veins: number, seed: number): Paint {
  return (t, s, x, y) => {
    const across = Math.abs(s);
    const rib = across < 0.05 + 0.05 * (1 - t) ? 0.8 : 0;
    const phase = (t * veins - across * 0.9 + 100) % 1;
    const side = Math.abs(phase - 0.5) > 0.44 ? 0.45 : 0;
    const c = mixLab(blade, vein, Math.max(rib, side));
    return { L: c.L + (fractalNoise(x * 30, y * 30, seed, 3) - 0.5) * 0.07 - (s > 0 ? 0.04 : 0), a: c.a, b: c.b };
  };
}

/** The places of a row of leaves, ribs or scales, from its ends to its middle, so that the middle lies uppermost. */
export const outerFirst = (count: number): number[] =>
  Array.from({ length: count }, (_, k) => k).sort((p, q) => Math.abs(q - (count - 1) / 2) - Math.abs(p - (count - 1) / 2));
