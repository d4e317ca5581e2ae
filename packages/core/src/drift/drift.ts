import { FACETS, MEASURE_VERSION, type Facet, type Fingerprint, type PaletteColour } from '../measure/types.ts';

/** How far two fingerprints are apart: 0 is equal, 1 is as far as two unlike looks usually are. `total` is the mean of the facets. */
export type Drift = Record<Facet | 'total', number>;

const DIRECTIONS = Array.from({ length: 24 }, (_, i) => {
  const z = 1 - (2 * (i + 0.5)) / 24;
  const r = Math.sqrt(1 - z * z);
  const t = i * 2.399963;
  return [z, r * Math.cos(t), r * Math.sin(t)];
});

/** Mean one-dimensional transport cost of two palettes over fixed directions (sliced Wasserstein; Bonneel et al. 2015). */
export function paletteDistance(p: PaletteColour[], q: PaletteColour[]): number {
  if (p.length === 0 || q.length === 0) return p.length === q.length ? 0 : 1;
  let sum = 0;
  for (const [dL, da, db] of DIRECTIONS) {
    const project = (colours: PaletteColour[]): [number, number][] =>
      colours.map((c): [number, number] => [c.L * dL + 1.5 * (c.a * da + c.b * db), c.share]).sort((x, y) => x[0] - y[0]);
    const from = project(p);
    const to = project(q);
    let i = 0;
    let j = 0;
    let left = from[0][1];
    let right = to[0][1];
    while (i < from.length && j < to.length) {
      const moved = Math.min(left, right);
      sum += moved * Math.abs(from[i][0] - to[j][0]);
      left -= moved;
      right -= moved;
      if (left <= 1e-9) left = from[++i]?.[1] ?? 0;
      if (right <= 1e-9) right = to[++j]?.[1] ?? 0;
    }
  }
  return sum / DIRECTIONS.length;
}

/**
 * Shares by their square root. How much ground a picture shows follows from its subject more than from its look, so areas count, but a
 * large ground does not outweigh every other ink.
 */
function temper(palette: PaletteColour[]): PaletteColour[] {
  const total = palette.reduce((sum, c) => sum + Math.sqrt(c.share), 0);
  return palette.map(c => ({ ...c, share: Math.sqrt(c.share) / total }));
}

function meanDifference(x: number[], y: number[]): number {
  return x.reduce((sum, v, i) => sum + Math.abs(v - (y[i] ?? 0)), 0) / Math.max(1, x.length);
}

function logRatio(x: number, y: number, floor: number): number {
  return Math.abs(Math.log((x + floor) / (y + floor)));
}

/** Drift by facet. Throws RangeError when the two were measured by different versions. */
export function drift(p: Fingerprint, q: Fingerprint): Drift {
  if (p.measure !== q.measure)
    throw new RangeError(
      `Got fingerprints measured by versions ${p.measure} and ${q.measure}; both must be of version ${MEASURE_VERSION}. Measure again.`,
    );
  const colour =
    6 * paletteDistance(temper(p.colour.palette), temper(q.colour.palette)) +
    1.2 * meanDifference(p.colour.chroma, q.colour.chroma);
  const light = 4 * meanDifference(p.light.tone, q.light.tone) + 0.2 * Math.abs(p.light.bimodality - q.light.bimodality);
  const line =
    0.16 * logRatio(p.line.edge, q.line.edge, 0.02) +
    2 * Math.abs(p.line.sharpness - q.line.sharpness) +
    0.13 * logRatio(p.line.dark, q.line.dark, 0.004) +
    0.13 * logRatio(p.line.light, q.line.light, 0.004) +
    0.05 * Math.abs(p.line.width - q.line.width) +
    0.3 * Math.abs(p.line.coherence - q.line.coherence) +
    0.15 * Math.abs(p.line.raggedness - q.line.raggedness);
  const bands = p.texture.bands.slice(0, 5).reduce((sum, v, i) => sum + logRatio(v, q.texture.bands[i], 0.005), 0) / 5;
  const texture =
    0.35 * bands +
    0.5 * Math.abs(p.texture.flatness - q.texture.flatness) +
    0.5 * Math.abs(p.texture.softness - q.texture.softness) +
    0.25 * Math.abs(p.texture.period.share - q.texture.period.share) +
    4 * Math.abs(p.texture.grain - q.texture.grain) +
    0.2 * Math.abs(p.texture.rim - q.texture.rim);
  return { colour, light, line, texture, total: (colour + light + line + texture) / 4 };
}

/** Mean drift over the facets given; 0 when there are none. */
export function driftOver(d: Drift, facets: readonly Facet[] = FACETS): number {
  return facets.length === 0 ? 0 : facets.reduce((sum, f) => sum + d[f], 0) / facets.length;
}
