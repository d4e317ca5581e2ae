import { fractalNoise } from '@zinc/core/number/noise';
import { lerp } from '@zinc/core/number/scalar';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

const GOODS = [
  ['#c8213f', '#e0476a'],
  ['#e2702a', '#f0953f'],
  ['#6f9e48', '#3f7a3f'],
  ['#f2c84a', '#e0a52f'],
  ['#6b1f3a', '#8a3a5a'],
  ['#f1ead8', '#d8cda8'],
];

export const marketStall: DrawnSubject = {
  name: 'market stall',
  words: ['market stall', 'market stalls', 'vegetable stall', 'stall'],
  made: true,
  leans: 0,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#dfe7ea'), hex('#f1ead9'), hex('#c9bda2'), 0.76);
    const stripe = hex(['#8e2a4b', '#5f7f6b', '#c65f2c', '#3f5f8a'][Math.floor(random() * 4)]);
    const cream = hex('#f6f0e0');
    const wood = hex('#a57c4c');
    canvas.shadow(0.52, 0.885, 0.44, 0.045, 0.45);
    const post = (x: number, w = 0.012): void =>
      canvas.ribbon(
        [
          [x, 0.2],
          [x, 0.88],
        ],
        () => w,
        wood,
        { round: 0.9, height: 0.02 },
      );
    post(0.2, 0.01);
    post(0.8, 0.01);
    canvas.polygon(
      [
        [0.16, 0.4],
        [0.84, 0.4],
        [0.84, 0.6],
        [0.16, 0.6],
      ],
      (_, s, x, y) => ({ ...hex('#6d5a4a'), L: 0.42 - 0.12 * s + (fractalNoise(x * 8, y * 8, seed, 3) - 0.5) * 0.05 }),
      [0, 0.2],
      0.01,
    );
    post(0.1);
    post(0.9);
    // Crates in two tiers, the upper behind, heaped with rounds or with leaves.
    const crate = (x0: number, x1: number, y: number, tall: number, kind: number): void => {
      const [p, q] = GOODS[kind % GOODS.length].map(hex);
      const leafy = kind % GOODS.length === 2;
      for (let k = 0; k < 24; k++) {
        const f = random();
        const x = lerp(x0 + 0.015, x1 - 0.015, f);
        const up = (0.012 + 0.05 * sin(Math.PI * f)) * (1 - (k / 24) * 0.85);
        const c = mixLab(p, q, random());
        if (leafy) {
          const a = -1.571 + (random() - 0.5) * 1.5;
          canvas.ribbon(
            [
              [x, y - up * 0.4],
              [x + cos(a) * 0.03, y - up + sin(a) * 0.03],
              [x + cos(a) * 0.055, y - up + sin(a) * 0.045],
            ],
            t => 0.019 * leafWidth(t) + 0.001,
            c,
            { round: 0.4, cup: 0.4, height: 0.1 },
          );
        } else canvas.blob(x, y - up, 0.021, 0.02, 0, c, { height: 0.1 + 0.002 * k, gloss: 0.6 });
      }
      for (const r of [0, 0.5])
        canvas.polygon(
          [
            [x0, y + r * tall],
            [x1, y + r * tall],
            [x1 - 0.003, y + (r + 0.43) * tall],
            [x0 + 0.003, y + (r + 0.43) * tall],
          ],
          (_, __, x, yy) => ({ ...wood, L: wood.L + 0.05 + (fractalNoise(x * 14, yy * 90, seed + kind, 3) - 0.5) * 0.14 }),
          [0, 0.3],
          0.14,
        );
    };
    const first = Math.floor(random() * 6);
    for (let k = 0; k < 4; k++) crate(0.15 + k * 0.178, 0.318 + k * 0.178, 0.515, 0.062, first + k);
    canvas.polygon(
      [
        [0.09, 0.6],
        [0.91, 0.6],
        [0.91, 0.635],
        [0.09, 0.635],
      ],
      wood,
      [0, -0.4],
      0.12,
    );
    for (let k = 0; k < 3; k++) crate(0.115 + k * 0.262, 0.365 + k * 0.262, 0.645, 0.085, first + k + 4);
    // Front cloth with folds.
    canvas.polygon(
      [
        [0.08, 0.735],
        [0.92, 0.735],
        [0.915, 0.87],
        [0.085, 0.87],
      ],
      (_, s, x, y) => {
        const c = mixLab(stripe, hex('#1f1a1a'), 0.1 + 0.12 * s);
        return { L: c.L + 0.06 * sin(x * 70 + sin(y * 20)), a: c.a, b: c.b };
      },
      [0, 0.15],
      0.2,
    );
    canvas.polygon(
      [
        [0.075, 0.725],
        [0.925, 0.725],
        [0.925, 0.745],
        [0.075, 0.745],
      ],
      mixLab(wood, hex('#f0e4c8'), 0.3),
      [0, -0.2],
      0.22,
    );
    // Striped awning with a scalloped edge.
    const bands = 11;
    for (let k = 0; k < bands; k++) {
      const c = k % 2 ? cream : stripe;
      const x0 = 0.04 + (0.92 * k) / bands;
      const x1 = 0.04 + (0.92 * (k + 1)) / bands;
      const t0 = lerp(0.14, 0.86, k / bands);
      const t1 = lerp(0.14, 0.86, (k + 1) / bands);
      canvas.polygon(
        [
          [t0, 0.14],
          [t1, 0.14],
          [x1, 0.33],
          [x0, 0.33],
        ],
        (_, s) => ({ ...c, L: c.L - 0.07 + 0.09 * s }),
        [0, -0.5],
        0.24,
      );
      const scallop: Point[] = Array.from({ length: 9 }, (_, i) => [lerp(x0, x1, i / 8), 0.33 + 0.04 * sin(Math.PI * (i / 8))]);
      canvas.polygon([[x0, 0.328], ...scallop, [x1, 0.328]], mixLab(c, hex('#2a2020'), 0.12), [0, 0.3], 0.26);
    }
    canvas.ribbon(
      [
        [0.135, 0.14],
        [0.865, 0.14],
      ],
      () => 0.009,
      wood,
      { round: 0.9, height: 0.3 },
    );
  },
};
