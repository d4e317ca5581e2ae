import { fractalNoise } from '@zinc/core/number/noise';
import { lerp } from '@zinc/core/number/scalar';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafPaint, leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

const between = (p: Point, q: Point, t: number): Point => [lerp(p[0], q[0], t), lerp(p[1], q[1], t)];

export const coldFrame: DrawnSubject = {
  name: 'cold frame',
  words: ['cold frame', 'cold frames', 'cloche', 'garden frame'],
  made: true,
  leans: 0,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#dbe6e4'), hex('#efe9d6'), hex('#9aa872'), 0.56);
    const timber = hex(['#b98c5a', '#8f7d66', '#7a8a7c'][Math.floor(random() * 3)]);
    const lid = 0.1 + random() * 0.14;
    const a: Point = [0.13, 0.74];
    const b: Point = [0.66, 0.84];
    const c: Point = [0.9, 0.7];
    const d: Point = [0.37, 0.6];
    const up = (p: Point, h: number): Point => [p[0], p[1] - h];
    canvas.shadow(0.53, 0.8, 0.46, 0.1, 0.4);
    const low = 0.1;
    const high = 0.22;
    const soil = (_: number, __: number, x: number, y: number): ReturnType<typeof mixLab> =>
      mixLab(hex('#4b3826'), hex('#7a6044'), fractalNoise(x * 40, y * 60, seed, 3));
    canvas.polygon([up(a, low * 0.4), up(b, low * 0.4), up(c, low), up(d, low)], soil, [0, -0.3]);
    const plank = (p: Point, q: Point, hp: number, hq: number, rows: number, tilt: Point): void => {
      for (let k = 0; k < rows; k++) {
        const f = k / rows;
        const g = (k + 0.94) / rows;
        const shade = mixLab(timber, hex('#4a3a2a'), random() * 0.25);
        canvas.polygon(
          [up(p, hp * f), up(q, hq * f), up(q, hq * g), up(p, hp * g)],
          (_, __, x, y) => ({ ...shade, L: shade.L + (fractalNoise(x * 8 + k * 5, y * 90, seed + k, 3) - 0.5) * 0.12 }),
          tilt,
          0.03,
        );
      }
    };
    plank(d, c, high, high, 3, [0.2, 0.2]);
    plank(d, a, high, low, 3, [0.5, 0.1]);
    // Seedlings in rows between the boards.
    for (let row = 0; row < 3; row++)
      for (let k = 0; k < 7; k++) {
        const p = between(between(a, b, 0.1 + 0.13 * k), between(d, c, 0.1 + 0.13 * k), 0.2 + 0.28 * row);
        for (let j = 0; j < 4; j++) {
          const angle = -1.571 + (j - 1.5) * 0.6 + (random() - 0.5) * 0.3;
          const l = 0.05 + random() * 0.025;
          canvas.ribbon(
            [
              [p[0], p[1] - 0.03],
              [p[0] + cos(angle) * l * 0.5, p[1] - 0.035 + sin(angle) * l * 0.6],
              [p[0] + cos(angle) * l, p[1] - 0.03 + sin(angle) * l],
            ],
            t => 0.015 * leafWidth(t) + 0.001,
            leafPaint(mixLab(hex('#6d9f48'), hex('#3f7a3f'), random()), hex('#b9d68a'), 4, seed + k),
            {
              round: 0.4,
              height: 0.05,
            },
          );
        }
      }
    plank(a, b, low, low, 2, [-0.25, 0.3]);
    plank(b, c, low, high, 3, [0.45, 0.2]);
    // The glazed lid, hinged at the back and propped open.
    const la = up(a, low + lid);
    const lb = up(b, low + lid);
    const lc = up(c, high + 0.01);
    const ld = up(d, high + 0.01);
    canvas.polygon(
      [la, lb, lc, ld],
      (t, s) => mixLab(hex('#c9dedd'), hex('#eef4f1'), 0.5 + 0.5 * sin(t * 5 - s * 3)),
      [0, -0.5],
      0.1,
      0.42,
    );
    const bar = (p: Point, q: Point, w: number): void =>
      canvas.ribbon([p, q], () => w, mixLab(timber, hex('#efe6d2'), 0.25), { round: 0.8, height: 0.12 });
    for (const t of [0, 0.33, 0.66, 1]) bar(between(la, lb, t), between(ld, lc, t), 0.0095);
    bar(la, lb, 0.012);
    bar(ld, lc, 0.011);
    bar(between(la, ld, 0.5), between(lb, lc, 0.5), 0.006);
    bar(up(b, low), [lb[0] - 0.004, lb[1]], 0.007);
    bar(up(a, low), la, 0.007);
  },
};
