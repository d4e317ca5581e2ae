import { at, bin } from './lanes';

/** Replaces each of `n` bytes by its entry in a table. */
export function relabel(p: usize, n: i32, table: usize): void {
  for (let i = 0; i < n; i++) store<u8>(p + <usize>i, load<u8>(table + <usize>load<u8>(p + <usize>i)));
}

/**
 * Nearest of `count` colours (L, a, b, the chroma axes weighing `chroma`) for every pixel; each small cube of colours, `steps` a side, is worked out once.
 * `known` is room for steps³ bytes of 0.
 */
export function labelPixels(
  L: usize,
  a: usize,
  b: usize,
  n: i32,
  colours: usize,
  count: i32,
  chroma: f32,
  steps: i32,
  cLow: f32,
  cScale: f32,
  known: usize,
  labels: usize,
): void {
  const top = steps - 1;
  for (let i = 0; i < n; i++) {
    const l = bin(at(L, i), <f32>steps, top);
    const p = bin(at(a, i) - cLow, cScale, top);
    const q = bin(at(b, i) - cLow, cScale, top);
    const cell = known + <usize>((l * steps + p) * steps + q);
    let label = <i32>load<u8>(cell);
    if (!label) {
      const cL = (<f32>l + f32(0.5)) / <f32>steps;
      const ca = (<f32>p + f32(0.5)) / cScale + cLow;
      const cb = (<f32>q + f32(0.5)) / cScale + cLow;
      let least: f32 = Infinity;
      for (let c = 0; c < count; c++) {
        const o = colours + <usize>(c * 12);
        const dL = load<f32>(o) - cL;
        const da = load<f32>(o, 4) - ca;
        const db = load<f32>(o, 8) - cb;
        const d = dL * dL + chroma * (da * da + db * db);
        if (d < least) {
          least = d;
          label = c + 1;
        }
      }
      store<u8>(cell, <u8>label);
    }
    store<u8>(labels + <usize>i, <u8>(label - 1));
  }
}

/** How many pixels have each label, all of them and where the mask lies below a half: 256 and 256 32-bit counts that start at 0. */
export function countLabels(labels: usize, mask: usize, n: i32, counts: usize): void {
  for (let i = 0; i < n; i++) {
    const o = counts + ((<usize>load<u8>(labels + <usize>i)) << 2);
    store<i32>(o, load<i32>(o) + 1);
    if (at(mask, i) < f32(0.5)) store<i32>(o, load<i32>(o, 1024) + 1, 1024);
  }
}

/** {@link relabel} where the mask lies below a half. */
export function relabelOutside(labels: usize, mask: usize, n: i32, table: usize): void {
  for (let i = 0; i < n; i++)
    if (at(mask, i) < f32(0.5)) store<u8>(labels + <usize>i, load<u8>(table + <usize>load<u8>(labels + <usize>i)));
}

/** A smooth step from `from` to `to`. */
@inline
function eased(from: f32, to: f32, x: f32): f32 {
  const t = min<f32>(1, max<f32>(0, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
}

/**
 * Difference of Gaussians across the direction of each pixel of `signal`, then its mean along it: how deep an outline lies. `taps` holds 2 × reach + 1 weights;
 * pixels calmer than `calm` (plane `near`) are passed over; `breaks` may be 0. `across` is room for a plane.
 */
export function outlineDepth(
  signal: usize,
  near: usize,
  tx: usize,
  ty: usize,
  w: i32,
  h: i32,
  taps: usize,
  reach: i32,
  step: f32,
  stride: f32,
  calm: f32,
  breaks: usize,
  rag: f32,
  across: usize,
  to: usize,
): void {
  const n = w * h;
  memory.fill(across, 0, (<usize>n) << 2);
  memory.fill(to, 0, (<usize>n) << 2);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (at(near, i) < calm) continue;
      const nx = -at(ty, i) * step;
      const ny = at(tx, i) * step;
      let sum: f32 = 0;
      for (let k = -reach; k <= reach; k++) {
        const sx = min(w - 1, max(0, <i32>(<f32>x + nx * <f32>k + f32(0.5))));
        const sy = min(h - 1, max(0, <i32>(<f32>y + ny * <f32>k + f32(0.5))));
        sum += at(signal, sy * w + sx) * at(taps, k + reach);
      }
      store<f32>(across + ((<usize>i) << 2), sum);
    }
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const own = at(across, i);
      if (own > f32(0.004) || at(near, i) < calm) continue;
      let sum = own;
      let weights: f32 = 1;
      for (let turn = -1; turn <= 1; turn += 2) {
        let px = <f32>x;
        let py = <f32>y;
        let vx = at(tx, i) * <f32>turn;
        let vy = at(ty, i) * <f32>turn;
        for (let k = 1; k <= 4; k++) {
          px += vx * stride;
          py += vy * stride;
          if (px < 0 || py < 0 || px >= <f32>w || py >= <f32>h) break;
          const j = <i32>py * w + <i32>px;
          const weight = f32(1) - <f32>k / f32(6);
          sum += at(across, j) * weight;
          weights += weight;
          const side: f32 = at(tx, j) * vx + at(ty, j) * vy < 0 ? -1 : 1;
          vx = at(tx, j) * side;
          vy = at(ty, j) * side;
        }
      }
      const gap: f32 = breaks ? rag * f32(0.005) * (f32(0.4) + at(breaks, i)) : 0;
      store<f32>(to + ((<usize>i) << 2), -sum / weights - gap);
    }
}

