import { fromLabPlanes, labOfHex, type Lab, type Picture } from '@zinc/core';
import { blur } from '@zinc/core/image/filter';
import { clamp, lerp, smoothstep } from '@zinc/core/number/scalar';
import { atan2, cos, length2, pow, sin } from '@zinc/core/number/trig';

/** A colour, or a colour by place: along (0–1) and across (−1–1) a ribbon, turn and radius of a blob, box place of a polygon; then frame x, y. */
export type Paint = Lab | ((t: number, s: number, x: number, y: number) => Lab);
export type Point = readonly [number, number];

/** A drawn subject: the picture, where the subject is (0–1), and which part each pixel belongs to (0 is the ground). */
export interface Scene {
  picture: Picture;
  mask: Float32Array;
  parts: Uint8Array;
}

export const hex = (code: string): Lab => labOfHex(code);
export const mixLab = (p: Lab, q: Lab, t: number): Lab => ({ L: lerp(p.L, q.L, t), a: lerp(p.a, q.a, t), b: lerp(p.b, q.b, t) });
export const lighter = (c: Lab, by: number): Lab => ({ L: c.L + by, a: c.a, b: c.b });

export interface RibbonShape {
  /** 1 is a tube, 0 a flat strip. */
  round?: number;
  /** Folds the two halves of a leaf against each other. */
  cup?: number;
  /** Bends the strip along its length. */
  bend?: number;
  height?: number;
  gloss?: number;
  /** Cuts the ends square instead of round. */
  square?: boolean;
}

const MOST_SAMPLES = 40;
const LEAST_SAMPLES = 10;

/**
 * A frame on which shapes are laid with colour, surface direction and height, and lit at the end by one lamp. Shapes are given in unit
 * coordinates: the unit square stands in the middle of the frame, x to the right and y down.
 */
