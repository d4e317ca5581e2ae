import type { Slopes } from '../image/tensor.ts';
import { atan2, cos, sin } from '../number/trig.ts';

const NEAR = 6;
const FAR = 16;
const DIRECTIONS = Array.from({ length: 8 }, (_, k) => ({ x: cos((k * Math.PI) / 4), y: sin((k * Math.PI) / 4) }));

/**
 * Soft darkening beside edges, such as stacked paper throws: lightness near an edge against farther off, by direction, the opposite
 * direction taken away, so that shading of round things, which is alike all around, cancels.
 */
export function measureShadow(L: Float32Array, slopes: Slopes): { depth: number; angle: number } {
  const { width, height } = slopes;
  const sums = new Float64Array(8);
  let edges = 0;
  for (let y = FAR + 1; y < height - FAR - 1; y += 2)
    for (let x = FAR + 1; x < width - FAR - 1; x += 2) {
      const i = y * width + x;
      const g = slopes.size[i];
      if (g < 0.045) continue;
      edges++;
      const nx = slopes.x[i] / g;
      const ny = slopes.y[i] / g;
      for (let k = 0; k < 8; k++) {
        const d = DIRECTIONS[k];
        const side = nx * d.x + ny * d.y;
        if (side > -0.5 && side < 0.5) continue;
        const near = (y + Math.round(d.y * NEAR)) * width + x + Math.round(d.x * NEAR);
        const far = (y + Math.round(d.y * FAR)) * width + x + Math.round(d.x * FAR);
        const rise = L[far] - L[near];
        if (slopes.size[near] < 0.035 && slopes.size[far] < 0.02 && rise > -0.12 && rise < 0.16) sums[k] += rise;
      }
    }
  if (edges < 50) return { depth: 0, angle: 0 };
  let vx = 0;
  let vy = 0;
  let depth = 0;
  for (let k = 0; k < 8; k++) {
    const net = (sums[k] - sums[(k + 4) % 8]) / edges;
    if (net <= 0) continue;
    depth = Math.max(depth, net);
    vx += net * DIRECTIONS[k].x;
    vy += net * DIRECTIONS[k].y;
  }
  return { depth, angle: atan2(vy, vx) };
}
