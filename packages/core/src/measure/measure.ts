import { toLabPlanes } from '../colour/oklab.ts';
import { blur, halve, resamplePlane, resizePicture } from '../image/filter.ts';
import { measureFlow, type Flow } from '../image/tensor.ts';
import { checkPicture, type LabPlanes, type Picture } from '../image/types.ts';
import { clamp } from '../number/scalar.ts';
import { measurePalette } from './palette.ts';
import { quantiles } from './quantiles.ts';
import { measurePeriod } from './spectrum.ts';
import { measureThinLines } from './thinLines.ts';
import { MEASURE_VERSION, type Fingerprint } from './types.ts';

const LONG_SIDE = 512;

/** The fingerprint of a picture of any size from 1 × 1 pixel; transparent parts count as white. Throws PictureError when malformed. */
export function measure(picture: Picture): Fingerprint {
  const planes = toLabPlanes(shrinkPicture(picture));
  const { width, height, L } = planes;
  const flow = measureFlow(L, width, height, 3);
  return {
    measure: MEASURE_VERSION,
    colour: measureColour(planes, flow),
    light: measureLight(planes, measurePaletteOnce(planes, flow)),
    line: measureLine(planes, flow),
    texture: measureTexture(planes, flow),
  };
}

/** The copy that is measured: its long side is at most 512, so that size does not matter. */
function shrinkPicture(picture: Picture): Picture {
  checkPicture(picture);
  const { width, height } = picture;
  const long = Math.max(width, height);
  if (long <= LONG_SIDE) return picture;
  const side = (s: number): number => Math.max(1, Math.round((s * LONG_SIDE) / long));
  return resizePicture(picture, side(width), side(height));
}

const palettes = new WeakMap<LabPlanes, Fingerprint['colour']['palette']>();

function measurePaletteOnce(planes: LabPlanes, flow: Flow): Fingerprint['colour']['palette'] {
  const known = palettes.get(planes);
  if (known) return known;
  const { width, height } = planes;
  // An antialiased pixel has more gradient than its surroundings; comparing with the local mean spares textured inks.
  const fine = blur(flow.gradient, width, height, 0.8);
  const around = blur(flow.gradient, width, height, 6);
  const weights = new Float32Array(fine.length);
  for (let i = 0; i < fine.length; i++) {
    const r = fine[i] / (0.02 + 0.9 * around[i]);
    weights[i] = 1 / (1 + r * r * r * r);
  }
  const palette = measurePalette(planes, weights);
  palettes.set(planes, palette);
  return palette;
}

function measureColour(planes: LabPlanes, flow: Flow): Fingerprint['colour'] {
  const { a, b } = planes;
  const n = a.length;
  const palette = measurePaletteOnce(planes, flow);
  let entropy = 0;
  for (const c of palette) entropy -= c.share > 0 ? c.share * Math.log(c.share) : 0;
  const chroma = new Float32Array(n);
  const hue = new Array<number>(12).fill(0);
  let warmth = 0;
  let coloured = 0;
  for (let i = 0; i < n; i++) {
    const c = Math.sqrt(a[i] * a[i] + b[i] * b[i]);
    chroma[i] = c * 2.5;
    warmth += a[i] + b[i];
    if (c > 0.02) {
      const turn = (Math.atan2(b[i], a[i]) / (2 * Math.PI) + 1) % 1;
      hue[(turn * 12) | 0] += c;
      coloured += c;
    }
  }
  return {
    palette,
    inks: Math.exp(entropy),
    chroma: quantiles(chroma, 9).map(v => v / 2.5),
    hue: coloured > 0 ? hue.map(v => v / coloured) : hue,
    warmth: warmth / n,
  };
}

function measureLight(planes: LabPlanes, palette: Fingerprint['colour']['palette']): Fingerprint['light'] {
  const { L } = planes;
  const tone = quantiles(L, 17);
  const low = tone[1];
  const range = Math.max(0.05, tone[15] - low);
  let middle = 0;
  for (let i = 0; i < L.length; i++) {
    const t = (L[i] - low) / range;
    if (t > 0.25 && t < 0.75) middle++;
  }
  const lightest = palette.filter(c => c.share > 0.08).sort((p, q) => q.L - p.L)[0];
  return {
    tone,
    contrast: tone[15] - tone[1],
    paper: lightest && lightest.L > 0.75 ? lightest.share : 0,
    bimodality: 1 - middle / L.length,
  };
}

