import { drift } from '../drift/drift.ts';
import { halve } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import { measurePlanes } from '../measure/measure.ts';
import { mixPlanes } from './planes.ts';

/** Places between content and painting at which change is measured. */
const STEPS = [0, 0.03, 0.08, 0.16, 0.3, 0.5, 0.7, 0.86, 0.95, 1];
/** Size at which pictures are measured, and side of the piece that is looked at: marks keep their scale, and the cost stays small. */
const LONG_SIDE = 512;
const PIECE = 512;

function reduced(planes: LabPlanes): LabPlanes {
  let now = planes;
  while (Math.max(now.width, now.height) > LONG_SIDE && Math.min(now.width, now.height) > 1) {
    const { width, height } = now;
    const L = halve({ width, height, data: now.L });
    now = {
      width: L.width,
      height: L.height,
      L: L.data,
      a: halve({ width, height, data: now.a }).data,
      b: halve({ width, height, data: now.b }).data,
    };
  }
  return now;
}

/** The middle of planes, at most `PIECE` a side. */
function middleOf(planes: LabPlanes): LabPlanes {
  const width = Math.min(planes.width, PIECE);
  const height = Math.min(planes.height, PIECE);
  if (width === planes.width && height === planes.height) return planes;
  const left = (planes.width - width) >> 1;
  const top = (planes.height - height) >> 1;
  const cut = (plane: Float32Array): Float32Array => {
    const out = new Float32Array(width * height);
    for (let y = 0; y < height; y++) {
      const from = (top + y) * planes.width + left;
      out.set(plane.subarray(from, from + width), y * width);
    }
    return out;
  };
  return { width, height, L: cut(planes.L), a: cut(planes.a), b: cut(planes.b) };
}

/**
 * How far to go from content to painting (0–1) so that `strength` of the whole change in measured drift has happened: the way is measured
 * at a few places on a piece of reduced copies, and walked by the length of its path.
 */
export function evenStrength(own: LabPlanes, painted: LabPlanes, strength: number): number {
  const from = middleOf(reduced(own));
  const to = middleOf(reduced(painted));
  const gone = [0];
  let before = measurePlanes(from);
  for (let k = 1; k < STEPS.length; k++) {
    const here = measurePlanes(mixPlanes(from, to, STEPS[k]));
    gone.push(gone[k - 1] + drift(before, here).total);
    before = here;
  }
  const whole = gone[gone.length - 1];
  if (whole < 1e-6) return strength;
  const wanted = strength * whole;
  let k = 1;
  while (k < gone.length - 1 && gone[k] < wanted) k++;
  const part = (wanted - gone[k - 1]) / Math.max(1e-9, gone[k] - gone[k - 1]);
  return STEPS[k - 1] + (STEPS[k] - STEPS[k - 1]) * Math.min(1, part);
}
