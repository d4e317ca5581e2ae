import { fractalNoise } from '@zinc/core/number/noise';
import { clamp, smoothstep } from '@zinc/core/number/scalar';
import { pow, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import type { DrawnSubject } from './types.ts';

export const beanPod: DrawnSubject = {
  name: 'broad bean pod',
  words: ['broad bean pod', 'broad bean pods', 'broad bean', 'broad beans', 'bean pod', 'bean pods', 'beans'],
  parts: ['beans'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f2eee2'), hex('#efe6d6'), hex('#e3d8c2'), 1.5);
    const skin = hex(['#6f9e48', '#7aa84e', '#5d8a4a'][Math.floor(random() * 3)]);
    const fur = hex('#f1efdc');
    const usual = 5 + Math.floor(random() * 2);
    const beans = canvas.many('beans', usual);
    const bow = 0.1 + random() * 0.08;
    const at = (t: number, off = 0): Point => {
      const x = 0.13 + 0.74 * t;
      const y = 0.6 - bow * 4 * t * (1 - t) - 0.1 * (t - 0.5);
      return [x - off * 0.25 * (0.5 - t), y + off];
    };
    canvas.shadow(0.52, 0.67, 0.4, 0.07, 0.4);
    const spine = (off: number): Point[] => [0, 0.17, 0.34, 0.5, 0.66, 0.83, 1].map(t => at(t, off));
    const half = (t: number): number => 0.085 * pow(clamp(sin(Math.PI * (0.04 + 0.92 * t))), 0.55);
    // The far half, its furred inside, the beans, then the near half rolled back beneath them.
    canvas.ribbon(spine(-0.035), t => half(t) + 0.004, mixLab(skin, hex('#2f4d2b'), 0.4), {
      round: 0.9,
      height: 0.02,
      gloss: 0.2,
    });
    canvas.ribbon(
      spine(-0.012),
      t => half(t) * 0.86,
      (t, s, x, y) => {
        const n = fractalNoise(x * 60, y * 60, seed, 2) - 0.5;
        return {
          ...mixLab(fur, skin, 0.12 + 0.35 * Math.abs(s) * Math.abs(s)),
          L: fur.L + n * 0.06 - 0.1 * Math.abs(s) - (t < 0.05 ? 0.1 : 0),
        };
      },
      { round: -0.6, height: 0.03, gloss: 0.02 },
    );
    canvas.each('beans', usual, random, (k, _, random) => {
      const t = 0.15 + (0.7 * (k + 0.5)) / beans;
      const [x, y] = at(t, -0.012);
      const size = 0.052 * (0.9 + random() * 0.2) * (1 - 0.5 * Math.abs(t - 0.5));
      const tilt = (t - 0.5) * 0.9 + (random() - 0.5) * 0.3;
      const bean = mixLab(hex('#a9c47a'), hex('#cfd99b'), random());
      canvas.blob(x + 0.006, y + 0.012, size * 1.1, size * 0.85, tilt, mixLab(skin, hex('#33502c'), 0.5), {
        round: 0.2,
        height: 0.04,
      });
      canvas.blob(
        x,
        y,
        size * 1.08,
        size * 0.82,
        tilt,
        (_, __, u, v) => ({ ...bean, L: bean.L + 0.03 * u - (u > 0.74 && Math.abs(v) < 0.3 ? 0.22 : 0) }),
        { height: 0.1, gloss: 0.7, power: 2.3 },
      );
    });
    canvas.ribbon(
      spine(0.052),
      t => half(t) * 0.52 + 0.002,
      (t, s, x, y) => {
        const n = fractalNoise(x * 20, y * 40, seed + 3, 3) - 0.5;
        const bump = 0.03 * sin(t * beans * 6.2);
        const c = mixLab(skin, hex('#b7c97c'), smoothstep(0.2, 1, -s) * 0.5);
        return { L: c.L + n * 0.05 + bump, a: c.a, b: c.b };
      },
      { round: 0.95, height: 0.12, gloss: 0.3 },
    );
    const [tx, ty] = at(1, -0.01);
    canvas.ribbon(
      [
        [tx - 0.03, ty + 0.01],
        [tx + 0.02, ty - 0.01],
        [tx + 0.05, ty - 0.045],
      ],
      t => 0.012 * (1 - t) + 0.001,
      hex('#4a4a2a'),
      { round: 0.9 },
    );
    const [sx, sy] = at(0, 0);
    canvas.ribbon(
      [
        [sx + 0.04, sy],
        [sx - 0.015, sy + 0.012],
        [sx - 0.055, sy - 0.012],
      ],
      t => 0.016 - 0.004 * t,
      mixLab(skin, hex('#6f7f3a'), 0.4),
      { round: 0.9, height: 0.1 },
    );
  },
};
