import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { cos, pow, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafPaint, leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const beetroot: DrawnSubject = {
  name: 'beetroot',
  words: ['beetroot', 'beetroots', 'beet', 'beets'],
  parts: ['leaves'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f0ece4'), hex('#ebe3d6'), hex('#d9ccb8'), 0.74);
    const skin = hex(random() < 0.7 ? '#6b1f3a' : '#8a2340');
    const stem = hex('#b5244f');
    const blade = hex('#47713a');
    const x0 = 0.5 + (random() - 0.5) * 0.06;
    const y0 = 0.63;
    const r = 0.165 + random() * 0.025;
    const sliced = random() < 0.4;
    canvas.shadow(x0 + 0.05, y0 + r * 1.08, r * 1.75, r * 0.4, 0.45);
    canvas.each('leaves', 5 + Math.floor(random() * 3), random, (j, leaves, random) => {
      const f = (j + 0.5) / leaves - 0.5;
      const angle = -Math.PI / 2 + f * 1.5 + (random() - 0.5) * 0.16;
      const length = 0.34 + random() * 0.06;
      const by = y0 - r * 0.92;
      const droop = f * 0.16;
      const at = (k: number, d: number): Point => [
        x0 + f * 0.05 + cos(angle) * length * k + droop * d,
        by + sin(angle) * length * k + Math.abs(droop) * d * 0.5,
      ];
      const spine = [at(0, 0), at(0.45, 0.2), at(0.8, 1), at(1, 1.9)];
      canvas.ribbon(spine, t => 0.013 * (1 - 0.45 * t), mixLab(stem, hex('#8c1d3f'), random() * 0.6), {
        round: 0.95,
        height: 0.03,
        gloss: 0.4,
      });
      const waves = 4 + random() * 2;
      canvas.ribbon(
        spine.slice(1),
        t => 0.062 * leafWidth(t) * (1 + 0.12 * sin(t * 6.28 * waves)) + 0.003,
        leafPaint(mixLab(blade, hex('#2f5a3c'), random() * 0.6), mixLab(stem, hex('#c04a6a'), 0.4), 6, seed + j),
        { round: 0.3, cup: 0.55, height: 0.04 + j * 0.004, bend: 0.6 },
      );
    });
    const sway = random() - 0.5;
    canvas.ribbon(
      [
        [x0, y0 + r * 0.85],
        [x0 + 0.012 * sway, y0 + r * 1.2],
        [x0 + 0.05 * sway, y0 + r * 1.5],
        [x0 + 0.14 * sway, y0 + r * 1.68],
      ],
      t => 0.034 * pow(1 - t, 1.8) + 0.0015,
      mixLab(skin, hex('#caa58f'), 0.2),
      { round: 0.9, height: 0.03 },
    );
    canvas.blob(
      x0,
      y0,
      r * 1.02,
      r * (0.94 + random() * 0.1),
      0,
      (_, __, u, v) => {
        const n = fractalNoise(u * 5 + seed, v * 12, seed, 3) - 0.5;
        const c = mixLab(skin, hex('#8d6a58'), smoothstep(0.55, 1.1, v + n * 0.7) * 0.7);
        const ring = Math.abs(sin(v * 14 + n * 4)) > 0.97 ? -0.05 : 0;
        return { L: c.L + n * 0.08 + ring, a: c.a, b: c.b };
      },
      { gloss: 0.35, height: 0.1, power: 2.15 },
    );
    if (!sliced) return;
    const sx = x0 + (random() < 0.5 ? -1 : 1) * 0.27;
    canvas.shadow(sx + 0.03, y0 + 0.165, 0.17, 0.045, 0.45);
    canvas.blob(sx, y0 + 0.085, 0.112, 0.092, 0.1, mixLab(skin, hex('#2d0d1c'), 0.3), { height: 0.05 });
    canvas.blob(
      sx,
      y0 + 0.075,
      0.108,
      0.086,
      0.1,
      (_, rr) => {
        const band = sin(rr * 24 + fractalNoise(rr * 3, sx * 9, seed) * 1.5);
        return mixLab(hex('#8e1740'), hex('#d4587f'), smoothstep(-0.1, 0.8, band) * 0.75);
      },
      { round: 0.12, height: 0.09, gloss: 0.5 },
    );
  },
};
