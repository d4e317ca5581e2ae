import { fromLabPlanes, toLabPlanes, type Picture } from '@zinc/core';
import { blurWide } from '@zinc/core/image/filter';
import { fractalNoise, noisePlane } from '@zinc/core/number/noise';
import { latticeHash, randomFor } from '@zinc/core/number/random';
import { clamp, lerp, smoothstep } from '@zinc/core/number/scalar';
import { hex, mixLab } from './canvas/canvas.ts';
import { drawSubject } from './draw.ts';

const WALLS = ['#59635c', '#8b7d6b', '#3f4b57', '#a9a08c', '#6d5348'];
const TABLES = ['#7a5a3c', '#4c3a2c', '#9b8260', '#6b6258'];

/**
 * A photograph-like picture of a drawn subject, with no photograph in it: a room out of focus, a grained table, light from a window, falling
 * off towards the corners, and the noise of a sensor. The same name, seed and size give the same pixels.
 */
export function photograph(name: string, seed: number, width: number, height: number): Picture {
  const random = randomFor(seed, 'photograph');
  const scene = drawSubject(name, seed, width, height);
  const planes = toLabPlanes(scene.picture);
  const unit = Math.min(width, height);
  const wall = hex(WALLS[Math.floor(random() * WALLS.length)]);
  const table = hex(TABLES[Math.floor(random() * TABLES.length)]);
  const lamp = { x: random() < 0.5 ? 0.1 : 0.9, y: 0.15 };
  const n = width * height;
  const room = { L: new Float32Array(n), a: new Float32Array(n), b: new Float32Array(n) };
  const blots = noisePlane(width, height, unit * 0.22, seed, 3);
  const horizon = 0.6 + random() * 0.12;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const v = y / height;
      const u = x / width;
      const grain = fractalNoise((x / unit) * 5, (y / unit) * 60, seed, 3) - 0.5;
      const c = mixLab(wall, table, smoothstep(horizon - 0.03, horizon + 0.03, v));
      const lit = 0.16 * (1 - Math.sqrt((u - lamp.x) * (u - lamp.x) + (v - lamp.y) * (v - lamp.y)));
      room.L[i] = clamp(c.L + 0.13 * blots[i] * (v < horizon ? 1 : 0.3) + lit + (v > horizon ? grain * 0.12 : 0));
      room.a[i] = c.a + 0.012 * blots[i];
      room.b[i] = c.b + 0.02 * blots[i];
    }
  const soft = unit * 0.012;
  const out = { width, height, L: new Float32Array(n), a: new Float32Array(n), b: new Float32Array(n) };
  const back = { L: blurWide(room.L, width, height, soft), a: room.a, b: room.b };
  const shade = blurWide(scene.mask, width, height, unit * 0.05);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const m = scene.mask[i];
      const du = (x / width - 0.5) * 1.3;
      const dv = (y / height - 0.5) * 1.3;
      const fall = 1 - 0.42 * (du * du + dv * dv);
      const below = y + unit * 0.05 < height ? shade[Math.max(0, i - Math.round(unit * 0.03) * width)] : 0;
      const ground = back.L[i] * (1 - 0.4 * below * (y / height > horizon - 0.1 ? 1 : 0.25));
      const noise = (latticeHash(x, y, seed) + latticeHash(x, y, seed + 1) - 1) * 0.022;
      out.L[i] = clamp(lerp(ground, planes.L[i] * 0.94, m) * fall + noise);
      out.a[i] = lerp(back.a[i], planes.a[i] * 0.9, m) + (latticeHash(x, y, seed + 2) - 0.5) * 0.008;
      out.b[i] = lerp(back.b[i], planes.b[i] * 0.9, m) + 0.008;
    }
  return fromLabPlanes(out);
}
