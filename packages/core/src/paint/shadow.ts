import { floatsAt, interpolateAt, kernels, placesAlong, plane, put, take, within, zeros } from '@zinc/kernels';
import { blurAt } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import { cos, sin } from '../number/trig.ts';
import type { Areas } from './flat.ts';
import type { Sketch } from './sketch.ts';

const STEPS = 5;
/** A part smaller than this share of the picture is no sheet of its own. */
const LEAST_PART = 0.0006;

/**
 * Shadows that stacked sheets throw on each other, in place: lower ones grow darker beside the edge of a higher one, on the side `angle`
 * points to (radians). They darken what is there and are no colour of their own.
 */
export function layShadows(out: LabPlanes, sketch: Sketch, areas: Areas, amount: number, angle: number): void {
  const { width, height, u } = sketch;
  const order = stackOrder(sketch, areas);
  const n = width * height;
  const dx = cos(angle) * 1.5 * u;
  const dy = sin(angle) * 1.5 * u;
  const size = out.L.length;
  within(() => {
    const cast = zeros(n);
    within(() => kernels.castShadows(put(order), width, height, dx, dy, STEPS, cast));
    const soft = plane(n);
    floatsAt(soft, n).set(floatsAt(cast, n));
    blurAt(soft, width, height, 1.7 * u);
    const full = plane(size);
    interpolateAt(soft, width, height, placesAlong(width, out.width), placesAlong(height, out.height), full);
    const [L, a, b] = [put(out.L), put(out.a), put(out.b)];
    // The blur must not spill onto the sheet that throws the shadow.
    kernels.layShade(full, size, 0.3 * amount, size === n ? cast : 0, 0.35, L, a, b);
    take(L, out.L);
    take(a, out.a);
    take(b, out.b);
  });
}

/** Height of the sheet at each pixel: the ground lowest, then drawn parts in their order, else colours from the widest to the smallest. */
function stackOrder(sketch: Sketch, areas: Areas): Uint16Array {
  const { width, height, parts, mask, assignment, palette } = sketch;
  const n = width * height;
  const out = new Uint16Array(n);
  const cover = new Float64Array(palette.length);
  for (let i = 0; i < n; i++) cover[areas.sketchIndex[i]]++;
  const rank = palette.map((_, j) => palette.filter((__, k) => cover[k] > cover[j]).length + 1);
  const sizes = new Uint32Array(256);
  if (parts) for (let i = 0; i < n; i++) sizes[parts[i]]++;
  for (let i = 0; i < n; i++) {
    const j = areas.sketchIndex[i];
    if (mask && mask[i] < 0.5) out[i] = j === assignment.ground ? 0 : rank[j];
    else if (parts && sizes[parts[i]] > LEAST_PART * n) out[i] = 32 + parts[i] * 16 + rank[j];
    else out[i] = (mask ? 24 : 0) + (j === assignment.ground && !mask ? 0 : rank[j]);
  }
  return out;
}
