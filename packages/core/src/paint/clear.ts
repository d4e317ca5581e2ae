import { blurWide } from '../image/filter.ts';
import type { Lab, LabPlanes } from '../image/types.ts';
import type { Box } from './options.ts';

/** Calms boxes of the frame to the ground's colour, with a soft border, in place. Boxes are parts of the frame, 0–1. */
export function leaveClear(planes: LabPlanes, boxes: readonly Box[], ground: Lab): void {
  const { width, height, L, a, b } = planes;
  const cover = new Float32Array(width * height);
  for (const box of boxes) {
    const x0 = Math.max(0, Math.round(box.x * width));
    const x1 = Math.min(width, Math.round((box.x + box.width) * width));
    const y0 = Math.max(0, Math.round(box.y * height));
    const y1 = Math.min(height, Math.round((box.y + box.height) * height));
    for (let y = y0; y < y1; y++) cover.fill(1, y * width + x0, y * width + x1);
  }
  const soft = blurWide(cover, width, height, Math.max(1, Math.max(width, height) * 0.012));
  for (let i = 0; i < soft.length; i++) {
    // Inside a box it is wholly clear; the softness lies outside.
    const t = cover[i] > 0 ? 1 : soft[i] * soft[i] * 1.6;
    if (t <= 0.002) continue;
    const k = t > 1 ? 1 : t;
    L[i] += (ground.L - L[i]) * k;
    a[i] += (ground.a - a[i]) * k;
    b[i] += (ground.b - b[i]) * k;
  }
}
