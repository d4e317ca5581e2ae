import { gather } from './lanes';

/** 1 where the table (256 bytes) holds something for a pixel's label, else 0. */
export function coverOf(labels: usize, table: usize, n: i32, to: usize): void {
  for (let i = 0; i < n; i++) store<f32>(to + ((<usize>i) << 2), <f32>load<u8>(table + <usize>load<u8>(labels + <usize>i)));
}

/** Lets candidate `k` contend at every pixel for the first and second place; `first` starts below 0, `slot` holds the winner. */
export function contend(soft: usize, n: i32, first: usize, second: usize, slot: usize, k: i32): void {
  for (let i = 0; i < n; i += 4) {
    const o = (<usize>i) << 2;
    const v = v128.load(soft + o);
    const f = v128.load(first + o);
    const wins = f32x4.gt(v, f);
    const rest = v128.bitselect(f32x4.max(f, f32x4.splat(0)), v, wins);
    v128.store(second + o, f32x4.max(v128.load(second + o), rest));
    v128.store(first + o, f32x4.max(f, v));
    const p = slot + <usize>i;
    if (v128.any_true(wins)) {
      if (i32x4.extract_lane(wins, 0)) store<u8>(p, <u8>k);
      if (i32x4.extract_lane(wins, 1)) store<u8>(p, <u8>k, 1);
      if (i32x4.extract_lane(wins, 2)) store<u8>(p, <u8>k, 2);
      if (i32x4.extract_lane(wins, 3)) store<u8>(p, <u8>k, 3);
    }
  }
}

@inline
function valueAt(plane: usize, p: i32, q: i32, next: i32, t: f32, v: f32): f32 {
  const a = load<f32>(plane + ((<usize>p) << 2));
  const b = load<f32>(plane + ((<usize>(p + next)) << 2));
  const c = load<f32>(plane + ((<usize>q) << 2));
  const d = load<f32>(plane + ((<usize>(q + next)) << 2));
  const top = a + (b - a) * t;
  return top + (c + (d - c) * t - top) * v;
}

/**
 * Flat areas at full size: where the four labels around a place agree, their colour; else the two strongest covers share the pixel.
 * `covers` is planes of `w` × `h`, `plane` bytes apart; `slot` the winner of each; `colours` L, a, b of each slot. `left`, `part`, `top`, `down` as for
 * `bilinear`. Slots are written to `index`.
 */
export function drawAreas(
  covers: usize,
  plane: usize,
  slot: usize,
  colours: usize,
  w: i32,
  h: i32,
  left: usize,
  part: usize,
  W: i32,
  top: usize,
  down: usize,
  H: i32,
  sharp: f32,
  L: usize,
  A: usize,
  B: usize,
  index: usize,
): void {
  const next = w > 1 ? 1 : 0;
  const below = h > 1 ? w : 0;
  let o: usize = 0;
  for (let y = 0; y < H; y++) {
    const r0 = load<i32>(top + ((<usize>y) << 2)) * w;
    const v = load<f32>(down + ((<usize>y) << 2));
    for (let x = 0; x < W; x++, o++) {
      const p = r0 + load<i32>(left + ((<usize>x) << 2));
      const q = p + below;
      const k0 = <i32>load<u8>(slot + <usize>p);
      const k1 = <i32>load<u8>(slot + <usize>(p + next));
      const k2 = <i32>load<u8>(slot + <usize>q);
      const k3 = <i32>load<u8>(slot + <usize>(q + next));
      let best = k0;
      let other = k0;
      let share: f32 = 1;
      if (k0 !== k1 || k0 !== k2 || k0 !== k3) {
        const t = load<f32>(part + ((<usize>x) << 2));
        let high: f32 = valueAt(covers + <usize>k0 * plane, p, q, next, t, v);
        let low: f32 = -1;
        let found = -1;
        for (let c = 1; c < 4; c++) {
          const k = c === 1 ? k1 : c === 2 ? k2 : k3;
          if (k === best || k === found) continue;
          const value = valueAt(covers + <usize>k * plane, p, q, next, t, v);
          if (value > high) {
            found = best;
            low = high;
            best = k;
            high = value;
          } else if (value > low) {
            found = k;
            low = value;
          }
        }
        other = found < 0 ? best : found;
        share = min<f32>(1, f32(0.5) + (high - low) * sharp);
      }
      store<u8>(index + o, <u8>best);
      const cb = colours + <usize>(best * 12);
      const co = colours + <usize>(other * 12);
      const at = o << 2;
      store<f32>(L + at, load<f32>(co) + (load<f32>(cb) - load<f32>(co)) * share);
      store<f32>(A + at, load<f32>(co, 4) + (load<f32>(cb, 4) - load<f32>(co, 4)) * share);
      store<f32>(B + at, load<f32>(co, 8) + (load<f32>(cb, 8) - load<f32>(co, 8)) * share);
    }
  }
}

