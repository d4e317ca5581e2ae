import { FACETS, type Facet, type Fingerprint, type PaletteColour } from '../measure/types.ts';
import { cos, log, sin } from '../number/trig.ts';
import { workedOf } from './components.ts';
import { SCALES } from './scales.ts';

/** Version of the search vectors: vectors of different versions are never compared. */
export const VECTOR_VERSION = 1;

/** Directions and quantiles that stand for a palette: distances of quantiles come near to sliced transport (Bonneel et al. 2015). */
const SLICES = 8;
const QUANTILES = 5;

/** Differences of greater weight soon come to the most that one of them may add to drift. */
const MOST_WEIGHT = 6;

interface Feature {
  /** The difference of `scales.ts` it stands for, whose noise and weight it takes. */
  like: string;
  count: number;
  values: (f: Fingerprint) => number[];
}

const logs = (values: readonly number[], floor: number): number[] => values.map(v => log(v + floor));
const spreadOf = (values: readonly number[], floor: number): number[] => {
  const total = values.reduce((s, v) => s + v + floor, 0);
  return values.map(v => (v + floor) / total);
};

const FEATURES: Record<Facet, Feature[]> = {
  colour: [
    { like: 'palette', count: SLICES * QUANTILES, values: f => sliced(f.colour.palette) },
    { like: 'chroma', count: 5, values: f => f.colour.chroma.slice(4) },
    { like: 'hue', count: 12, values: f => f.colour.hue },
    { like: 'inks', count: 1, values: f => logs([f.colour.inks], 0.5) },
    { like: 'warmth', count: 1, values: f => [f.colour.warmth] },
  ],
  light: [
    { like: 'tone', count: 17, values: f => f.light.tone },
    { like: 'spread', count: 9, values: f => f.light.spread },
    { like: 'contrast', count: 1, values: f => [f.light.contrast] },
    { like: 'bimodality', count: 1, values: f => [f.light.bimodality] },
    { like: 'paper', count: 1, values: f => [f.light.spread[8]] },
  ],
  line: [
    { like: 'edge', count: 1, values: f => logs([f.line.edge], 0.02) },
    { like: 'sharpness', count: 1, values: f => [f.line.sharpness] },
    { like: 'dark', count: 6, values: f => logs(f.line.dark, 0.0015) },
    { like: 'light', count: 6, values: f => logs(f.line.light, 0.0015) },
    { like: 'darkShape', count: 6, values: f => spreadOf(f.line.dark, 0.0004) },
    { like: 'lightShape', count: 6, values: f => spreadOf(f.line.light, 0.0004) },
    { like: 'width', count: 1, values: f => logs([f.line.width], 1) },
    { like: 'raggedness', count: 1, values: f => [f.line.raggedness] },
    { like: 'coherence', count: 1, values: f => [f.line.coherence] },
    { like: 'agreement', count: 1, values: f => [f.line.agreement] },
    {
      like: 'direction',
      count: 2,
      values: f => [f.line.agreement * cos(2 * f.line.direction), f.line.agreement * sin(2 * f.line.direction)],
    },
  ],
  texture: [
    { like: 'bands', count: 5, values: f => logs(f.texture.bands.slice(0, 5), 0.005) },
    { like: 'bandShape', count: 6, values: f => spreadOf(f.texture.bands, 0.002) },
    { like: 'chromaBands', count: 3, values: f => logs(f.texture.chromaBands, 0.004) },
    { like: 'flatness', count: 1, values: f => [f.texture.flatness] },
    { like: 'softness', count: 1, values: f => [f.texture.softness] },
    { like: 'grain', count: 1, values: f => logs([f.texture.grain], 0.001) },
    { like: 'along', count: 4, values: f => logs(f.texture.along, 0.004) },
    { like: 'across', count: 4, values: f => logs(f.texture.across, 0.004) },
    { like: 'jitter', count: 1, values: f => logs([f.texture.jitter], 0.005) },
    { like: 'shadow', count: 1, values: f => [f.texture.shadow.depth] },
    { like: 'period', count: 1, values: f => [f.texture.period.share] },
    { like: 'dots', count: 1, values: f => [f.texture.period.share * f.texture.period.dots] },
    { like: 'rim', count: 1, values: f => [f.texture.rim] },
  ],
};

/** A palette as quantiles of its tempered shares along fixed directions. */
function sliced(palette: PaletteColour[]): number[] {
  const total = palette.reduce((s, c) => s + Math.sqrt(c.share), 0);
  const out: number[] = [];
  for (let k = 0; k < SLICES; k++) {
    const z = 1 - (2 * (k + 0.5)) / SLICES;
    const r = Math.sqrt(1 - z * z);
    const [x, y] = [r * cos(k * 2.399963), r * sin(k * 2.399963)];
    const along = palette
      .map(c => ({ at: c.L * z + 1.5 * (c.a * x + c.b * y), share: Math.sqrt(c.share) / total }))
      .sort((p, q) => p.at - q.at);
    let seen = 0;
    let i = 0;
    for (let q = 0; q < QUANTILES; q++) {
      const wanted = (q + 0.5) / QUANTILES;
      while (i < along.length - 1 && seen + along[i].share < wanted) seen += along[i++].share;
      out.push(along[i]?.at ?? 0.5);
    }
  }
  return out;
}

