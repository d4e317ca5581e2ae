import { kernels, put, room, take, within, zeros } from '@zinc/kernels';
import { labDistance2 } from '../colour/oklab.ts';
import { binColours, clusterColours, nearestColour } from '../measure/palette.ts';
import type { LabPlanes } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';
import { clamp } from '../number/scalar.ts';
import { length2 } from '../number/trig.ts';

/** The content's own colour areas and the palette colour each is given. */
export interface Assignment {
  clusters: PaletteColour[];
  /** Cluster of each pixel. */
  labels: Uint8Array;
  /** Palette index for each cluster. */
  colourOf: number[];
  /** Palette index that stands for bare ground. */
  ground: number;
}

/** Index of the palette colour that stands for paper: the lightest large one, else the largest. */
export function groundOf(palette: PaletteColour[]): number {
  let best = -1;
  palette.forEach((c, i) => {
    if (c.share > 0.1 && (best < 0 || c.L > palette[best].L)) best = i;
  });
  if (best >= 0) return best;
  return palette.reduce((top, c, i) => (c.share > palette[top].share ? i : top), 0);
}

/**
 * Clusters the content and gives every cluster one palette colour, all together: the order of lightness stays, neighbours stay apart,
 * hue relations and the palette's shares are respected. Local search from the nearest colours, deterministic.
 */
export function assignPalette(
  content: LabPlanes,
  palette: PaletteColour[],
  hueKeep: number,
  shareAmount: number,
  mask?: Float32Array,
): Assignment {
  const clusters = clusterColours(binColours(content), 14, 0.004);
  const labels = labelPixels(content, clusters);
  const joins = mask ? calmGround(labels, clusters, mask) : null;
  const touching = adjacency(labels, content.width, content.height, clusters.length);
  const ground = groundOf(palette);
  const backdrop = backdropCluster(labels, content.width, content.height, clusters.length, mask);
  const lows = clusters.reduce((m, c) => Math.min(m, c.L), 1);
  const highs = clusters.reduce((m, c) => Math.max(m, c.L), 0);
  const darkest = palette.reduce((m, c) => Math.min(m, c.L), 1);
  const lightest = palette.reduce((m, c) => Math.max(m, c.L), 0);
  const scale = (lightest - darkest) / Math.max(0.1, highs - lows);
  const contentChroma = clusters.reduce((m, c) => Math.max(m, length2(c.a, c.b)), 0.02);
  const paletteChroma = palette.reduce((m, c) => Math.max(m, length2(c.a, c.b)), 0.02);
  const chromaGain = clamp(paletteChroma / contentChroma, 0.4, 2.2);
  const moved = clusters.map(c => ({ L: darkest + (c.L - lows) * scale, a: c.a * chromaGain, b: c.b * chromaGain }));
  const weight = clusters.map(c => Math.sqrt(c.share));
  const single = clusters.map((_, i) =>
    palette.map((p, j) => {
      const dL = moved[i].L - p.L;
      const da = moved[i].a - p.a;
      const db = moved[i].b - p.b;
      const stray = i === backdrop && j !== ground ? 0.25 : i !== backdrop && j === ground ? 0.012 : 0;
      // A clear colour is known by its hue more than by its lightness: a red root stays red though a blue is as dark.
      const clear = clamp((length2(clusters[i].a, clusters[i].b) - 0.05) * 9);
      const light = 0.55 - 0.33 * clear * hueKeep;
      return (
        weight[i] *
        (light * dL * dL +
          (0.5 + 2.4 * hueKeep) * (da * da + db * db) +
          (1 + 2.5 * clear) * hueStray(clusters[i], p) * hueKeep +
          stray)
      );
    }),
  );
  const areas = mask ? areasWithin(labels, mask, clusters.length) : clusters.map(c => c.share);
  const wanted = wantedShares(palette, mask ? ground : -1);
  const cost = (choice: number[]): number => {
    let sum = 0;
    const shares = new Float64Array(palette.length);
    for (let i = 0; i < choice.length; i++) {
      sum += single[i][choice[i]];
      shares[choice[i]] += areas[i];
      for (let k = 0; k < i; k++) {
        const wantedGap = moved[i].L - moved[k].L;
        const gap = palette[choice[i]].L - palette[choice[k]].L;
        if (wantedGap * gap < 0) sum += 0.4 * Math.min(weight[i], weight[k]) * Math.min(Math.abs(wantedGap), Math.abs(gap));
        const near = touching[i * choice.length + k];
        if (near > 0) {
          const p = moved[i];
          const q = moved[k];
          const before = Math.sqrt((p.L - q.L) ** 2 + (p.a - q.a) ** 2 + (p.b - q.b) ** 2);
          const c = palette[choice[i]];
          const d = palette[choice[k]];
          const after = Math.sqrt((c.L - d.L) ** 2 + (c.a - d.a) ** 2 + (c.b - d.b) ** 2);
          if (after < before) sum += 1.4 * near * (before - after) * before;
        }
      }
    }
    for (let j = 0; j < palette.length; j++) {
      const off = shares[j] - wanted[j];
      sum += shareAmount * (off > 0 ? 0.5 : 0.3) * off * off;
    }
    return sum;
  };
  const choice = moved.map(c => nearestColour(c, palette));
  if (backdrop >= 0) choice[backdrop] = ground;
  let best = cost(choice);
  for (let round = 0; round < 8; round++) {
    let better = false;
    for (let i = 0; i < choice.length; i++)
      for (let j = 0; j < palette.length; j++) {
        const before = choice[i];
        if (j === before) continue;
        choice[i] = j;
        const c = cost(choice);
        if (c < best - 1e-9) {
          best = c;
          better = true;
        } else choice[i] = before;
      }
    if (!better) break;
  }
  // Colours of the ground that were joined stay together, or its gradients would break into bands.
  joins?.forEach((kept, c) => (choice[c] = choice[kept]));
  return { clusters, labels, colourOf: choice, ground };
}

