import { labDistance2 } from '../colour/oklab.ts';
import type { LabPlanes } from '../image/types.ts';
import type { PaletteColour } from './types.ts';

const CHROMA_WEIGHT = 1.6;
const L_BINS = 24;
const C_BINS = 20;
const C_LOW = -0.36;
const C_SCALE = C_BINS / 0.72;

/** A coarse OKLab histogram whose bins keep the mean colour of what fell into them; weights default to 1. */
export function binColours(planes: LabPlanes, weights?: Float32Array): PaletteColour[] {
  const { L, a, b } = planes;
  const sums = new Float64Array(L_BINS * C_BINS * C_BINS * 4);
  const top = C_BINS - 1;
  let total = 0;
  for (let i = 0; i < L.length; i++) {
    const weight = weights ? weights[i] : 1;
    let l = (L[i] * L_BINS) | 0;
    let p = ((a[i] - C_LOW) * C_SCALE) | 0;
    let q = ((b[i] - C_LOW) * C_SCALE) | 0;
    l = l < 0 ? 0 : l >= L_BINS ? L_BINS - 1 : l;
    p = p < 0 ? 0 : p > top ? top : p;
    q = q < 0 ? 0 : q > top ? top : q;
    const o = ((l * C_BINS + p) * C_BINS + q) * 4;
    sums[o] += weight;
    sums[o + 1] += weight * L[i];
    sums[o + 2] += weight * a[i];
    sums[o + 3] += weight * b[i];
    total += weight;
  }
  const bins: PaletteColour[] = [];
  for (let o = 0; o < sums.length; o += 4)
    if (sums[o] > 0)
      bins.push({ L: sums[o + 1] / sums[o], a: sums[o + 2] / sums[o], b: sums[o + 3] / sums[o], share: sums[o] / total });
  return bins.sort((x, y) => y.share - x.share);
}

/**
 * Weighted k-means on colour bins. Centres start from the largest bin and then from what is far from all centres yet not rare, so the
 * result does not depend on chance. Small (< `least`) and nearly equal centres are merged away. Sorted dark to light.
 */
export function clusterColours(bins: PaletteColour[], count: number, least = 0.008): PaletteColour[] {
  if (bins.length === 0) return [];
  const centres: PaletteColour[] = [{ ...bins[0] }];
  while (centres.length < Math.min(count, bins.length)) {
    let best = -1;
    let bestScore = 1e-4;
    for (let i = 0; i < bins.length; i++) {
      let nearest = Infinity;
      for (const c of centres) nearest = Math.min(nearest, labDistance2(bins[i], c, CHROMA_WEIGHT));
      const score = nearest * Math.sqrt(bins[i].share);
      if (score > bestScore) {
        bestScore = score;
        best = i;
      }
    }
    if (best < 0) break;
    centres.push({ ...bins[best] });
  }
  for (let round = 0; round < 14; round++) {
    const sums = centres.map(() => ({ L: 0, a: 0, b: 0, share: 0 }));
    for (const bin of bins) {
      const s = sums[nearestColour(bin, centres)];
      s.L += bin.L * bin.share;
      s.a += bin.a * bin.share;
      s.b += bin.b * bin.share;
      s.share += bin.share;
    }
    sums.forEach((s, c) => {
      if (s.share > 0) centres[c] = { L: s.L / s.share, a: s.a / s.share, b: s.b / s.share, share: s.share };
      else centres[c].share = 0;
    });
  }
  return normaliseShares(
    mergeNear(
      centres.filter(c => c.share > least),
      0.0016,
    ),
  ).sort((x, y) => x.L - y.L);
}

/** Index of the palette colour nearest to `colour`. */
export function nearestColour(colour: { L: number; a: number; b: number }, palette: PaletteColour[]): number {
  let best = 0;
  let bestDistance = Infinity;
  for (let c = 0; c < palette.length; c++) {
    const d = labDistance2(colour, palette[c], CHROMA_WEIGHT);
    if (d < bestDistance) {
      bestDistance = d;
      best = c;
    }
  }
  return best;
}

/** Colours closer than √`limit` become one, at their weighted mean. */
export function mergeNear(colours: PaletteColour[], limit: number): PaletteColour[] {
  const out = colours.map(c => ({ ...c }));
  for (let i = 0; i < out.length; i++)
    for (let j = out.length - 1; j > i; j--)
      if (labDistance2(out[i], out[j], CHROMA_WEIGHT) < limit) {
        out[i] = blendColours(out[i], out[j]);
        out.splice(j, 1);
      }
  return out;
}

/** The mean of two palette colours by share; shares add. */
export function blendColours(p: PaletteColour, q: PaletteColour): PaletteColour {
  const share = p.share + q.share;
  const t = share > 0 ? q.share / share : 0.5;
  return { L: p.L + (q.L - p.L) * t, a: p.a + (q.a - p.a) * t, b: p.b + (q.b - p.b) * t, share };
}

/** The same colours with shares that sum to 1. */
export function normaliseShares(colours: PaletteColour[]): PaletteColour[] {
  const total = colours.reduce((sum, c) => sum + c.share, 0);
  return colours.map(c => ({ ...c, share: total > 0 ? c.share / total : 1 / colours.length }));
}

/** Palette of up to `count` inks; pixels on edges, which are mixtures and not inks, count little. */
export function measurePalette(planes: LabPlanes, edgeWeights: Float32Array, count = 8): PaletteColour[] {
  return clusterColours(binColours(planes, edgeWeights), count);
}
