import { gather } from './lanes';

/** Cube roots of four numbers from 0 to about 1: a guess from the exponents, then two of Halley's steps (off by less than 2e-7). */
@inline
function roots(x: v128): v128 {
  const third = f32x4.mul(f32x4.convert_i32x4_s(x), f32x4.splat(0.33333334));
  let t = i32x4.add(i32x4.trunc_sat_f32x4_s(third), i32x4.splat(709921077));
  for (let k = 0; k < 2; k++) {
    const c = f32x4.mul(f32x4.mul(t, t), t);
    t = f32x4.mul(t, f32x4.div(f32x4.add(c, f32x4.add(x, x)), f32x4.add(f32x4.add(c, c), x)));
  }
  return v128.bitselect(t, f32x4.splat(0), f32x4.gt(x, f32x4.splat(1e-9)));
}

@inline
function weigh(p: v128, a: f32, q: v128, b: f32, r: v128, c: f32): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(p, f32x4.splat(a)), f32x4.mul(q, f32x4.splat(b))),
    f32x4.mul(r, f32x4.splat(c)),
  );
}

/** OKLab planes of 8-bit RGBA on white; `linear` is the table of 256 linear values. */
export function toLab(rgba: usize, n: i32, L: usize, A: usize, B: usize, linear: usize): void {
  const opaque = i32x4.splat(0xff000000);
  for (let i = 0; i < n; i += 4) {
    const p = rgba + ((<usize>i) << 2);
    const o = (<usize>i) << 2;
    let r = gather(
      linear + ((<usize>load<u8>(p)) << 2),
      linear + ((<usize>load<u8>(p, 4)) << 2),
      linear + ((<usize>load<u8>(p, 8)) << 2),
      linear + ((<usize>load<u8>(p, 12)) << 2),
    );
    let g = gather(
      linear + ((<usize>load<u8>(p, 1)) << 2),
      linear + ((<usize>load<u8>(p, 5)) << 2),
      linear + ((<usize>load<u8>(p, 9)) << 2),
      linear + ((<usize>load<u8>(p, 13)) << 2),
    );
    let b = gather(
      linear + ((<usize>load<u8>(p, 2)) << 2),
      linear + ((<usize>load<u8>(p, 6)) << 2),
      linear + ((<usize>load<u8>(p, 10)) << 2),
      linear + ((<usize>load<u8>(p, 14)) << 2),
    );
    const alphas = v128.and(v128.load(p), opaque);
    if (!i32x4.all_true(i32x4.eq(alphas, opaque))) {
      const one = f32x4.splat(1);
      const t = f32x4.div(f32x4.convert_i32x4_u(i32x4.shr_u(alphas, 24)), f32x4.splat(255));
      const rest = f32x4.sub(one, t);
      r = f32x4.add(f32x4.mul(r, t), rest);
      g = f32x4.add(f32x4.mul(g, t), rest);
      b = f32x4.add(f32x4.mul(b, t), rest);
    }
    const l = roots(weigh(r, 0.4122214708, g, 0.5363325363, b, 0.0514459929));
    const m = roots(weigh(r, 0.2119034982, g, 0.6806995451, b, 0.1073969566));
    const s = roots(weigh(r, 0.0883024619, g, 0.2817188376, b, 0.6299787005));
    v128.store(L + o, weigh(l, 0.2104542553, m, 0.793617785, s, -0.0040720468));
    v128.store(A + o, weigh(l, 1.9779984951, m, -2.428592205, s, 0.4505937099));
    v128.store(B + o, weigh(l, 0.0259040371, m, 0.7827717662, s, -0.808675766));
  }
}

@inline
function cube(v: v128): v128 {
  return f32x4.mul(f32x4.mul(v, v), v);
}

@inline
function step(c: v128, steps: f32): v128 {
  const v = f32x4.add(f32x4.mul(c, f32x4.splat(steps)), f32x4.splat(0.5));
  return i32x4.trunc_sat_f32x4_s(f32x4.max(f32x4.splat(0), f32x4.min(v, f32x4.splat(steps))));
}

