import { at, bin } from './lanes';

/** How many of `n` values fall into each of `last` + 1 equal classes from 0 to 1 (nearest), as 32-bit counts that start at 0. */
export function histogram(p: usize, n: i32, counts: usize, last: i32): void {
  for (let i = 0; i < n; i++) {
    const o = counts + ((<usize>bin(at(p, i) * <f32>last + f32(0.5), 1, last)) << 2);
    store<i32>(o, load<i32>(o) + 1);
  }
}

/** Mean of the squares of a plane. */
export function power(p: usize, n: i32): f64 {
  let sum: f64 = 0;
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const v = v128.load(p + ((<usize>i) << 2));
    const s = f32x4.mul(v, v);
    sum += <f64>(f32x4.extract_lane(s, 0) + f32x4.extract_lane(s, 1) + (f32x4.extract_lane(s, 2) + f32x4.extract_lane(s, 3)));
  }
  for (; i < n; i++) sum += <f64>(at(p, i) * at(p, i));
  return sum / <f64>n;
}

/** How many values lie below `limit`. */
export function countBelow(p: usize, n: i32, limit: f32): i32 {
  let count = 0;
  for (let i = 0; i < n; i++) count += <i32>(at(p, i) < limit);
  return count;
}

/** How many pixels are bare ground: nearer than `reach` to its colour, and nothing going on around them (plane `unrest` below `calm`). */
export function countBare(
  L: usize,
  a: usize,
  b: usize,
  unrest: usize,
  n: i32,
  gL: f32,
  ga: f32,
  gb: f32,
  reach: f32,
  calm: f32,
): i32 {
  let count = 0;
  for (let i = 0; i < n; i++) {
    if (at(unrest, i) >= calm) continue;
    const dL = at(L, i) - gL;
    const da = at(a, i) - ga;
    const db = at(b, i) - gb;
    if (dL * dL + da * da + db * db < reach * reach) count++;
  }
  return count;
}

/** Whether every pixel of 8-bit RGBA is opaque. */
export function isOpaque(rgba: usize, n: i32): bool {
  let all = i32x4.splat(-1);
  let i = 0;
  for (; i + 4 <= n; i += 4) all = v128.and(all, v128.load(rgba + ((<usize>i) << 2)));
  let words = i32x4.extract_lane(all, 0) & i32x4.extract_lane(all, 1) & i32x4.extract_lane(all, 2) & i32x4.extract_lane(all, 3);
  for (; i < n; i++) words &= load<i32>(rgba + ((<usize>i) << 2));
  return (<u32>words) >> 24 === 255;
}

/** Weight of each slope as ink: small where it is steep among calm surroundings, or, by `soften`, gently sloped. In place. */
export function inkWeights(size: usize, around: usize, n: i32, soften: f32): void {
  const one = f32x4.splat(1);
  const k = f32x4.splat(soften / f32(0.005));
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const v = v128.load(size + i);
    const r = f32x4.div(v, f32x4.add(f32x4.splat(0.02), f32x4.mul(f32x4.splat(1.6), v128.load(around + i))));
    const s = f32x4.mul(v, k);
    const r2 = f32x4.mul(r, r);
    v128.store(size + i, f32x4.div(one, f32x4.add(one, f32x4.add(f32x4.mul(r2, r2), f32x4.mul(s, s)))));
  }
}

/** Length of (a, b) at each pixel, times `k`. */
export function lengths(a: usize, b: usize, n: i32, k: f32, to: usize): void {
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const p = v128.load(a + i);
    const q = v128.load(b + i);
    v128.store(to + i, f32x4.mul(f32x4.splat(k), f32x4.sqrt(f32x4.add(f32x4.mul(p, p), f32x4.mul(q, q)))));
  }
}

/**
 * Gathers colours into `lBins` × `cBins` × `cBins` classes of six doubles: weight, weighted L, a and b, weight on edges (slope over `edge`), count. `weights` and
 * `slopes` may be 0. Every `step`th pixel is read, like a chessboard.
 */
