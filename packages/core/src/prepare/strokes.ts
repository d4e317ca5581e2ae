import { length2 } from '../number/trig.ts';
import type { Stroke } from './types.ts';

/** Marks every pixel under a stroke with `value`, in place; strokes are lines with round ends. */
export function drawStroke(into: Uint8Array, width: number, height: number, stroke: Stroke, value: number): void {
  const { points } = stroke;
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
