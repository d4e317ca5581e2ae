import { kernels, put, take, within, zeros } from '@zinc/kernels';

const BINS = 2048;

/** How many pixels of a plane have each of 2048 values from 0 to 1. */
export function histogramOf(values: Float32Array): Float64Array {
  return within(() => {
    const counts = zeros(BINS);
    kernels.histogram(put(values), values.length, counts, BINS - 1);
    return Float64Array.from(take(counts, new Int32Array(BINS)));
  });
}

/** `count` evenly spaced quantiles from a histogram over [0, 1]; the outer half per cent is left out. */
export function quantilesOf(histogram: Float64Array, count: number): number[] {
  const last = histogram.length - 1;
  const total = histogram.reduce((sum, v) => sum + v, 0);
  const out: number[] = [];
  let seen = 0;
  let bin = -1;
  for (let q = 0; q < count; q++) {
    const wanted = total * (0.005 + (0.99 * q) / (count - 1));
    while (seen < wanted && bin < last) seen += histogram[++bin];
    out.push(Math.max(0, bin) / last);
  }
  return out;
}

/** `count` evenly spaced quantiles of a plane of values in [0, 1]. The outer half per cent is left out. */
export function quantiles(values: Float32Array, count: number): number[] {
  return quantilesOf(histogramOf(values), count);
}

/** A coarser histogram (128 classes) in which each class counts by the square root of its frequency: what is there, more than how much. */
export function temper(histogram: Float64Array): Float64Array {
  const fold = histogram.length / 128;
  const out = new Float64Array(128);
  for (let i = 0; i < histogram.length; i++) out[(i / fold) | 0] += histogram[i];
  const total = histogram.reduce((sum, v) => sum + v, 0);
  // A rare class is noise: a thousandth of the picture is where counting starts.
  return out.map(v => (v > total / 1000 ? Math.sqrt(v) : 0));
}
