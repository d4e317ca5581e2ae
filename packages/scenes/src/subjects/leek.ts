import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import type { DrawnSubject } from './types.ts';

export const leek: DrawnSubject = {
  name: 'leek',
  words: ['leek', 'leeks'],
  parts: ['leaves'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f0ece2'), hex('#eae2d2'), hex('#d9cdb8'), 0.78);
    const bunch = 1 + Math.floor(random() * 2.4);
    const count = canvas.single ? 1 : bunch;
    const places = count === 1 ? [0.5] : count === 2 ? [0.41, 0.6] : [0.37, 0.63, 0.5];
    places.forEach((x0, k) => {
      const lean = (x0 - 0.5) * 0.5 + (random() - 0.5) * 0.08;
      const half = 0.042 + random() * 0.012;
      const foot = 0.84 + (k === 2 ? 0.03 : 0);
      const at = (d: number, o = 0): Point => [x0 + lean * d * 0.5 + o, foot - d * 0.42];
      canvas.shadow(x0 + 0.04, foot + 0.015, 0.1, 0.025, 0.35);
      for (let r = 0; r < 22; r++) {
        const f = r / 21 - 0.5;
        const l = 0.03 + random() * 0.035;
        canvas.ribbon(
          [
            [x0 + f * half * 1.7, foot - 0.006],
            [x0 + f * half * 2.2, foot + l * 0.5],
            [x0 + f * half * 2.6 + (random() - 0.5) * 0.03, foot + l],
          ],
          t => 0.0022 * (1 - 0.6 * t),
          hex('#d9cba6'),
          { round: 0.6 },
        );
      }
      // Straps in two ranks, the outer ones folding over.
      canvas.each('leaves', 7 + Math.floor(random() * 3), random, (j, straps, random) => {
        const side = j % 2 === 0 ? -1 : 1;
        const rank = Math.floor(j / 2) / (straps / 2);
        const out = side * (0.16 - rank * 0.1) * (0.85 + random() * 0.3);
        const up = 0.3 + rank * 0.12;
        const droop = (1 - rank) * (0.1 + random() * 0.09);
        const [bx, by] = at(0.86);
        const spine: Point[] = [
          [bx, by + 0.02],
          [bx + out * 0.3 + lean * 0.1, by - up * 0.5],
          [bx + out * 0.8 + lean * 0.15, by - up * 0.92],
          [bx + out * 1.25 + lean * 0.15, by - up * 0.92 + droop],
        ];
        const green = mixLab(hex('#5f8a5a'), hex('#365f4c'), random() * 0.8);
        canvas.ribbon(
          spine,
          t => half * (0.95 - 0.2 * t) * (t > 0.8 ? Math.max(0, 1 - (t - 0.8) / 0.2) : 1) * (1 - 0.25 * rank) + 0.001,
          (t, u, x, y) => {
            const vein = sin(u * 26) * 0.012;
            const c = mixLab(hex('#c9d6a4'), green, smoothstep(0.02, 0.3, t));
            return { L: c.L + vein + (fractalNoise(x * 12, y * 30, seed + j, 2) - 0.5) * 0.05, a: c.a, b: c.b };
          },
          { round: 0.35, cup: 0.55 * side, height: 0.03 + 0.01 * rank, bend: 0.8 },
        );
      });
      canvas.ribbon(
        [at(0), at(0.35), at(0.7), at(0.95)],
        t => half * (t < 0.08 ? 1.14 - 1.2 * (0.08 - t) * 2 : 1.06 - 0.08 * t),
        (t, u, x, y) => {
          const c = mixLab(hex('#f4f1e2'), hex('#aebf83'), smoothstep(0.45, 1, t));
          return { L: c.L + sin(u * 17) * 0.014 + (fractalNoise(x * 10, y * 40, seed, 2) - 0.5) * 0.03, a: c.a, b: c.b };
        },
        { round: 0.95, height: 0.1, gloss: 0.3 },
      );
    });
  },
};
