import { blur, blurWide } from '../image/filter.ts';
import { clamp, smoothstep } from '../number/scalar.ts';
import { atan2, cos, sin } from '../number/trig.ts';
import type { View } from './view.ts';

/** Side of a swatch in pixels of the measured copy, and of the window that it is looked for in: turned, it must still fit. */
export const SWATCH_SIDE = 48;
const WINDOW = 70;
const STRIDE = 18;
/** Deviations of lightness beyond this are edges between things; one step of a swatch's bytes is this ÷ 127. */
const MOST = 0.15;
/** Surfaces with less unrest than this (RMS) have no marks worth keeping. */
const LEAST = 0.007;

/** A piece of a picture's surface: how its lightness deviates, turned so that its marks run along the rows. */
export interface Swatch {
  /** RMS of the deviations. */
  rms: number;
  /** 48 × 48 signed bytes in base 64. */
  data: string;
}

/** The most typical piece of worked surface of a picture, edges between things left out; null when its surface is calm. */
export function measureSwatch(view: View): Swatch | null {
  const { L, width, height } = view.planes;
  if (Math.min(width, height) < WINDOW + 2) return null;
  const around = blurWide(L, width, height, 7);
  const crowded = blur(view.slopes.size, width, height, 2.5);
  const surface = new Float32Array(L.length);
  const sure = new Float32Array(L.length);
  for (let i = 0; i < L.length; i++) {
    // A mark deviates little and stands among others; the border of an area deviates much.
    const d = L[i] - around[i];
    sure[i] = 1 - smoothstep(0.07, 0.15, Math.abs(d) * 0.6 + crowded[i] * 0.5);
    surface[i] = clamp(d, -MOST, MOST) * sure[i];
  }
  const places: { x: number; y: number; energy: number }[] = [];
  for (let y = 0; y + WINDOW <= height; y += STRIDE)
    for (let x = 0; x + WINDOW <= width; x += STRIDE) {
      let energy = 0;
      let clear = 0;
      for (let v = y; v < y + WINDOW; v += 2)
        for (let u = x; u < x + WINDOW; u += 2) {
          const i = v * width + u;
          energy += surface[i] * surface[i];
          clear += sure[i];
        }
      const n = (WINDOW / 2) ** 2;
      if (clear / n > 0.55) places.push({ x, y, energy: Math.sqrt(energy / n) });
    }
  const worked = places.filter(p => p.energy > LEAST).sort((p, q) => p.energy - q.energy);
  // Where most of the sheet is calm, what little unrest there is belongs to edges.
  if (worked.length < 4 || worked.length < 0.06 * places.length) return null;
  const place = worked[Math.floor(0.7 * (worked.length - 1))];
  return cutOut(view, surface, place.x + WINDOW / 2, place.y + WINDOW / 2);
}

function cutOut(view: View, surface: Float32Array, cx: number, cy: number): Swatch {
  const { width } = view.planes;
  const { slopes } = view;
  let c2 = 0;
  let s2 = 0;
  for (let y = cy - WINDOW / 2; y < cy + WINDOW / 2; y++)
    for (let x = cx - WINDOW / 2; x < cx + WINDOW / 2; x++) {
      const i = y * width + x;
      c2 += slopes.y[i] * slopes.y[i] - slopes.x[i] * slopes.x[i];
      s2 += -2 * slopes.x[i] * slopes.y[i];
    }
  const angle = 0.5 * atan2(s2, c2);
  const c = cos(angle);
  const s = sin(angle);
  const bytes = new Int8Array(SWATCH_SIDE * SWATCH_SIDE);
  let mean = 0;
  let square = 0;
  for (let v = 0, o = 0; v < SWATCH_SIDE; v++)
    for (let u = 0; u < SWATCH_SIDE; u++, o++) {
      const p = u + 0.5 - SWATCH_SIDE / 2;
      const q = v + 0.5 - SWATCH_SIDE / 2;
      const x = cx + p * c - q * s;
      const y = cy + p * s + q * c;
      const i = Math.floor(y) * width + Math.floor(x);
      const tx = x - Math.floor(x);
      const ty = y - Math.floor(y);
      const top = surface[i] + (surface[i + 1] - surface[i]) * tx;
      const low = surface[i + width] + (surface[i + width + 1] - surface[i + width]) * tx;
      const value = top + (low - top) * ty;
      bytes[o] = Math.round((value / MOST) * 127);
      mean += value;
      square += value * value;
    }
  const n = bytes.length;
  mean /= n;
  return {
    rms: Math.sqrt(Math.max(0, square / n - mean * mean)),
    data: btoa(String.fromCharCode(...new Uint8Array(bytes.buffer))),
  };
}

/** The deviations of a swatch, mean 0 and RMS 1. Throws RangeError when it does not hold 48 × 48 values. */
export function readSwatch(swatch: Swatch): Float32Array {
  const text = atob(swatch.data);
  const n = SWATCH_SIDE * SWATCH_SIDE;
  if (text.length !== n) throw new RangeError(`Got a swatch of ${text.length} values; wanted ${n}.`);
  const out = Float32Array.from({ length: n }, (_, i) => (text.charCodeAt(i) << 24) >> 24);
  const mean = out.reduce((sum, v) => sum + v, 0) / n;
  const rms = Math.sqrt(out.reduce((sum, v) => sum + (v - mean) * (v - mean), 0) / n);
  return out.map(v => (v - mean) / Math.max(1e-6, rms));
}