/**
 * Edges of the content (`size` its slopes, L its lightness, `parts` drawn parts or 0) that lie within one flat area, 0–1; `r` is how far around a place its
 * area must be the same. `lost` starts at 0.
 */
export function lostEdges(size: usize, L: usize, parts: usize, index: usize, w: i32, h: i32, r: i32, lost: usize): void {
  for (let y = r; y < h - r; y++)
    for (let x = r; x < w - r; x++) {
      const i = y * w + x;
      let edge = eased(0.022, 0.06, at(size, i));
      if (parts) {
        const p = load<u8>(parts + <usize>i);
        if (p !== load<u8>(parts + <usize>(i + 1)) || p !== load<u8>(parts + <usize>(i + w))) {
          const dx = at(L, i + 1) - at(L, i - 1);
          const dy = at(L, i + w) - at(L, i - w);
          edge = max<f32>(edge, eased(0.01, 0.05, sqrt<f32>(dx * dx + dy * dy)) * f32(0.95));
        }
      }
      if (edge <= 0) continue;
      const o = index + <usize>i;
      const j = load<u8>(o);
      if (
        load<u8>(o + <usize>r) === j &&
        load<u8>(o - <usize>r) === j &&
        load<u8>(o + <usize>(r * w)) === j &&
        load<u8>(o - <usize>(r * w)) === j
      )
        store<f32>(lost + ((<usize>i) << 2), edge);
    }
}

/** Inks an edge plane over flat areas: each area `j` in `inks[j]` (L, a, b), from `from` to `to` of the plane, times `amount`. */
export function layKeylines(
  edges: usize,
  n: i32,
  from: f32,
  to: f32,
  amount: f32,
  index: usize,
  inks: usize,
  L: usize,
  A: usize,
  B: usize,
): void {
  for (let i = 0; i < n; i++) {
    const v = at(edges, i);
    if (v <= from) continue;
    const c = eased(from, to, v) * amount;
    const p = inks + <usize>(<i32>load<u8>(index + <usize>i) * 12);
    const o = (<usize>i) << 2;
    store<f32>(L + o, at(L, i) + (load<f32>(p) - at(L, i)) * c);
    store<f32>(A + o, at(A, i) + (load<f32>(p, 4) - at(A, i)) * c);
    store<f32>(B + o, at(B, i) + (load<f32>(p, 8) - at(B, i)) * c);
  }
}

/**
 * Outlines over the sheet. A `depth` above 0 is a dark line, covering from `darkFrom` to `darkTo` by `dark`; below 0 a line left open in a dark mass,
 * from `lightFrom` to `lightTo` by `light`. `inks` is paper and dark (L, a, b each).
 */
export function layOutlines(
  depth: usize,
  n: i32,
  darkFrom: f32,
  darkTo: f32,
  dark: f32,
  lightFrom: f32,
  lightTo: f32,
  light: f32,
  inks: usize,
  L: usize,
  A: usize,
  B: usize,
): void {
  for (let i = 0; i < n; i++) {
    const d = at(depth, i);
    const open = d < 0;
    const cover: f32 = open ? eased(lightFrom, lightTo, -d) * light : d > darkFrom ? eased(darkFrom, darkTo, d) * dark : 0;
    if (cover <= 0) continue;
    const ink = open ? inks : inks + 12;
    const o = (<usize>i) << 2;
    const l = at(L, i);
    store<f32>(L + o, l + ((open ? load<f32>(ink) : min<f32>(l, load<f32>(ink))) - l) * cover);
    store<f32>(A + o, at(A, i) + (load<f32>(ink, 4) - at(A, i)) * cover);
    store<f32>(B + o, at(B, i) + (load<f32>(ink, 8) - at(B, i)) * cover);
  }
}

