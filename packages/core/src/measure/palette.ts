import { kernels, put, take, within, zeros } from '@zinc/kernels';
import { labDistance2 } from '../colour/oklab.ts';
import type { LabPlanes } from '../image/types.ts';
import type { PaletteColour } from './types.ts';

const CHROMA_WEIGHT = 1.6;
const L_BINS = 24;
const C_BINS = 20;
const C_LOW = -0.36;
const C_SCALE = C_BINS / 0.72;

/** A class of colours: their mean, the share they weigh, how far they stand on edges, 0–1, and the area they cover. */
interface Bin extends PaletteColour {
  edge: number;
  area: number;
}

/** What to look at when colours are gathered: weights of pixels (1 when not given), and slopes, to know mixtures from inks. */
interface Gathering {
  weights?: Float32Array;
  slopes?: Float32Array;
}

/** A coarse OKLab histogram whose bins keep the mean colour of what fell into them. Large pictures are read like a chessboard. */
export function binColours(planes: LabPlanes, { weights, slopes }: Gathering = {}): Bin[] {
  const { L, a, b, width, height } = planes;
  const step = width * height > 65536 ? 2 : 1;
  const sums = within(() => {
    const size = L_BINS * C_BINS * C_BINS * 6;
    const at = zeros(size * 2);
    const [pL, pa, pb] = [L, a, b].map(put);
    const weigh = weights ? put(weights) : 0;
    const slope = slopes ? put(slopes) : 0;
    kernels.binColours(pL, pa, pb, width, height, weigh, slope, 0.025, step, L_BINS, C_BINS, C_LOW, C_SCALE, at);
    return take(at, new Float64Array(size));
  });
  let total = 0;
  let seen = 0;
  for (let o = 0; o < sums.length; o += 6) {
    total += sums[o];
    seen += sums[o + 5];
  }
  const bins: Bin[] = [];
  for (let o = 0; o < sums.length; o += 6) {
    const w = sums[o];
    // What covers less than a few thousandths of a per cent only costs time.
    if (w > total * 2e-5)
      bins.push({
        L: sums[o + 1] / w,
        a: sums[o + 2] / w,
        b: sums[o + 3] / w,
        share: w / total,
        edge: sums[o + 4] / w,
        area: sums[o + 5] / seen,
      });
  }
  return bins.sort((x, y) => y.share - x.share);
}

/**
 * Weighted k-means on colour bins. Centres start from the largest bin and then from what is far from all centres yet not rare, so the
 * result does not depend on chance. Small (< `least`) and nearly equal centres are merged away. Sorted dark to light.
 */
export function clusterColours(bins: Bin[], count: number, least = 0.008): PaletteColour[] {
  if (bins.length === 0) return [];
  const centres: Bin[] = [{ ...bins[0] }];
  const reach = bins.map(b => labDistance2(b, bins[0], CHROMA_WEIGHT));
  while (centres.length < Math.min(count, bins.length)) {
    let best = -1;
    let bestScore = 1e-4;
    for (let i = 0; i < bins.length; i++) {
      const score = reach[i] * Math.sqrt(bins[i].share);
      if (score > bestScore) {
        bestScore = score;
        best = i;
      }
    }
    if (best < 0) break;
    centres.push({ ...bins[best] });
    for (let i = 0; i < bins.length; i++) reach[i] = Math.min(reach[i], labDistance2(bins[i], bins[best], CHROMA_WEIGHT));
  }
  for (let round = 0; round < 10; round++) {
    const sums = centres.map(() => ({ L: 0, a: 0, b: 0, share: 0, edge: 0, area: 0 }));
    for (const bin of bins) {
      const s = sums[nearestColour(bin, centres)];
      s.L += bin.L * bin.share;
      s.a += bin.a * bin.share;
      s.b += bin.b * bin.share;
      s.edge += bin.edge * bin.share;
      s.share += bin.share;
      s.area += bin.area;
    }
    sums.forEach((s, c) => {
      const k = 1 / s.share;
      if (s.share > 0) centres[c] = { L: s.L * k, a: s.a * k, b: s.b * k, edge: s.edge * k, share: s.share, area: s.area };
      else centres[c].share = 0;
    });
  }
  const inks = unmixEdges(centres.filter(c => c.share > 0)).filter(c => c.share > least);
  return normaliseShares(mergeNear(inks, 0.0016)).sort((x, y) => x.L - y.L);
}

/** Gives the area of colours that stand on edges, straight between two others, to those two: they are mixtures and not inks. */
function unmixEdges(colours: Bin[]): PaletteColour[] {
  const left = colours.slice().sort((p, q) => q.edge - p.edge);
  for (let k = 0; k < left.length;) {
    const c = left[k];
    const ends = c.edge > 0.55 && left.length > 2 ? endsOf(c, left) : null;
    if (!ends) {
      k++;
      continue;
    }
    const [p, q, t] = ends;
    p.share += c.share * (1 - t);
    q.share += c.share * t;
    left.splice(k, 1);
  }
  return left.map(({ L, a, b, share }) => ({ L, a, b, share }));
}

/** The two colours between which `c` lies straight (within 0.035), and how far along, or null. */
function endsOf(c: Bin, colours: Bin[]): [Bin, Bin, number] | null {
  let best: [Bin, Bin, number] | null = null;
  let least = 0.035 * 0.035;
  for (const p of colours)
    for (const q of colours) {
      if (p === c || q === c || p.L >= q.L) continue;
      const d = { L: q.L - p.L, a: q.a - p.a, b: q.b - p.b };
      const t = ((c.L - p.L) * d.L + (c.a - p.a) * d.a + (c.b - p.b) * d.b) / (d.L * d.L + d.a * d.a + d.b * d.b + 1e-9);
      if (t < 0.1 || t > 0.9) continue;
      const off = labDistance2(c, { L: p.L + t * d.L, a: p.a + t * d.a, b: p.b + t * d.b });
      if (off < least) {
        least = off;
        best = [p, q, t];
      }
    }
  return best;
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

/** The colour that stands for a picture's ground: large, and rather light. The palette must not be empty. */
export function groundColour(palette: PaletteColour[]): PaletteColour {
  return palette.reduce((p, c) => (c.share * (0.4 + c.L) > p.share * (0.4 + p.L) ? c : p));
}

/** The same colours with shares that sum to 1. */
export function normaliseShares(colours: PaletteColour[]): PaletteColour[] {
  const total = colours.reduce((sum, c) => sum + c.share, 0);
  return colours.map(c => ({ ...c, share: total > 0 ? c.share / total : 1 / colours.length }));
}

/**
 * Palette of up to `count` inks. Pixels on edges, which are mixtures and not inks, count little in what the inks are, but fully in how
 * much of the picture each covers.
 */
export function measurePalette(planes: LabPlanes, weights: Float32Array, slopes: Float32Array, count = 8): PaletteColour[] {
  const bins = binColours(planes, { weights, slopes });
  const inks = clusterColours(bins, count + 4, 0.006);
  while (inks.length > count) inks.splice(inks.indexOf(inks.reduce((p, q) => (q.share < p.share ? q : p))), 1);
  const areas = inks.map(() => 0);
  for (const bin of bins) areas[nearestColour(bin, inks)] += bin.area;
  return normaliseShares(inks.map((c, i) => ({ ...c, share: 0.5 * (c.share + areas[i]) })));
}
