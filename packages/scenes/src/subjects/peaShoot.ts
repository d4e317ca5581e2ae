import { sin, cos } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafPaint, leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const peaShoot: DrawnSubject = {
  name: 'pea shoot',
  words: ['pea shoot', 'pea shoots', 'pea plant', 'sweet pea', 'peas', 'pea'],
  parts: ['leaves'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#eef0e6'), hex('#efe9d8'), hex('#ddd4bd'), 0.92);
    const green = hex('#6fa04e');
    const deep = hex('#3f7440');
    const sway = (random() - 0.5) * 0.16;
    const at = (t: number): Point => [0.5 + sway * sin(t * 4.2) * 0.6 + (0.03 - t * 0.04), 0.93 - 0.74 * t];
    canvas.ribbon([0, 0.2, 0.4, 0.6, 0.8, 1].map(at), t => 0.013 * (1 - 0.55 * t), mixLab(green, hex('#b8cf86'), 0.3), {
      round: 0.95,
      height: 0.05,
    });
    canvas.each('leaves', 4 + Math.floor(random() * 2), random, (k, nodes, random) => {
      const t = 0.16 + (0.74 * k) / nodes;
      const [x, y] = at(t);
      const size = (1 - 0.45 * t) * (0.92 + random() * 0.16);
      const side = k % 2 === 0 ? -1 : 1;
      const blade = mixLab(green, deep, random() * 0.8);
      const leaf = (bx: number, by: number, angle: number, length: number, half: number, h: number): void =>
        canvas.ribbon(
          [
            [bx, by],
            [bx + cos(angle) * length * 0.5, by + sin(angle) * length * 0.5 - 0.01],
            [bx + cos(angle) * length, by + sin(angle) * length],
          ],
          u => half * leafWidth(u) + 0.001,
          leafPaint(blade, hex('#c2d68e'), 5, seed + k),
          { round: 0.3, cup: 0.5, bend: 0.6, height: h },
        );
      // Stipules clasp the stem; beyond them two pairs of leaflets and a tendril.
      leaf(x, y, -1.57 - 0.9, 0.1 * size, 0.045 * size, 0.05);
      leaf(x, y, -1.57 + 0.9, 0.1 * size, 0.045 * size, 0.05);
      const out = side * 0.75;
      const stalk = (d: number): Point => [
        x + cos(-1.57 + out) * d * 0.3 * size,
        y + sin(-1.57 + out) * d * 0.3 * size - d * d * 0.02,
      ];
      canvas.ribbon([stalk(0), stalk(0.5), stalk(1)], () => 0.005 * size, mixLab(green, hex('#b8cf86'), 0.3), {
        round: 0.9,
        height: 0.06,
      });
      for (const d of [0.45, 0.85])
        for (const s of [-1, 1]) {
          const [px, py] = stalk(d);
          leaf(px, py, -1.57 + out + s * 1.05, 0.15 * size, 0.052 * size, 0.07 + 0.01 * d);
        }
      const [ex, ey] = stalk(1);
      const curl: Point[] = Array.from({ length: 16 }, (_, i) => {
        const a = -1.57 + out + i * 0.55 * side;
        const r = 0.052 * size * (1 - i / 20);
        return [ex + side * i * 0.0085 * size + cos(a) * r * 0.55, ey - i * 0.007 * size + sin(a) * r * 0.55 + 0.02 * size];
      });
      canvas.ribbon([[ex, ey], ...curl], u => 0.0036 * (1 - 0.5 * u), mixLab(green, deep, 0.3), { round: 0.8, height: 0.06 });
      if (k === nodes - 2 || random() < 0.3) {
        const fx = x - side * 0.13 * size;
        const fy = y - 0.05;
        canvas.ribbon(
          [
            [x, y],
            [fx, fy],
          ],
          () => 0.004,
          green,
          { round: 0.9 },
        );
        const petal = hex(random() < 0.5 ? '#f6f2ee' : '#c77aa6');
        canvas.blob(fx - 0.004, fy - 0.03, 0.052 * size, 0.046 * size, 0.2 * side, petal, {
          round: 0.5,
          height: 0.08,
          lobes: 2,
          lobeDepth: 0.09,
        });
        canvas.blob(fx, fy - 0.012, 0.027 * size, 0.03 * size, 0, mixLab(petal, hex('#7a3a62'), 0.35), {
          round: 0.8,
          height: 0.1,
        });
      }
    });
  },
};