export class Canvas {
  private readonly L: Float32Array;
  private readonly a: Float32Array;
  private readonly b: Float32Array;
  private readonly nx: Float32Array;
  private readonly ny: Float32Array;
  private readonly z: Float32Array;
  private readonly gloss: Float32Array;
  private readonly mask: Float32Array;
  private readonly parts: Uint8Array;
  private readonly unit: number;
  private readonly left: number;
  private readonly top: number;
  private part = 0;

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    const n = width * height;
    this.L = new Float32Array(n);
    this.a = new Float32Array(n);
    this.b = new Float32Array(n);
    this.nx = new Float32Array(n);
    this.ny = new Float32Array(n);
    this.z = new Float32Array(n);
    this.gloss = new Float32Array(n);
    this.mask = new Float32Array(n);
    this.parts = new Uint8Array(n);
    this.unit = Math.min(width, height);
    this.left = (width - this.unit) / 2;
    this.top = (height - this.unit) / 2;
  }

  /** Wall above the horizon (unit y), ground below; the ground runs on to the edges of any frame. */
  backdrop(wallTop: Lab, wallFoot: Lab, ground: Lab, horizon: number): void {
    const { width, height, unit } = this;
    for (let y = 0, i = 0; y < height; y++) {
      const v = (y + 0.5 - this.top) / unit;
      const wall = mixLab(wallTop, wallFoot, clamp(v / Math.max(0.01, horizon)));
      const c = mixLab(wall, ground, smoothstep(horizon - 0.004, horizon + 0.004, v));
      for (let x = 0; x < width; x++, i++) {
        this.L[i] = c.L;
        this.a[i] = c.a;
        this.b[i] = c.b;
      }
    }
  }

  /** A soft shadow on the ground beneath a subject. */
  shadow(cx: number, cy: number, rx: number, ry: number, depth: number): void {
    const X = this.left + cx * this.unit;
    const Y = this.top + cy * this.unit;
    const RX = rx * this.unit;
    const RY = ry * this.unit;
    for (let y = Math.max(0, Math.floor(Y - RY)); y < Math.min(this.height, Y + RY); y++)
      for (let x = Math.max(0, Math.floor(X - RX)); x < Math.min(this.width, X + RX); x++) {
        const u = (x - X) / RX;
        const v = (y - Y) / RY;
        const r = u * u + v * v;
        if (r < 1) this.L[y * this.width + x] *= 1 - depth * (1 - r) * (1 - r);
      }
  }

  /** The next shape starts a new part; edges between parts are kept when colours are made flat. */
  private nextPart(): void {
    this.part = (this.part % 250) + 1;
  }

  private lay(i: number, cover: number, c: Lab, nx: number, ny: number, z: number, gloss: number): void {
    this.L[i] += (c.L - this.L[i]) * cover;
    this.a[i] += (c.a - this.a[i]) * cover;
    this.b[i] += (c.b - this.b[i]) * cover;
    if (cover > 0.5) {
      const m = length2(nx, ny);
      const k = m > 0.98 ? 0.98 / m : 1;
      this.nx[i] = nx * k;
      this.ny[i] = ny * k;
      this.z[i] = z;
      this.gloss[i] = gloss;
      this.parts[i] = this.part;
    }
    if (cover > this.mask[i]) this.mask[i] = cover;
  }

  /** A strip along a smooth spine (Catmull–Rom through the points) with half-width `widthAt(t)` in unit lengths. */
  ribbon(points: readonly Point[], widthAt: (t: number) => number, paint: Paint, shape: RibbonShape = {}): void {
    this.nextPart();
    const { width: w, height: h, unit } = this;
    const last = points.length - 1;
    let chord = 0;
    for (let k = 0; k < last; k++) chord += length2(points[k + 1][0] - points[k][0], points[k + 1][1] - points[k][1]);
    // A short strip needs few pieces to look round.
    const samples = clamp(Math.ceil((chord * unit) / 5), LEAST_SAMPLES, MOST_SAMPLES);
    const sx = new Float64Array(samples + 1);
    const sy = new Float64Array(samples + 1);
    const half = new Float64Array(samples + 1);
    const at = (k: number): Point => points[clamp(k, 0, last)];
    for (let i = 0; i <= samples; i++) {
      const along = (i / samples) * last;
      const k = Math.min(last - 1, Math.floor(along));
      const f = along - k;
      const spline = (d: 0 | 1): number => {
        const p0 = at(k - 1)[d];
        const p1 = at(k)[d];
        const p2 = at(k + 1)[d];
        const p3 = at(k + 2)[d];
        return 0.5 * (2 * p1 + (p2 - p0) * f + (2 * p0 - 5 * p1 + 4 * p2 - p3) * f * f + (3 * p1 - p0 - 3 * p2 + p3) * f * f * f);
      };
      sx[i] = this.left + spline(0) * unit;
      sy[i] = this.top + spline(1) * unit;
      half[i] = Math.max(0, widthAt(i / samples)) * unit;
    }
    let xa = Infinity;
    let xb = -Infinity;
    let ya = Infinity;
    let yb = -Infinity;
    for (let i = 0; i <= samples; i++) {
      xa = Math.min(xa, sx[i] - half[i]);
      xb = Math.max(xb, sx[i] + half[i]);
      ya = Math.min(ya, sy[i] - half[i]);
      yb = Math.max(yb, sy[i] + half[i]);
    }
    xa = Math.max(0, Math.floor(xa - 2));
    ya = Math.max(0, Math.floor(ya - 2));
    xb = Math.min(w - 1, Math.ceil(xb + 2));
    yb = Math.min(h - 1, Math.ceil(yb + 2));
    if (xa > xb || ya > yb) return;
    const bw = xb - xa + 1;
    const distance = new Float32Array(bw * (yb - ya + 1)).fill(Infinity);
    const along = new Float32Array(distance.length);
    const side = new Float32Array(distance.length);
    const ux = new Float32Array(distance.length);
    const uy = new Float32Array(distance.length);
    for (let k = 0; k < samples; k++) {
      const dx = sx[k + 1] - sx[k];
      const dy = sy[k + 1] - sy[k];
      const l2 = dx * dx + dy * dy + 1e-9;
      const inv = 1 / Math.sqrt(l2);
      const reach = Math.max(half[k], half[k + 1]) + 1.5;
      const fx = Math.max(xa, Math.floor(Math.min(sx[k], sx[k + 1]) - reach));
      const tx = Math.min(xb, Math.ceil(Math.max(sx[k], sx[k + 1]) + reach));
      const fy = Math.max(ya, Math.floor(Math.min(sy[k], sy[k + 1]) - reach));
      const ty = Math.min(yb, Math.ceil(Math.max(sy[k], sy[k + 1]) + reach));
      for (let y = fy; y <= ty; y++)
        for (let x = fx; x <= tx; x++) {
          const px = x - sx[k];
          const py = y - sy[k];
          const t = clamp((px * dx + py * dy) / l2);
          const ex = px - dx * t;
          const ey = py - dy * t;
          const d = ex * ex + ey * ey;
          const o = (y - ya) * bw + x - xa;
          if (d >= distance[o]) continue;
          distance[o] = d;
          along[o] = (k + t) / samples;
          ux[o] = dx * inv;
          uy[o] = dy * inv;
          side[o] = (ey * dx - ex * dy) * inv;
        }
    }
    const round = shape.round ?? 0.5;
    const cup = shape.cup ?? 0;
    for (let y = ya; y <= yb; y++)
      for (let x = xa; x <= xb; x++) {
        const o = (y - ya) * bw + x - xa;
        const t = along[o];
        if (distance[o] === Infinity || (shape.square && (t <= 0 || t >= 1))) continue;
        const k = Math.min(samples - 1, Math.floor(t * samples));
        const own = lerp(half[k], half[k + 1], t * samples - k);
        if (own < 0.15) continue;
        const cover = clamp(own + 0.5 - Math.sqrt(distance[o]));
        if (cover <= 0) continue;
        const s = clamp(side[o] / Math.max(own, 0.5), -1, 1);
        const c = typeof paint === 'function' ? paint(t, s, (x - this.left) / unit, (y - this.top) / unit) : paint;
        const tilt = round * s + cup * (s < 0 ? -1 : 1) * (1 - Math.abs(s));
        const bend = (shape.bend ?? 0) * (t - 0.5);
        const z = (shape.height ?? 0) + ((1 - s * s) * own * round) / unit;
        this.lay(y * w + x, cover, c, -uy[o] * tilt + ux[o] * bend, ux[o] * tilt + uy[o] * bend, z, shape.gloss ?? 0.15);
      }
  }

  /** An ellipse (a superellipse with `power`) seen as a rounded body. */
  blob(
    cx: number,
    cy: number,
    rx: number,
    ry: number,
    turn: number,
    paint: Paint,
    shape: { height?: number; gloss?: number; power?: number; round?: number; lobes?: number; lobeDepth?: number } = {},
  ): void {
    this.nextPart();
    const { unit } = this;
    const X = this.left + cx * unit;
    const Y = this.top + cy * unit;
    const RX = rx * unit;
    const RY = ry * unit;
    const c0 = cos(turn);
    const s0 = sin(turn);
    const reach = Math.max(RX, RY) * 1.2 + 2;
    const power = shape.power ?? 2;
    const round = shape.round ?? 1;
    for (let y = Math.max(0, Math.floor(Y - reach)); y <= Math.min(this.height - 1, Math.ceil(Y + reach)); y++)
      for (let x = Math.max(0, Math.floor(X - reach)); x <= Math.min(this.width - 1, Math.ceil(X + reach)); x++) {
        const dx = x - X;
        const dy = y - Y;
        const u = (dx * c0 + dy * s0) / RX;
        const v = (-dx * s0 + dy * c0) / RY;
        let r = power === 2 ? Math.sqrt(u * u + v * v) : pow(pow(Math.abs(u), power) + pow(Math.abs(v), power), 1 / power);
        if (r > 1.4) continue;
        const angle = atan2(v, u);
        if (shape.lobes) r *= 1 + (shape.lobeDepth ?? 0.05) * cos(angle * shape.lobes);
        const cover = clamp((1 - r) * Math.min(RX, RY) + 0.5);
        if (cover <= 0) continue;
        const c = typeof paint === 'function' ? paint(angle / 6.283185307 + 0.5, r, u, v) : paint;
        const nu = u * round;
        const nv = v * round;
        const z = (shape.height ?? 0) + Math.sqrt(Math.max(0, 1 - r * r)) * Math.min(rx, ry);
        this.lay(y * this.width + x, cover, c, nu * c0 - nv * s0, nu * s0 + nv * c0, z, shape.gloss ?? 0.25);
      }
  }

  /** A flat polygon with the surface direction `tilt`. */
  polygon(points: readonly Point[], paint: Paint, tilt: Point = [0, 0], height = 0): void {
    this.nextPart();
    const { unit } = this;
    const xs = points.map(p => this.left + p[0] * unit);
    const ys = points.map(p => this.top + p[1] * unit);
    const xa = Math.min(...xs);
    const xb = Math.max(...xs);
    const ya = Math.min(...ys);
    const yb = Math.max(...ys);
    for (let y = Math.max(0, Math.floor(ya - 1)); y <= Math.min(this.height - 1, Math.ceil(yb + 1)); y++)
      for (let x = Math.max(0, Math.floor(xa - 1)); x <= Math.min(this.width - 1, Math.ceil(xb + 1)); x++) {
        let inside = false;
        let nearest = Infinity;
        for (let i = 0, j = xs.length - 1; i < xs.length; j = i++) {
          if (ys[i] > y !== ys[j] > y && x < ((xs[j] - xs[i]) * (y - ys[i])) / (ys[j] - ys[i]) + xs[i]) inside = !inside;
          const dx = xs[j] - xs[i];
          const dy = ys[j] - ys[i];
          const t = clamp(((x - xs[i]) * dx + (y - ys[i]) * dy) / (dx * dx + dy * dy + 1e-9));
          const ex = x - xs[i] - dx * t;
          const ey = y - ys[i] - dy * t;
          nearest = Math.min(nearest, ex * ex + ey * ey);
        }
        const d = Math.sqrt(nearest);
        const cover = clamp((inside ? d : -d) + 0.5);
        if (cover <= 0) continue;
        const c =
          typeof paint === 'function'
            ? paint((x - xa) / (xb - xa), (y - ya) / (yb - ya), (x - this.left) / unit, (y - this.top) / unit)
            : paint;
        this.lay(y * this.width + x, cover, c, tilt[0], tilt[1], height, 0.1);
      }
  }

  /** Lights everything that was laid with one lamp from the upper left (unit vector x, y, z towards the eye) and gives the scene. */
  light(lamp: readonly [number, number, number] = [-0.5, -0.62, 0.6]): Scene {
    const { width, height, unit } = this;
    const m = Math.sqrt(lamp[0] ** 2 + lamp[1] ** 2 + lamp[2] ** 2);
    const [lx, ly, lz] = lamp.map(v => v / m);
    const around = blur(this.z, width, height, unit * 0.012);
    for (let i = 0; i < this.L.length; i++) {
      const cover = this.mask[i];
      if (cover <= 0.01) continue;
      const nx = this.nx[i];
      const ny = this.ny[i];
      const nz = Math.sqrt(Math.max(0.02, 1 - nx * nx - ny * ny));
      const facing = clamp((nx * lx + ny * ly + nz * lz + 0.25) / 1.25);
      const hidden = clamp((around[i] - this.z[i]) * 9, 0, 0.45);
      const mirror = clamp(nx * lx * 0.5 + ny * ly * 0.5 + nz * (lz + 1) * 0.5);
      const shine = pow(mirror, 26) * this.gloss[i];
      this.L[i] = clamp(this.L[i] * lerp(1, 0.5 + 0.58 * facing - hidden, cover) + shine * 0.35 * cover);
      const chroma = lerp(1, 0.75 + 0.3 * facing, cover) * (1 - shine * 0.6);
      this.a[i] *= chroma;
      this.b[i] = this.b[i] * chroma - (1 - facing) * 0.012 * cover;
    }
    return this.finish();
  }

  /** The scene as laid, without light. */
  finish(): Scene {
    const { width, height, L, a, b } = this;
    return { picture: fromLabPlanes({ width, height, L, a, b }), mask: this.mask, parts: this.parts };
  }
}
