import { blur, resamplePlane } from '../image/filter.ts';
import type { Lab, LabPlanes } from '../image/types.ts';
import { noisePlane } from '../number/noise.ts';
import { randomFor } from '../number/random.ts';
import { clamp, smoothstep } from '../number/scalar.ts';
import { cos, sin } from '../number/trig.ts';
import { turnGrain } from './turnGrain.ts';
import type { Treatment } from './types.ts';

const DEGREE = 0.017453292519943295;

/** Treats a picture, in place; the same settings and seed give the same pixels. Sizes follow the picture: a small preview looks like the large result. */
export function treat(planes: LabPlanes, t: Treatment, seed: number): void {
  const unit = Math.max(planes.width, planes.height) / 512;
  if (t.grain !== 0) turnGrain(planes, t.grain * DEGREE, unit, seed);
  if (t.soften > 0) soften(planes, (t.soften / 100) * 7 * unit);
  if (t.hue !== 0) shiftHue(planes, t.hue * DEGREE);
  const paper = paperOf(planes);
  if (t.dots > 0) layDots(planes, paper, t.dots / 100, Math.max(3, t.dotGap) * unit);
  if (t.roller > 0) thinInk(planes, paper, dryRoller(planes, t.roller / 100, unit, seed));
  if (t.plate > 0) thinInk(planes, paper, wornPlate(planes, t.plate / 100, unit, seed));
}

function soften(planes: LabPlanes, sigma: number): void {
  for (const key of ['L', 'a', 'b'] as const) planes[key].set(blur(planes[key], planes.width, planes.height, sigma));
}

function shiftHue({ a, b }: LabPlanes, angle: number): void {
  const [c, s] = [cos(angle), sin(angle)];
  for (let i = 0; i < a.length; i++) {
    const p = a[i];
    a[i] = c * p - s * b[i];
    b[i] = s * p + c * b[i];
  }
}

/** The sheet: the mean of the lightest twentieth. */
function paperOf({ L, a, b }: LabPlanes): Lab {
  const counts = new Float64Array(256);
  for (const v of L) counts[Math.min(255, Math.max(0, (v * 255) | 0))]++;
  let from = 255;
  for (let seen = 0; from > 0; from--) {
    seen += counts[from];
    if (seen > 0.05 * L.length) break;
  }
  const sum = { L: 0, a: 0, b: 0, n: 0 };
  for (let i = 0; i < L.length; i++) {
    if (L[i] * 255 < from) continue;
    sum.L += L[i];
    sum.a += a[i];
    sum.b += b[i];
    sum.n++;
  }
  return { L: sum.L / sum.n, a: sum.a / sum.n, b: sum.b / sum.n };
}

/** Lets the paper through where `lost` is above 0. */
function thinInk({ L, a, b }: LabPlanes, paper: Lab, lost: Float32Array): void {
  for (let i = 0; i < L.length; i++) {
    L[i] += lost[i] * (paper.L - L[i]);
    a[i] += lost[i] * (paper.a - a[i]);
    b[i] += lost[i] * (paper.b - b[i]);
  }
}

/** Where a roller with too little ink leaves none: streaks along its way, ragged by the tooth of the paper. */
function dryRoller({ width: w, height: h }: LabPlanes, amount: number, unit: number, seed: number): Float32Array {
  const narrow = Math.max(2, Math.round(w / (9 * unit)));
  const streaks = resamplePlane({ width: narrow, height: h, data: noisePlane(narrow, h, 5 * unit, seed + 1, 3) }, w, h);
  const patches = noisePlane(w, h, 90 * unit, seed + 2, 2);
  const tooth = noisePlane(w, h, Math.max(1.4, 2.2 * unit), seed + 3, 2);
  return streaks.map((v, i) => {
    const cover = 0.55 * v + 0.35 * patches[i] + 0.75 * tooth[i];
    return smoothstep(0.95 - 1.25 * amount, 1.15 - 1.25 * amount, cover) * (0.75 + 0.25 * amount);
  });
}

