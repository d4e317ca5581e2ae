import { kernels, put, take, within, zeros } from '@zinc/kernels';
import type { LabPlanes } from '../image/types.ts';
import { readSwatch, SWATCH_SIDE, type Swatch } from '../measure/swatch.ts';
import { randomFor } from '../number/random.ts';
import type { Field } from './field.ts';
import { quilt } from './quilt.ts';

const BLOCKS = 12;
/** Radius of a patch and distance between patches, in 512ths of the picture. */
const RADIUS = 25;
const GAP = 27;

/**
 * Lays the surface of a reference over the painting, in place: a piece of it is quilted larger, and cut into patches that turn with the marks'
 * direction. Where patches meet they are blended so that the contrast stays (Heitz & Neyret 2018). `where` (or null: everywhere) tells how
 * much each pixel takes, 0–1; `amount` is the RMS of the deviations laid, and none goes above lightness `top`.
 */
export function layPatches(
  out: LabPlanes,
  field: Field,
  swatch: Swatch,
  amount: number,
  where: Float32Array | null,
  top: number,
  unit: number,
  seed: number,
): void {
  const { width: w, height: h } = out;
  const { tile, size } = quilt(readSwatch(swatch), SWATCH_SIDE, BLOCKS, seed);
  const random = randomFor(seed, 'patches');
  const radius = RADIUS * unit;
  const gap = GAP * unit;
  const reach = RADIUS + 1;
  within(() => {
    const [sum, weight, texture] = [zeros(w * h), zeros(w * h), put(tile)];
    for (let gy = 0; gy * gap < h + gap; gy++)
      for (let gx = 0; gx * gap < w + gap; gx++) {
        const x = (gx + (gy & 1) * 0.5 + 0.3 * (random() - 0.5)) * gap;
        const y = (gy + 0.3 * (random() - 0.5)) * gap;
        const u = reach + random() * (size - 2 * reach);
        const v = reach + random() * (size - 2 * reach);
        const fx = Math.min(field.width - 1, Math.max(0, ((x * field.width) / w) | 0));
        const fy = Math.min(field.height - 1, Math.max(0, ((y * field.height) / h) | 0));
        const at = fy * field.width + fx;
        // Either way along a direction is right; patches take both.
        const side = random() < 0.5 ? -1 : 1;
        const c = (side * field.tx[at]) / unit;
        const s = (side * field.ty[at]) / unit;
        kernels.patch(sum, weight, w, h, x, y, radius, texture, size, u, v, c, s);
      }
    const L = put(out.L);
    kernels.layPatches(L, sum, weight, where ? put(where) : 0, w * h, amount, top);
    take(L, out.L);
  });
}
