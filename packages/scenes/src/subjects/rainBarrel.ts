import { fractalNoise } from '@zinc/core/number/noise';
import { latticeHash } from '@zinc/core/number/random';
import { sin } from '@zinc/core/number/trig';
import { hex, mixLab } from '../canvas/canvas.ts';
import { leafWidth } from '../canvas/leaf.ts';
import type { DrawnSubject } from './types.ts';

export const rainBarrel: DrawnSubject = {
  name: 'rain barrel',
  words: ['rain barrel', 'rain barrels', 'water butt', 'rainwater barrel', 'barrel', 'water barrel'],
  made: true,
  leans: 0,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#dfe6e2'), hex('#eee8d8'), hex('#b9ad8c'), 0.76);
    const oak = hex(['#8f6a42', '#7a6a58', '#a37b4a'][Math.floor(random() * 3)]);
    const hoop = hex('#45494a');
    const cx = 0.5;
    const top = 0.24;
    const foot = 0.86;
    const wide = 0.215 + random() * 0.03;
    canvas.shadow(cx + 0.06, foot + 0.005, wide * 1.35, 0.05, 0.5);
    // A pipe from the roof leads in from one side.
    const side = random() < 0.5 ? -1 : 1;
    canvas.ribbon(
      [
        [cx + side * 0.36, 0.06],
        [cx + side * 0.36, 0.14],
        [cx + side * 0.2, 0.19],
        [cx + side * 0.1, 0.225],
      ],
      () => 0.022,
      hex('#7d8a86'),
      { round: 0.95, height: 0.02, gloss: 0.6 },
    );
    const staves = 13;
    const bulge = (t: number): number => wide * (0.84 + 0.16 * sin(Math.PI * t));
    canvas.ribbon(
      [
        [cx, top],
        [cx, 0.45],
        [cx, 0.66],
        [cx, foot],
      ],
      bulge,
      (t, s, x, y) => {
        const around = Math.abs(s) > 0.999 ? Math.sign(s) : s / (1 + 0.28 * s * s);
        const place = (around * 0.62 + 0.5) * staves;
        const stave = Math.floor(place);
        const gap = Math.abs(place - stave - 0.5) > 0.455 ? -0.17 : 0;
        const n = fractalNoise(stave * 9 + x * 22, y * 5, seed, 4) - 0.5;
        const c = mixLab(oak, hex('#3a2a1a'), 0.15 + 0.35 * latticeHash(stave, 3, seed) + n * 0.3);
        return { L: c.L + gap - 0.06 * Math.max(0, t - 0.8), a: c.a, b: c.b };
      },
      { round: 0.97, height: 0.1, gloss: 0.15, square: true },
    );
    for (const t of [0.1, 0.28, 0.72, 0.9]) {
      const y = top + (foot - top) * t;
      const w = bulge(t) + 0.003;
      canvas.ribbon(
        [
          [cx - w, y],
          [cx - w * 0.5, y + 0.017],
          [cx, y + 0.022],
          [cx + w * 0.5, y + 0.017],
          [cx + w, y],
        ],
        () => 0.0135,
        (_, s, x) => ({ ...hoop, L: hoop.L + 0.05 * s - 0.12 * Math.abs((x - cx) / w) }),
        { round: 0.6, height: 0.16, gloss: 0.6 },
      );
    }
    canvas.blob(cx, top, bulge(0), 0.05, 0, mixLab(oak, hex('#2a1e14'), 0.35), { round: 0.3, height: 0.16 });
    canvas.blob(
      cx,
      top + 0.004,
      bulge(0) * 0.9,
      0.041,
      0,
      (_, r, u, v) =>
        mixLab(hex('#31474b'), hex('#9dbcc0'), Math.max(0, 0.5 + 0.5 * sin(r * 24 - u * 3)) * 0.55 * (v < 0 ? 1 : 0.5)),
      { round: 0, height: 0.16, gloss: 0.2 },
    );
    canvas.ribbon(
      [
        [cx + 0.02, 0.73],
        [cx + 0.02, 0.765],
      ],
      () => 0.013,
      hex('#b58f3c'),
      { round: 0.95, height: 0.3, gloss: 0.9 },
    );
    canvas.ribbon(
      [
        [cx - 0.012, 0.735],
        [cx + 0.052, 0.735],
      ],
      () => 0.008,
      hex('#b58f3c'),
      { round: 0.95, height: 0.32, gloss: 0.9 },
    );
    for (let k = 0; k < 22; k++) {
      const f = random();
      const x = cx + (f - 0.5) * 0.86;
      const y = foot + 0.02 + random() * 0.03;
      const l = 0.05 + random() * 0.06;
      canvas.ribbon(
        [
          [x, y],
          [x + (random() - 0.5) * 0.03, y - l * 0.6],
          [x + (random() - 0.5) * 0.06, y - l],
        ],
        t => 0.008 * leafWidth(t) + 0.001,
        mixLab(hex('#5d8f45'), hex('#8fae5a'), random()),
        { round: 0.4, height: 0.2 },
      );
    }
  },
};
