import { labDistance2, labOfHex } from '../colour/oklab.ts';
import { blur } from '../image/filter.ts';
import type { Lab, LabPlanes } from '../image/types.ts';
import { clamp, smoothstep } from '../number/scalar.ts';
import type { Recolouring } from './types.ts';

/** Gives the thing at a place another colour, in place: its lights, darks and marks stay as far from the new colour as they were from the old. */
export function recolourThing(planes: LabPlanes, how: Recolouring): void {
  const { width: w, height: h, L, a, b } = planes;
  const from = colourAt(planes, how);
  const to = labOfHex(how.to);
  const limit = 0.02 + 0.0022 * how.reach;
  const near = new Float32Array(w * h);
  for (let i = 0; i < near.length; i++) {
    // A thing is lighter and darker in itself: lightness counts less than hue.
    const dL = 0.6 * (L[i] - from.L);
    const off = Math.sqrt(dL * dL + (a[i] - from.a) ** 2 + (b[i] - from.b) ** 2);
    near[i] = 1 - smoothstep(0.75 * limit, 1.25 * limit, off);
  }
  const soft = how.joined ? blur(joinedTo(near, w, h, placeOf(planes, how)), w, h, 0.8) : near;
  // Darks and lights keep their span as far as the new colour leaves room.
  const room = clamp(Math.min((0.99 - to.L) / Math.max(0.05, 0.99 - from.L), to.L / Math.max(0.05, from.L)), 0.25, 1.4);
  for (let i = 0; i < soft.length; i++) {
    const m = soft[i];
    if (m <= 0) continue;
    L[i] += m * (clamp(to.L + (L[i] - from.L) * room) - L[i]);
    a[i] += m * (to.a - from.a);
    b[i] += m * (to.b - from.b);
  }
}

function placeOf({ width, height }: LabPlanes, { x, y }: Recolouring): number {
  return Math.min(height - 1, Math.floor(y * height)) * width + Math.min(width - 1, Math.floor(x * width));
}

/** The colour around a place: the mean of those there that are like the middle one. */
function colourAt(planes: LabPlanes, how: Recolouring): Lab {
  const { width: w, height: h } = planes;
  const at = placeOf(planes, how);
  const one = (i: number): Lab => ({ L: planes.L[i], a: planes.a[i], b: planes.b[i] });
  const middle = one(at);
  const radius = Math.max(1, Math.round(Math.max(w, h) / 170));
  const sum = { L: 0, a: 0, b: 0, n: 0 };
  for (let dy = -radius; dy <= radius; dy++)
    for (let dx = -radius; dx <= radius; dx++) {
      const x = (at % w) + dx;
      const y = ((at / w) | 0) + dy;
      if (x < 0 || x >= w || y < 0 || y >= h) continue;
      const c = one(y * w + x);
      if (labDistance2(c, middle) > 0.01) continue;
      sum.L += c.L;
      sum.a += c.a;
      sum.b += c.b;
      sum.n++;
    }
  return { L: sum.L / sum.n, a: sum.a / sum.n, b: sum.b / sum.n };
}

/** The part of a mask that hangs together with one place. */
function joinedTo(mask: Float32Array, w: number, h: number, start: number): Float32Array {
  const out = new Float32Array(w * h);
  const stack = [start];
  out[start] = mask[start];
  while (stack.length > 0) {
    const i = stack.pop()!;
    const x = i % w;
    for (const j of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w])
      if (j >= 0 && j < w * h && out[j] === 0 && mask[j] > 0.05) {
        out[j] = mask[j];
        stack.push(j);
      }
  }
  return out;
}