/** Share of the subject each cluster covers. */
function areasWithin(labels: Uint8Array, mask: Float32Array, k: number): number[] {
  const areas = new Array<number>(k).fill(0);
  let total = 0;
  for (let i = 0; i < labels.length; i += 2)
    if (mask[i] > 0.5) {
      areas[labels[i]]++;
      total++;
    }
  return areas.map(v => v / Math.max(1, total));
}

/** Shares that colours should take; with a bare ground (`ground` ≥ 0) those of the others among themselves. */
function wantedShares(palette: PaletteColour[], ground: number): number[] {
  const total = palette.reduce((sum, c, j) => sum + (j === ground ? 0 : c.share), 0);
  return palette.map((c, j) => (j === ground ? 0.05 : (0.95 * c.share) / Math.max(1e-6, total)));
}

/**
 * Leaves the ground around a subject few areas: colours that cover little of it, as the steps of a soft shadow do, join the nearest of
 * those that cover much, and nearly equal ones become one. Labels change in place; returned is, for clusters that belong to the ground, the
 * one they joined.
 */
function calmGround(labels: Uint8Array, clusters: PaletteColour[], mask: Float32Array): Map<number, number> {
  const k = clusters.length;
  const joined = new Map<number, number>();
  const n = labels.length;
  const [whole, areas] = within(() => {
    const counts = zeros(512);
    kernels.countLabels(put(labels), put(mask), n, counts);
    const all = take(counts, new Int32Array(512));
    return [all.subarray(0, k), all.subarray(256, 256 + k)];
  });
  const total = areas.reduce((sum, v) => sum + v, 0);
  if (total < n * 0.02) return joined;
  const order = Array.from(areas.keys()).sort((p, q) => areas[q] - areas[p]);
  const kept: number[] = [];
  for (const c of order) {
    const share = areas[c] / total;
    const apart = kept.every(o => labDistance2(clusters[o], clusters[c]) > 0.045 * 0.045);
    const shade = share > 0.03 && kept.length > 0 && clusters[c].L < clusters[kept[0]].L - 0.14;
    if (kept.length === 0 || (apart && (share > 0.1 || shade))) kept.push(c);
  }
  const joins = Uint8Array.from({ length: k }, (_, c) =>
    kept.reduce(
      (best, o) => (labDistance2(clusters[o], clusters[c]) < labDistance2(clusters[best], clusters[c]) ? o : best),
      kept[0],
    ),
  );
  within(() => {
    const at = put(labels);
    kernels.relabelOutside(at, put(mask), n, put(joins));
    take(at, labels);
  });
  joins.forEach((kept, c) => {
    if (kept !== c && areas[c] > 0.6 * whole[c]) joined.set(c, kept);
  });
  return joined;
}

