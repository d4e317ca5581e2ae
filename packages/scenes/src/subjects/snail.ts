import { fractalNoise } from '@zinc/core/number/noise';
import { smoothstep } from '@zinc/core/number/scalar';
import { atan2, cos, exp, log, sin } from '@zinc/core/number/trig';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import type { DrawnSubject } from './types.ts';

export const snail: DrawnSubject = {
  name: 'snail',
  words: ['snail', 'snails', 'garden snail'],
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#eceee6'), hex('#efe8d9'), hex('#cfc5ac'), 0.74);
    const shell = hex(['#c48a4a', '#a8643c', '#d1a760', '#8f6a4a'][Math.floor(random() * 4)]);
    const band = mixLab(shell, hex('#3a2415'), 0.62);
    const flesh = hex('#b9a583');
    const cx = 0.44;
    const cy = 0.53;
    const big = 0.235 + random() * 0.02;
    canvas.shadow(0.53, 0.795, 0.38, 0.045, 0.45);
    const body = (t: number, s: number, x: number, y: number): ReturnType<typeof mixLab> => {
      const n = fractalNoise(x * 45, y * 45, seed, 3) - 0.5;
      const c = mixLab(flesh, hex('#7d6a4e'), 0.35 + 0.35 * s + 0.15 * t);
      return { L: c.L + n * 0.12, a: c.a, b: c.b };
    };
    const foot: Point[] = [
      [0.14, 0.785],
      [0.3, 0.755],
      [0.55, 0.745],
      [0.72, 0.71],
      [0.82, 0.62],
      [0.845, 0.565],
    ];
    canvas.ribbon(foot, t => 0.012 + 0.058 * sin(Math.PI * Math.min(1, 0.05 + 0.78 * t)) + 0.012 * t, body, {
      round: 0.9,
      height: 0.04,
      gloss: 0.4,
    });
    const horn = (x: number, y: number, l: number, lean: number, w: number): void => {
      canvas.ribbon(
        [
          [x, y],
          [x + lean * 0.4, y - l * 0.6],
          [x + lean, y - l],
        ],
        t => w * (1 - 0.45 * t),
        mixLab(flesh, hex('#8a7657'), 0.4),
        { round: 0.9, height: 0.08 },
      );
      canvas.blob(x + lean, y - l, w * 1.25, w * 1.25, 0, hex('#2e241a'), { height: 0.12, gloss: 0.8 });
    };
    const spread = 0.05 + random() * 0.04;
    horn(0.825, 0.56, 0.15, -spread, 0.009);
    horn(0.855, 0.565, 0.15, spread, 0.009);
    horn(0.87, 0.6, 0.055, 0.04, 0.007);
    // One whorl after the other, each a shorter turn nearer the middle.
    const turns = 2.6;
    const radiusAt = (turn: number): number => big * exp(-turn * 0.42);
    const paint = (_: number, r: number, u: number, v: number): ReturnType<typeof mixLab> => {
      const rr = Math.max(0.02, r) * big;
      const angle = atan2(v, u);
      // The whorl a place lies on, from the spiral that closes inwards.
      const spiral = -log(rr / big) / 0.42 - (angle + 2.2) / 6.2832;
      const phase = spiral - Math.floor(spiral);
      const growth = Math.abs(sin(angle * 26 + Math.floor(spiral) * 2)) > 0.9 ? -0.05 : 0;
      const stripe = smoothstep(0.12, 0.02, Math.abs(phase - 0.42)) + smoothstep(0.07, 0.01, Math.abs(phase - 0.72));
      const groove = smoothstep(0.09, 0, Math.min(phase, 1 - phase));
      const n = fractalNoise(u * 7, v * 7, seed + 2, 3) - 0.5;
      const c = mixLab(mixLab(shell, hex('#ead9b0'), 0.3 * (1 - r)), band, Math.min(0.9, stripe * 0.75));
      const dome = 0.07 * cos((phase - 0.45) * 3.6);
      return { L: c.L + growth + n * 0.05 - groove * 0.24 + dome - 0.03, a: c.a, b: c.b };
    };
    canvas.ribbon(
      [
        [cx + 0.12, cy + 0.14],
        [cx + 0.2, cy + 0.13],
        [cx + 0.22, cy + 0.2],
      ],
      t => 0.075 - 0.02 * t,
      mixLab(shell, band, 0.2),
      { round: 0.9, height: 0.1, gloss: 0.5 },
    );
    canvas.blob(cx, cy, big, big * 0.94, 0, paint, { height: 0.16, gloss: 0.6, round: 0.85 });
    canvas.blob(cx + 0.01, cy - 0.01, radiusAt(turns) * 0.9, radiusAt(turns) * 0.85, 0, mixLab(shell, hex('#f0e2bf'), 0.35), {
      height: 0.3,
      gloss: 0.6,
    });
  },
};
