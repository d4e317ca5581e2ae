import { fromLabPlanes, labOfHex, type Lab, type Picture } from '@zinc/core';
import { blur } from '@zinc/core/image/filter';
import { clamp, lerp, smoothstep } from '@zinc/core/number/scalar';
import type { Random } from '@zinc/core/number/random';
import { atan2, cos, length2, pow, sin } from '@zinc/core/number/trig';
import type { PartName } from '../subjects/types.ts';

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

/** Where light comes from (a vector from the thing, z towards the eye), how much of it, its colour (OKLab a, b), and frost on what faces up. */
export interface Lamp {
  towards: readonly [number, number, number];
  level: number;
  tint: readonly [number, number];
  frost?: number;
}

export const DAYLIGHT: Lamp = { towards: [-0.5, -0.62, 0.6], level: 1, tint: [0, 0] };

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

/** Where and how a thing stands in the frame: turned about its middle, then made smaller or larger, mirrored, and moved (unit lengths). */
export interface Stance {
  dx: number;
  dy: number;
  scale: number;
  turn: number;
  flip: 1 | -1;
}

const AS_DRAWN: Stance = { dx: 0, dy: 0, scale: 1, turn: 0, flip: 1 };
/** The point about which a stance turns and scales. */
export const PIVOT = { x: 0.5, y: 0.56 };

