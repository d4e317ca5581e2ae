import { fromLabPlanes, toLabPlanes } from '../colour/oklab.ts';
import { halve, resamplePlane } from '../image/filter.ts';
import type { LabPlanes, Picture, Plane } from '../image/types.ts';
import { histogramOf, quantiles, quantilesOf, temper } from '../measure/quantiles.ts';
import type { Fingerprint } from '../measure/types.ts';
import { clamp } from '../number/scalar.ts';

/** How far each trait of finished planes is drawn to a target, 0–1. */
export interface Pulls {
  /** Darks and lights. */
  light: number;
  /** Strength of colour. */
  chroma: number;
  /** Energy of each octave of lightness. */
  octaves: number;
}

export const NO_PULLS: Pulls = { light: 0, chroma: 0, octaves: 0 };

/** Draws finished planes towards a target fingerprint, in place. Used for bound sets, and to match a picture from elsewhere to a set. */
export function pullTowards(planes: LabPlanes, target: Fingerprint, { light, chroma, octaves }: Pulls): void {
  if (octaves > 0) matchOctaves(planes, target.texture.bands, octaves);
  if (light > 0) matchLightness(planes.L, target.light.spread, light);
  if (chroma > 0) matchChroma(planes, target, chroma);
}

/** A picture from elsewhere, matched to the barycentre of a set by `amount` 0–1; size and alpha stay. */
export function matchToSet(picture: Picture, target: Fingerprint, amount: number): Picture {
  const planes = toLabPlanes(picture);
  pullTowards(planes, target, { light: amount, chroma: amount, octaves: amount });
  return fromLabPlanes(planes, picture);
}

/**
 * Moves the darks and the lights of a picture to the target's, in a straight line between them. What is there counts more than how much of
 * it (`temper`), so a large ground stays the ground it is.
 */
function matchLightness(L: Float32Array, target: number[], amount: number): void {
  const own = quantilesOf(temper(histogramOf(L)), target.length);
  const low = own[1];
  const high = own[own.length - 1];
  const slope = clamp((target[target.length - 1] - target[1]) / Math.max(0.05, high - low), 0.6, 1.6);
  for (let i = 0; i < L.length; i++) {
    const wanted = target[target.length - 1] + (L[i] - high) * slope;
    L[i] = clamp(L[i] + (wanted - L[i]) * amount, 0, 0.999);
  }
}

/** Scales chroma so that its upper quantiles come to the target's. */
function matchChroma(planes: LabPlanes, target: Fingerprint, amount: number): void {
  const { a, b } = planes;
  const chroma = new Float32Array(a.length);
  for (let i = 0; i < a.length; i++) chroma[i] = Math.sqrt(a[i] * a[i] + b[i] * b[i]) * 2.5;
  const own = quantiles(chroma, 9).map(v => v / 2.5);
  let wanted = 0;
  let there = 1e-4;
  for (let q = 4; q < 9; q++) {
    wanted += target.colour.chroma[q];
    there += own[q];
  }
  const gain = 1 + (clamp(wanted / there, 0.45, 1.8) - 1) * amount;
  for (let i = 0; i < a.length; i++) {
    a[i] *= gain;
    b[i] *= gain;
  }
}

/** Strengthens or calms each octave of lightness (a Laplacian pyramid at most 512 wide) towards the target's energy. */
function matchOctaves(planes: LabPlanes, target: number[], amount: number): void {
  const { width, height } = planes;
  let low: Plane = { width, height, data: planes.L };
  while (Math.max(low.width, low.height) > 512) low = halve(low);
  const delta = new Float32Array(low.data.length);
  let here = low;
  for (let o = 0; o < Math.min(5, target.length); o++) {
    if (Math.min(here.width, here.height) < 8) break;
    const next = halve(here);
    const back = resamplePlane(next, here.width, here.height);
    let own = 0;
    let coarse = 0;
    for (let i = 0; i < here.data.length; i++) own += here.data[i] * here.data[i];
    for (let i = 0; i < next.data.length; i++) coarse += next.data[i] * next.data[i];
    const energy = Math.sqrt(Math.max(1e-8, own / here.data.length - coarse / next.data.length));
    // The finest octaves are the marks themselves; to change them would blur or ring.
    const gain = o < 2 ? 0 : (clamp(target[o] / energy, 0.6, 1.5) - 1) * amount;
    const band = new Float32Array(here.data.length);
    for (let i = 0; i < band.length; i++) band[i] = (here.data[i] - back[i]) * gain;
    const full = resamplePlane({ ...here, data: band }, low.width, low.height);
    for (let i = 0; i < delta.length; i++) delta[i] += full[i];
    here = next;
  }
  const full = resamplePlane({ ...low, data: delta }, width, height);
  for (let i = 0; i < full.length; i++) planes.L[i] = clamp(planes.L[i] + full[i], 0, 0.999);
}
