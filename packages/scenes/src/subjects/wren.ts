import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const wren: DrawnSubject = {
  name: 'wren',
  words: ['wren', 'wrens', 'jenny wren'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#e9ece4'), hex('#efe9da'), hex('#dfd6c1'), 1.5);
    const back = hex(['#8a5a36', '#7a4c30', '#96683f'][Math.floor(random() * 3)]);
    const belly = hex('#dcc7a4');
    const dark = hex('#3a2618');
    const cock = 0.9 + random() * 0.35;
    const cx = 0.5;
    const cy = 0.5;
    const branch: Point[] = [
      [0.1, 0.8],
      [0.35, 0.765],
      [0.62, 0.785],
      [0.92, 0.74],
    ];
    canvas.ribbon(
      branch,
      t => 0.026 - 0.008 * t,
      (_, s, x, y) => {
        const n = fractalNoise(x * 14, y * 40, seed, 3) - 0.5;
        const c = mixLab(hex('#6d5a48'), hex('#a08d70'), 0.5 - 0.5 * s);
        return { L: c.L + n * 0.14, a: c.a, b: c.b };
      },
      { round: 0.95, height: 0.02 },
    );
    // Tail feathers stand up behind the body.
    for (let k = 0; k < 6; k++) {
      const a = -1.571 - 0.5 * cock + 0.09 * k;
      const l = 0.24 - 0.012 * Math.abs(k - 3);
      canvas.ribbon(
        [
          [cx - 0.15, cy + 0.03],
          [cx - 0.17 + cos(a) * l * 0.5, cy + sin(a) * l * 0.5],
          [cx - 0.17 + cos(a) * l, cy + sin(a) * l],
        ],
        t => 0.02 * (0.6 + 0.4 * t) * (t > 0.93 ? 0.6 : 1),
        (t, s) => mixLab(mixLab(back, dark, 0.15), dark, (sin(t * 42) > 0.35 ? 0.55 : 0) + 0.2 * Math.abs(s)),
        { round: 0.3, height: 0.03 + 0.004 * k },
      );
    }
    const leg = (x: number): void => {
      canvas.ribbon(
        [
          [x, cy + 0.17],
          [x + 0.008, cy + 0.23],
          [x - 0.005, 0.775],
        ],
        () => 0.0085,
        hex('#8d6b52'),
        { round: 0.9, height: 0.04 },
      );
      for (const d of [-0.03, 0.012, 0.032])
        canvas.ribbon(
          [
            [x - 0.005, 0.77],
            [x + d, 0.79],
          ],
          () => 0.0065,
          hex('#8d6b52'),
          { round: 0.9, height: 0.06 },
        );
    };
    leg(cx - 0.02);
    leg(cx + 0.06);
    const feather = (u: number, v: number, scale: number): number => {
      const row = Math.floor(v * scale);
      const phase = u * scale + (row % 2) * 0.5;
      const f = phase - Math.floor(phase);
      const g = v * scale - row;
      return g > 0.82 - 0.5 * Math.abs(f - 0.5) ? 1 : 0;
    };
    canvas.blob(
      cx,
      cy + 0.045,
      0.2,
      0.155,
      -0.22,
      (_, __, u, v) => {
        const n = fractalNoise(u * 5, v * 5, seed, 3) - 0.5;
        const under = smoothstep(-0.15, 0.45, v + u * 0.25 + n * 0.35);
        const c = mixLab(back, belly, under);
        const edge = feather(u + n * 0.1, v + n * 0.1, 6) * 0.4 * (1 - 0.5 * under);
        const bar = under > 0.5 && u < 0.2 && sin(u * 26 + v * 9) > 0.6 ? 0.35 : 0;
        return { L: c.L + n * 0.06, a: c.a, b: c.b, ...(edge + bar > 0 ? mixLab(c, dark, Math.max(edge, bar)) : {}) };
      },
      { height: 0.1, gloss: 0.03, round: 0.95 },
    );
    for (let k = 0; k < 7; k++) {
      const f = k / 6;
      canvas.ribbon(
        [
          [cx + 0.09 - 0.06 * f, cy - 0.02 + 0.02 * f],
          [cx - 0.04 - 0.03 * f, cy + 0.045 + 0.012 * k],
          [cx - 0.21 + 0.045 * f, cy + 0.03 + 0.02 * k],
        ],
        t => 0.027 * leafWidth(0.1 + 0.88 * t) + 0.004,
        (t, s) => mixLab(mixLab(back, dark, 0.12 * f), dark, sin(t * 34 + k) > 0.25 ? 0.5 : s > 0.72 ? 0.4 : 0),
        { round: 0.4, height: 0.17 + 0.008 * (6 - k) },
      );
    }
    const hx = cx + 0.16;
    const hy = cy - 0.1;
    canvas.blob(
      hx,
      hy,
      0.108,
      0.098,
      -0.25,
      (_, __, u, v) => {
        const n = fractalNoise(u * 6, v * 6, seed + 4, 3) - 0.5;
        const cheek = smoothstep(0.05, 0.5, v + n * 0.3);
        let c = mixLab(back, belly, cheek);
        const brow = Math.abs(v + 0.22 - 0.12 * u) < 0.1 && u > -0.8 ? 0.75 : 0;
        c = mixLab(c, hex('#efe0c2'), brow);
        const stripe = Math.abs(v - 0.02 - 0.05 * u) < 0.075 ? 0.6 : 0;
        c = mixLab(c, dark, stripe);
        return { L: c.L + n * 0.07, a: c.a, b: c.b };
      },
      { height: 0.16, gloss: 0.04 },
    );
    canvas.blob(hx + 0.032, hy - 0.008, 0.0185, 0.0185, 0, hex('#120d0a'), { height: 0.3, gloss: 1 });
    canvas.blob(hx + 0.037, hy - 0.014, 0.0045, 0.0045, 0, hex('#ffffff'), { height: 0.32, round: 0 });
    canvas.ribbon(
      [
        [hx + 0.09, hy + 0.006],
        [hx + 0.14, hy + 0.008],
        [hx + 0.185, hy + 0.024],
      ],
      t => 0.013 * (1 - t) + 0.0015,
      (_, s) => mixLab(hex('#5d4632'), hex('#c9a97a'), s > 0.1 ? 0.6 : 0),
      {
        round: 0.8,
        height: 0.15,
      },
    );
  },
};
