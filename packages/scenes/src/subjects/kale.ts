import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafWidth, outerFirst } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const kale: DrawnSubject = {
  name: 'kale',
  words: ['kale', 'curly kale', 'kale leaves', 'leaf of kale'],
  parts: ['leaves'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f1eee4'), hex('#ece5d6'), hex('#d8ccb6'), 0.86);
    const purple = random() < 0.35;
    const blade = hex(purple ? '#5b3a5e' : '#4a7d55');
    const deep = hex(purple ? '#2f2440' : '#26523f');
    const rib = hex(purple ? '#c58ab0' : '#cfdfae');
    canvas.shadow(0.52, 0.9, 0.2, 0.035, 0.4);
    canvas.each('leaves', 5 + Math.floor(random() * 3), random, (i, leaves, random) => {
      const k = outerFirst(leaves)[i];
      const f = (k / Math.max(1, leaves - 1)) * 2 - 1;
      const angle = -1.571 + f * 0.74 + (random() - 0.5) * 0.14;
      const length = (0.6 - Math.abs(f) * 0.15) * (0.94 + random() * 0.1);
      const bend = f * 0.07;
      const at = (t: number): Point => [
        0.5 + f * 0.02 + cos(angle) * length * t + bend * t * t,
        0.89 + sin(angle) * length * t + Math.abs(bend) * 0.9 * t * t,
      ];
      // Frilled edge: rows of small curls, the far ones first.
      const frills = 15;
      const front = mixLab(blade, deep, random() * 0.45);
      canvas.ribbon(
        [at(0.26), at(0.55), at(0.8), at(1)],
        t => 0.085 * leafWidth(t * 0.94 + 0.04) + 0.004,
        mixLab(front, deep, 0.5),
        {
          round: 0.4,
          cup: 0.5,
          height: 0.04,
        },
      );
      for (let q = 0; q < frills; q++) {
        const t = 0.3 + (0.7 * q) / (frills - 1);
        const [x, y] = at(t);
        const half = 0.1 * leafWidth((t - 0.26) / 0.78) + 0.01;
        for (const side of [-1, 1])
          for (let ring = 0; ring < 2; ring++) {
            const d = half * (0.62 + 0.48 * ring) * (0.9 + random() * 0.2);
            const a = angle + side * 1.45;
            const r = 0.031 * (0.8 + random() * 0.5) * (1 - 0.25 * t);
            const px = x + cos(a) * d;
            const py = y + sin(a) * d + (random() - 0.5) * 0.01;
            canvas.blob(
              px,
              py,
              r * 1.15,
              r * 0.8,
              a + random(),
              (_, rr, u, v) => {
                const n = fractalNoise(u * 3 + q, v * 3 + k, seed, 2) - 0.5;
                const c = mixLab(front, mixLab(front, rib, 0.45), smoothstep(0.55, 1, rr + n * 0.6));
                return { L: c.L + n * 0.1, a: c.a, b: c.b };
              },
              { round: 0.9, height: 0.06 + 0.02 * ring + 0.01 * (1 - Math.abs(f)), lobes: 5, lobeDepth: 0.16, gloss: 0.08 },
            );
          }
      }
      canvas.ribbon(
        [at(0), at(0.3), at(0.6), at(0.97)],
        t => 0.019 * (1 - 0.78 * t) + 0.001,
        (t, s) => mixLab(rib, front, 0.15 + 0.5 * t + 0.12 * s),
        {
          round: 0.95,
          height: 0.16,
          gloss: 0.3,
        },
      );
      for (let q = 0; q < 5; q++) {
        const [x, y] = at(0.4 + q * 0.11);
        for (const side of [-1, 1]) {
          const a = angle + side * 0.85;
          const l = 0.075 * (1 - q * 0.1);
          canvas.ribbon(
            [
              [x, y],
              [x + cos(a) * l, y + sin(a) * l + 0.004 * sin(q)],
            ],
            t => 0.005 * (1 - 0.7 * t),
            mixLab(rib, front, 0.35),
            { round: 0.8, height: 0.14 },
          );
        }
      }
    });
  },
};