/** Shadows cast by higher sheets (16-bit `order`) on lower ones, `steps` shifts of (dx, dy) × k; the plane `cast` starts at 0. */
export function castShadows(order: usize, w: i32, h: i32, dx: f32, dy: f32, steps: i32, cast: usize): void {
  for (let k = 1; k <= steps; k++) {
    const ox = <i32>floor<f32>(dx * <f32>k + f32(0.5));
    const oy = <i32>floor<f32>(dy * <f32>k + f32(0.5));
    const weight = f32(1) - <f32>(k - 1) / <f32>(steps + 1);
    for (let y = max(0, oy); y < min(h, h + oy); y++) {
      const from = (y - oy) * w - ox;
      const row = y * w;
      for (let x = max(0, ox), end = min(w, w + ox); x < end; x++) {
        const p = cast + ((<usize>(row + x)) << 2);
        if (load<u16>(order + ((<usize>(from + x)) << 1)) > load<u16>(order + ((<usize>(row + x)) << 1)) && load<f32>(p) < weight)
          store<f32>(p, weight);
      }
    }
  }
}

/** Darkens planes by `depth` × `amount`; `hold` (or 0) marks where the blur spilled over, which counts only by `held`. */
export function layShade(depth: usize, n: i32, amount: f32, hold: usize, held: f32, L: usize, A: usize, B: usize): void {
  const least = f32x4.splat(0.004);
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    let dark = f32x4.mul(v128.load(depth + i), f32x4.splat(amount));
    if (hold) {
      const spilled = f32x4.eq(v128.load(hold + i), f32x4.splat(0));
      dark = f32x4.mul(dark, v128.bitselect(f32x4.splat(held), f32x4.splat(1), spilled));
    }
    dark = v128.and(dark, f32x4.ge(dark, least));
    if (!v128.any_true(dark)) continue;
    const keep = f32x4.sub(f32x4.splat(1), dark);
    const dull = f32x4.sub(f32x4.splat(1), f32x4.mul(dark, f32x4.splat(0.4)));
    v128.store(L + i, f32x4.mul(v128.load(L + i), keep));
    v128.store(A + i, f32x4.mul(v128.load(A + i), dull));
    v128.store(B + i, f32x4.mul(v128.load(B + i), dull));
  }
}

@inline
function mix32(x: u32): u32 {
  let h = x;
  h = (h ^ (h >> 16)) * 0x7feb352d;
  h = (h ^ (h >> 15)) * 0x846ca68b;
  return h ^ (h >> 16);
}

/** A number in [0, 1) that belongs to the lattice point (x, y) under `seed`. */
@inline
function latticeHash(x: i32, y: i32, seed: i32): f32 {
  return <f32>(<f64>mix32((x * 0x27d4eb2d) ^ (y * 0x165667b1) ^ seed) / 4294967296.0);
}

/** Lattice of `w` × `h` numbers in [−½, ½). */
export function lattice(w: i32, h: i32, seed: i32, to: usize): void {
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) store<f32>(to + ((<usize>(y * w + x)) << 2), latticeHash(x, y, seed) - f32(0.5));
}

/** Paper tooth (a plane of noise) and specks on lightness, in place; `cell` is 1 ÷ pixels a speck is wide. */
export function layGrain(L: usize, toothPlane: usize, w: i32, h: i32, cell: f32, paper: f32, amount: f32, seed: i32): void {
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const o = (<usize>(y * w + x)) << 2;
      const speck = latticeHash(<i32>(<f32>x * cell), <i32>(<f32>y * cell), seed);
      let v = load<f32>(L + o);
      const ink = min<f32>(1, max<f32>(0, (paper - v) * 2));
      v += amount * (f32(0.018) * load<f32>(toothPlane + o) + (speck - f32(0.5)) * f32(0.03));
      if (speck > f32(1) - f32(0.07) * amount * ink) v += (paper - v) * f32(0.6) * amount;
      store<f32>(L + o, v);
    }
}

