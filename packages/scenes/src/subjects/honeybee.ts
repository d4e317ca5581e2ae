import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const honeybee: DrawnSubject = {
  name: 'honeybee',
  words: ['honeybee', 'honeybees', 'honey bee', 'honey bees', 'bee', 'bees'],
  parts: ['stripes'],
  leans: 0.5,
  draw(canvas, random, seed) {
    const ground = hex('#f4efdf');
    canvas.backdrop(ground, ground, ground, 1.5);
    const tilt = (random() - 0.5) * 0.5;
    const amber = hex('#e0981f');
    const black = hex('#2a1d14');
    const fur = hex('#b9822f');
    const size = 1.12 + random() * 0.1;
    const cx = 0.5;
    const cy = 0.5;
    const at = (x: number, y: number): Point => [
      cx + size * (x * cos(tilt) - y * sin(tilt)),
      cy + size * (x * sin(tilt) + y * cos(tilt)),
    ];
    const spreadWings = 0.85 + random() * 0.3;
    for (const side of [-1, 1]) {
      const legs: [number, number][] = [
        [0.17, -0.12],
        [0.22, 0.03],
        [0.2, 0.18],
      ];
      legs.forEach(([reach, drop], k) =>
        canvas.ribbon(
          [
            at(side * 0.05, -0.07 + k * 0.05),
            at(side * reach * 0.75, drop * 0.6 - 0.03 + k * 0.02),
            at(side * (reach + 0.02), drop + 0.02),
            at(side * (reach + 0.045), drop + 0.08 * (k ? 1 : -1)),
          ],
          t => 0.013 * (1 - t * 0.7),
          black,
          { round: 0.9 },
        ),
      );
      canvas.ribbon([at(side * 0.02, -0.22), at(side * 0.06, -0.28), at(side * 0.11, -0.3)], t => 0.008 * (1 - t * 0.4), black, {
        round: 0.9,
      });
      const wing = (tip: Point, half: number, h: number): void =>
        canvas.ribbon(
          [at(side * 0.045, -0.09), at(side * tip[0] * 0.55, tip[1] * 0.7 - 0.06), at(side * tip[0], tip[1])],
          t => half * leafWidth(t * 0.93 + 0.05) * size + 0.001,
          (t, s) => {
            const vein =
              Math.abs(Math.abs(s) - 0.35 * t) < 0.035 || Math.abs(((t * 4.2 + s * 0.3) % 1) - 0.5) > 0.47 || Math.abs(s) > 0.93;
            return vein ? hex('#8d7c5e') : mixLab(hex('#dfe3dc'), hex('#f3f0e4'), t);
          },
          { round: 0.15, height: h, gloss: 0.5 },
        );
      wing([0.25 * spreadWings, 0.1], 0.045, 0.05);
      wing([0.34 * spreadWings, -0.09], 0.062, 0.06);
    }
    const stripes = canvas.many('stripes', 5 + Math.floor(random() * 2));
    canvas.ribbon(
      [at(0, -0.02), at(0, 0.14), at(0, 0.29)],
      t => 0.088 * size * Math.sqrt(Math.max(0, sin(Math.PI * (0.14 + 0.86 * t)))) * (1 - 0.18 * t),
      (t, s, x, y) => {
        const band = (t * stripes + 0.15 * s * s) % 1;
        const c = mixLab(amber, black, smoothstep(0.46, 0.54, band));
        return { L: c.L + (fractalNoise(x * 90, y * 90, seed, 2) - 0.5) * 0.08, a: c.a, b: c.b };
      },
      { round: 0.9, height: 0.08, gloss: 0.5 },
    );
    canvas.blob(
      ...at(0, -0.09),
      0.087 * size,
      0.08 * size,
      tilt,
      (_, r, u, v) => mixLab(fur, hex('#6d4a1d'), smoothstep(0.2, 1, r + (fractalNoise(u * 9, v * 9, seed) - 0.5) * 0.6)),
      {
        height: 0.1,
        gloss: 0.05,
      },
    );
    for (let k = 0; k < 160; k++) {
      const angle = random() * 6.2832;
      const r = 0.02 + 0.068 * Math.sqrt(random());
      canvas.ribbon(
        [
          at(cos(angle) * r, -0.09 + sin(angle) * r * 0.94),
          at(cos(angle + 0.15) * (r + 0.021), -0.09 + sin(angle + 0.15) * (r + 0.021) * 0.94),
        ],
        t => 0.0024 * (1 - t * 0.7),
        mixLab(hex('#e3bb66'), hex('#8a5a1e'), random()),
        { round: 0.3, height: 0.12 },
      );
    }
    canvas.blob(...at(0, -0.2), 0.064 * size, 0.05 * size, tilt, hex('#3a2818'), { height: 0.09, gloss: 0.3 });
    for (const side of [-1, 1])
      canvas.blob(...at(side * 0.05, -0.205), 0.024 * size, 0.039 * size, tilt + side * 0.3, hex('#1c120c'), {
        height: 0.12,
        gloss: 1,
      });
  },
};
