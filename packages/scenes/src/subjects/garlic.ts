import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { cos, pow, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { outerFirst } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const garlic: DrawnSubject = {
  name: 'garlic bulb',
  words: ['garlic bulb', 'garlic bulbs', 'garlic', 'bulb of garlic', 'head of garlic'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#cfd3c8'), hex('#d9d4c2'), hex('#b3a68c'), 0.7);
    const husk = hex('#f3ede2');
    const blush = hex(['#b38aa6', '#c79ab0', '#a78fb5'][Math.floor(random() * 3)]);
    const cx = 0.5;
    const cy = 0.62;
    const wide = 0.21 + random() * 0.03;
    const tall = 0.2 + random() * 0.02;
    canvas.shadow(cx + 0.06, cy + tall * 0.9, wide * 1.35, 0.055, 0.45);
    for (let r = 0; r < 20; r++) {
      const f = r / 19 - 0.5;
      canvas.ribbon(
        [
          [cx + f * 0.1, cy + tall * 0.9],
          [cx + f * 0.14, cy + tall * 0.9 + 0.02 + random() * 0.025],
        ],
        () => 0.002,
        hex('#b8a67f'),
      );
    }
    const cloves = 7 + Math.floor(random() * 3);
    for (const k of outerFirst(cloves)) {
      const f = (k / (cloves - 1)) * 2 - 1;
      const turn = f * 1.3;
      const foot = cx + sin(turn) * wide * 0.4;
      const belly = cx + sin(turn) * wide * 0.95;
      const half = wide * (0.16 + 0.2 * cos(turn)) * (0.92 + random() * 0.16);
      const spine: Point[] = [
        [foot, cy + tall * 0.88],
        [belly, cy + tall * 0.2],
        [cx + sin(turn) * wide * 0.5, cy - tall * 0.62],
        [cx + sin(turn) * 0.02, cy - tall * 1.15],
      ];
      canvas.ribbon(
        spine,
        t => half * pow(sin(Math.PI * pow(0.06 + 0.9 * t, 0.8)), 0.75) + 0.003,
        (t, s, x, y) => {
          const vein = sin(s * 13 + k) > 0.86 ? -0.045 : 0;
          const n = fractalNoise(x * 12, y * 22, seed + k, 3) - 0.5;
          const c = mixLab(husk, blush, smoothstep(0.1, 0.9, 0.6 - t + n) * 0.55);
          return { L: c.L + vein + n * 0.05, a: c.a, b: c.b };
        },
        { round: 0.85, height: 0.08 + 0.1 * cos(turn), gloss: 0.25 },
      );
    }
    const sway = (random() - 0.5) * 0.12;
    for (let j = -1; j <= 1; j++)
      canvas.ribbon(
        [
          [cx + j * 0.016, cy - tall * 0.8],
          [cx + j * 0.013 + sway * 0.2, cy - tall * 1.35],
          [cx + j * 0.012 + sway, cy - tall * 1.9 - random() * 0.03],
        ],
        t => 0.021 - 0.011 * t,
        (t, s) => mixLab(husk, hex('#d8c79c'), 0.25 + 0.35 * t + 0.1 * sin(s * 14)),
        { round: 0.8, height: 0.22, gloss: 0.1 },
      );
    if (random() < 0.6) {
      const side = random() < 0.5 ? -1 : 1;
      const x = cx + side * (wide + 0.13);
      canvas.shadow(x + 0.02, 0.815, 0.075, 0.02, 0.4);
      canvas.ribbon(
        [
          [x - side * 0.05, 0.81],
          [x, 0.745],
          [x + side * 0.06, 0.73],
        ],
        t => 0.042 * pow(sin(Math.PI * (0.06 + 0.9 * t)), 0.7) + 0.002,
        (_, s) => mixLab(husk, blush, 0.25 + 0.25 * s),
        { round: 0.9, height: 0.1, gloss: 0.3 },
      );
    }
  },
};
