import { mixLanes } from './lanes';

/**
 * Straight-line interpolation of a plane `sw` wide between given places: `left` and `part` hold, for each of the `W` columns of the result, the
 * first source column and how far past it; `top` and `down` the same for its `H` rows (`stepDown` is bytes to the next source row, 0 when there
 * is none). The result times `weight` is written to `to`, or added to it. `row` is room for one source row and one more number.
 */
export function bilinear(
  from: usize,
  sw: i32,
  stepDown: usize,
  left: usize,
  part: usize,
  W: i32,
  top: usize,
  down: usize,
  H: i32,
  to: usize,
  weight: f32,
  add: bool,
  row: usize,
): void {
  const wide: usize = (<usize>sw) << 2;
  const K = f32x4.splat(weight);
  let out = to;
  for (let y = 0; y < H; y++) {
    const p = from + <usize>load<i32>(top + ((<usize>y) << 2)) * wide;
    const q = p + stepDown;
    const t = load<f32>(down + ((<usize>y) << 2));
    const T = f32x4.splat(t);
    let i: usize = 0;
    for (; i + 16 <= wide; i += 16) v128.store(row + i, mixLanes(v128.load(p + i), v128.load(q + i), T));
    for (; i < wide; i += 4) {
      const v = load<f32>(p + i);
      store<f32>(row + i, v + (load<f32>(q + i) - v) * t);
    }
    store<f32>(row + wide, load<f32>(row + wide - 4));
    let x: usize = 0;
    const end: usize = (<usize>W) << 2;
    for (; x + 16 <= end; x += 16) {
      let a = v128.load64_zero(row + ((<usize>load<i32>(left + x)) << 2));
      a = v128.load_lane<i64>(row + ((<usize>load<i32>(left + x, 4)) << 2), a, 1);
      let b = v128.load64_zero(row + ((<usize>load<i32>(left + x, 8)) << 2));
      b = v128.load_lane<i64>(row + ((<usize>load<i32>(left + x, 12)) << 2), b, 1);
      const v = f32x4.mul(
        K,
        mixLanes(v128.shuffle<f32>(a, b, 0, 2, 4, 6), v128.shuffle<f32>(a, b, 1, 3, 5, 7), v128.load(part + x)),
      );
      v128.store(out + x, add ? f32x4.add(v128.load(out + x), v) : v);
    }
    for (; x < end; x += 4) {
      const o = row + ((<usize>load<i32>(left + x)) << 2);
      const v = load<f32>(o);
      const m = weight * (v + (load<f32>(o, 4) - v) * load<f32>(part + x));
      store<f32>(out + x, add ? load<f32>(out + x) + m : m);
    }
    out += end;
  }
}

/** Every number of a plane times `k`, in place. */
export function scale(p: usize, n: i32, k: f32): void {
  const K = f32x4.splat(k);
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) v128.store(p + i, f32x4.mul(v128.load(p + i), K));
}

/** Each 2 × 2 block of a plane averaged; an odd last row or column is dropped. Both sides must be at least 2. */
export function halve(from: usize, w: i32, h: i32, to: usize): void {
  const width = w >> 1;
  const height = h >> 1;
  const quarter = f32x4.splat(0.25);
  for (let y = 0; y < height; y++) {
    let p = from + <usize>(2 * y * w) * 4;
    const stride: usize = (<usize>w) << 2;
    let o = to + <usize>(y * width) * 4;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      const a = f32x4.add(v128.load(p), v128.load(p + stride));
      const b = f32x4.add(v128.load(p, 16), v128.load(p + stride, 16));
      const v = f32x4.add(v128.shuffle<f32>(a, b, 0, 2, 4, 6), v128.shuffle<f32>(a, b, 1, 3, 5, 7));
      v128.store(o, f32x4.mul(v, quarter));
      p += 32;
      o += 16;
    }
    for (; x < width; x++) {
      store<f32>(o, 0.25 * (load<f32>(p) + load<f32>(p + stride) + (load<f32>(p, 4) + load<f32>(p + stride, 4))));
      p += 8;
      o += 4;
    }
  }
}

/** Each 2 × 2 block of opaque 8-bit RGBA averaged and rounded; `w` and `h` are even. */
export function halveRgba(from: usize, w: i32, h: i32, to: usize): void {
  const stride: usize = (<usize>w) << 2;
  const two = i16x8.splat(2);
  for (let y = 0; y < h; y += 2) {
    let p = from + <usize>y * stride;
    const end = p + stride;
    for (; p < end; p += 8) {
      const s = i16x8.add(v128.load8x8_u(p), v128.load8x8_u(p + stride));
      const v = i16x8.shr_u(i16x8.add(i16x8.add(s, v128.shuffle<i64>(s, s, 1, 0)), two), 2);
      store<i32>(to, i32x4.extract_lane(i8x16.narrow_i16x8_u(v, v), 0));
      to += 4;
    }
  }
}
