import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { cos, pow, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafPaint, leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const radish: DrawnSubject = {
  name: 'radish',
  words: ['radish', 'radishes'],
  parts: ['leaves'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f3ede0'), hex('#efe6d4'), hex('#e2d5bd'), 0.72);
    const bunch = 1 + Math.floor(random() * 2.7);
    const count = canvas.single ? 1 : bunch;
    const light = hex('#4f8f3a');
    const deep = hex('#2f6b35');
    const vein = hex('#a9cf7a');
    const skin = hex(['#c8213f', '#c8213f', '#b81f56', '#9a2a78'][Math.floor(random() * 4)]);
    const tip = hex('#f6e9ea');
    const places = count === 1 ? [0.5] : count === 2 ? [0.37, 0.63] : [0.315, 0.685, 0.5];
    places.forEach((x0, k) => {
      const s = (count === 1 ? 1.06 : count === 2 ? 0.84 : 0.74) * (0.92 + random() * 0.16);
      const y0 = (count === 1 ? 0.67 : 0.64) + random() * 0.03 + (k === 2 ? 0.05 : 0);
      const r = 0.13 * s;
      canvas.shadow(x0 + 0.04, y0 + r * 1.15, r * 1.7, r * 0.42, 0.4);
      canvas.each('leaves', 4 + Math.floor(random() * 3), random, (j, leaves, random) => {
        const f = (j + 0.5) / leaves - 0.5;
        const angle = -Math.PI / 2 + f * 1.7 + (random() - 0.5) * 0.2;
        const length = (0.3 + random() * 0.09) * s * 0.97;
        const bx = x0;
        const by = y0 - r * 0.95;
        const droop = f * 0.13 + (random() - 0.5) * 0.05;
        const spine: Point[] = [
          [bx, by],
          [bx + cos(angle) * length * 0.45, by + sin(angle) * length * 0.45],
          [bx + cos(angle) * length * 0.8 + droop, by + sin(angle) * length * 0.8],
          [bx + cos(angle) * length + droop * 1.9, by + sin(angle) * length + Math.abs(droop) * 0.8],
        ];
        canvas.ribbon(spine, t => (t < 0.3 ? 0.009 : 0.006) * s, hex('#b9d38a'), { round: 0.9, height: 0.02 });
        const lobes = 3 + random() * 3;
        canvas.ribbon(
          spine.slice(1),
          t => (0.05 * leafWidth(t) * (1 + 0.22 * sin(t * 6.28 * lobes)) + 0.004) * s,
          leafPaint(mixLab(light, deep, random() * 0.7), vein, 7, seed + j),
          { round: 0.35, cup: 0.5, height: 0.03 + j * 0.004, bend: 0.6 },
        );
      });
      const sway = random() - 0.4;
      canvas.ribbon(
        [
          [x0, y0 + r * 0.8],
          [x0 + 0.01, y0 + r * 1.2],
          [x0 + 0.03 * sway, y0 + r * 1.6],
          [x0 + 0.08 * sway, y0 + r * 1.9],
        ],
        t => 0.02 * s * pow(1 - t, 1.6) + 0.0015,
        mixLab(tip, skin, 0.15),
        { round: 0.9, height: 0.02 },
      );
      canvas.blob(
        x0,
        y0,
        r * (0.95 + random() * 0.1),
        r * (1 + random() * 0.14),
        0,
        (_, __, u, v) => {
          const n = fractalNoise(u * 4 + seed, v * 9, seed, 3) - 0.5;
          const c = mixLab(skin, tip, smoothstep(0.45, 1.05, v + n * 0.5));
          const ring = Math.abs(sin(v * 17 + u * 1.5 + n * 3)) > 0.985 ? -0.04 : 0;
          return { L: c.L + n * 0.06 + ring, a: c.a, b: c.b };
        },
        { gloss: 0.9, height: 0.1, power: 2.1 },
      );
    });
  },
};
