import { kernels, put, take, within } from '@zinc/kernels';
import { labOfLinear, linearOfLab } from '../colour/oklab.ts';
import { blur, blurWide, resamplePlane } from '../image/filter.ts';
import type { Lab, LabPlanes } from '../image/types.ts';
import { noisePlane } from '../number/noise.ts';
import { clamp, smoothstep } from '../number/scalar.ts';
import { exp } from '../number/trig.ts';
import type { Areas } from './flat.ts';
import type { Sketch } from './sketch.ts';

/** Scattering of a layer at density 1: low, so that the sheet shines through. */
const SCATTER = 0.12;
const STEPS = 96;
const MOST_DENSITY = 2.4;

/** Reflectance of a layer of absorption `k` and scattering `s` over a ground (Kubelka & Munk 1931, hyperbolic form; Kubelka 1948). */
export function layerReflectance(k: number, s: number, ground: number): number {
  if (s < 1e-6) return ground * exp(-2 * k);
  const a = 1 + k / s;
  const b = Math.sqrt(a * a - 1);
  if (b * s < 1e-5) return (ground + (1 - ground) * s) / (1 + (1 - ground) * s);
  const e = exp(-2 * b * s);
  const c = (b * (1 + e)) / (1 - e);
  return (1 - ground * (a - c)) / (a - ground + c);
}

/** Absorption that gives reflectance `wanted` at density 1 over `ground`, by halving. */
function absorptionFor(wanted: number, ground: number): number {
  let low = 0;
  let high = 12;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (layerReflectance(middle, SCATTER, ground) > wanted) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** OKLab of a pigment over paper at densities 0 to 2.4, 97 steps of three numbers. At density 1 it is the pigment's palette colour. */
export function pigmentScale(pigment: Lab, paper: Lab): Float32Array {
  const ground = linearOfLab(paper);
  const absorption = linearOfLab(pigment).map((v, c) => absorptionFor(v, ground[c]));
  const out = new Float32Array((STEPS + 1) * 3);
  for (let i = 0; i <= STEPS; i++) {
    const d = (i / STEPS) * MOST_DENSITY;
    const one = (c: number): number => layerReflectance(absorption[c] * d, SCATTER * d, ground[c]);
    const lab = labOfLinear([one(0), one(1), one(2)]);
    out.set([lab.L, lab.a, lab.b], i * 3);
  }
  return out;
}

export interface WashSettings {
  amount: number;
  /** 0–1: darkness of rims, unrest of the pools. */
  edge: number;
  bleed: number;
  seed: number;
}

/**
 * Diluted pigment: every flat area becomes a pool of its pigment whose density follows the content's own light, gathers at the rim,
 * settles in the sheet and runs back; lights are left as bare paper, and a dry line stays between two pools.
 */
export function layWash(out: LabPlanes, sketch: Sketch, areas: Areas, s: WashSettings): void {
  const { width, height } = out;
  const { palette, assignment, u, scale } = sketch;
  const paper = palette[assignment.ground];
  const scales = palette.map(c => pigmentScale(c, paper));
  const density = resamplePlane(
    { width: sketch.width, height: sketch.height, data: sketchDensity(sketch, areas, s) },
    width,
    height,
  );
  const granules = noisePlane(width, height, Math.max(1, 1.5 * u * scale), s.seed + 3, 2);
  const pigments = Float32Array.from(scales.flatMap(c => [...c]));
  within(() => {
    const tables = put(pigments);
    const ground = assignment.ground;
    const n = width * height;
    const [pL, pa, pb] = [put(out.L), put(out.a), put(out.b)];
    const [thick, grains, index] = [put(density), put(granules), put(areas.index)];
    kernels.layPigment(index, ground, thick, grains, 0.09, STEPS / MOST_DENSITY, STEPS, tables, s.amount, n, pL, pa, pb);
    take(pL, out.L);
    take(pa, out.a);
    take(pb, out.b);
  });
}

/** Density of pigment at sketch size; 1 gives the palette's own colour. */
function sketchDensity(sketch: Sketch, areas: Areas, s: WashSettings): Float32Array {
  const { width, height, u, content, palette, assignment } = sketch;
  const n = width * height;
  const { sketchIndex, margin } = areas;
  const ground = assignment.ground;
  const soft = blur(content.L, width, height, 1.6 * u);
  const around = blurWide(content.L, width, height, 26 * u);
  const pools = noisePlane(width, height, 62 * u, s.seed + 1, 4);
  const runs = noisePlane(width, height, 24 * u, s.seed + 2, 3);
  const edges = new Float32Array(n);
  for (let y = 1; y < height; y++)
    for (let x = 1, i = y * width + 1; x < width; x++, i++)
      if (sketchIndex[i] !== sketchIndex[i - 1] || sketchIndex[i] !== sketchIndex[i - width]) edges[i] = 1;
  const rim = blur(edges, width, height, 1.3 * u);
  const wide = blur(edges, width, height, 4 * u);
  // Each pigment spans from the light to the dark of what it paints.
  const low = new Float32Array(palette.length).fill(1);
  const sum = new Float32Array(palette.length);
  const square = new Float32Array(palette.length);
  const count = new Float32Array(palette.length);
  for (let i = 0; i < n; i += 3) {
    const j = sketchIndex[i];
    sum[j] += soft[i];
    square[j] += soft[i] * soft[i];
    count[j]++;
  }
  for (let j = 0; j < palette.length; j++) {
    sum[j] /= Math.max(1, count[j]);
    low[j] = Math.max(0.035, Math.sqrt(Math.max(0, square[j] / Math.max(1, count[j]) - sum[j] * sum[j])));
  }
  const out = edges;
  for (let i = 0; i < n; i++) {
    const j = sketchIndex[i];
    if (j === ground) {
      out[i] = 0;
      continue;
    }
    const tone = clamp((sum[j] - soft[i]) / (2.2 * low[j]), -1, 1);
    const local = clamp((around[i] - soft[i]) * 1.6, -0.4, 0.4);
    // A pool dries lighter in the middle; where water ran back there is a pale bloom with a hard front.
    const bloom = smoothstep(0.22, 0.5, runs[i]) * (1 - smoothstep(0.5, 0.56, runs[i]) * 0.6);
    let d = 0.92 + 0.46 * tone + 0.35 * local + s.bleed * (0.3 * pools[i] + 0.1 * runs[i] - 0.22 * bloom);
    d += s.edge * (3.2 * clamp(rim[i] - 0.14, 0, 0.4) - 0.3 * wide[i]);
    const lit = smoothstep(0.45, 1, -tone) * smoothstep(0.03, 0.1, soft[i] - around[i]);
    d *= 1 - 0.75 * lit;
    // The dry line between two pools.
    d *= 0.25 + 0.75 * smoothstep(0.06, 0.3, margin[i]);
    out[i] = clamp(d, 0.06, 2.2);
  }
  return blur(out, width, height, 0.5);
}
