/** Spreads from the middle at which a figure stands out (Iglewicz & Hoaglin 1993). */
const FAR = 3.5;
/** The median of absolute deviations of a normal distribution, as a share of its standard deviation. */
const NORMAL = 0.6745;
/** A spread smaller than this is measuring noise. */
const LEAST_SPREAD = 0.015;

/**
 * Which figures stand out upwards from the rest: those whose modified z-score, (x − median) × 0.6745 ÷ MAD, is above 3.5. Median and MAD
 * are not moved by the ones that stand out, as a mean would be. Indices, the farthest first; none of fewer than five figures.
 */
export function outliersOf(figures: readonly number[]): number[] {
  if (figures.length < 5) return [];
  const middle = median(figures);
  const spread = Math.max(LEAST_SPREAD, median(figures.map(v => Math.abs(v - middle))));
  return figures
    .map((v, i) => ({ i, z: ((v - middle) * NORMAL) / spread }))
    .filter(f => f.z > FAR)
    .sort((p, q) => q.z - p.z)
    .map(f => f.i);
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((p, q) => p - q);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
}