export function binColours(
  L: usize,
  a: usize,
  b: usize,
  w: i32,
  h: i32,
  weights: usize,
  slopes: usize,
  edge: f32,
  step: i32,
  lBins: i32,
  cBins: i32,
  cLow: f32,
  cScale: f32,
  sums: usize,
): void {
  for (let y = 0; y < h; y++)
    for (let x = step === 2 ? y & 1 : 0; x < w; x += step) {
      const i = y * w + x;
      const weight: f64 = weights ? <f64>at(weights, i) : 1;
      const vL = at(L, i);
      const va = at(a, i);
      const vb = at(b, i);
      const l = bin(vL, <f32>lBins, lBins - 1);
      const p = bin(va - cLow, cScale, cBins - 1);
      const q = bin(vb - cLow, cScale, cBins - 1);
      const o = sums + <usize>((l * cBins + p) * cBins + q) * 48;
      store<f64>(o, load<f64>(o) + weight);
      store<f64>(o, load<f64>(o, 8) + weight * <f64>vL, 8);
      store<f64>(o, load<f64>(o, 16) + weight * <f64>va, 16);
      store<f64>(o, load<f64>(o, 24) + weight * <f64>vb, 24);
      if (slopes && at(slopes, i) > edge) store<f64>(o, load<f64>(o, 32) + weight, 32);
      store<f64>(o, load<f64>(o, 40) + 1, 40);
    }
}

/**
 * Thin dark and light lines by thickness, as described at `measureThickness`. `bounds` holds `classes` upper bounds; the sums of dark, then light
 * contrasts by class go to `sums` (doubles), followed by their total and the total divided by thickness. `kind`, `rows` are room for n bytes, `since` for w numbers.
 */
export function thickness(
  L: usize,
  around: usize,
  w: i32,
  h: i32,
  contrast: f32,
  longest: i32,
  bounds: usize,
  classes: i32,
  sums: usize,
  kind: usize,
  rows: usize,
  since: usize,
): void {
  const n = w * h;
  for (let i = 0; i < n; i++) {
    const d = at(L, i) - at(around, i);
    store<u8>(kind + <usize>i, d < -contrast ? 1 : d > contrast ? 2 : 0);
  }
  for (let y = 0; y < h; y++) {
    const end = (y + 1) * w;
    for (let from = y * w; from < end;) {
      const k = load<u8>(kind + <usize>from);
      let to = from + 1;
      while (to < end && load<u8>(kind + <usize>to) === k) to++;
      if (k) memory.fill(rows + <usize>from, <u8>min(longest, to - from), <usize>(to - from));
      from = to;
    }
  }
  memory.fill(since, 0, (<usize>w) << 2);
  const widest = at(bounds, classes - 1);
  const tail = sums + ((<usize>(classes * 2)) << 3);
  for (let y = 1; y <= h; y++)
    for (let x = 0; x < w; x++) {
      const i = (y - 1) * w + x;
      const k = load<u8>(kind + <usize>i);
      if (y < h && load<u8>(kind + <usize>(i + w)) === k) continue;
      const s = since + ((<usize>x) << 2);
      const start = load<i32>(s);
      store<i32>(s, y);
      if (!k) continue;
      const v = <f32>min(longest, y - start);
      for (let q = start; q < y; q++) {
        const j = q * w + x;
        const r = <f32>load<u8>(rows + <usize>j);
        const t = (r * v) / sqrt<f32>(r * r + v * v);
        if (t > widest) continue;
        let c = 0;
        while (t > at(bounds, c)) c++;
        const d = <f64>abs<f32>(at(around, j) - at(L, j));
        const o = sums + ((<usize>(k === 1 ? c : c + classes)) << 3);
        store<f64>(o, load<f64>(o) + d);
        store<f64>(tail, load<f64>(tail) + d);
        store<f64>(tail, load<f64>(tail, 8) + d / <f64>t, 8);
      }
    }
}

/**
 * Change of lightness along and across the direction at given distances, at every third pixel where the slope is small; of chroma across at `chroma`. Sums
 * (doubles): along, across, chroma, count.
 */
