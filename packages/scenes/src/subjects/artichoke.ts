import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { cos, pow, sin } from '@zinc/core/number/trig';
import { hex, mixLab } from '../canvas/canvas.ts';
import { outerFirst } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const artichoke: DrawnSubject = {
  name: 'artichoke',
  words: ['globe artichoke', 'artichoke', 'artichokes', 'globe artichokes'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f2ecdf'), hex('#ece2d0'), hex('#dccfb6'), 0.74);
    const green = hex('#6f8f55');
    const deep = hex('#3f5f3d');
    const purple = hex('#7a4f78');
    const pale = hex('#b7c98c');
    const cx = 0.5;
    const base = 0.77;
    const tall = 0.53 + random() * 0.06;
    const wide = 0.25 + random() * 0.04;
    const blush = 0.25 + random() * 0.35;
    canvas.shadow(cx + 0.05, base + 0.03, 0.33, 0.075, 0.45);
    canvas.ribbon(
      [
        [cx, base - 0.05],
        [cx + 0.01, base + 0.05],
        [cx - 0.02, base + 0.12],
      ],
      () => 0.042,
      mixLab(green, pale, 0.4),
      { round: 0.9, square: false },
    );
    const rows = 8 + Math.floor(random() * 2);
    for (let r = rows; r >= 0; r--) {
      const f = r / rows;
      const y = base - 0.03 - f * tall * 0.72;
      const spread = wide * Math.sqrt(Math.max(0.03, 1 - pow(f * 0.98, 2.2))) * (0.62 + 0.38 * smoothstep(0, 0.35, f));
      const bracts = Math.max(2, Math.round((1 - f * 0.45) * 7)) + (r % 2);
      for (const k of outerFirst(bracts)) {
        const q = bracts > 1 ? (k / (bracts - 1)) * 2 - 1 : 0;
        const x = cx + q * spread * 0.92;
        const length = (0.22 - f * 0.05) * (1 - Math.abs(q) * 0.12) * (0.92 + random() * 0.16);
        const half = (0.08 - f * 0.018) * (1 - Math.abs(q) * 0.35);
        const tipX = x + q * 0.045 * (1 - f * 0.6) + (random() - 0.5) * 0.012;
        const foot = y + 0.07 - q * q * 0.03;
        const purpleness = blush + smoothstep(0.25, 0.9, f) * 0.35;
        canvas.ribbon(
          [
            [x - q * 0.05, foot],
            [x + q * 0.022, foot - length * 0.5],
            [tipX - q * 0.01, foot - length],
          ],
          t => half * (t < 0.4 ? 0.82 + 0.18 * sin((t / 0.4) * 1.57) : pow(cos(((t - 0.4) / 0.6) * 1.5), 0.75)) + 0.001,
          (t, s, X, Y) => {
            const grain = (fractalNoise(X * 40, Y * 14, seed, 2) - 0.5) * 0.06 + sin(s * 22) * 0.012;
            let c = mixLab(green, deep, 0.35 * (1 - t));
            c = mixLab(c, pale, smoothstep(0.75, 0.3, Math.abs(s)) * 0.3 * t);
            c = mixLab(c, purple, smoothstep(0.5, 0.98, t) * purpleness);
            return { L: c.L + grain, a: c.a, b: c.b };
          },
          { round: 0.75, height: 0.05 + (1 - f) * 0.12 + (1 - Math.abs(q)) * 0.08, bend: -0.5, gloss: 0.1 },
        );
      }
    }
  },
};
