import { floatsAt, kernels, plane, put, take, within } from '@zinc/kernels';
import { randomFor, latticeHash } from '../number/random.ts';
import { noisePlane } from '../number/noise.ts';
import { clamp, smoothstep } from '../number/scalar.ts';
import { length2 } from '../number/trig.ts';
import type { LabPlanes } from '../image/types.ts';
import type { Field } from './field.ts';

export interface BrushSettings {
  /** Stroke radii in full-size pixels, large first; each layer mends what the one before got wrong. */
  sizes: number[];
  /** Length in radii. */
  length: number;
  /** 0–1: how far single hairs show, how much strokes differ in colour, and how thick the paint stands. */
  bristle: number;
  jitter: number;
  relief: number;
  /** 0–1: how far strokes skip the hollows of the sheet. */
  tooth: number;
  seed: number;
  /** Keeps every stroke inside its own flat area; `bare` is the area that is left unpainted. */
  inside?: { index: Uint8Array; bare: number };
}

/** What strokes follow and are told to paint, all at sketch size. */
export interface BrushPlan {
  field: Field;
  source: LabPlanes;
  /** Where fine strokes are wanted even if the colour is right, 0–1. */
  detail: Float32Array;
  /** Where nothing is painted (0) and where strokes may start (1). */
  wanted?: Float32Array;
}

const HAIRS = 64;
const TILE = 256;

/** A place along a stroke and the room one needs. */
const MOST_POINTS = 24;

/**
 * Paints onto planes with curved strokes in layers of falling size (Hertzmann 1998); later layers only go where the painting still
 * differs or where detail asks for it. Strokes stop where the colour beneath leaves theirs.
 */
export function paintStrokes(planes: LabPlanes, plan: BrushPlan, s: BrushSettings): void {
  within(() => layStrokes(planes, plan, s));
}

function layStrokes(planes: LabPlanes, plan: BrushPlan, s: BrushSettings): void {
  const { width: w, height: h } = planes;
  const { field, source, detail } = plan;
  const fw = field.width;
  const kx = fw / w;
  const ky = field.height / h;
  const { target, px, py, stamp, finish } = makeBench(planes, s, Math.max(1, Math.max(w, h) / 512));
  s.sizes.forEach((radius, layer) => {
    const random = randomFor(s.seed, `brush ${layer}`);
    const gap = Math.max(2, radius * (1.05 + 0.85 * s.tooth));
    const nx = Math.ceil(w / gap);
    const order = shuffled(nx * Math.ceil(h / gap), random);
    const jitter = (0.02 + 0.15 * s.jitter) * (1 - 0.5 * s.tooth);
    const tint = jitter * 0.2;
    for (let q = 0; q < order.length; q++) {
      let x = ((order[q] % nx) + random()) * gap;
      let y = (((order[q] / nx) | 0) + random()) * gap;
      const r1 = random();
      const r2 = random();
      const r3 = random();
      if (x >= w || y >= h) continue;
      const xi = x | 0;
      const yi = y | 0;
      const f0 = ((y * ky) | 0) * fw + ((x * kx) | 0);
      // Loose patches (0.6) get fewer strokes.
      if (plan.wanted && (plan.wanted[f0] < 0.5 || (plan.wanted[f0] < 0.9 && r2 < 0.45))) continue;
      const i0 = yi * w + xi;
      const area = s.inside ? s.inside.index[i0] : -1;
      if (s.inside && area === s.inside.bare) continue;
      if (layer > 0) {
        const off =
          Math.abs(source.L[f0] - target.L[i0]) +
          0.8 * (Math.abs(source.a[f0] - target.a[i0]) + Math.abs(source.b[f0] - target.b[i0]));
        if (off + detail[f0] * 0.4 < 0.09 + 0.08 * s.jitter) continue;
      }
      const L = source.L[f0] + (r1 - 0.5) * jitter;
      const a = source.a[f0] + (r2 - 0.5) * tint;
      const b = source.b[f0] + (r3 - 0.5) * tint;
      const step = radius * 1.3;
      const most = clamp(Math.round((s.length * (0.55 + 0.9 * r3)) / 1.3), 1, MOST_POINTS - 2);
      let count = 1;
      let vx0 = 0;
      let vy0 = 0;
      px[0] = x;
      py[0] = y;
      for (let k = 0; k < most; k++) {
        const f = ((clamp(y, 0, h - 1) * ky) | 0) * fw + ((clamp(x, 0, w - 1) * kx) | 0);
        let vx = field.tx[f];
        let vy = field.ty[f];
        if (k === 0 ? r1 < 0.5 : vx * vx0 + vy * vy0 < 0) {
          vx = -vx;
          vy = -vy;
        }
        if (k > 0) {
          vx = 0.55 * vx + 0.45 * vx0;
          vy = 0.55 * vy + 0.45 * vy0;
          const m = 1 / (length2(vx, vy) || 1);
          vx *= m;
          vy *= m;
        }
        x += vx * step;
        y += vy * step;
        if (x < -radius || y < -radius || x > w + radius || y > h + radius) break;
        const g = ((clamp(y, 0, h - 1) * ky) | 0) * fw + ((clamp(x, 0, w - 1) * kx) | 0);
        if (plan.wanted && plan.wanted[g] < 0.3) break;
        const away =
          Math.abs(source.L[g] - source.L[f0]) + Math.abs(source.a[g] - source.a[f0]) + Math.abs(source.b[g] - source.b[f0]);
        if (away > (layer > 0 ? 0.07 : 0.11)) break;
        px[count] = x;
        py[count] = y;
        count++;
        vx0 = vx;
        vy0 = vy;
      }
      if (count === 1) {
        // A dab: there is no room for a stroke here.
        px[1] = px[0] + field.tx[f0] * radius * 0.5;
        py[1] = py[0] + field.ty[f0] * radius * 0.5;
        count = 2;
      }
      stamp(count, radius, L, a, b, (r2 * 65536) | 0, area);
    }
  });
  finish();
}

