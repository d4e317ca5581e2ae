import { fractalNoise, valueNoise } from '@zinc/core/number/noise';
import { latticeHash } from '@zinc/core/number/random';
import { lerp, smoothstep } from '@zinc/core/number/scalar';
import { cos, sin } from '@zinc/core/number/trig';
import type { Lab } from '@zinc/core';
import { hex, mixLab, type Point } from '../canvas/canvas.ts';
import type { DrawnSubject } from './types.ts';

const between = (p: Point, q: Point, t: number): Point => [lerp(p[0], q[0], t), lerp(p[1], q[1], t)];

function brick(seed: number, slope: number, perRow: number): (t: number, s: number, x: number, y: number) => Lab {
  const mortar = hex('#d8c6ac');
  return (_, __, x, y) => {
    const v = (y - x * slope + 1) * 95;
    const row = Math.floor(v);
    const u = x * perRow + (row % 2) * 0.5;
    if (u - Math.floor(u) < 0.09 || v - row < 0.14) return mortar;
    return mixLab(hex('#a9694a'), hex('#8a4f38'), latticeHash(Math.floor(u), row, seed));
  };
}

export const greenhouse: DrawnSubject = {
  name: 'greenhouse',
  words: ['greenhouse', 'greenhouses', 'glasshouse', 'glass house'],
  made: true,
  leans: 0,
  draw(canvas, random, seed) {
    canvas.backdrop(hex('#cfe2e8'), hex('#f2ecd8'), hex('#9db574'), 0.72);
    const frame = hex('#f4f1e6');
    const glass = hex('#bcd6d4');
    const left = 0.12;
    const middle = 0.42;
    const right = 0.88;
    const foot = 0.8;
    const eaves = 0.47 - random() * 0.04;
    const ridge = 0.26 - random() * 0.05;
    const dip = 0.04;
    canvas.shadow(0.52, foot + 0.015, 0.46, 0.05, 0.4);
    for (let k = 0; k < 5; k++) {
      const s = 0.05 + random() * 0.07;
      canvas.blob(random(), 0.71, s * 1.2, s, 0, mixLab(hex('#6e9a5a'), hex('#4f7d4a'), random()), {
        lobes: 7,
        lobeDepth: 0.06,
        gloss: 0.02,
        height: 0.01,
      });
    }
    const front: Point[] = [
      [left, foot],
      [middle, foot + dip],
      [middle, eaves + dip],
      [(left + middle) / 2, ridge + dip * 0.6],
      [left, eaves],
    ];
    const side: Point[] = [
      [middle, foot + dip],
      [right, foot],
      [right, eaves],
      [middle, eaves + dip],
    ];
    const apex: Point = [(left + middle) / 2, ridge + dip * 0.6];
    const ridgeEnd: Point = [right - (middle - left) / 2 + 0.02, ridge];
    const roof: Point[] = [[middle, eaves + dip], [right, eaves], ridgeEnd, apex];
    const inside = (_: number, s: number, x: number, y: number): Lab => {
      const plants = smoothstep(0.42, 0.6, fractalNoise(x * 9, y * 9, seed, 3)) * smoothstep(0.52, 0.66, y);
      return mixLab(mixLab(glass, hex('#e6f0ea'), 1 - s), hex('#5f9150'), plants * 0.85);
    };
    canvas.polygon(side, inside, [0.35, 0], 0.02);
    canvas.polygon(front, inside, [-0.3, 0], 0.03);
    canvas.polygon(
      roof,
      (_, s, x, y) =>
        mixLab(hex('#a9cbd0'), hex('#eaf3f1'), smoothstep(0.5, 0.58, valueNoise(x * 6 - y * 5, 1, seed)) * 0.7 + 0.15 * (1 - s)),
      [0.2, -0.55],
      0.03,
    );
    const bar = (p: Point, q: Point, half = 0.005): void =>
      canvas.ribbon([p, q], () => half, frame, { round: 0.8, height: 0.05 });
    canvas.polygon(
      [side[0], side[1], between(side[1], side[2], 0.2), between(side[0], side[3], 0.2)],
      brick(seed, 0, 40),
      [0.3, 0],
    );
    canvas.polygon(
      [front[0], front[1], between(front[1], front[2], 0.18), between(front[0], front[4], 0.18)],
      brick(seed, 0.13, 52),
      [-0.3, 0],
    );
    const bays = 6 + Math.floor(random() * 3);
    for (let k = 0; k <= bays; k++) {
      const t = k / bays;
      bar(between(side[0], side[1], t), between(side[3], side[2], t), 0.0045);
      bar(between(roof[0], roof[1], t), between(roof[3], roof[2], t), 0.0045);
    }
    bar(between(side[0], side[3], 0.2), between(side[1], side[2], 0.2), 0.006);
    bar(between(side[0], side[3], 0.62), between(side[1], side[2], 0.62));
    bar(side[3], side[2], 0.009);
    bar(apex, ridgeEnd, 0.01);
    bar(between(roof[0], roof[3], 0.5), between(roof[1], roof[2], 0.5));
    for (let i = 0; i < 5; i++) bar(front[i], front[(i + 1) % 5], 0.008);
    for (const t of [0.33, 0.66])
      bar(between(front[0], front[1], t), [lerp(left, middle, t), lerp(eaves, eaves + dip, t) - 0.09]);
    bar(front[4], front[2], 0.006);
    const d0 = between(front[0], front[1], 0.34);
    const d1 = between(front[0], front[1], 0.66);
    canvas.polygon([d0, d1, [d1[0], eaves + 0.06], [d0[0], eaves + 0.045]], hex('#8fb3ae'), [-0.3, 0]);
    bar(d0, [d0[0], eaves + 0.045], 0.006);
    bar(d1, [d1[0], eaves + 0.06], 0.006);
    bar([d0[0], eaves + 0.045], [d1[0], eaves + 0.06], 0.006);
    const flower = ['#d8503c', '#e8b23a', '#c66aa0'];
    for (let k = 0; k < 26; k++) {
      const x = 0.03 + random() * 0.94;
      const y = 0.87 + random() * 0.09;
      const grass = mixLab(hex('#4f7d3d'), hex('#8cab57'), random());
      for (let j = 0; j < 4; j++) {
        const angle = -1.57 + (j - 1.5) * 0.4 + random() * 0.2;
        const length = 0.03 + random() * 0.03;
        canvas.ribbon(
          [
            [x, y],
            [x + cos(angle) * length, y + sin(angle) * length],
          ],
          t => 0.006 * (1 - t) + 0.001,
          grass,
          { round: 0.3 },
        );
      }
      if (random() < 0.5) canvas.blob(x, y - 0.045, 0.011, 0.011, 0, hex(flower[Math.floor(random() * 3)]), { height: 0.04 });
    }
  },
};
