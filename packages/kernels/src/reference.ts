/*
 * What the kernels do, written plainly in TypeScript: slow, and the measure of their tests. Planes are rows of numbers; the border repeats its
 * last pixel.
 */

const hold = (v: number, low: number, high: number): number => (v < low ? low : v > high ? high : v);

/** Weighted taps along both axes; `taps[0]` is the middle one. */
export function tapBlur(p: Float32Array, w: number, h: number, taps: number[]): Float32Array {
  const along = (from: Float32Array, dx: number, dy: number): Float32Array =>
    from.map((_, i) => {
      const x = i % w;
      const y = (i / w) | 0;
      return taps.reduce((sum, t, k) => {
        const at = (s: number): number => from[hold(y + s * k * dy, 0, h - 1) * w + hold(x + s * k * dx, 0, w - 1)];
        return sum + t * (k === 0 ? at(0) : at(1) + at(-1));
      }, 0);
    });
  return along(along(p, 1, 0), 0, 1);
}

/** Means of 2 r + 1 pixels along both axes, `passes` times. */
export function boxBlur(p: Float32Array, w: number, h: number, radius: number, passes: number): Float32Array {
  const taps = new Array<number>(radius + 1).fill(1 / (2 * radius + 1));
  let out = p;
  for (let k = 0; k < passes; k++) out = tapBlur(out, w, h, taps);
  return out;
}

/** A plane read at a place between pixels. */
export function sample(p: Float32Array, w: number, h: number, x: number, y: number): number {
  const gx = hold(x, 0, w - 1);
  const gy = hold(y, 0, h - 1);
  const x0 = Math.floor(gx);
  const y0 = Math.floor(gy);
  const x1 = Math.min(w - 1, x0 + 1);
  const y1 = Math.min(h - 1, y0 + 1);
  const top = p[y0 * w + x0] + (p[y0 * w + x1] - p[y0 * w + x0]) * (gx - x0);
  const low = p[y1 * w + x0] + (p[y1 * w + x1] - p[y1 * w + x0]) * (gx - x0);
  return top + (low - top) * (gy - y0);
}

/** Slopes by the Scharr-weighted difference. */
export function slopes(p: Float32Array, w: number, h: number): { x: Float32Array; y: Float32Array } {
  const at = (x: number, y: number): number => p[hold(y, 0, h - 1) * w + hold(x, 0, w - 1)];
  const one = (i: number, across: boolean): number => {
    const x = i % w;
    const y = (i / w) | 0;
    const d = (k: number): number => (across ? at(x + 1, y + k) - at(x - 1, y + k) : at(x + k, y + 1) - at(x + k, y - 1));
    return (d(-1) + 2 * d(0) + d(1)) / 8;
  };
  return { x: p.map((_, i) => one(i, true)), y: p.map((_, i) => one(i, false)) };
}

/** Mean and variance of a window of a plane, its border repeated. */
function windowOf(p: Float32Array, w: number, h: number, x0: number, y0: number, x1: number, y1: number): [number, number] {
  let sum = 0;
  let square = 0;
  for (let y = y0; y <= y1; y++)
    for (let x = x0; x <= x1; x++) {
      const v = p[hold(y, 0, h - 1) * w + hold(x, 0, w - 1)];
      sum += v;
      square += v * v;
    }
  const n = (x1 - x0 + 1) * (y1 - y0 + 1);
  return [sum / n, Math.max(0, square / n - (sum / n) ** 2)];
}

/** One pixel of the smoothing that keeps edges: planes [L, a, b], reach r and half-width e of the windows. */
export function smoothed(planes: Float32Array[], w: number, h: number, r: number, e: number, x: number, y: number): number[] {
  const boxes = [
    [-r, -r, 0, 0],
    [0, -r, r, 0],
    [-r, 0, 0, r],
    [0, 0, r, r],
    [-e, -r, e, 0],
    [-e, 0, e, r],
    [-r, -e, 0, e],
    [0, -e, r, e],
  ];
  let total = 0;
  const sums = [0, 0, 0];
  for (const [a, b, c, d] of boxes) {
    const means = planes.map(p => windowOf(p, w, h, x + a, y + b, x + c, y + d));
    const weight = 1 / (means[0][1] + 4e-5) ** 4;
    total += weight;
    means.forEach(([mean], k) => (sums[k] += weight * mean));
  }
  return sums.map(s => s / total);
}

