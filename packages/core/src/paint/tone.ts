import { inBlocks, kernels, put, within } from '@zinc/kernels';
import { histogramOf, quantilesOf } from '../measure/quantiles.ts';
import { clamp, lerp } from '../number/scalar.ts';

const STEPS = 1024;
/** A tone is stretched at most this much, or the faint gradient of a large ground would break into bands. */
const STEEPEST = 1.9;
const FLATTEST = 0.45;

/** Moves the lightness of a plane towards 17 target quantiles by `amount`, in place, keeping its order and its gradations. */
export function matchTone(L: Float32Array, target: number[], amount: number): void {
  if (amount <= 0 || target.length !== 17) return;
  const histogram = histogramOf(L);
  const own = quantilesOf(histogram, 17);
  const moved = new Float64Array(STEPS + 1);
  let k = 0;
  for (let s = 0; s <= STEPS; s++) {
    const v = s / STEPS;
    while (k < 15 && own[k + 1] < v) k++;
    const span = own[k + 1] - own[k];
    const t = span > 1e-6 ? (v - own[k]) / span : 0;
    moved[s] = t <= 0 ? target[k] + (v - own[k]) : t >= 1 ? target[k + 1] + (v - own[k + 1]) : lerp(target[k], target[k + 1], t);
  }
  const table = new Float32Array(STEPS + 2);
  for (let s = 1; s <= STEPS; s++) table[s] = table[s - 1] + clamp(moved[s] - moved[s - 1], FLATTEST / STEPS, STEEPEST / STEPS);
  // The gentler curve is set so that the picture as a whole becomes as light as the steep one would have made it.
  let off = 0;
  let total = 0;
  const fold = (histogram.length - 1) / STEPS;
  for (let bin = 0; bin < histogram.length; bin++) {
    const s = Math.min(STEPS, Math.round(bin / fold));
    off += histogram[bin] * (moved[s] - table[s]);
    total += histogram[bin];
  }
  off /= total;
  for (let s = 0; s <= STEPS; s++) table[s] = lerp(s / STEPS, clamp(table[s] + off, 0.02, 0.995), amount);
  table[STEPS + 1] = table[STEPS];
  within(() => {
    const at = put(table);
    inBlocks([L], [], ([p], count) => kernels.curve(p, count, at, STEPS));
  });
}