export function brushwork(
  L: usize,
  a: usize,
  b: usize,
  w: i32,
  h: i32,
  size: usize,
  tx: usize,
  ty: usize,
  fw: i32,
  fh: i32,
  reaches: usize,
  count: i32,
  chroma: i32,
  most: f32,
  sums: usize,
): void {
  const reach = load<i32>(reaches + ((<usize>(count - 1)) << 2)) + 1;
  const tail = sums + ((<usize>(count * 2)) << 3);
  for (let y = reach; y < h - reach; y += 3)
    for (let x = reach; x < w - reach; x += 3) {
      const i = y * w + x;
      if (at(size, i) > f32(0.09)) continue;
      const j = min(fh - 1, y >> 1) * fw + min(fw - 1, x >> 1);
      const vx = at(tx, j);
      const vy = at(ty, j);
      const here = at(L, i);
      for (let r = 0; r < count; r++) {
        const d = load<i32>(reaches + ((<usize>r) << 2));
        const ox = <i32>floor<f32>(vx * <f32>d + f32(0.5));
        const oy = <i32>floor<f32>(vy * <f32>d + f32(0.5));
        const q = (y + ox) * w + x - oy;
        const u = min<f32>(most, abs<f32>(at(L, (y + oy) * w + x + ox) - here));
        const v = min<f32>(most, abs<f32>(at(L, q) - here));
        const p = sums + ((<usize>r) << 3);
        store<f64>(p, load<f64>(p) + <f64>u);
        const s = sums + ((<usize>(count + r)) << 3);
        store<f64>(s, load<f64>(s) + <f64>v);
        if (d === chroma) {
          const da = at(a, q) - at(a, i);
          const db = at(b, q) - at(b, i);
          store<f64>(tail, load<f64>(tail) + <f64>min<f32>(most, sqrt<f32>(da * da + db * db)));
        }
      }
      store<f64>(tail, load<f64>(tail, 8) + 1, 8);
    }
}

/**
 * Sums over edges (doubles): edges and their slopes, doubled direction (cosine, sine), weighted coherence, all slopes, turned-away and clear shares. `faint`
 * and `clear` are the slopes at which a slope counts and at which it is an edge.
 */
export function edgeSums(
  sx: usize,
  sy: usize,
  size: usize,
  w: i32,
  h: i32,
  tx: usize,
  ty: usize,
  coherence: usize,
  fw: i32,
  fh: i32,
  faint: f32,
  clear: f32,
  sums: usize,
): void {
  let edges: f64 = 0;
  let strong: f64 = 0;
  let c2: f64 = 0;
  let s2: f64 = 0;
  let coherent: f64 = 0;
  let slopes: f64 = 0;
  let turned: f64 = 0;
  let sure: f64 = 0;
  for (let y = 0; y < h; y++) {
    const row = min(fh - 1, y >> 1) * fw;
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const g = at(size, i);
      if (g <= faint) continue;
      const j = row + min(fw - 1, x >> 1);
      const vx = at(tx, j);
      const vy = at(ty, j);
      const k = at(coherence, j);
      const weight = g * k;
      c2 += <f64>(weight * (vx * vx - vy * vy));
      s2 += <f64>(weight * 2 * vx * vy);
      coherent += <f64>weight;
      slopes += <f64>g;
      if (g <= clear) continue;
      edges++;
      strong += <f64>g;
      // Across a straight edge the slope stands at right angles to the course; along a wandering one it turns away.
      const off = (at(sx, i) * vx + at(sy, i) * vy) / g;
      turned += <f64>(k * k * off * off);
      sure += <f64>(k * k);
    }
  }
  store<f64>(sums, edges);
  store<f64>(sums, strong, 8);
  store<f64>(sums, c2, 16);
  store<f64>(sums, s2, 24);
  store<f64>(sums, coherent, 32);
  store<f64>(sums, slopes, 40);
  store<f64>(sums, turned, 48);
  store<f64>(sums, sure, 56);
}

/** Median (in steps of 1 ÷ 4096) of how far pixels lie from the mean of their 2 × 2 block, slopes of `edge` and more left out. `bins` is room for 512 counts. */
export function offEdges(full: usize, w: i32, half: usize, hw: i32, hh: i32, size: usize, edge: f32, bins: usize): f32 {
  memory.fill(bins, 0, 2048);
  let total = 0;
  for (let y = 0; y < 2 * hh; y++) {
    const row = y * w;
    const coarse = (y >> 1) * hw;
    for (let x = y & 1; x < 2 * hw; x += 2) {
      if (at(size, row + x) >= edge) continue;
      const o = bins + ((<usize>bin(abs<f32>(at(full, row + x) - at(half, coarse + (x >> 1))), 4096, 511)) << 2);
      store<i32>(o, load<i32>(o) + 1);
      total++;
    }
  }
  let seen = 0;
  for (let k = 0; k < 512; k++) {
    seen += load<i32>(bins + ((<usize>k) << 2));
    if (2 * seen >= total) return <f32>k / 4096;
  }
  return 0;
}

