import { fractalNoise } from '@zinc/core/number/noise';
import { atan2, cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const wateringCan: DrawnSubject = {
  name: 'watering can',
  words: ['watering can', 'watering cans', 'watering-can'],
  made: true,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#eef0ea'), hex('#f1ead9'), hex('#d9cdb2'), 0.72);
    const metal = hex(['#5d8a86', '#b9552f', '#7d8b8f', '#3f6ea0', '#c79a2e'][Math.floor(random() * 5)]);
    const dark = mixLab(metal, hex('#1d2326'), 0.5);
    const pale = mixLab(metal, hex('#ffffff'), 0.35);
    const flip = random() < 0.35;
    const X = (x: number): number => (flip ? 1 - x : x);
    const P = (x: number, y: number): Point => [X(x), y];
    const x0 = 0.3;
    const x1 = 0.59;
    const top = 0.44 - random() * 0.05;
    const foot = 0.79;
    const mid = (x0 + x1) / 2;
    const half = (x1 - x0) / 2;
    const lip = 0.29 + random() * 0.03;
    canvas.shadow(X(0.5), foot + 0.015, 0.34, 0.06, 0.45);
    canvas.ribbon([P(x1 - 0.05, 0.71), P(0.69, 0.61), P(0.77, 0.46), P(0.82, lip + 0.09)], t => 0.036 - 0.017 * t, metal, {
      round: 0.95,
      height: 0.03,
      gloss: 0.7,
    });
    canvas.ribbon([P(x1 - 0.03, top + 0.07), P(0.67, top + 0.075), P(0.745, 0.49)], () => 0.007, dark, {
      round: 0.9,
      height: 0.02,
    });
    const tilt = atan2(0.06, flip ? -0.115 : 0.115);
    canvas.ribbon([P(0.807, lip + 0.115), P(0.867, lip + 0.005)], t => 0.02 + 0.043 * t, mixLab(metal, pale, 0.25), {
      round: 0.95,
      height: 0.05,
      gloss: 0.8,
    });
    const fx = X(0.869);
    canvas.blob(fx, lip, 0.064, 0.023, tilt, pale, { round: 0.3, height: 0.07 });
    for (let k = 0; k < 26; k++) {
      const r = Math.sqrt((k + 0.5) / 26);
      const u = cos(k * 2.4) * r * 0.054;
      const v = sin(k * 2.4) * r * 0.017;
      canvas.blob(fx + u * cos(tilt) - v * sin(tilt), lip + u * sin(tilt) + v * cos(tilt), 0.004, 0.003, 0, dark, {
        height: 0.08,
      });
    }
    canvas.ribbon(
      [P(mid, top), P(mid, (top + foot) / 2), P(mid, foot)],
      t => half * (0.93 + 0.07 * t),
      (t, _, x, y) => {
        const seam = Math.abs(t - 0.12) < 0.012 || Math.abs(t - 0.9) < 0.014 ? -0.09 : 0;
        return { L: metal.L + seam + (fractalNoise(x * 12, y * 30, seed, 3) - 0.5) * 0.05, a: metal.a, b: metal.b };
      },
      { round: 0.97, height: 0.06, gloss: 0.8, square: true },
    );
    canvas.blob(X(mid), foot, half, 0.03, 0, mixLab(metal, dark, 0.35), { round: 0.5, height: 0.06 });
    canvas.polygon(
      [
        P(mid - half * 0.995, foot - 0.012),
        P(mid + half * 0.995, foot - 0.012),
        P(mid + half * 0.99, foot + 0.003),
        P(mid - half * 0.99, foot + 0.003),
      ],
      mixLab(metal, dark, 0.35),
    );
    canvas.blob(X(mid), top, half * 0.93, 0.034, 0, dark, { round: 0.2, height: 0.05 });
    canvas.blob(X(mid), top + 0.004, half * 0.84, 0.025, 0, mixLab(dark, hex('#000000'), 0.35), { round: -0.4, height: 0.04 });
    canvas.ribbon(
      [P(mid - half * 0.85, top), P(mid - 0.03, top - 0.17), P(mid + half * 0.5, top - 0.13), P(mid + half * 0.8, top - 0.004)],
      () => 0.014,
      pale,
      { round: 0.95, height: 0.1, gloss: 0.8 },
    );
    canvas.ribbon(
      [P(x0 + 0.005, top + 0.06), P(x0 - 0.13, top + 0.08), P(x0 - 0.14, top + 0.22), P(x0, top + 0.3)],
      () => 0.016,
      metal,
      { round: 0.95, height: 0.08, gloss: 0.8 },
    );
    const tufts = 3 + Math.floor(random() * 3);
    for (let k = 0; k < tufts; k++) {
      const bx = 0.14 + random() * 0.72;
      const by = 0.86 + random() * 0.05;
      for (let j = 0; j < 5; j++) {
        const angle = -1.57 + (j - 2) * 0.35;
        const blade = mixLab(hex('#5d8f45'), hex('#3e6b38'), random());
        canvas.ribbon(
          [
            [bx, by],
            [bx + cos(angle) * 0.04, by + sin(angle) * 0.05],
            [bx + cos(angle) * 0.075, by + sin(angle) * 0.07],
          ],
          t => 0.009 * leafWidth(t) + 0.001,
          blade,
          { round: 0.4, height: 0.02 },
        );
      }
    }
  },
};
