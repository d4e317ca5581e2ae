/** `count` evenly spaced quantiles of a plane of values in [0, 1], from a 2048-bin histogram. The outer half per cent is left out. */
export function quantiles(values: Float32Array, count: number): number[] {
  const BINS = 2048;
  const histogram = new Uint32Array(BINS);
  for (let i = 0; i < values.length; i++) {
    const bin = (values[i] * (BINS - 1) + 0.5) | 0;
    histogram[bin < 0 ? 0 : bin >= BINS ? BINS - 1 : bin]++;
  }
  const out: number[] = [];
  let seen = 0;
  let bin = -1;
  for (let q = 0; q < count; q++) {
    const wanted = values.length * (0.005 + (0.99 * q) / (count - 1));
    while (seen < wanted && bin < BINS - 1) seen += histogram[++bin];
    out.push(Math.max(0, bin) / (BINS - 1));
  }
  return out;
}