/** Columns of a square tile of `n` × `n` complex numbers transformed, four at a time (radix 2; Cooley & Tukey 1965). `turns` holds n ÷ 2 cosines, then sines. */
function fftColumns(re: usize, im: usize, n: i32, turns: usize): void {
  const stride: usize = (<usize>n) << 2;
  for (let i = 1, j = 0; i < n; i++) {
    let bit = n >> 1;
    for (; j & bit; bit >>= 1) j ^= bit;
    j ^= bit;
    if (i < j)
      for (let x: usize = 0; x < stride; x += 16) {
        const p = <usize>i * stride + x;
        const q = <usize>j * stride + x;
        const a = v128.load(re + p);
        v128.store(re + p, v128.load(re + q));
        v128.store(re + q, a);
        const b = v128.load(im + p);
        v128.store(im + p, v128.load(im + q));
        v128.store(im + q, b);
      }
  }
  for (let size = 2; size <= n; size <<= 1) {
    const half = size >> 1;
    const turn = n / size;
    for (let i = 0; i < n; i += size)
      for (let k = 0; k < half; k++) {
        const cr = v128.load32_splat(turns + ((<usize>(k * turn)) << 2));
        const ci = v128.load32_splat(turns + ((<usize>((n >> 1) + k * turn)) << 2));
        const p = <usize>(i + k) * stride;
        const q = p + <usize>half * stride;
        for (let x: usize = 0; x < stride; x += 16) {
          const qr = v128.load(re + q + x);
          const qi = v128.load(im + q + x);
          const xr = f32x4.sub(f32x4.mul(qr, cr), f32x4.mul(qi, ci));
          const xi = f32x4.add(f32x4.mul(qr, ci), f32x4.mul(qi, cr));
          const pr = v128.load(re + p + x);
          const pi = v128.load(im + p + x);
          v128.store(re + q + x, f32x4.sub(pr, xr));
          v128.store(im + q + x, f32x4.sub(pi, xi));
          v128.store(re + p + x, f32x4.add(pr, xr));
          v128.store(im + p + x, f32x4.add(pi, xi));
        }
      }
  }
}

function transpose(p: usize, n: i32): void {
  for (let y = 0; y < n; y++)
    for (let x = y + 1; x < n; x++) {
      const a = p + ((<usize>(y * n + x)) << 2);
      const b = p + ((<usize>(x * n + y)) << 2);
      const v = load<f32>(a);
      store<f32>(a, load<f32>(b));
      store<f32>(b, v);
    }
}

/**
 * Power spectrum of a tile of `n` × `n` at (tx, ty) of a plane, its mean taken away and windowed; the power goes to `re`, rows are vertical
 * frequencies. Returns the variance; below `least` nothing is transformed.
 */
export function spectrum(
  L: usize,
  w: i32,
  tx: i32,
  ty: i32,
  n: i32,
  window: usize,
  turns: usize,
  least: f32,
  re: usize,
  im: usize,
): f32 {
  let mean: f32 = 0;
  for (let y = 0; y < n; y++) for (let x = 0; x < n; x++) mean += at(L, (ty + y) * w + tx + x);
  mean /= <f32>(n * n);
  let variance: f32 = 0;
  for (let y = 0; y < n; y++)
    for (let x = 0; x < n; x++) {
      const d = at(L, (ty + y) * w + tx + x) - mean;
      variance += d * d;
      const o = (<usize>(y * n + x)) << 2;
      store<f32>(re + o, d * at(window, x) * at(window, y));
      store<f32>(im + o, 0);
    }
  variance /= <f32>(n * n);
  if (variance < least) return variance;
  fftColumns(re, im, n, turns);
  transpose(re, n);
  transpose(im, n);
  fftColumns(re, im, n, turns);
  transpose(re, n);
  transpose(im, n);
  for (let i: usize = 0, end: usize = (<usize>(n * n)) << 2; i < end; i += 16) {
    const a = v128.load(re + i);
    const b = v128.load(im + i);
    v128.store(re + i, f32x4.add(f32x4.mul(a, a), f32x4.mul(b, b)));
  }
  return variance;
}