@inline
function within(v: v128): v128 {
  return f32x4.max(f32x4.splat(0), f32x4.min(f32x4.splat(1), v));
}

/**
 * How far one ink covers each pixel, in place of `solid`: where its solid lies, and dots where its tint lies (`dots`, 0 when it has none). Both come in as soft
 * covers; `c` and `s` turn a place into periods of the screen, `radius` is a dot's in periods.
 */
export function inkCover(
  solid: usize,
  dots: usize,
  W: i32,
  H: i32,
  sharp: f32,
  c: f32,
  s: f32,
  radius: f32,
  dotSharp: f32,
): void {
  const half = f32x4.splat(0.5);
  const steep = f32x4.splat(sharp);
  const steps = f32x4(0, 1, 2, 3);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x += 4) {
      const o = (<usize>(y * W + x)) << 2;
      let cover = within(f32x4.add(half, f32x4.mul(f32x4.sub(v128.load(solid + o), half), steep)));
      if (dots) {
        const tint = within(f32x4.add(half, f32x4.mul(f32x4.sub(v128.load(dots + o), half), steep)));
        if (v128.any_true(f32x4.gt(tint, f32x4.splat(0)))) {
          const X = f32x4.add(f32x4.splat(<f32>x), steps);
          let px = f32x4.add(f32x4.mul(X, f32x4.splat(c)), f32x4.splat(f32(y) * s));
          let py = f32x4.sub(f32x4.splat(f32(y) * c), f32x4.mul(X, f32x4.splat(s)));
          px = f32x4.sub(px, f32x4.add(f32x4.floor(px), half));
          py = f32x4.sub(py, f32x4.add(f32x4.floor(py), half));
          const away = f32x4.sqrt(f32x4.add(f32x4.mul(px, px), f32x4.mul(py, py)));
          const dot = within(
            f32x4.add(half, f32x4.mul(f32x4.sub(f32x4.splat(radius), away), f32x4.splat(dotSharp))),
          );
          cover = f32x4.max(cover, f32x4.mul(dot, tint));
        }
      }
      // A row's last pixels may be fewer than four; what follows belongs to the next row.
      if (x + 4 <= W) v128.store(solid + o, cover);
      else {
        store<f32>(solid + o, f32x4.extract_lane(cover, 0));
        if (x + 1 < W) store<f32>(solid + o, f32x4.extract_lane(cover, 1), 4);
        if (x + 2 < W) store<f32>(solid + o, f32x4.extract_lane(cover, 2), 8);
      }
    }
}

/**
 * Prints up to three inks over one another: `covers` are `count` planes `plane` bytes apart, `solids` L, a, b of every set of solid inks (bit k for ink k);
 * between them coverages mix as areas do.
 */
export function printInks(covers: usize, plane: usize, count: i32, solids: usize, n: i32, L: usize, A: usize, B: usize): void {
  const one = f32x4.splat(1);
  const sets = 1 << count;
  for (let i = 0; i < n; i += 4) {
    const o = (<usize>i) << 2;
    let vL = f32x4.splat(0);
    let va = vL;
    let vb = vL;
    for (let q = 0; q < sets; q++) {
      let weight = one;
      for (let k = 0; k < count; k++) {
        const c = v128.load(covers + <usize>k * plane + o);
        weight = f32x4.mul(weight, (q >> k) & 1 ? c : f32x4.sub(one, c));
      }
      const p = solids + <usize>(q * 12);
      vL = f32x4.add(vL, f32x4.mul(weight, v128.load32_splat(p)));
      va = f32x4.add(va, f32x4.mul(weight, v128.load32_splat(p, 4)));
      vb = f32x4.add(vb, f32x4.mul(weight, v128.load32_splat(p, 8)));
    }
    v128.store(L + o, vL);
    v128.store(A + o, va);
    v128.store(B + o, vb);
  }
}

/** Pigment over paper: each pixel of an area other than `ground` moves by `amount` to its pigment's colour at a density. `scales` holds, for each area,
 * `steps` + 1 colours of three numbers; `granules` scatters the density. */