/** How far two clear colours disagree in hue, 0 to about 0.24; nothing when either is nearly grey. */
function hueStray(p: PaletteColour, q: PaletteColour): number {
  const cp = Math.sqrt(p.a * p.a + p.b * p.b);
  const cq = Math.sqrt(q.a * q.a + q.b * q.b);
  if (cp < 0.02 || cq < 0.02) return 0;
  const cosine = (p.a * q.a + p.b * q.b) / (cp * cq);
  return 0.12 * (1 - cosine) * clamp((cp - 0.02) * 14) * clamp((cq - 0.02) * 14);
}

/** Steps of the table that remembers the nearest cluster of a colour. */
const STEPS = 48;
const CHROMA_LOW = -0.34;
const CHROMA_SCALE = STEPS / 0.68;

/** Nearest cluster of every pixel; each small cube of colours is worked out once, when first met. */
function labelPixels(content: LabPlanes, clusters: PaletteColour[]): Uint8Array {
  const n = content.L.length;
  return within(() => {
    const [L, a, b] = [content.L, content.a, content.b].map(put);
    const colours = put(Float32Array.from(clusters.flatMap(c => [c.L, c.a, c.b])));
    const known = zeros((STEPS * STEPS * STEPS) / 4);
    const labels = room(n);
    kernels.labelPixels(L, a, b, n, colours, clusters.length, 1.6, STEPS, CHROMA_LOW, CHROMA_SCALE, known, labels);
    return take(labels, new Uint8Array(n));
  });
}

/** How much of their borders clusters share, 0–1, as a k × k table. */
function adjacency(labels: Uint8Array, width: number, height: number, k: number): Float64Array {
  const counts = new Float64Array(k * k);
  const borders = new Float64Array(k);
  const step = Math.max(1, Math.round(Math.max(width, height) / 256));
  for (let y = 0; y + step < height; y += step)
    for (let x = 0; x + step < width; x += step) {
      const here = labels[y * width + x];
      for (const there of [labels[y * width + x + step], labels[(y + step) * width + x]]) {
        if (there === here) continue;
        counts[here * k + there]++;
        counts[there * k + here]++;
        borders[here]++;
        borders[there]++;
      }
    }
  for (let i = 0; i < k; i++) for (let j = 0; j < k; j++) counts[i * k + j] /= Math.max(20, Math.min(borders[i], borders[j]));
  return counts;
}

/** The cluster that fills most of the frame's edge outside the mask, or −1 when none fills a third of it. */
function backdropCluster(labels: Uint8Array, width: number, height: number, k: number, mask?: Float32Array): number {
  const counts = new Uint32Array(k);
  let total = 0;
  const see = (i: number): void => {
    total++;
    if (!mask || mask[i] < 0.5) counts[labels[i]]++;
  };
  for (let x = 0; x < width; x++) {
    see(x);
    see((height - 1) * width + x);
  }
  for (let y = 0; y < height; y++) {
    see(y * width);
    see(y * width + width - 1);
  }
  let best = 0;
  for (let c = 1; c < k; c++) if (counts[c] > counts[best]) best = c;
  return counts[best] > total / 3 ? best : -1;
}
