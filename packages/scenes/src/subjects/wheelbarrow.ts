import { fractalNoise } from '@zinc/core/number/noise';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafPaint, leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const wheelbarrow: DrawnSubject = {
  name: 'wheelbarrow',
  words: ['wheelbarrow', 'wheelbarrows', 'wheel barrow', 'barrow'],
  made: true,
  leans: 0.02,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#e8ede8'), hex('#f0e9d8'), hex('#c9bf9c'), 0.74);
    const tub = hex(['#4f7a63', '#b5512f', '#5b6f8c', '#7d8a86'][Math.floor(random() * 4)]);
    const wood = hex('#a97f4f');
    const iron = hex('#3b3f40');
    const load = Math.floor(random() * 3);
    canvas.shadow(0.5, 0.835, 0.4, 0.045, 0.45);
    const rim: Point[] = [
      [0.2, 0.43],
      [0.72, 0.38],
    ];
    const bar = (p: Point, q: Point, w: number, c = wood, h = 0.05): void =>
      canvas.ribbon([p, q], () => w, c, { round: 0.95, height: h, gloss: 0.3 });
    bar([0.6, 0.6], [0.66, 0.83], 0.013, mixLab(wood, iron, 0.3), 0.01);
    bar([0.2, 0.735], [0.93, 0.5], 0.013, mixLab(wood, iron, 0.25), 0.01);
    // What it carries stands behind the near board.
    if (load === 0)
      for (let k = 0; k < 9; k++) {
        const x = 0.3 + 0.05 * k + (random() - 0.5) * 0.03;
        const y = 0.4 - 0.012 * k + (random() - 0.5) * 0.05;
        const r = 0.05 + random() * 0.025;
        canvas.blob(x, y, r, r * 0.94, random(), mixLab(hex('#d9772a'), hex('#b5522a'), random()), {
          height: 0.05,
          gloss: 0.3,
          lobes: 8,
          lobeDepth: 0.03,
        });
      }
    else if (load === 1)
      for (let k = 0; k < 26; k++) {
        const x = 0.28 + random() * 0.38;
        const angle = -1.571 + (random() - 0.5) * 1.3;
        const l = 0.15 + random() * 0.1;
        canvas.ribbon(
          [
            [x, 0.44],
            [x + cos(angle) * l * 0.6, 0.44 + sin(angle) * l * 0.7],
            [x + cos(angle) * l, 0.45 + sin(angle) * l],
          ],
          t => 0.03 * leafWidth(t) + 0.002,
          leafPaint(mixLab(hex('#6c9c4b'), hex('#345f3a'), random()), hex('#b7cf8a'), 6, seed + k),
          {
            round: 0.4,
            cup: 0.4,
            height: 0.04,
          },
        );
      }
    else
      canvas.ribbon(
        [
          [0.25, 0.44],
          [0.38, 0.33],
          [0.55, 0.31],
          [0.68, 0.4],
        ],
        () => 0.07,
        (_, __, x, y) => mixLab(hex('#4b3826'), hex('#7b6146'), fractalNoise(x * 50, y * 50, seed, 4)),
        { round: 0.7, height: 0.03 },
      );
    canvas.polygon(
      [rim[0], rim[1], [0.62, 0.63], [0.32, 0.665]],
      (t, s, x, y) => {
        const n = fractalNoise(x * 9, y * 40, seed, 3) - 0.5;
        const c = mixLab(tub, hex('#1f2422'), 0.1 + 0.35 * s);
        const seam = Math.abs(s - 0.5) < 0.012 ? -0.1 : 0;
        return { L: c.L + n * 0.07 + seam - 0.03 * t, a: c.a, b: c.b };
      },
      [-0.15, 0.35],
      0.1,
    );
    canvas.polygon([rim[0], [0.32, 0.665], [0.27, 0.63], [0.165, 0.445]], mixLab(tub, hex('#eef0ea'), 0.22), [-0.6, 0], 0.1);
    canvas.ribbon([[0.16, 0.44], rim[0], rim[1], [0.745, 0.36]], () => 0.011, mixLab(tub, hex('#f2f2ea'), 0.25), {
      round: 0.95,
      height: 0.14,
      gloss: 0.5,
    });
    bar([0.17, 0.76], [0.94, 0.53], 0.0155, wood, 0.15);
    canvas.ribbon(
      [
        [0.86, 0.553],
        [0.945, 0.527],
      ],
      () => 0.02,
      mixLab(iron, hex('#7a3a2a'), 0.3),
      { round: 0.95, height: 0.17 },
    );
    bar([0.56, 0.655], [0.59, 0.83], 0.0145, wood, 0.12);
    bar([0.44, 0.68], [0.59, 0.815], 0.009, iron, 0.11);
    const wx = 0.205;
    const wy = 0.735;
    const r = 0.098;
    const ring: Point[] = Array.from({ length: 33 }, (_, i) => [wx + r * cos(i * 0.19635), wy + r * sin(i * 0.19635)]);
    canvas.ribbon(ring, () => 0.0175, iron, { round: 0.95, height: 0.2, gloss: 0.25 });
    const turn = random();
    for (let k = 0; k < 7; k++) {
      const a = turn + (k * 6.2832) / 7;
      canvas.ribbon(
        [
          [wx, wy],
          [wx + r * cos(a), wy + r * sin(a)],
        ],
        () => 0.007,
        mixLab(wood, iron, 0.3),
        { round: 0.9, height: 0.19 },
      );
    }
    canvas.blob(wx, wy, 0.022, 0.022, 0, iron, { height: 0.24, gloss: 0.6 });
  },
};