export function layPigment(
  index: usize,
  ground: i32,
  density: usize,
  granules: usize,
  grain: f32,
  perStep: f32,
  steps: i32,
  scales: usize,
  amount: f32,
  n: i32,
  L: usize,
  A: usize,
  B: usize,
): void {
  const stride: usize = <usize>(steps + 1) * 12;
  for (let i = 0; i < n; i++) {
    const j = <i32>load<u8>(index + <usize>i);
    if (j === ground) continue;
    const o = (<usize>i) << 2;
    const wanted = load<f32>(density + o) * (1 + grain * load<f32>(granules + o)) * perStep;
    const at = max<f32>(0, min<f32>(wanted, <f32>(steps - 1)));
    const k = <i32>at;
    const t = at - <f32>k;
    const p = scales + <usize>j * stride + <usize>(k * 12);
    const vL = load<f32>(L + o);
    const va = load<f32>(A + o);
    const vb = load<f32>(B + o);
    store<f32>(L + o, vL + (load<f32>(p) + (load<f32>(p, 12) - load<f32>(p)) * t - vL) * amount);
    store<f32>(A + o, va + (load<f32>(p, 4) + (load<f32>(p, 16) - load<f32>(p, 4)) * t - va) * amount);
    store<f32>(B + o, vb + (load<f32>(p, 8) + (load<f32>(p, 20) - load<f32>(p, 8)) * t - vb) * amount);
  }
}

/** Moves plane `p` by `t` towards plane `q`, in place. */
export function blend(p: usize, q: usize, n: i32, t: f32): void {
  const T = f32x4.splat(t);
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const v = v128.load(p + i);
    v128.store(p + i, f32x4.add(v, f32x4.mul(f32x4.sub(v128.load(q + i), v), T)));
  }
}

/** Moves plane `p` towards plane `q` by a share of its own at each pixel, in place. */
export function blendBy(p: usize, q: usize, share: usize, n: i32): void {
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const v = v128.load(p + i);
    v128.store(p + i, f32x4.add(v, f32x4.mul(f32x4.sub(v128.load(q + i), v), v128.load(share + i))));
  }
}

/** Moves plane `p` by `t` towards one value, in place. */
export function fade(p: usize, n: i32, value: f32, t: f32): void {
  const T = f32x4.splat(t);
  const V = f32x4.splat(value);
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const v = v128.load(p + i);
    v128.store(p + i, f32x4.add(v, f32x4.mul(f32x4.sub(V, v), T)));
  }
}

/** Adds `k` times the difference of planes `q` and `r` to plane `p`, in place. */
export function addDifference(p: usize, q: usize, r: usize, n: i32, k: f32): void {
  const K = f32x4.splat(k);
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16)
    v128.store(
      p + i,
      f32x4.add(v128.load(p + i), f32x4.mul(f32x4.sub(v128.load(q + i), v128.load(r + i)), K)),
    );
}

/** Lays one colour over planes with the coverage of each pixel times `amount`, in place. */
export function layInk(L: usize, A: usize, B: usize, cover: usize, n: i32, l: f32, a: f32, b: f32, amount: f32): void {
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const c = f32x4.mul(v128.load(cover + i), f32x4.splat(amount));
    if (!v128.any_true(f32x4.gt(c, zero))) continue;
    const vL = v128.load(L + i);
    const va = v128.load(A + i);
    const vb = v128.load(B + i);
    v128.store(L + i, f32x4.add(vL, f32x4.mul(f32x4.sub(f32x4.splat(l), vL), c)));
    v128.store(A + i, f32x4.add(va, f32x4.mul(f32x4.sub(f32x4.splat(a), va), c)));
    v128.store(B + i, f32x4.add(vb, f32x4.mul(f32x4.sub(f32x4.splat(b), vb), c)));
  }
}

/** Values of a table by straight lines between its `steps` + 1 numbers (one more follows), for plane `p` held to 0–1, in place. */
export function curve(p: usize, n: i32, table: usize, steps: i32): void {
  const S = f32x4.splat(<f32>steps);
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const x = f32x4.mul(within(v128.load(p + i)), S);
    const k = i32x4.trunc_sat_f32x4_s(x);
    const t = f32x4.sub(x, f32x4.convert_i32x4_s(k));
    const a = table + ((<usize>i32x4.extract_lane(k, 0)) << 2);
    const b = table + ((<usize>i32x4.extract_lane(k, 1)) << 2);
    const c = table + ((<usize>i32x4.extract_lane(k, 2)) << 2);
    const d = table + ((<usize>i32x4.extract_lane(k, 3)) << 2);
    const low = gather(a, b, c, d);
    v128.store(p + i, f32x4.add(low, f32x4.mul(f32x4.sub(gather(a + 4, b + 4, c + 4, d + 4), low), t)));
  }
}