function measureLine(planes: LabPlanes, flow: Flow): Fingerprint['line'] {
  const { width, height, L } = planes;
  const n = L.length;
  let edges = 0;
  let strong = 0;
  let c2 = 0;
  let s2 = 0;
  let coherent = 0;
  let gradients = 0;
  for (let i = 0; i < n; i++) {
    const g = flow.gradient[i];
    if (g > 0.045) {
      edges++;
      strong += g;
    }
    if (g > 0.012) {
      const weight = g * flow.coherence[i];
      const { tx, ty } = flow;
      c2 += weight * (tx[i] * tx[i] - ty[i] * ty[i]);
      s2 += weight * 2 * tx[i] * ty[i];
      coherent += weight;
      gradients += g;
    }
  }
  const thin = measureThinLines(L, width, height);
  return {
    edge: edges / n,
    sharpness: edges > 0 ? strong / edges : 0,
    dark: thin.dark,
    light: thin.light,
    width: thin.width,
    raggedness: measureRaggedness(planes, flow),
    coherence: gradients > 0 ? coherent / gradients : 0,
    direction: 0.5 * Math.atan2(s2, c2),
    agreement: coherent > 0 ? Math.hypot(c2, s2) / coherent : 0,
  };
}

/** Fine direction against direction at a larger scale, on clear edges: a wandering edge turns away from its own course. */
function measureRaggedness(planes: LabPlanes, coarse: Flow): number {
  const { width, height, L } = planes;
  const fine = measureFlow(L, width, height, 0.8);
  let turned = 0;
  let total = 0;
  for (let i = 0; i < L.length; i++) {
    const weight = coarse.gradient[i] > 0.045 ? coarse.coherence[i] * coarse.coherence[i] : 0;
    if (weight === 0) continue;
    const cross = coarse.tx[i] * fine.ty[i] - coarse.ty[i] * fine.tx[i];
    turned += weight * cross * cross;
    total += weight;
  }
  return total > 0 ? clamp((turned / total) * 4) : 0;
}

function measureTexture(planes: LabPlanes, flow: Flow): Fingerprint['texture'] {
  const { width, height, L } = planes;
  const n = L.length;
  let flat = 0;
  let soft = 0;
  for (let i = 0; i < n; i++) {
    const g = flow.gradient[i];
    if (g < 0.006) flat++;
    else if (g < 0.03) soft++;
  }
  const lightness = octaves(L, width, height, 6);
  const chromaA = octaves(planes.a, width, height, 3).rms;
  const chromaB = octaves(planes.b, width, height, 3).rms;
  return {
    flatness: flat / n,
    softness: soft / n,
    bands: lightness.rms,
    chromaBands: chromaA.map((v, o) => Math.hypot(v, chromaB[o])),
    grain: medianOffEdges(lightness.finest, flow.gradient),
    rim: measureRim(planes, flow),
    period: measurePeriod(L, width, height),
  };
}

/** RMS of each band of a Laplacian pyramid (Burt & Adelson 1983), fine to coarse; missing octaves of a small picture are 0. */
function octaves(plane: Float32Array, width: number, height: number, count: number): { rms: number[]; finest: Float32Array } {
  const rms: number[] = [];
  let finest = new Float32Array(plane.length);
  let current = { width, height, data: plane };
  for (let o = 0; o < count; o++) {
    if (Math.min(current.width, current.height) < 4) {
      rms.push(0);
      continue;
    }
    const next = halve(current);
    const back = resamplePlane(next, current.width, current.height);
    let energy = 0;
    for (let i = 0; i < back.length; i++) {
      back[i] = current.data[i] - back[i];
      energy += back[i] * back[i];
    }
    if (o === 0) finest = back as Float32Array<ArrayBuffer>;
    rms.push(Math.sqrt(energy / back.length));
    current = next as typeof current;
  }
  return { rms, finest };
}

function medianOffEdges(fine: Float32Array, gradient: Float32Array): number {
  const BINS = 512;
  const histogram = new Uint32Array(BINS);
  let total = 0;
  for (let i = 0; i < fine.length; i++) {
    if (gradient[i] >= 0.03) continue;
    histogram[Math.min(BINS - 1, (Math.abs(fine[i]) * 4096) | 0)]++;
    total++;
  }
  let seen = 0;
  for (let bin = 0; bin < BINS; bin++) {
    seen += histogram[bin];
    if (seen >= total / 2) return bin / 4096;
  }
  return 0;
}

function measureRim(planes: LabPlanes, flow: Flow): number {
  const { width, height, L } = planes;
  const near = blur(L, width, height, 2.2);
  const wide = blur(L, width, height, 7);
  let sum = 0;
  let count = 0;
  for (let i = 0; i < L.length; i += 2) {
    const g = flow.gradient[i];
    if (g > 0.008 && g < 0.05) {
      sum += clamp((wide[i] - near[i]) * 10, -1, 1);
      count++;
    }
  }
  return count > 0 ? sum / count : 0;
}
