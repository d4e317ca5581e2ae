import { blur, resamplePlane } from '../image/filter.ts';
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
  const cast = new Float32Array(n);
  const dx = cos(angle) * 1.5 * u;
  const dy = sin(angle) * 1.5 * u;
  for (let k = 1; k <= STEPS; k++) {
    const ox = Math.round(dx * k);
    const oy = Math.round(dy * k);
    const weight = 1 - (k - 1) / (STEPS + 1);
    for (let y = 0; y < height; y++) {
      const fy = y - oy;
      if (fy < 0 || fy >= height) continue;
      for (let x = Math.max(0, ox); x < width && x - ox < width; x++) {
        const i = y * width + x;
        if (order[fy * width + x - ox] > order[i] && cast[i] < weight) cast[i] = weight;
      }
    }
  }
  const soft = blur(cast, width, height, 1.7 * u);
  const full = resamplePlane({ width, height, data: soft }, out.width, out.height);
  const here = order.length === out.L.length ? order : null;
  for (let i = 0; i < full.length; i++) {
    // The blur must not spill onto the sheet that throws the shadow.
    const hold = here && cast[i] === 0 ? 0.35 : 1;
    const dark = full[i] * 0.3 * amount * hold;
    if (dark < 0.004) continue;
    out.L[i] *= 1 - dark;
    out.a[i] *= 1 - dark * 0.4;
    out.b[i] *= 1 - dark * 0.4;
  }
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
