import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { pow, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import type { DrawnSubject } from './types.ts';

export const trowel: DrawnSubject = {
  name: 'hand trowel',
  words: ['hand trowel', 'hand trowels', 'trowel', 'trowels', 'garden trowel'],
  made: true,
  leans: 0.35,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#f1ecdf'), hex('#eee5d3'), hex('#e2d6bf'), 1.5);
    const wood = hex(['#a8713f', '#8a5230', '#c08a4e', '#6f4630'][Math.floor(random() * 4)]);
    const steel = hex('#9aa6a8');
    const slant = (random() - 0.5) * 0.24;
    const at = (d: number, off = 0): Point => [0.5 + (0.3 - slant) * (d - 0.5) + off * 0.93, 0.5 - 0.72 * (0.5 - d) + off * 0.3];
    canvas.shadow(0.56, 0.56, 0.2, 0.36, 0.16);
    // Handle, ferrule, neck, blade: from the far end to the near.
    canvas.ribbon(
      [at(0), at(0.14), at(0.27), at(0.4)],
      t =>
        0.036 * (t < 0.07 ? pow(t / 0.07, 0.45) : 1) * (1 - 0.26 * sin(Math.PI * Math.min(1, Math.max(0, (t - 0.15) / 0.7)))) +
        0.001,
      (t, s, x, y) => {
        const n = fractalNoise(x * 60 - y * 30, y * 8 + x * 6, seed, 3) - 0.5;
        const ring = Math.abs(t - 0.12) < 0.012 || Math.abs(t - 0.16) < 0.008 ? -0.14 : 0;
        const c = mixLab(wood, hex('#3a2214'), 0.2 + n * 0.5);
        return { L: c.L + ring + 0.02 * s, a: c.a, b: c.b };
      },
      { round: 0.97, height: 0.1, gloss: 0.6 },
    );
    canvas.ribbon([at(0.395), at(0.45)], t => 0.027 - 0.006 * t, mixLab(hex('#c9a24e'), hex('#8a6a2c'), 0.3), {
      round: 0.97,
      height: 0.11,
      gloss: 0.9,
      square: true,
    });
    canvas.ribbon([at(0.445), at(0.5), at(0.555, 0.006), at(0.6)], () => 0.0125, mixLab(steel, hex('#3d474a'), 0.25), {
      round: 0.97,
      height: 0.09,
      gloss: 0.9,
    });
    const half = (t: number): number =>
      0.088 * (t < 0.12 ? 0.35 + 5.4 * t : t < 0.5 ? 1 : pow(Math.max(0, 1 - (t - 0.5) / 0.5), 0.55)) + 0.001;
    canvas.ribbon(
      [at(0.57), at(0.72), at(0.88), at(1)],
      half,
      (t, s, x, y) => {
        const n = fractalNoise(x * 24, y * 24, seed + 1, 4) - 0.5;
        const soil = smoothstep(0.62, 0.98, t + n * 0.5);
        const rim = Math.abs(s) > 0.9 ? 0.09 : 0;
        const c = mixLab(mixLab(steel, hex('#5a6668'), 0.3 + 0.3 * s), hex('#4a3626'), soil * 0.8);
        return { L: c.L + rim + n * 0.05, a: c.a, b: c.b };
      },
      { round: -0.75, height: 0.08, gloss: 0.55, bend: -0.4 },
    );
    canvas.ribbon([at(0.59), at(0.7), at(0.8)], t => 0.016 * (1 - t) + 0.001, mixLab(steel, hex('#e6ecec'), 0.4), {
      round: 0.9,
      height: 0.12,
      gloss: 0.9,
    });
    for (let k = 0; k < 26; k++) {
      const [x, y] = at(0.9 + random() * 0.13, (random() - 0.5) * 0.3);
      const r = 0.004 + random() * 0.011;
      canvas.blob(x, y, r * 1.2, r, random() * 3, mixLab(hex('#4a3626'), hex('#7a5b3f'), random()), {
        height: 0.03,
        lobes: 4,
        lobeDepth: 0.12,
      });
    }
  },
};
