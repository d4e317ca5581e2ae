import { kernels, put, room, take, within, zeros } from '@zinc/kernels';
import { labDistance2 } from '../colour/oklab.ts';
import { binColours, clusterColours, groundColour, nearestColour } from '../measure/palette.ts';
import { blurWide } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';
import { clamp, lerp, smoothstep } from '../number/scalar.ts';
import { length2 } from '../number/trig.ts';

/** How far the eye blurs a ground, in 512ths of the picture. */
const QUIET_REACH = 40;

/** The content's own colour areas and the palette colour each is given. */
export interface Assignment {
  clusters: PaletteColour[];
  /** Cluster of each pixel. */
  labels: Uint8Array;
  /** Palette index for each cluster. */
  colourOf: number[];
  /** Palette index that stands for bare ground. */
  ground: number;
  /** The cluster that is a whole photographed ground, or −1. */
  sheet: number;
}

/** Index of the palette colour that stands for the ground. */
export function groundOf(palette: PaletteColour[]): number {
  return palette.indexOf(groundColour(palette));
}

/**
 * Clusters the content and gives every cluster one palette colour, all together: the order of lightness stays, neighbours stay apart,
 * hue relations and the palette's shares are respected. `mostGrounds`: how many areas a ground that was photographed
 * may keep; a drawn one keeps its own. Local search from the nearest colours, deterministic.
 */
