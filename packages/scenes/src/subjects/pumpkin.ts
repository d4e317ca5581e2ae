import { fractalNoise } from '@zinc/core/number/noise';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab } from '../canvas/canvas.ts';
import { outerFirst } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const pumpkin: DrawnSubject = {
  name: 'pumpkin',
  words: ['pumpkin', 'pumpkins'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f1ebdd'), hex('#ece1cd'), hex('#d8c8ab'), 0.7);
    const skin = hex(['#d9772a', '#e08f2f', '#c65f2c', '#7f8f78'][Math.floor(random() * 4)]);
    const deep = mixLab(skin, hex('#5d2f1a'), 0.35);
    const cx = 0.5 + (random() - 0.5) * 0.04;
    const cy = 0.56;
    const wide = 0.3 + random() * 0.05;
    const tall = 0.2 + random() * 0.05;
    canvas.shadow(cx + 0.05, cy + tall * 0.96, wide * 1.2, 0.07, 0.5);
    const ribs = 9 + 2 * Math.floor(random() * 2);
    for (const k of outerFirst(ribs)) {
      const f = (k / (ribs - 1)) * 2 - 1;
      const turn = f * 1.35;
      const x = cx + sin(turn) * wide * 0.74;
      const half = wide * (0.13 + 0.2 * cos(turn)) * (0.95 + random() * 0.1);
      const h = tall * (0.9 + 0.1 * cos(turn));
      const tilt = f * 0.16;
      canvas.blob(
        x,
        cy + Math.abs(f) * 0.012,
        half,
        h,
        tilt,
        (_, r, u, v) => {
          const n = fractalNoise(u * 3 + k * 7, v * 9, seed, 3) - 0.5;
          const furrow = Math.abs(u) > 0.72 ? (Math.abs(u) - 0.72) * 0.5 : 0;
          const c = mixLab(skin, deep, 0.15 + furrow + 0.3 * Math.max(0, v));
          const fleck = Math.abs(sin(v * 23 + u * 5 + n * 8)) > 0.985 ? 0.05 : 0;
          return { L: c.L + n * 0.05 + fleck - (r > 0.94 ? 0.05 : 0), a: c.a, b: c.b };
        },
        { height: 0.06 + 0.12 * cos(turn), gloss: 0.35, power: 2.3, round: 0.95 },
      );
    }
    const sway = (random() - 0.5) * 0.12;
    canvas.blob(cx, cy - tall * 0.86, 0.055, 0.02, 0, hex('#7a6a35'), { height: 0.2, round: 0.5 });
    canvas.ribbon(
      [
        [cx, cy - tall * 0.84],
        [cx + sway * 0.3, cy - tall * 0.84 - 0.06],
        [cx + sway, cy - tall * 0.84 - 0.105],
        [cx + sway * 1.7, cy - tall * 0.84 - 0.115],
      ],
      t => 0.03 - 0.014 * t + (t < 0.12 ? 0.02 * (1 - t / 0.12) : 0),
      (t, s) => {
        const c = mixLab(hex('#8c7a3c'), hex('#55602f'), 0.5 + 0.5 * sin(s * 9 + t * 3));
        return t > 0.93 ? hex('#c9b98a') : c;
      },
      { round: 0.8, height: 0.24, gloss: 0.15, square: true },
    );
    const curl = random() < 0.5 ? -1 : 1;
    const tendril = Array.from({ length: 14 }, (_, i): [number, number] => {
      const a = i * 0.72;
      const r = 0.07 - i * 0.0035;
      return [cx + curl * (0.06 + i * 0.016) + curl * cos(a) * r * 0.4, cy - tall * 0.83 + sin(a) * r * 0.6 - 0.005 * i];
    });
    canvas.ribbon(tendril, () => 0.0045, hex('#5d7a38'), { round: 0.9, height: 0.3 });
  },
};
