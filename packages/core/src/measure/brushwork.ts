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
  const along = REACHES.map(() => 0);
  const across = REACHES.map(() => 0);
  let jitter = 0;
  let count = 0;
  const reach = REACHES[REACHES.length - 1] + 1;
  for (let y = reach; y < height - reach; y += 3)
    for (let x = reach; x < width - reach; x += 3) {
      const i = y * width + x;
      if (slopes.size[i] > 0.09) continue;
      const j = Math.min(flow.height - 1, y >> 1) * flow.width + Math.min(flow.width - 1, x >> 1);
      const tx = flow.tx[j];
      const ty = flow.ty[j];
      const here = L[i];
      for (let r = 0; r < REACHES.length; r++) {
        const d = REACHES[r];
        const p = (y + Math.round(ty * d)) * width + x + Math.round(tx * d);
        const q = (y + Math.round(tx * d)) * width + x - Math.round(ty * d);
        const u = Math.abs(L[p] - here);
        const v = Math.abs(L[q] - here);
        along[r] += u < MOST ? u : MOST;
        across[r] += v < MOST ? v : MOST;
        if (d === 8) {
          const da = a[q] - a[i];
          const db = b[q] - b[i];
          const c = Math.sqrt(da * da + db * db);
          jitter += c < MOST ? c : MOST;
        }
      }
      count++;
    }
  if (count === 0) return { along, across, jitter: 0 };
  return { along: along.map(v => v / count), across: across.map(v => v / count), jitter: jitter / count };
}