export function assignPalette(
  content: LabPlanes,
  palette: PaletteColour[],
  hueKeep: number,
  shareAmount: number,
  mask?: Float32Array,
  mostGrounds = Infinity,
): Assignment {
  const { clusters, labels, joins, sheet } = clusterContent(content, mask, mostGrounds);
  const touching = adjacency(labels, content.width, content.height, clusters.length);
  const ground = groundOf(palette);
  const backdrop = sheet >= 0 ? sheet : backdropCluster(labels, content.width, content.height, clusters.length, mask);
  const areas = mask ? areasWithin(labels, mask, clusters.length) : clusters.map(c => c.share);
  // With inks enough, the light side of a thing takes one of them and keeps its shape against the sheet.
  const inked = mask !== undefined && palette.length >= 4;
  const body = mask ? mask.reduce((sum, m) => sum + m, 0) / mask.length : 1;
  const bodily = clusters.map((c, i) => (inked ? smoothstep(0.4, 0.8, (areas[i] * body) / c.share) : 0));
  const tones = palette.map(c => c.L);
  const inkTones = tones.filter((_, j) => palette.length < 2 || j !== ground);
  /** Moves the lightness of some clusters to lie between the darkest and the lightest of some inks. */
  const range = (from: PaletteColour[], to: number[]): ((L: number) => number) => {
    const low = Math.min(...from.map(c => c.L));
    const span = Math.max(0.1, Math.max(...from.map(c => c.L)) - low);
    const least = Math.min(...to);
    return L => least + ((L - low) * (Math.max(...to) - least)) / span;
  };
  const still = mask ? backdrop : -1;
  const things = clusters.filter((_, i) => i !== still);
  const bodies = clusters.filter((_, i) => bodily[i] > 0.5);
  const whole = range(things, tones);
  const inside = bodies.length > 1 ? range(bodies, inkTones) : whole;
  const contentChroma = clusters.reduce((m, c) => Math.max(m, length2(c.a, c.b)), 0.02);
  const paletteChroma = palette.reduce((m, c) => Math.max(m, length2(c.a, c.b)), 0.02);
  const chromaGain = clamp(paletteChroma / contentChroma, 0.4, 2.2);
  const moved = clusters.map((c, i) => ({
    L: lerp(whole(c.L), inside(c.L), bodily[i]),
    a: c.a * chromaGain,
    b: c.b * chromaGain,
  }));
  const weight = clusters.map(c => Math.sqrt(c.share));
  const single = clusters.map((_, i) =>
    palette.map((p, j) => {
      const dL = moved[i].L - p.L;
      const da = moved[i].a - p.a;
      const db = moved[i].b - p.b;
      const stray =
        i === backdrop && j !== ground ? (mask ? 10 : 0.25) : i !== backdrop && j === ground ? lerp(0.012, 0.12, bodily[i]) : 0;
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
        // A backdrop that becomes the sheet is no darker or lighter than anything.
        if (wantedGap * gap < 0 && i !== still && k !== still)
          sum += 0.4 * Math.min(weight[i], weight[k]) * Math.min(Math.abs(wantedGap), Math.abs(gap));
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
  return { clusters, labels, colourOf: choice, ground, sheet };
}

/** The content's colours, by pixel; `joins` says which of them became one, `sheet` which one is the whole ground (−1 when none is). */
interface Clustering {
  clusters: PaletteColour[];
  labels: Uint8Array;
  joins: Map<number, number> | null;
  sheet: number;
}

function clusterContent(content: LabPlanes, mask: Float32Array | undefined, mostGrounds: number): Clustering {
  if (mask && mostGrounds === 1) return clusterBySubject(content, mask);
  const seen = mask && mostGrounds < Infinity ? quietGround(content, mask) : content;
  const clusters = clusterColours(binColours(seen), 14, 0.004);
  const labels = labelPixels(seen, clusters);
  return { clusters, labels, joins: mask ? calmGround(labels, clusters, mask, mostGrounds) : null, sheet: -1 };
}

/** Subject and ground apart: a thing whose colour is in its backdrop too does not melt into it. */
function clusterBySubject(content: LabPlanes, mask: Float32Array): Clustering {
  const { L, a, b } = content;
  const inside = mask.map(m => (m > 0.5 ? 1 : 0));
  // What lies on the edge of the mask is a mixture with the ground and no colour of the thing.
  const core = mask.map(m => (m > 0.9 ? 1 : 0));
  let count = 0;
  const ground = { L: 0, a: 0, b: 0 };
  for (let i = 0; i < inside.length; i++) {
    if (inside[i]) continue;
    count++;
    ground.L += L[i];
    ground.a += a[i];
    ground.b += b[i];
  }
  const share = count / inside.length;
  const k = 1 / Math.max(1, count);
  const clusters = clusterColours(binColours(content, { weights: core }), 13, 0.004);
  const labels = labelPixels(content, clusters);
  const sheet = clusters.length;
  for (let i = 0; i < labels.length; i++) if (!inside[i]) labels[i] = sheet;
  const scaled = clusters.map(c => ({ ...c, share: c.share * (1 - share) }));
  return {
    clusters: [...scaled, { L: ground.L * k, a: ground.a * k, b: ground.b * k, share }],
    labels,
    joins: null,
    sheet,
  };
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
 * The content with the soft unrest of its ground taken away, as a painter squints at it: blurred clouds of a backdrop would otherwise become
 * islands. What stands out from the blurred ground (a horizon, a thing that stands there) stays as it is.
 */
function quietGround(content: LabPlanes, mask: Float32Array): LabPlanes {
  const { width, height } = content;
  const n = mask.length;
  const sigma = QUIET_REACH * (Math.max(width, height) / 512);
  const weight = mask.map(m => (m < 0.5 ? 1 : 0));
  const weights = blurWide(weight, width, height, sigma);
  const wide = (plane: Float32Array): Float32Array => {
    const out = blurWide(
      plane.map((v, i) => v * weight[i]),
      width,
      height,
      sigma,
    );
    for (let i = 0; i < n; i++) out[i] /= weights[i] + 1e-4;
    return out;
  };
  const [L, a, b] = [wide(content.L), wide(content.a), wide(content.b)];
  for (let i = 0; i < n; i++) {
    const off = Math.abs(L[i] - content.L[i]) + Math.abs(a[i] - content.a[i]) + Math.abs(b[i] - content.b[i]);
    const t = weight[i] === 0 ? 1 : smoothstep(0.07, 0.12, off);
    if (t === 0) continue;
    L[i] += (content.L[i] - L[i]) * t;
    a[i] += (content.a[i] - a[i]) * t;
    b[i] += (content.b[i] - b[i]) * t;
  }
  return { width, height, L, a, b };
}

/**
 * Leaves the ground around a subject few areas: colours that cover little of it, as the steps of a soft shadow do, join the nearest of
 * those that cover much, and nearly equal ones become one. Labels change in place; returned is, for clusters that belong to the ground, the
 * one they joined.
 */
function calmGround(labels: Uint8Array, clusters: PaletteColour[], mask: Float32Array, most: number): Map<number, number> {
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
    if (kept.length === 0 || (kept.length < most && apart && (share > 0.1 || shade))) kept.push(c);
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