/**
 * A fingerprint as one vector for search. The sum of the differences of two vectors orders pictures nearly as drift does; it is for finding
 * a few hundred among many, whose drift is then worked out exactly. Facets lie one after the other ({@link facetSpans}).
 */
export function searchVector(fingerprint: Fingerprint): Float32Array {
  const f = workedOf(fingerprint);
  const out: number[] = [];
  for (const facet of FACETS)
    for (const { like, count, values } of FEATURES[facet]) {
      const [, noise, weight] = SCALES[facet].find(s => s[0] === like)!;
      const list = values(f);
      // Drift takes d² ÷ (d + noise): nearly d itself once it is more than noise.
      const factor = Math.min(MOST_WEIGHT, weight) / count / (1 + 4 * noise);
      // A picture of a few pixels has fewer octaves.
      for (let i = 0; i < count; i++) out.push((list[i] ?? 0) * factor);
    }
  return Float32Array.from(out);
}

/** Where in a vector each facet lies: first and one past last. */
function facetSpans(): Record<Facet, readonly [number, number]> {
  let at = 0;
  const spans = {} as Record<Facet, readonly [number, number]>;
  for (const facet of FACETS) {
    const from = at;
    for (const { count } of FEATURES[facet]) at += count;
    spans[facet] = [from, at];
  }
  return spans;
}

/** Many vectors in one block of memory, searched from end to end. */
export class NearnessIndex {
  private readonly spans = facetSpans();
  readonly width = this.spans.texture[1];
  private block = new Float32Array(0);
  private list: string[] = [];
  private readonly rowOf = new Map<string, number>();

  get size(): number {
    return this.list.length;
  }

  /** The ids that are in it now. */
  ids(): string[] {
    return [...this.list];
  }

  has(id: string): boolean {
    return this.rowOf.has(id);
  }

  /** Puts a vector in, or in place of the one of the same id. Throws RangeError for one of another length. */
  set(id: string, vector: Float32Array): void {
    if (vector.length !== this.width) throw new RangeError(`Got a vector of ${vector.length} numbers; wanted ${this.width}.`);
    let row = this.rowOf.get(id);
    if (row === undefined) {
      row = this.list.length;
      this.list.push(id);
      this.rowOf.set(id, row);
      if ((row + 1) * this.width > this.block.length) {
        const wider = new Float32Array(Math.max(64, Math.ceil(row * 1.5)) * this.width + this.width);
        wider.set(this.block);
        this.block = wider;
      }
    }
    this.block.set(vector, row * this.width);
  }

  delete(id: string): void {
    const row = this.rowOf.get(id);
    if (row === undefined) return;
    const last = this.list.length - 1;
    if (row !== last) {
      this.block.copyWithin(row * this.width, last * this.width, (last + 1) * this.width);
      this.list[row] = this.list[last];
      this.rowOf.set(this.list[row], row);
    }
    this.list.pop();
    this.rowOf.delete(id);
  }

  /** The ids of the `most` nearest by the facets given, nearest first. */
  nearest(to: Float32Array, facets: readonly Facet[], most: number): string[] {
    const distances = this.distances(to, facets);
    const wanted = Math.min(most, distances.length);
    if (wanted === 0) return [];
    // The limit below which `wanted` lie, from a sorted copy: a sort of plain numbers costs less than one of rows.
    const limit = distances.slice().sort()[wanted - 1];
    const rows: number[] = [];
    for (let i = 0; i < distances.length; i++) if (distances[i] <= limit) rows.push(i);
    rows.sort((p, q) => distances[p] - distances[q]);
    return rows.slice(0, wanted).map(i => this.list[i]);
  }

  /** The distance of every row. */
  distances(to: Float32Array, facets: readonly Facet[]): Float32Array {
    const out = new Float32Array(this.list.length);
    const { block, width } = this;
    for (const [from, end] of this.joined(facets))
      for (let row = 0, at = from; row < out.length; row++, at += width) {
        let [s0, s1] = [0, 0];
        let i = from;
        let k = at;
        for (; i + 1 < end; i += 2, k += 2) {
          s0 += Math.abs(block[k] - to[i]);
          s1 += Math.abs(block[k + 1] - to[i + 1]);
        }
        if (i < end) s0 += Math.abs(block[k] - to[i]);
        out[row] += s0 + s1;
      }
    return out;
  }

  /** Spans of the facets, those side by side as one. */
  private joined(facets: readonly Facet[]): [number, number][] {
    const out: [number, number][] = [];
    for (const facet of FACETS) {
      if (!facets.includes(facet)) continue;
      const [from, end] = this.spans[facet];
      const last = out.at(-1);
      if (last && last[1] === from) last[1] = end;
      else out.push([from, end]);
    }
    return out;
  }
}
