import { kernels, put, take, within, zeros } from '@zinc/kernels';
import type { Flow, Slopes } from '../image/tensor.ts';
import type { LabPlanes } from '../image/types.ts';
import { REACHES } from './types.ts';

/** Change beyond this is an edge between things, not a mark within one. */
const MOST = 0.14;

/**
 * How much lightness changes along and across the local direction at a few distances (a variogram by direction): the distance at which it
 * stops growing across is the width of the marks, along it their length. `flow` is at half size.
 */
export function measureBrushwork(
  planes: LabPlanes,
  slopes: Slopes,
  flow: Flow,
): { along: number[]; across: number[]; jitter: number } {
  const { width, height, L, a, b } = planes;
  const reaches = REACHES.length;
  const sums = within(() => {
    const [pL, pa, pb, size, tx, ty] = [L, a, b, slopes.size, flow.tx, flow.ty].map(put);
    const at = zeros((reaches * 2 + 2) * 2);
    const distances = put(Int32Array.from(REACHES));
    kernels.brushwork(pL, pa, pb, width, height, size, tx, ty, flow.width, flow.height, distances, reaches, 8, MOST, at);
    return take(at, new Float64Array(reaches * 2 + 2));
  });
  const count = Math.max(1, sums[reaches * 2 + 1]);
  const mean = Array.from(sums, v => v / count);
  return { along: mean.slice(0, reaches), across: mean.slice(reaches, reaches * 2), jitter: mean[reaches * 2] };
}
