import { smoothstep } from '@zinc/core/number/scalar';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab } from '../canvas/canvas.ts';
import { leafPaint, leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const sunflower: DrawnSubject = {
  name: 'sunflower',
  words: ['sunflower', 'sunflowers'],
  parts: ['petals'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#eef1e6'), hex('#f4ecd6'), hex('#e6e2c4'), 0.93);
    const cx = 0.5 + (random() - 0.5) * 0.06;
    const cy = 0.37;
    const disc = 0.115 + random() * 0.035;
    const petals = 18 + Math.floor(random() * 9);
    const bright = hex('#f2b51d');
    const deep = hex('#d9791a');
    const green = hex('#4d7f33');
    const lean = (random() - 0.5) * 0.08;
    canvas.ribbon(
      [
        [cx, cy],
        [cx + lean, 0.6],
        [cx - lean * 0.5, 0.8],
        [cx, 0.94],
      ],
      () => 0.019,
      (_, s) => mixLab(green, hex('#9bb65a'), 0.3 + 0.2 * s),
      { round: 0.95 },
    );
    for (const side of [-1, 1]) {
      const y = 0.65 + (side > 0 ? 0.08 : 0) + random() * 0.03;
      const length = 0.25 + random() * 0.05;
      canvas.ribbon(
        [
          [cx, y],
          [cx + side * length * 0.4, y - 0.06],
          [cx + side * length * 0.8, y - 0.02],
          [cx + side * length * 1.15, y + 0.07],
        ],
        t => 0.08 * leafWidth(t) + 0.003,
        leafPaint(green, hex('#a8c56b'), 6, seed + side),
        { round: 0.3, cup: 0.6, bend: 0.7, height: 0.04 },
      );
    }
    for (let ring = 0; ring < 2; ring++)
      canvas.each('petals', petals, random, (k, petals, random) => {
        const angle = ((k + ring * 0.5) / petals) * 6.2832 + (random() - 0.5) * 0.12;
        const length = (ring ? 0.155 : 0.185) * (0.9 + random() * 0.2);
        const from = disc * 0.8;
        const curl = (random() - 0.5) * 0.25;
        const at = (d: number, c: number): [number, number] => [
          cx + cos(angle + curl * c) * (from + length * d),
          cy + sin(angle + curl * c) * (from + length * d),
        ];
        canvas.ribbon(
          [at(0, 0), at(0.5, 0.2), at(1, 1)],
          t => 0.029 * leafWidth(t * 0.96 + 0.03) + 0.001,
          (t, s) => {
            const c = mixLab(deep, ring ? bright : mixLab(bright, deep, 0.35), smoothstep(0, 0.5, t));
            return { L: c.L + sin(s * 11) * 0.014 - Math.abs(s) * 0.02, a: c.a, b: c.b };
          },
          { round: 0.55, cup: 0.35, bend: 0.8, height: 0.06 + ring * 0.03 },
        );
      });
    canvas.blob(cx, cy, disc, disc, 0, hex('#4a2c14'), { round: 0.7, height: 0.1, gloss: 0.05 });
    const seeds = 380;
    for (let k = 0; k < seeds; k++) {
      const r = disc * 0.97 * Math.sqrt((k + 0.5) / seeds);
      const angle = k * 2.39996;
      const f = r / disc;
      const c =
        f > 0.72
          ? mixLab(hex('#c98a2b'), hex('#7a4317'), random())
          : f < 0.38
            ? mixLab(hex('#7d8a38'), hex('#5a4a1c'), random())
            : mixLab(hex('#3c2110'), hex('#6b3c18'), random());
      canvas.blob(cx + cos(angle) * r, cy + sin(angle) * r, disc * 0.04, disc * 0.032, angle, c, { height: 0.12, gloss: 0.2 });
    }
  },
};