function shuffled(count: number, random: () => number): Uint32Array {
  const order = new Uint32Array(count).map((_, i) => i);
  for (let i = count - 1; i > 0; i--) {
    const j = (random() * (i + 1)) | 0;
    const t = order[i];
    order[i] = order[j];
    order[j] = t;
  }
  return order;
}

/** Lays one stroke of `count` points whose places were written to `px` and `py`. */
type Stamp = (count: number, radius: number, L: number, a: number, b: number, mark: number, area: number) => void;

interface Bench {
  /** The planes painted on, as they stand; points of the stroke to come. */
  target: { L: Float32Array; a: Float32Array; b: Float32Array };
  px: Float32Array;
  py: Float32Array;
  stamp: Stamp;
  finish(): void;
}

/** Puts the planes where the strokes are laid, piece by piece and row by row; they come back with `finish`. */
function makeBench(target: LabPlanes, s: BrushSettings, unit: number): Bench {
  const { width: w, height: h } = target;
  const n = w * h;
  const [L, a, b] = [put(target.L), put(target.a), put(target.b)];
  const index = s.inside ? put(s.inside.index) : 0;
  const hairs = put(Float32Array.from({ length: HAIRS * 4 }, (_, i) => latticeHash(i, 11, s.seed) - 0.5));
  const tile = s.tooth > 0.02 ? put(toothTile(unit, s.seed)) : 0;
  const form = plane(6 + 2 * MOST_POINTS);
  // Thick paint shows its ridges, thin paint its hairs.
  const streak = s.bristle * (s.inside ? 0.3 : 0.16) * (1 - 0.8 * s.relief);
  kernels.loadBrush(L, a, b, w, h, index, hairs, tile, streak, s.bristle, s.relief, s.tooth);
  const stroke = floatsAt(form, 6 + 2 * MOST_POINTS);
  return {
    target: { L: floatsAt(L, n), a: floatsAt(a, n), b: floatsAt(b, n) },
    px: stroke.subarray(6, 6 + MOST_POINTS),
    py: stroke.subarray(6 + MOST_POINTS),
    stamp: (count, radius, sL, sa, sb, mark, area) => {
      // Hairs are as wide on a large sheet as on a small one.
      stroke[4] = Math.min(1.5, (0.5 * HAIRS) / (2 * radius)) / unit;
      stroke[5] = 0.55 + 0.5 * (((mark >> 7) & 255) / 255);
      stroke[0] = radius;
      stroke[1] = sL;
      stroke[2] = sa;
      stroke[3] = sb;
      kernels.stroke(form, MOST_POINTS, count, mark & 127, area);
    },
    finish: () => {
      take(L, target.L);
      take(a, target.a);
      take(b, target.b);
    },
  };
}

/** A repeating tile of paper tooth, 0 hollow to 1 crest. */
function toothTile(unit: number, seed: number): Float32Array {
  const tile = noisePlane(TILE, TILE, Math.max(1.6, 1.9 * unit), seed + 5, 2);
  for (let i = 0; i < tile.length; i++) tile[i] = smoothstep(-0.75, 0.75, tile[i]);
  return tile;
}