/** 8-bit RGBA of OKLab planes, channels clipped; `gamma` is a table of `steps` + 1 bytes. Alpha is taken from `alphas` (RGBA) when not 0. */
export function fromLab(L: usize, A: usize, B: usize, n: i32, rgba: usize, gamma: usize, steps: i32, alphas: usize): void {
  for (let i = 0; i < n; i += 4) {
    const o = (<usize>i) << 2;
    const vL = v128.load(L + o);
    const va = v128.load(A + o);
    const vb = v128.load(B + o);
    const one: f32 = 1;
    const l = cube(weigh(vL, one, va, 0.3963377774, vb, 0.2158037573));
    const m = cube(weigh(vL, one, va, -0.1055613458, vb, -0.0638541728));
    const s = cube(weigh(vL, one, va, -0.0894841775, vb, -1.291485548));
    const r = step(weigh(l, 4.0767416621, m, -3.3077115913, s, 0.2309699292), <f32>steps);
    const g = step(weigh(l, -1.2684380046, m, 2.6097574011, s, -0.3413193965), <f32>steps);
    const b = step(weigh(l, -0.0041960863, m, -0.7034186147, s, 1.707614701), <f32>steps);
    const p = rgba + o;
    store<u32>(p, pack(gamma, i32x4.extract_lane(r, 0), i32x4.extract_lane(g, 0), i32x4.extract_lane(b, 0)));
    store<u32>(p, pack(gamma, i32x4.extract_lane(r, 1), i32x4.extract_lane(g, 1), i32x4.extract_lane(b, 1)), 4);
    store<u32>(p, pack(gamma, i32x4.extract_lane(r, 2), i32x4.extract_lane(g, 2), i32x4.extract_lane(b, 2)), 8);
    store<u32>(p, pack(gamma, i32x4.extract_lane(r, 3), i32x4.extract_lane(g, 3), i32x4.extract_lane(b, 3)), 12);
    if (alphas) {
      const mask = i32x4.splat(0xff000000);
      v128.store(p, v128.bitselect(v128.load(alphas + o), v128.load(p), mask));
    }
  }
}

@inline
function pack(gamma: usize, r: i32, g: i32, b: i32): u32 {
  return (
    0xff000000 | ((<u32>load<u8>(gamma + b)) << 16) | ((<u32>load<u8>(gamma + g)) << 8) | <u32>load<u8>(gamma + r)
  );
}

/**
 * Soft recolouring: each pixel moves by `amount` of the shifts of the colours near it. `table` holds, for each of `count` colours, its place and its
 * shift, six numbers. In place.
 */
export function shiftColours(L: usize, A: usize, B: usize, n: i32, table: usize, count: i32, amount: f32): void {
  const end = table + <usize>count * 24;
  for (let i = 0; i < n; i += 4) {
    const o = (<usize>i) << 2;
    const pL = v128.load(L + o);
    const pa = v128.load(A + o);
    const pb = v128.load(B + o);
    let weights = f32x4.splat(0);
    let sL = weights;
    let sa = weights;
    let sb = weights;
    for (let c = table; c < end; c += 24) {
      const dL = f32x4.sub(pL, v128.load32_splat(c));
      const da = f32x4.sub(pa, v128.load32_splat(c, 4));
      const db = f32x4.sub(pb, v128.load32_splat(c, 8));
      const d = f32x4.add(
        f32x4.add(f32x4.mul(dL, dL), f32x4.splat(4e-4)),
        f32x4.mul(f32x4.splat(1.6), f32x4.add(f32x4.mul(da, da), f32x4.mul(db, db))),
      );
      const w = f32x4.div(f32x4.splat(1), f32x4.mul(d, d));
      weights = f32x4.add(weights, w);
      sL = f32x4.add(sL, f32x4.mul(w, v128.load32_splat(c, 12)));
      sa = f32x4.add(sa, f32x4.mul(w, v128.load32_splat(c, 16)));
      sb = f32x4.add(sb, f32x4.mul(w, v128.load32_splat(c, 20)));
    }
    const g = f32x4.div(f32x4.splat(amount), weights);
    v128.store(L + o, f32x4.add(pL, f32x4.mul(sL, g)));
    v128.store(A + o, f32x4.add(pa, f32x4.mul(sa, g)));
    v128.store(B + o, f32x4.add(pb, f32x4.mul(sb, g)));
  }
}