/** Where a plate that was printed too often gives none: pits, edges first, and scratches. */
function wornPlate({ width: w, height: h, L }: LabPlanes, amount: number, unit: number, seed: number): Float32Array {
  const pits = noisePlane(w, h, Math.max(2, 7 * unit), seed + 11, 3);
  const fields = noisePlane(w, h, 120 * unit, seed + 12, 2);
  const around = blur(L, w, h, 2.5 * unit);
  const out = pits.map((v, i) => {
    // Just inside an edge a mass stands proud and is bruised first.
    const edge = clamp((around[i] - L[i]) * 5);
    return smoothstep(1.05 - 0.95 * amount, 1.2 - 0.95 * amount, v + 0.35 * fields[i] + 0.55 * amount * edge + 0.2);
  });
  const random = randomFor(seed, 'scratches');
  for (let k = Math.round(2 + 26 * amount); k > 0; k--)
    scratch(
      out,
      w,
      h,
      { x: random() * w, y: random() * h, angle: 6.2832 * random(), long: (0.1 + 0.5 * random()) * Math.max(w, h) },
      unit,
      random,
    );
  return out;
}

function scratch(
  into: Float32Array,
  w: number,
  h: number,
  s: { x: number; y: number; angle: number; long: number },
  unit: number,
  random: () => number,
): void {
  const half = Math.max(0.6, (0.35 + 0.5 * random()) * unit);
  let angle = s.angle;
  let [x, y] = [s.x, s.y];
  for (let t = 0; t < s.long; t += 0.7) {
    angle += (random() - 0.5) * (0.03 / unit);
    x += 0.7 * cos(angle);
    y += 0.7 * sin(angle);
    const depth = 0.9 * smoothstep(0, 0.2, t / s.long) * smoothstep(1, 0.7, t / s.long);
    for (let yy = Math.floor(y - half); yy <= Math.ceil(y + half); yy++)
      for (let xx = Math.floor(x - half); xx <= Math.ceil(x + half); xx++) {
        if (xx < 0 || yy < 0 || xx >= w || yy >= h) continue;
        const d2 = (xx - x) ** 2 + (yy - y) ** 2;
        const i = yy * w + xx;
        into[i] = Math.max(into[i], depth * clamp(1.2 - d2 / (half * half)));
      }
  }
}

/** A turned screen of dots: each as large as its place is dark, in the colour of its place, the paper between. */
function layDots(planes: LabPlanes, paper: Lab, amount: number, gap: number): void {
  const { width: w, height: h, L, a, b } = planes;
  const [c, s] = [cos(0.39) / gap, sin(0.39) / gap];
  const around = { L: blur(L, w, h, 0.45 * gap), a: blur(a, w, h, 0.45 * gap), b: blur(b, w, h, 0.45 * gap) };
  let dark = 1;
  for (const v of around.L) dark = Math.min(dark, v);
  const sharp = Math.min(gap / 2, 6);
  for (let i = 0; i < L.length; i++) {
    const x = i % w;
    const y = (i / w) | 0;
    const u = x * c + y * s;
    const v = y * c - x * s;
    const du = u - Math.floor(u) - 0.5;
    const dv = v - Math.floor(v) - 0.5;
    const cover = clamp((paper.L - around.L[i]) / Math.max(0.1, paper.L - dark));
    // The radius whose disc covers that much of a square; from 0.79 on neighbours join.
    const radius = Math.sqrt(cover / 3.14159) * (1 + 0.25 * cover * cover);
    const ink = clamp((radius - Math.sqrt(du * du + dv * dv)) * sharp + 0.5) * smoothstep(0.015, 0.05, cover);
    const deep = 1 + 0.35 * (1 - cover);
    const dot = { L: paper.L + (around.L[i] - paper.L) * deep, a: around.a[i] * deep, b: around.b[i] * deep };
    L[i] += amount * (paper.L + ink * (clamp(dot.L) - paper.L) - L[i]);
    a[i] += amount * (paper.a + ink * (dot.a - paper.a) - a[i]);
    b[i] += amount * (paper.b + ink * (dot.b - paper.b) - b[i]);
  }
}
