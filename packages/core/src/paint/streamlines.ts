import { kernels, take, within, zeros } from '@zinc/kernels';
import { randomFor } from '../number/random.ts';
import { valueNoise } from '../number/noise.ts';
import { clamp } from '../number/scalar.ts';
import { length2, pow, sin, cos } from '../number/trig.ts';
import type { Field } from './field.ts';

export interface StreamlineSettings {
  /** Distance between lines and mean length of a line, in pixels. */
  gap: number;
  length: number;
  /** Widest line as a share of the gap. */
  width: number;
  /** Turns the field by this angle. */
  turn: number;
  /** Tone under which no line starts, 0–1. */
  least: number;
  /** How far starts stray from their lattice, 0–1. */
  stray: number;
  /** 0 keeps the width to the ends; 1 makes a spindle. */
  taper: number;
  seed: number;
  pass: string;
}

/**
 * Evenly spaced streamlines of a direction field whose width follows a tone plane (0 none, 1 widest), after Jobard & Lefer 1997.
 * The field and the tone may be smaller than the w × h of the coverage (0–1) that is returned.
 */
export function drawStreamlines(field: Field, tone: Float32Array, w: number, h: number, s: StreamlineSettings): Float32Array {
  return within(() => {
    const cover = zeros(w * h);
    layStreamlines(cover, field, tone, w, h, s);
    return take(cover, new Float32Array(w * h));
  });
}

function layStreamlines(cover: number, field: Field, tone: Float32Array, w: number, h: number, s: StreamlineSettings): void {
  const gap = Math.max(1.6, s.gap);
  const fw = field.width;
  const kx = fw / w;
  const ky = field.height / h;
  // Place in the field of a place on the sheet.
  const at = (x: number, y: number): number => ((y * ky) | 0) * fw + ((x * kx) | 0);
  const cell = gap * 0.5;
  const gridWidth = Math.ceil(w / cell) + 2;
  const owner = new Int32Array(gridWidth * (Math.ceil(h / cell) + 2));
  const random = randomFor(s.seed, s.pass);
  const cr = cos(s.turn);
  const sr = sin(s.turn);
  const step = Math.max(1.2, gap * 0.35);
  const nx = Math.ceil(w / gap);
  const ny = Math.ceil(h / gap);
  const order = new Uint32Array(nx * ny).map((_, i) => i);
  for (let i = order.length - 1; i > 0; i--) {
    const j = (random() * (i + 1)) | 0;
    const t = order[i];
    order[i] = order[j];
    order[j] = t;
  }
  const most = Math.ceil((s.length * 1.5) / step) + 2;
  const path = new Float32Array(most * 4 + 2);
  const half = new Float32Array(most * 2);
  for (let q = 0; q < order.length; q++) {
    const line = q + 1;
    const sx = ((order[q] % nx) + 0.5 + (random() - 0.5) * s.stray) * gap;
    const sy = (((order[q] / nx) | 0) + 0.5 + (random() - 0.5) * s.stray) * gap;
    const reach = s.length * (0.6 + 0.8 * random()) * 0.5;
    if (sx < 0 || sy < 0 || sx >= w || sy >= h) continue;
    if (owner[((sy / cell) | 0) * gridWidth + ((sx / cell) | 0)] || tone[at(sx, sy)] < s.least) continue;
    let points = 0;
    for (let direction = -1; direction <= 1; direction += 2) {
      let x = sx;
      let y = sy;
      let px = 0;
      let py = 0;
      let count = 0;
      for (let run = 0; run < reach && count < most; run += step) {
        const i = at(x, y);
        let vx = field.tx[i] * cr - field.ty[i] * sr;
        let vy = field.tx[i] * sr + field.ty[i] * cr;
        if (count === 0) {
          vx *= direction;
          vy *= direction;
        } else {
          if (vx * px + vy * py < 0) {
            vx = -vx;
            vy = -vy;
          }
          vx = px * 0.5 + vx * 0.5;
          vy = py * 0.5 + vy * 0.5;
          const m = length2(vx, vy) || 1;
          vx /= m;
          vy /= m;
        }
        x += vx * step;
        y += vy * step;
        if (x < 0 || y < 0 || x >= w || y >= h || tone[at(x, y)] < s.least * 0.85) break;
        const c = ((y / cell) | 0) * gridWidth + ((x / cell) | 0);
        if (owner[c] && owner[c] !== line) break;
        owner[c] = line;
        half[2 * count] = x;
        half[2 * count + 1] = y;
        count++;
        px = vx;
        py = vy;
      }
      if (direction < 0) {
        for (let k = count - 1; k >= 0; k--) {
          path[points++] = half[2 * k];
          path[points++] = half[2 * k + 1];
        }
        path[points++] = sx;
        path[points++] = sy;
      } else for (let k = 0; k < 2 * count; k++) path[points++] = half[k];
    }
    const m = points / 2;
    if (m < 3) continue;
    // Every second point is enough for the ink: lines bend less than they step.
    let last = -1;
    let before = 0;
    for (let k = 0; k < m; k = k < m - 2 ? k + 2 : k + 1) {
      const x = path[2 * k];
      const y = path[2 * k + 1];
      const t = tone[at(x, y)];
      const end = s.taper > 0 ? pow(sin(Math.PI * clamp(k / (m - 1), 0.01, 0.99)), s.taper) : 1;
      const wobble = 0.85 + 0.3 * valueNoise(x * 0.15, y * 0.15, 7);
      const radius = Math.max(0.15, 0.5 * gap * s.width * clamp((t - s.least * 0.6) / (1 - s.least * 0.6)) * end * wobble);
      if (last >= 0) kernels.segment(cover, w, h, path[2 * last], path[2 * last + 1], before, x, y, radius);
      last = k;
      before = radius;
    }
  }
}
