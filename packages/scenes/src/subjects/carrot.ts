import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { cos, pow, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import type { DrawnSubject } from './types.ts';

export const carrot: DrawnSubject = {
  name: 'carrot',
  words: ['carrot', 'carrots'],
  parts: ['leaves'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f2ede1'), hex('#ede4d2'), hex('#dccfb7'), 0.74);
    const skin = hex(['#e2702a', '#e58a2e', '#c9542b', '#e9b64a'][Math.floor(random() * 4)]);
    const leaf = hex('#4e8a3c');
    const bunch = 1 + Math.floor(random() * 2.6);
    const count = canvas.single ? 1 : bunch;
    const places = count === 1 ? [0.5] : count === 2 ? [0.4, 0.6] : [0.33, 0.66, 0.5];
    places.forEach((x0, k) => {
      const s = (count === 1 ? 1.08 : 0.92) * (0.92 + random() * 0.14);
      const lean = (x0 - 0.5) * 0.5 + (random() - 0.5) * 0.12;
      const top = 0.44 + random() * 0.03 + (k === 2 ? 0.03 : 0);
      const at = (d: number, o = 0): Point => [x0 + lean * d * 0.6 + o, top + d * 0.46 * s];
      canvas.shadow(x0 + 0.06, 0.86, 0.14 * s, 0.035, 0.3);
      canvas.each('leaves', 6 + Math.floor(random() * 3), random, (j, fronds, random) => {
        const f = (j + 0.5) / fronds - 0.5;
        const angle = -1.571 + f * 1.25 + (random() - 0.5) * 0.15 - lean * 0.4;
        const length = (0.3 + random() * 0.07) * s;
        const bend = f * 0.12;
        const spine = (t: number): Point => [
          x0 + f * 0.03 + cos(angle) * length * t + bend * t * t,
          top + 0.01 + sin(angle) * length * t + Math.abs(bend) * t * t * 0.6,
        ];
        const green = mixLab(leaf, hex('#2e6233'), random() * 0.7);
        canvas.ribbon(
          [spine(0), spine(0.4), spine(0.75), spine(1)],
          t => 0.007 * s * (1 - 0.6 * t),
          mixLab(green, hex('#b9c97a'), 0.25),
          {
            round: 0.9,
            height: 0.02,
          },
        );
        // Feathery leaflets, paired along the stalk and shorter towards the tip.
        for (let q = 0; q < 9; q++) {
          const t = 0.32 + 0.68 * (q / 8.2);
          const [bx, by] = spine(Math.min(1, t));
          for (const side of [-1, 1]) {
            const a = angle + side * (0.95 - 0.3 * t) + bend * 2;
            const l = 0.085 * s * (1 - 0.62 * Math.abs(t - 0.5) * 1.4) * (0.8 + random() * 0.4);
            canvas.ribbon(
              [
                [bx, by],
                [bx + cos(a) * l * 0.6, by + sin(a) * l * 0.6],
                [bx + cos(a - side * 0.3) * l, by + sin(a - side * 0.3) * l],
              ],
              u => 0.0115 * s * sin(Math.PI * (0.12 + 0.86 * u)) * (1 + 0.3 * sin(u * 25)) + 0.001,
              green,
              { round: 0.4, height: 0.025 + 0.004 * j },
            );
          }
        }
      });
      canvas.ribbon(
        [at(0), at(0.35), at(0.7), at(1, 0.02 * (random() - 0.5))],
        t => 0.07 * s * (t < 0.06 ? 0.72 + 4.6 * t : pow(1 - (t - 0.06) / 0.97, 0.62)) + 0.002,
        (t, u, x, y) => {
          const n = fractalNoise(x * 14, y * 40, seed + k, 3) - 0.5;
          const ring = Math.abs(sin(t * 42 + u * 1.2 + n * 5)) > 0.965 && u * sin(t * 91 + k) > -0.1 ? -0.085 : 0;
          const c = mixLab(skin, hex('#8a5a2a'), smoothstep(0.05, 0, t) * 0.5 + 0.12 * smoothstep(0.8, 1, t));
          return { L: c.L + n * 0.06 + ring, a: c.a, b: c.b };
        },
        { round: 0.95, height: 0.1 + 0.02 * k, gloss: 0.35 },
      );
    });
  },
};
