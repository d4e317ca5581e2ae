import { groundColour } from '../measure/palette.ts';
import type { Fingerprint, PaletteColour } from '../measure/types.ts';
import { cos, log, sin } from '../number/trig.ts';

/** A picture with next to nothing on it has no marks to speak of. */
const LEAST_WORKED = 0.12;

const DIRECTIONS = Array.from({ length: 24 }, (_, i) => {
  const z = 1 - (2 * (i + 0.5)) / 24;
  const r = Math.sqrt(1 - z * z);
  const t = i * 2.399963;
  return [z, r * cos(t), r * sin(t)];
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
  return sum < 1e-9 ? 0 : sum / DIRECTIONS.length;
}

/** Shares by a root: areas count, but a large ground, which follows from the subject more than from the look, does not outweigh every ink. */
function temper(palette: PaletteColour[], power: (share: number) => number): PaletteColour[] {
  const total = palette.reduce((sum, c) => sum + power(c.share), 0);
  return palette.map(c => ({ ...c, share: power(c.share) / total }));
}

/** Mean distance from each colour of one palette to the nearest of the other, by tempered share: colours that have no counterpart. */
function strangers(p: PaletteColour[], q: PaletteColour[]): number {
  const total = p.reduce((sum, c) => sum + Math.sqrt(c.share), 0);
  let sum = 0;
  for (const c of p) {
    let least = 1;
    for (const d of q) {
      const dL = c.L - d.L;
      const da = 1.5 * (c.a - d.a);
      const db = 1.5 * (c.b - d.b);
      least = Math.min(least, Math.sqrt(dL * dL + da * da + db * db));
    }
    sum += Math.sqrt(c.share) * least;
  }
  return total > 0 ? sum / total : 0;
}

function groundDistance(p: PaletteColour[], q: PaletteColour[]): number {
  if (p.length === 0 || q.length === 0) return p.length === q.length ? 0 : 1;
  const a = groundColour(p);
  const b = groundColour(q);
  return Math.sqrt((a.L - b.L) ** 2 + 2 * (a.a - b.a) ** 2 + 2 * (a.b - b.b) ** 2);
}

const difference = (x: number[], y: number[]): number =>
  x.reduce((sum, v, i) => sum + Math.abs(v - (y[i] ?? 0)), 0) / Math.max(1, x.length);
const ratio = (x: number, y: number, floor: number): number => Math.abs(log((x + floor) / (y + floor)));
const ratios = (x: number[], y: number[], floor: number): number =>
  x.reduce((sum, v, i) => sum + ratio(v, y[i] ?? 0, floor), 0) / Math.max(1, x.length);

/** Share of a list's parts, so that how something is spread counts and not how much there is. */
function spread(values: number[], floor: number): number[] {
  const total = values.reduce((sum, v) => sum + v + floor, 0);
  return values.map(v => (v + floor) / total);
}

/**
 * The fingerprint of the worked part of a picture: amounts that are means over all of it, divided by the share that is not bare ground. How much
 * ground a picture shows follows from its subject more than from its look.
 */
export function workedOf(f: Fingerprint): Fingerprint {
  const { line, texture, light } = f;
  const k = 1 / Math.max(LEAST_WORKED, 1 - light.bare);
  const more = (v: number): number => v * k;
  const root = Math.sqrt(k);
  return {
    ...f,
    line: { ...line, edge: line.edge * k, dark: line.dark.map(more), light: line.light.map(more) },
    texture: {
      ...texture,
      flatness: Math.max(0, texture.flatness - light.bare) * k,
      softness: texture.softness * k,
      bands: texture.bands.map(v => v * root),
      chromaBands: texture.chromaBands.map(v => v * root),
      along: texture.along.map(more),
      across: texture.across.map(more),
      jitter: texture.jitter * k,
      period: { ...texture.period, share: Math.min(1, texture.period.share * k) },
    },
  };
}

/** Single differences between two fingerprints, 0 and up, each in its own unit. */
export function componentsOf(one: Fingerprint, other: Fingerprint) {
  const p = workedOf(one);
  const q = workedOf(other);
  const { colour: pc, light: pl, line: pi, texture: pt } = p;
  const { colour: qc, light: ql, line: qi, texture: qt } = q;
  const hatch = Math.min(pt.period.share, qt.period.share);
  const root = Math.sqrt;
  return {
    palette: paletteDistance(temper(pc.palette, root), temper(qc.palette, root)),
    paletteEven: paletteDistance(
      temper(pc.palette, s => Math.sqrt(Math.sqrt(s))),
      temper(qc.palette, s => Math.sqrt(Math.sqrt(s))),
    ),
    strangers: Math.max(strangers(pc.palette, qc.palette), strangers(qc.palette, pc.palette)),
    // A picture need not use every colour of its look: what counts is that one keeps to the colours of the other.
    missing: Math.min(strangers(pc.palette, qc.palette), strangers(qc.palette, pc.palette)),
    ground: groundDistance(pc.palette, qc.palette),
    chroma: difference(pc.chroma.slice(4), qc.chroma.slice(4)),
    hue: difference(pc.hue, qc.hue),
    inks: ratio(pc.inks, qc.inks, 0.5),
    warmth: Math.abs(pc.warmth - qc.warmth),
    tone: difference(pl.tone, ql.tone),
    spread: difference(pl.spread, ql.spread),
    darkest: Math.abs(pl.spread[1] - ql.spread[1]),
    contrast: Math.abs(pl.contrast - ql.contrast),
    bimodality: Math.abs(pl.bimodality - ql.bimodality),
    paper: Math.abs(pl.spread[8] - ql.spread[8]),
    edge: ratio(pi.edge, qi.edge, 0.02),
    sharpness: Math.abs(pi.sharpness - qi.sharpness),
    dark: ratios(pi.dark, qi.dark, 0.0015),
    light: ratios(pi.light, qi.light, 0.0015),
    darkShape: difference(spread(pi.dark, 0.0004), spread(qi.dark, 0.0004)),
    lightShape: difference(spread(pi.light, 0.0004), spread(qi.light, 0.0004)),
    width: ratio(pi.width, qi.width, 1),
    raggedness: Math.abs(pi.raggedness - qi.raggedness),
    coherence: Math.abs(pi.coherence - qi.coherence),
    agreement: Math.abs(pi.agreement - qi.agreement),
    direction: Math.min(pi.agreement, qi.agreement) * sin(pi.direction - qi.direction) ** 2,
    bands: ratios(pt.bands.slice(0, 5), qt.bands.slice(0, 5), 0.005),
    bandShape: difference(spread(pt.bands, 0.002), spread(qt.bands, 0.002)),
    chromaBands: ratios(pt.chromaBands, qt.chromaBands, 0.004),
    flatness: Math.abs(pt.flatness - qt.flatness),
    softness: Math.abs(pt.softness - qt.softness),
    grain: ratio(pt.grain, qt.grain, 0.001),
    rim: Math.abs(pt.rim - qt.rim),
    along: ratios(pt.along, qt.along, 0.004),
    across: ratios(pt.across, qt.across, 0.004),
    run: Math.abs(pt.along[0] / (pt.across[0] + 0.002) - qt.along[0] / (qt.across[0] + 0.002)),
    jitter: ratio(pt.jitter, qt.jitter, 0.005),
    shadow: Math.abs(pt.shadow.depth - qt.shadow.depth),
    period: Math.abs(pt.period.share - qt.period.share),
    dots: Math.abs(pt.period.share * pt.period.dots - qt.period.share * qt.period.dots),
    gap: hatch > 0.05 ? hatch * ratio(pt.period.length, qt.period.length, 1) : 0,
  };
}
