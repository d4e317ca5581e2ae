/** 95 % of a normal distribution lies within so many standard deviations. */
const Z = 1.96;

/**
 * Where a share may lie, given how often something was so: Wilson's score interval at 95 % (Wilson 1927), 0–1. From none nothing is known.
 */
export function wilson(hits: number, of: number): { from: number; to: number } {
  if (of === 0) return { from: 0, to: 1 };
  const p = hits / of;
  const z2 = Z * Z;
  const middle = (p + z2 / (2 * of)) / (1 + z2 / of);
  const reach = (Z / (1 + z2 / of)) * Math.sqrt((p * (1 - p)) / of + z2 / (4 * of * of));
  return { from: Math.max(0, middle - reach), to: Math.min(1, middle + reach) };
}
