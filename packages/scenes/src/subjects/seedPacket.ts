import { fractalNoise } from '@zinc/core/number/noise';
import { cos, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import { leafPaint, leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const seedPacket: DrawnSubject = {
  name: 'seed packet',
  words: ['seed packet', 'seed packets', 'packet of seed', 'packet of seeds', 'seeds'],
  made: true,
  leans: 0.04,
  oneWay: true,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#efe9dc'), hex('#ebe2d0'), hex('#d6c8ac'), 0.8);
    const paper = hex(['#f1e6cd', '#e9e4d4', '#efdcc4'][Math.floor(random() * 3)]);
    const band = hex(['#8e2a4b', '#5f7f6b', '#c98a2e', '#3f5f8a'][Math.floor(random() * 4)]);
    const ink = hex('#23262b');
    const lean = (random() - 0.5) * 0.22;
    const at = (x: number, y: number): Point => [0.47 + x * cos(lean) - y * sin(lean), 0.47 + x * sin(lean) + y * cos(lean)];
    const w = 0.215;
    const h = 0.32;
    canvas.shadow(0.52, 0.815, 0.3, 0.04, 0.4);
    const crumple = (x: number, y: number): number => (fractalNoise(x * 5, y * 5, seed, 3) - 0.5) * 0.07;
    const sheet = (x0: number, y0: number, x1: number, y1: number, c: ReturnType<typeof hex>, height: number): void =>
      canvas.polygon(
        [at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)],
        (_, __, x, y) => ({ ...c, L: c.L + crumple(x, y) }),
        [-0.1, -0.15],
        height,
      );
    sheet(-w, -h, w, h, paper, 0.05);
    sheet(-w, h - 0.05, w, h - 0.044, mixLab(paper, ink, 0.25), 0.05);
    canvas.polygon(
      [at(-w, -h), at(w, -h), at(w * 0.9, -h + 0.075), at(-w * 0.9, -h + 0.075)],
      mixLab(paper, hex('#b9a784'), 0.35),
      [0, -0.4],
      0.07,
    );
    sheet(-w, -0.215, w, -0.105, band, 0.055);
    // Lettering stands as strokes: a title in the band, small lines at the foot.
    for (let k = 0; k < 6; k++) {
      const x = -0.15 + k * 0.056;
      const tall = 0.032 + 0.012 * ((k * 7) % 3);
      canvas.ribbon([at(x, -0.16 - tall / 2), at(x, -0.16 + tall / 2)], () => 0.007, paper, { round: 0, square: true });
      canvas.ribbon([at(x, -0.16), at(x + 0.028, -0.16 + (k % 2 ? 0.014 : -0.012))], () => 0.006, paper, {
        round: 0,
        square: true,
      });
    }
    for (let k = 0; k < 3; k++)
      sheet(-0.15, 0.215 + k * 0.02, 0.02 + 0.11 * random(), 0.223 + k * 0.02, mixLab(paper, ink, 0.65), 0.055);
    // The plant on the front: a stem with leaves and a round flower or root.
    const fruit = hex(['#c8213f', '#e2702a', '#f2b51d', '#8a3a7a'][Math.floor(random() * 4)]);
    canvas.ribbon([at(0, 0.17), at(0.01, 0.06), at(0, -0.03)], () => 0.007, hex('#5d8a45'), { round: 0.6, height: 0.07 });
    for (let k = 0; k < 6; k++) {
      const side = k % 2 ? 1 : -1;
      const y = 0.13 - k * 0.03;
      canvas.ribbon(
        [at(0, y), at(side * 0.06, y - 0.03), at(side * 0.115, y - 0.015)],
        t => 0.027 * leafWidth(t) + 0.001,
        leafPaint(hex('#5d8f45'), hex('#b9d08a'), 5, seed + k),
        { round: 0.4, cup: 0.4, height: 0.075 },
      );
    }
    for (let k = 0; k < 9; k++) {
      const a = k * 0.698;
      const [x, y] = at(cos(a) * 0.036, -0.045 + sin(a) * 0.036);
      canvas.blob(x, y, 0.025, 0.017, a + lean, mixLab(fruit, hex('#ffffff'), 0.12), { height: 0.09 });
    }
    canvas.blob(...at(0, -0.045), 0.022, 0.022, 0, hex('#5a3b1c'), { height: 0.12 });
    for (let k = 0; k < 17; k++) {
      const x = 0.62 + random() * 0.27;
      const y = 0.8 + random() * 0.06;
      canvas.shadow(x + 0.006, y + 0.009, 0.016, 0.007, 0.4);
      canvas.blob(x, y, 0.0135, 0.009, random() * 3, mixLab(hex('#8a6a3c'), hex('#c9a46b'), random()), {
        height: 0.05,
        gloss: 0.4,
      });
    }
  },
};