/** What a step of more or fewer parts comes to, as a factor, and how many steps there are. */
const MORE = 1.45;
const FEWER = 0.62;
const MOST_STEPS = 3;
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
  private stance = AS_DRAWN;
  private c = 1;
  private s = 0;
  /** One of its kind was asked for: a subject that likes to come in bunches draws a single one. */
  single = false;
  /** How many more (above 0) or fewer than usual of a part are wanted, in steps, by the part's name. */
  wanted: Partial<Record<PartName, number>> = {};
  /** What is drawn leaves no trace. */
  private muted = false;
  /** Stands in for the backdrop a subject would draw itself. */
  setting: ((canvas: Canvas) => void) | null = null;
  private ready = false;

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

  /** How the next shapes stand. */
  stand(stance: Stance): void {
    this.stance = stance;
    this.c = cos(stance.turn);
    this.s = sin(stance.turn);
  }

  /** Frame place of a unit place as it stands. */
  private place(x: number, y: number): [number, number] {
    const { scale, flip, dx, dy } = this.stance;
    const u = (x - PIVOT.x) * flip * scale;
    const v = (y - PIVOT.y) * scale;
    return [
      this.left + (PIVOT.x + u * this.c - v * this.s + dx) * this.unit,
      this.top + (PIVOT.y + u * this.s + v * this.c + dy) * this.unit,
    ];
  }

  /** Unit place, as drawn, of a frame place. */
  private source(X: number, Y: number): [number, number] {
    const { scale, flip, dx, dy } = this.stance;
    const u = (X - this.left) / this.unit - PIVOT.x - dx;
    const v = (Y - this.top) / this.unit - PIVOT.y - dy;
    return [PIVOT.x + ((u * this.c + v * this.s) * flip) / scale, PIVOT.y + (v * this.c - u * this.s) / scale];
  }

  /** How many of a part there are: as many as usual, or fewer or more when that is wanted; at least one. */
  many(part: PartName, usual: number): number {
    const steps = clamp(this.wanted[part] ?? 0, -MOST_STEPS, MOST_STEPS);
    let count = usual;
    for (let k = 0; k < Math.abs(steps); k++)
      count =
        steps > 0 ? Math.max(count + 1, Math.round(count * MORE)) : Math.max(1, Math.min(count - 1, Math.round(count * FEWER)));
    return count;
  }

  /**
   * Draws parts of a kind one by one, told their place in the row and how many there are. However many are wanted, those that there are
   * by themselves keep their own numbers, and what is drawn afterwards gets the numbers that it would have had.
   */
  each(part: PartName, usual: number, random: Random, draw: (k: number, count: number, random: Random) => void): void {
    const count = this.many(part, usual);
    const row = Array.from({ length: count }, (_, k) => k);
    if (count === usual) return row.forEach(k => draw(k, count, random));
    const own: number[][] = [];
    this.muted = true;
    for (let k = 0; k < usual; k++) {
      const numbers: number[] = [];
      own.push(numbers);
      draw(k, usual, () => (numbers.push(random()), numbers.at(-1)!));
    }
    this.muted = false;
    for (const k of row) {
      const numbers = own[k % usual];
      // What comes on top is like one that there is, and not the same.
      const apart = Math.floor(k / usual) * 0.37;
      let at = 0;
      draw(k, count, () => (numbers[at++ % numbers.length] + apart) % 1);
    }
  }

  /** Wall above the horizon (unit y), ground below; the ground runs on to the edges of any frame. */
  backdrop(wallTop: Lab, wallFoot: Lab, ground: Lab, horizon: number): void {
    if (this.ready) return;
    this.ready = true;
    if (this.setting) {
      this.setting(this);
      return;
    }
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

  /** A backdrop whose colour a function gives by unit place (which runs past 0–1 in long frames). */
  fill(colour: (x: number, y: number) => Lab): void {
    for (let y = 0, i = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++, i++) {
        const c = colour((x + 0.5 - this.left) / this.unit, (y + 0.5 - this.top) / this.unit);
        this.L[i] = c.L;
        this.a[i] = c.a;
        this.b[i] = c.b;
      }
  }

  /** A soft shadow on the ground beneath a subject. */
  shadow(cx: number, cy: number, rx: number, ry: number, depth: number): void {
    if (this.muted) return;
    const [X, Y] = this.place(cx, cy);
    const RX = rx * this.unit * this.stance.scale;
    const RY = ry * this.unit * this.stance.scale;
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
    if (this.muted) return;
    this.nextPart();
    const { width: w, height: h, unit } = this;
    const { scale, flip } = this.stance;
    const last = points.length - 1;
    let chord = 0;
    for (let k = 0; k < last; k++) chord += length2(points[k + 1][0] - points[k][0], points[k + 1][1] - points[k][1]);
    // A short strip needs few pieces to look round.
    const samples = clamp(Math.ceil((chord * unit * scale) / 5), LEAST_SAMPLES, MOST_SAMPLES);
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
      [sx[i], sy[i]] = this.place(spline(0), spline(1));
      half[i] = Math.max(0, widthAt(i / samples)) * unit * scale;
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
        const c = typeof paint === 'function' ? paint(t, s * flip, ...this.source(x, y)) : paint;
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
    if (this.muted) return;
    this.nextPart();
    const { unit } = this;
    const { scale, flip } = this.stance;
    const [X, Y] = this.place(cx, cy);
    const RX = rx * unit * scale;
    const RY = ry * unit * scale;
    // A mirrored thing turns the other way; what is drawn on it is mirrored with it.
    const c0 = cos(turn * flip + this.stance.turn);
    const s0 = sin(turn * flip + this.stance.turn);
    const reach = Math.max(RX, RY) * 1.2 + 2;
    const power = shape.power ?? 2;
    const round = shape.round ?? 1;
    for (let y = Math.max(0, Math.floor(Y - reach)); y <= Math.min(this.height - 1, Math.ceil(Y + reach)); y++)
      for (let x = Math.max(0, Math.floor(X - reach)); x <= Math.min(this.width - 1, Math.ceil(X + reach)); x++) {
        const dx = x - X;
        const dy = y - Y;
        const u = ((dx * c0 + dy * s0) / RX) * flip;
        const v = (-dx * s0 + dy * c0) / RY;
        let r = power === 2 ? Math.sqrt(u * u + v * v) : pow(pow(Math.abs(u), power) + pow(Math.abs(v), power), 1 / power);
        if (r > 1.4) continue;
        const angle = atan2(v, u);
        if (shape.lobes) r *= 1 + (shape.lobeDepth ?? 0.05) * cos(angle * shape.lobes);
        const cover = clamp((1 - r) * Math.min(RX, RY) + 0.5);
        if (cover <= 0) continue;
        const c = typeof paint === 'function' ? paint(angle / 6.283185307 + 0.5, r, u, v) : paint;
        const nu = u * round * flip;
        const nv = v * round;
        const z = (shape.height ?? 0) + Math.sqrt(Math.max(0, 1 - r * r)) * Math.min(rx, ry);
        this.lay(y * this.width + x, cover, c, nu * c0 - nv * s0, nu * s0 + nv * c0, z, shape.gloss ?? 0.25);
      }
  }

  /** A flat polygon with the surface direction `tilt`; `opacity` under 1 is glass. */
  polygon(points: readonly Point[], paint: Paint, tilt: Point = [0, 0], height = 0, opacity = 1): void {
    if (this.muted) return;
    this.nextPart();
    const placed = points.map(p => this.place(p[0], p[1]));
    const xs = placed.map(p => p[0]);
    const ys = placed.map(p => p[1]);
    const { flip } = this.stance;
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
        const cover = opacity * clamp((inside ? d : -d) + 0.5);
        if (cover <= 0) continue;
        const c =
          typeof paint === 'function'
            ? paint(flip > 0 ? (x - xa) / (xb - xa) : (xb - x) / (xb - xa), (y - ya) / (yb - ya), ...this.source(x, y))
            : paint;
        this.lay(y * this.width + x, cover, c, tilt[0] * flip, tilt[1], height, 0.1);
      }
  }

  /** Lights everything that was laid with one lamp and gives the scene. */
  light(lamp: Lamp = DAYLIGHT): Scene {
    const { width, height, unit } = this;
    const [dx, dy, dz] = lamp.towards;
    const m = Math.sqrt(dx * dx + dy * dy + dz * dz);
    const lx = dx / m;
    const ly = dy / m;
    const lz = dz / m;
    const around = blur(this.z, width, height, unit * 0.012);
    for (let i = 0; i < this.L.length; i++) {
      const cover = this.mask[i];
      if (cover > 0.01) {
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
        if (lamp.frost) {
          // Frost lies on what faces up.
          const rime = lamp.frost * smoothstep(0.1, 0.75, -ny + 0.35 * (facing - 0.5)) * cover;
          this.L[i] += (0.95 - this.L[i]) * rime;
          this.a[i] *= 1 - rime;
          this.b[i] *= 1 - rime;
        }
      }
      this.L[i] = clamp(this.L[i] * lamp.level);
      this.a[i] += lamp.tint[0] * this.L[i];
      this.b[i] += lamp.tint[1] * this.L[i];
    }
    return this.finish();
  }

  /** Moves the main hue of what was laid to another colour's, keeping its lights and darks; leaves may be spared. */
  dye(colour: Lab, spareLeaves: boolean, amount = 1): void {
    const bins = new Float64Array(24);
    const hueOf = (i: number): number => (((atan2(this.b[i], this.a[i]) / 6.283185307 + 1) * 24) % 24) | 0;
    for (let i = 0; i < this.L.length; i++)
      if (this.mask[i] > 0.5) {
        const chroma = length2(this.a[i], this.b[i]);
        // Leaves are dyed only when there is nothing else to dye.
        const green = spareLeaves && this.a[i] < -0.02 && this.b[i] > 0;
        if (chroma > 0.02) bins[hueOf(i)] += chroma * (green ? 0.15 : 1);
      }
    let main = 0;
    for (let k = 1; k < 24; k++) if (bins[k] > bins[main]) main = k;
    let sumL = 0;
    let sumC = 0;
    let count = 0;
    const near = (i: number): boolean => {
      const off = Math.abs(hueOf(i) - main);
      return this.mask[i] > 0.3 && Math.min(off, 24 - off) <= 3 && (bins[main] === 0 || length2(this.a[i], this.b[i]) > 0.015);
    };
    for (let i = 0; i < this.L.length; i++)
      if (near(i)) {
        sumL += this.L[i];
        sumC += length2(this.a[i], this.b[i]);
        count++;
      }
    if (count === 0) return;
    const chroma = Math.max(0.02, sumC / count);
    const chosen = Uint8Array.from(this.L, (_, i) => (near(i) ? 1 : 0));
    for (let i = 0; i < this.L.length; i++) {
      if (!chosen[i]) continue;
      const k = length2(this.a[i], this.b[i]) / chroma;
      const tone = clamp(colour.L + (this.L[i] - sumL / count) * 0.85, 0.05, 0.98);
      const strong = Math.min(1.4, k);
      this.L[i] = amount === 1 ? tone : lerp(this.L[i], tone, amount);
      this.a[i] = amount === 1 ? colour.a * strong : lerp(this.a[i], colour.a * strong, amount);
      this.b[i] = amount === 1 ? colour.b * strong : lerp(this.b[i], colour.b * strong, amount);
    }
  }

  /** Greens as they are early and late in the year: young and yellow, or gone to ochre and rust. */
  turnGreens(season: 'spring' | 'autumn'): void {
    for (let i = 0; i < this.L.length; i++) {
      if (this.mask[i] < 0.3 || this.a[i] > -0.015 || this.b[i] < 0) continue;
      const chroma = length2(this.a[i], this.b[i]);
      const late = season === 'autumn';
      const t = late ? 0.85 : 0.4;
      this.a[i] += ((late ? 0.55 : -0.45) * chroma - this.a[i]) * t;
      this.b[i] += (1.05 * chroma - this.b[i]) * t;
      this.L[i] = clamp(this.L[i] + (late ? 0.05 : 0.06));
    }
  }

  /** The scene as laid, without light. */
  finish(): Scene {
    const { width, height, L, a, b } = this;
    return { picture: fromLabPlanes({ width, height, L, a, b }), mask: this.mask, parts: this.parts };
  }
}
