import { fractalNoise } from '@zinc/core/number/noise';
import { sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Paint, type Point } from '../canvas/canvas.ts';
import type { DrawnSubject } from './types.ts';

export const scarecrow: DrawnSubject = {
  name: 'scarecrow',
  words: ['scarecrow', 'scarecrows'],
  made: true,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#dfe8e6'), hex('#f3ead3'), hex('#b9a873'), 0.8);
    const coat = hex(['#7a4a3a', '#4f6076', '#6b6a3c', '#8e2a4b'][Math.floor(random() * 4)]);
    const hat = hex(['#b98f4a', '#5a4636', '#8a7a52'][Math.floor(random() * 3)]);
    const straw = hex('#d9b45a');
    const pole = hex('#8b6a46');
    const tilt = (random() - 0.5) * 0.1;
    const cx = 0.5;
    const grain =
      (c: ReturnType<typeof hex>, across: number, along: number): Paint =>
      (_, s, x, y) => ({
        ...c,
        L: c.L + (fractalNoise(x * across, y * along, seed, 3) - 0.5) * 0.13 - 0.03 * s,
      });
    canvas.shadow(cx + 0.05, 0.9, 0.16, 0.03, 0.4);
    canvas.ribbon(
      [
        [cx, 0.25],
        [cx + tilt * 0.2, 0.6],
        [cx, 0.92],
      ],
      () => 0.017,
      grain(pole, 60, 9),
      { round: 0.95, height: 0.02 },
    );
    const left: Point = [0.15, 0.445 + tilt];
    const right: Point = [0.85, 0.445 - tilt];
    canvas.ribbon([left, right], () => 0.013, grain(pole, 9, 60), { round: 0.95, height: 0.03 });
    const wisps = (x: number, y: number, dx: number, dy: number, count: number, l: number): void => {
      for (let k = 0; k < count; k++) {
        const f = k / (count - 1) - 0.5;
        canvas.ribbon(
          [
            [x + f * 0.03 * Math.abs(dy), y + f * 0.04 * Math.abs(dx)],
            [
              x + dx * l * (0.7 + random() * 0.5) + f * 0.1 * Math.abs(dy),
              y + dy * l * (0.7 + random() * 0.5) + f * 0.1 * Math.abs(dx),
            ],
          ],
          t => 0.0042 * (1 - 0.6 * t),
          mixLab(straw, hex('#8f6c26'), random() * 0.7),
          {
            round: 0.6,
            height: 0.06,
          },
        );
      }
    };
    wisps(0.21, 0.445 + tilt, -1, 0.25, 14, 0.08);
    wisps(0.79, 0.445 - tilt, 1, 0.25, 14, 0.08);
    wisps(0.44, 0.8, -0.1, 1, 12, 0.09);
    wisps(0.56, 0.8, 0.1, 1, 12, 0.09);
    const trousers = mixLab(hex('#5b6272'), coat, 0.25);
    for (const side of [-1, 1])
      canvas.ribbon(
        [
          [cx + side * 0.045, 0.62],
          [cx + side * 0.058, 0.72],
          [cx + side * 0.066, 0.81],
        ],
        t => 0.05 - 0.008 * t,
        grain(trousers, 14, 30),
        { round: 0.8, height: 0.06 },
      );
    for (const side of [-1, 1])
      canvas.ribbon(
        [
          [cx + side * 0.08, 0.43],
          [cx + side * 0.18, 0.44 - side * tilt * 0.5],
          [cx + side * 0.3, 0.455 - side * tilt],
        ],
        t => 0.056 + 0.006 * t,
        grain(mixLab(coat, hex('#241a18'), side > 0 ? 0.18 : 0.02), 18, 26),
        {
          round: 0.85,
          height: 0.08,
          square: true,
        },
      );
    canvas.polygon(
      [
        [0.41, 0.385],
        [0.59, 0.385],
        [0.625, 0.6],
        [0.645, 0.685],
        [0.5, 0.66],
        [0.355, 0.685],
        [0.375, 0.6],
      ],
      (t, _, x, y) => {
        const fold = 0.05 * sin(x * 50 + sin(y * 18) * 1.6);
        const n = fractalNoise(x * 20, y * 30, seed + 2, 3) - 0.5;
        const c = mixLab(coat, hex('#241a18'), Math.abs(t - 0.5) < 0.012 ? 0.6 : 0.05 + 0.25 * Math.max(0, t - 0.5));
        return { L: c.L + fold + n * 0.08, a: c.a, b: c.b };
      },
      [0, 0.1],
      0.12,
    );
    for (const [x, y, c] of [
      [0.43, 0.55, '#c98a3c'],
      [0.575, 0.47, '#5f7f6b'],
      [0.55, 0.61, '#b5512f'],
    ] as const)
      canvas.polygon(
        [
          [x - 0.03, y - 0.028],
          [x + 0.026, y - 0.024],
          [x + 0.03, y + 0.028],
          [x - 0.026, y + 0.025],
        ],
        grain(hex(c), 90, 90),
        [0, 0],
        0.13,
      );
    for (const y of [0.47, 0.53, 0.59]) canvas.blob(0.508, y, 0.0085, 0.0085, 0, hex('#e9dfc2'), { height: 0.2, gloss: 0.5 });
    wisps(cx, 0.375, 0.02, 0.4, 16, 0.07);
    const hx = cx + tilt * 0.5;
    canvas.blob(
      hx,
      0.29,
      0.088,
      0.1,
      tilt,
      (_, __, u, v) => ({
        ...hex('#d8bf92'),
        L: 0.8 + (fractalNoise(u * 9, v * 9, seed + 5, 3) - 0.5) * 0.12 - (Math.abs(sin(u * 30) * sin(v * 30)) > 0.93 ? 0.05 : 0),
      }),
      { height: 0.16, gloss: 0.02 },
    );
    for (const side of [-1, 1]) {
      canvas.ribbon(
        [
          [hx + side * 0.034 - 0.012, 0.268],
          [hx + side * 0.034 + 0.012, 0.292],
        ],
        () => 0.0045,
        hex('#2c2018'),
        { round: 0, height: 0.3 },
      );
      canvas.ribbon(
        [
          [hx + side * 0.034 + 0.012, 0.268],
          [hx + side * 0.034 - 0.012, 0.292],
        ],
        () => 0.0045,
        hex('#2c2018'),
        { round: 0, height: 0.3 },
      );
    }
    canvas.polygon(
      [
        [hx - 0.012, 0.325],
        [hx + 0.014, 0.322],
        [hx + 0.002, 0.296],
      ],
      hex('#b5512f'),
      [0, 0],
      0.3,
    );
    canvas.ribbon(
      [
        [hx - 0.042, 0.338],
        [hx, 0.354],
        [hx + 0.044, 0.335],
      ],
      () => 0.004,
      hex('#2c2018'),
      { round: 0, height: 0.3 },
    );
    wisps(hx - 0.07, 0.25, -0.5, 0.7, 9, 0.06);
    wisps(hx + 0.07, 0.25, 0.5, 0.7, 9, 0.06);
    canvas.blob(hx, 0.222, 0.158, 0.03, tilt, grain(mixLab(hat, hex('#241a12'), 0.15), 40, 90), { round: 0.5, height: 0.24 });
    canvas.ribbon(
      [
        [hx, 0.225],
        [hx + 0.006, 0.15],
        [hx + 0.012 + tilt * 0.3, 0.1],
      ],
      t => 0.082 - 0.03 * t,
      grain(hat, 40, 60),
      { round: 0.9, height: 0.26 },
    );
    canvas.ribbon(
      [
        [hx - 0.079, 0.203],
        [hx, 0.214],
        [hx + 0.08, 0.2],
      ],
      () => 0.012,
      mixLab(coat, hex('#1d1614'), 0.35),
      { round: 0.4, height: 0.3 },
    );
  },
};