/** Shift of one colour by the shifts of the colours near it (six numbers each). */
export function shifted(c: number[], table: number[][], amount: number): number[] {
  let total = 0;
  const sums = [0, 0, 0];
  for (const [L, a, b, dL, da, db] of table) {
    const d = (c[0] - L) ** 2 + 1.6 * ((c[1] - a) ** 2 + (c[2] - b) ** 2) + 4e-4;
    total += 1 / (d * d);
    [dL, da, db].forEach((v, k) => (sums[k] += v / (d * d)));
  }
  return c.map((v, k) => v + (sums[k] * amount) / total);
}

/** Cover that a segment whose half-width goes from `r0` to `r1` gives one pixel. */
export function segmentCover(x: number, y: number, [x0, y0, r0, x1, y1, r1]: number[]): number {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const t = hold(((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy + 1e-9), 0, 1);
  const r = r0 + (r1 - r0) * t;
  const away = Math.sqrt((x - x0 - dx * t) ** 2 + (y - y0 - dy * t) ** 2);
  return hold(r + 0.5 - away, 0, 1) * Math.min(1, 2 * r);
}

/** One straight stroke of two points on a plane of lightness, without paper tooth: what the brush kernel does, pixel by pixel. */
export function strokeOn(
  plane: Float32Array,
  w: number,
  points: [number, number, number, number],
  s: { radius: number; tone: number; hairs: Float32Array; perHair: number; bristle: number; streak: number; relief: number },
): Float32Array {
  const [x0, y0, x1, y1] = points;
  const length = Math.sqrt((x1 - x0) ** 2 + (y1 - y0) ** 2);
  const ux = (x1 - x0) / length;
  const uy = (y1 - y0) / length;
  const total = Math.max(1, s.radius * 1.3);
  return plane.map((v, i) => {
    const ex = (i % w) - x0;
    const ey = ((i / w) | 0) - y0;
    const t = ex * ux + ey * uy;
    const d = ey * ux - ex * uy;
    if (Math.abs(d) > s.radius || t < -0.75 * s.radius || t > length + 0.75 * s.radius) return v;
    const across = d / s.radius;
    const edge = 1 - Math.abs(across);
    const over = Math.max(0, -t, t - length);
    const hair = s.hairs[hold(Math.trunc((d + s.radius) * s.perHair), 0, 127)];
    let alpha = Math.min(1, edge * 4 - (over / s.radius) * (1.6 + 2.4 * hair));
    alpha *= 1 - s.bristle * 0.8 * Math.max(0, t / total - 0.4 + hair * 1.1);
    if (alpha <= 0.02) return v;
    const lit = s.relief * (hair * 0.02 + (edge < 0.4 ? (across * (uy - ux) > 0 ? 0.11 : -0.13) : 0));
    return v + (s.tone + hair * s.streak + lit - v) * alpha;
  });
}

/** Power at one frequency of a windowed tile, by the definition of the transform. */
export function powerAt(tile: Float32Array, n: number, window: Float32Array, fx: number, fy: number): number {
  const mean = tile.reduce((sum, v) => sum + v, 0) / tile.length;
  let re = 0;
  let im = 0;
  tile.forEach((v, i) => {
    const x = i % n;
    const y = (i / n) | 0;
    const turn = (-2 * Math.PI * (fx * x + fy * y)) / n;
    const weight = (v - mean) * window[x] * window[y];
    // eslint-disable-next-line no-restricted-properties -- no pixel hangs on the reference
    re += weight * Math.cos(turn);
    // eslint-disable-next-line no-restricted-properties -- no pixel hangs on the reference
    im += weight * Math.sin(turn);
  });
  return re * re + im * im;
}
