import { length2 } from '../number/trig.ts';
import type { Stroke } from './types.ts';

/** Marks every pixel under a stroke with `value`, in place; strokes are lines with round ends. */
export function drawStroke(into: Uint8Array, width: number, height: number, stroke: Stroke, value: number): void {
  const { points } = stroke;
  if (stroke.filled) fillOutline(into, width, height, points, value);
  const radius = Math.max(0.5, (stroke.size * Math.max(width, height)) / 2);
  for (let k = 0; k < points.length; k += 2) {
    const x1 = points[k] * width;
    const y1 = points[k + 1] * height;
    const last = k + 3 >= points.length;
    const x2 = last ? x1 : points[k + 2] * width;
    const y2 = last ? y1 : points[k + 3] * height;
    drawLine(into, width, height, x1, y1, x2, y2, radius, value);
  }
}

function drawLine(
  into: Uint8Array,
  width: number,
  height: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  radius: number,
  value: number,
): void {
  const [dx, dy] = [x2 - x1, y2 - y1];
  const long = dx * dx + dy * dy;
  const top = Math.max(0, Math.floor(Math.min(y1, y2) - radius));
  const foot = Math.min(height - 1, Math.ceil(Math.max(y1, y2) + radius));
  const left = Math.max(0, Math.floor(Math.min(x1, x2) - radius));
  const right = Math.min(width - 1, Math.ceil(Math.max(x1, x2) + radius));
  for (let y = top; y <= foot; y++)
    for (let x = left; x <= right; x++) {
      const px = x + 0.5 - x1;
      const py = y + 0.5 - y1;
      const t = long > 0 ? Math.min(1, Math.max(0, (px * dx + py * dy) / long)) : 0;
      if (length2(px - t * dx, py - t * dy) <= radius) into[y * width + x] = value;
    }
}

/** Every pixel whose middle lies inside a closed line, which may cross itself (even-odd rule). */
function fillOutline(into: Uint8Array, width: number, height: number, points: readonly number[], value: number): void {
  const n = points.length / 2;
  for (let y = 0; y < height; y++) {
    const at = y + 0.5;
    const crossings: number[] = [];
    for (let k = 0; k < n; k++) {
      const [x1, y1] = [points[2 * k] * width, points[2 * k + 1] * height];
      const next = (k + 1) % n;
      const [x2, y2] = [points[2 * next] * width, points[2 * next + 1] * height];
      if (y1 <= at === y2 <= at) continue;
      crossings.push(x1 + ((at - y1) / (y2 - y1)) * (x2 - x1));
    }
    crossings.sort((p, q) => p - q);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const from = Math.max(0, Math.ceil(crossings[k] - 0.5));
      const to = Math.min(width - 1, Math.floor(crossings[k + 1] - 0.5));
      for (let x = from; x <= to; x++) into[y * width + x] = value;
    }
  }
}
