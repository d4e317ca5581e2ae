import { THICKNESSES } from './types.ts';

/** Longest run that is told apart; anything longer is a mass, not a line. */
const LONGEST = 48;
const LEAST_CONTRAST = 0.04;

/**
 * Thin dark and thin light lines by thickness. A pixel belongs to one when it stands out from its surroundings; its thickness is
 * h·v ÷ √(h² + v²) of the runs of such pixels along its row and column, which is exact for a straight line at any angle. Amounts are mean
 * contrasts over the whole picture. `around` is the picture blurred widely.
 */
export function measureThickness(
  L: Float32Array,
  around: Float32Array,
  width: number,
  height: number,
): { dark: number[]; light: number[]; width: number } {
  const n = width * height;
  const kind = new Uint8Array(n);
  for (let i = 0; i < n; i++) {
    const d = L[i] - around[i];
    kind[i] = d < -LEAST_CONTRAST ? 1 : d > LEAST_CONTRAST ? 2 : 0;
  }
  const rows = new Uint8Array(n);
  for (let y = 0; y < height; y++) {
    const end = (y + 1) * width;
    for (let from = y * width; from < end;) {
      const k = kind[from];
      let to = from + 1;
      while (to < end && kind[to] === k) to++;
      if (k !== 0) rows.fill(Math.min(LONGEST, to - from), from, to);
      from = to;
    }
  }
  const sums = new Float64Array(THICKNESSES.length * 2);
  const since = new Int32Array(width);
  let weighted = 0;
  let total = 0;
  for (let y = 1; y <= height; y++)
    for (let x = 0; x < width; x++) {
      const i = (y - 1) * width + x;
      if (y < height && kind[i + width] === kind[i]) continue;
      const start = since[x];
      since[x] = y;
      const k = kind[i];
      if (k === 0) continue;
      const v = Math.min(LONGEST, y - start);
      for (let q = start; q < y; q++) {
        const j = q * width + x;
        const h = rows[j];
        const thickness = (h * v) / Math.sqrt(h * h + v * v);
        if (thickness > THICKNESSES[THICKNESSES.length - 1]) continue;
        let bin = 0;
        while (thickness > THICKNESSES[bin]) bin++;
        const contrast = k === 1 ? around[j] - L[j] : L[j] - around[j];
        sums[k === 1 ? bin : bin + THICKNESSES.length] += contrast;
        // A thick line has more pixels; divided by its thickness it counts by its length.
        weighted += contrast;
        total += contrast / thickness;
      }
    }
  const amounts = Array.from(sums, s => s / n);
  return {
    dark: amounts.slice(0, THICKNESSES.length),
    light: amounts.slice(THICKNESSES.length),
    width: total > 0 ? weighted / total : 0,
  };
}
