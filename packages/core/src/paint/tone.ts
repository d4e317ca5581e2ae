import { quantiles } from '../measure/quantiles.ts';
import { lerp } from '../number/scalar.ts';

/** Moves the lightness of a plane towards 17 target quantiles by `amount`, in place, keeping its order. */
export function matchTone(L: Float32Array, target: number[], amount: number): void {
  if (amount <= 0 || target.length !== 17) return;
  const own = quantiles(L, 17);
  const STEPS = 1024;
  const table = new Float32Array(STEPS + 1);
  let k = 0;
  for (let s = 0; s <= STEPS; s++) {
    const v = s / STEPS;
    while (k < 15 && own[k + 1] < v) k++;
    const span = own[k + 1] - own[k];
    const t = span > 1e-6 ? (v - own[k]) / span : 0;
    const moved =
      t <= 0 ? target[k] + (v - own[k]) : t >= 1 ? target[k + 1] + (v - own[k + 1]) : lerp(target[k], target[k + 1], t);
    table[s] = lerp(v, moved, amount);
  }
  for (let i = 0; i < L.length; i++) {
    const p = L[i] < 0 ? 0 : L[i] > 1 ? 1 : L[i];
    const x = p * STEPS;
    const xi = x >= STEPS ? STEPS - 1 : x | 0;
    L[i] = table[xi] + (table[xi + 1] - table[xi]) * (x - xi);
  }
}