@inline
function reach(v: usize, high: usize, low: usize, cost: usize, i: i32, from: i32): void {
  const here = at(v, i);
  const top = max<f32>(at(high, from), here);
  const bottom = min<f32>(at(low, from), here);
  if (top - bottom >= at(cost, i)) return;
  const o = (<usize>i) << 2;
  store<f32>(cost + o, top - bottom);
  store<f32>(high + o, top);
  store<f32>(low + o, bottom);
}

/**
 * Minimum barriers from the border of a plane: for each pixel, how far the values met span on the easiest way there, by `rounds` of raster scans. `high` and
 * `low` are room for planes.
 */
export function barriers(v: usize, w: i32, h: i32, rounds: i32, high: usize, low: usize, cost: usize): void {
  const size = (<usize>(w * h)) << 2;
  memory.copy(high, v, size);
  memory.copy(low, v, size);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const edge = x === 0 || y === 0 || x === w - 1 || y === h - 1;
      store<f32>(cost + ((<usize>(y * w + x)) << 2), edge ? 0 : f32.MAX_VALUE);
    }
  for (let round = 0; round < rounds; round++) {
    for (let y = 1; y < h - 1; y++)
      for (let x = 1; x < w - 1; x++) {
        reach(v, high, low, cost, y * w + x, (y - 1) * w + x);
        reach(v, high, low, cost, y * w + x, y * w + x - 1);
      }
    for (let y = h - 2; y > 0; y--)
      for (let x = w - 2; x > 0; x--) {
        reach(v, high, low, cost, y * w + x, (y + 1) * w + x);
        reach(v, high, low, cost, y * w + x, y * w + x + 1);
      }
  }
}

/**
 * Adds one round patch of a square texture to `sum` and the squares of its weights to `weights`: centre (cx, cy) and `radius` in pixels; (u, v) is the
 * centre's place in the texture, `c` and `s` turn and scale a pixel into texture steps.
 */
export function patch(
  sum: usize,
  weights: usize,
  w: i32,
  h: i32,
  cx: f32,
  cy: f32,
  radius: f32,
  texture: usize,
  size: i32,
  u: f32,
  v: f32,
  c: f32,
  s: f32,
): void {
  const xa = max(0, <i32>ceil<f32>(cx - radius));
  const xb = min(w - 1, <i32>floor<f32>(cx + radius));
  const ya = max(0, <i32>ceil<f32>(cy - radius));
  const yb = min(h - 1, <i32>floor<f32>(cy + radius));
  const inv = f32(1) / (radius * radius);
  for (let y = ya; y <= yb; y++)
    for (let x = xa; x <= xb; x++) {
      const dx = <f32>x - cx;
      const dy = <f32>y - cy;
      const k = f32(1) - (dx * dx + dy * dy) * inv;
      if (k <= 0) continue;
      const tx = u + dx * c + dy * s;
      const ty = v - dx * s + dy * c;
      const xi = <i32>tx;
      const yi = <i32>ty;
      if (xi < 0 || yi < 0 || xi + 1 >= size || yi + 1 >= size) continue;
      const i = yi * size + xi;
      const px = tx - <f32>xi;
      const top = at(texture, i) + (at(texture, i + 1) - at(texture, i)) * px;
      const low = at(texture, i + size) + (at(texture, i + size + 1) - at(texture, i + size)) * px;
      const weight = k * k;
      const o = (<usize>(y * w + x)) << 2;
      store<f32>(sum + o, load<f32>(sum + o) + (top + (low - top) * (ty - <f32>yi)) * weight);
      store<f32>(weights + o, load<f32>(weights + o) + weight * weight);
    }
}

/**
 * Adds blended patches to lightness: sums over the root of their squared weights, times `amount` and, when given, the plane `where`. What is not
 * lighter than `top` does not become so.
 */
export function layPatches(L: usize, sum: usize, weights: usize, where: usize, n: i32, amount: f32, top: f32): void {
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const root = f32x4.sqrt(f32x4.max(v128.load(weights + i), f32x4.splat(1e-6)));
    let d = f32x4.mul(f32x4.div(v128.load(sum + i), root), f32x4.splat(amount));
    if (where) d = f32x4.mul(d, v128.load(where + i));
    const own = v128.load(L + i);
    const most = f32x4.max(own, f32x4.splat(top));
    v128.store(L + i, f32x4.max(f32x4.splat(0), f32x4.min(most, f32x4.add(own, d))));
  }
}
