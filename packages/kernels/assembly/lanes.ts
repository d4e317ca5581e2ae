// Helpers for loops that work on four numbers at a time. Addresses are bytes; planes are rows of 32-bit floats.

/** Four floats from four addresses. */
@inline
export function gather(p: usize, q: usize, r: usize, s: usize): v128 {
  let v = v128.load32_zero(p);
  v = v128.load_lane<f32>(q, v, 1);
  v = v128.load_lane<f32>(r, v, 2);
  return v128.load_lane<f32>(s, v, 3);
}

/** Four floats written to four addresses. */
@inline
export function scatter(v: v128, p: usize, q: usize, r: usize, s: usize): void {
  v128.store_lane<f32>(p, v, 0);
  v128.store_lane<f32>(q, v, 1);
  v128.store_lane<f32>(r, v, 2);
  v128.store_lane<f32>(s, v, 3);
}

/** (1 − t) of p and t of q. */
@inline
export function mixLanes(p: v128, q: v128, t: v128): v128 {
  return f32x4.add(p, f32x4.mul(f32x4.sub(q, p), t));
}

/** Number `i` of a plane. */
@inline
export function at(p: usize, i: i32): f32 {
  return load<f32>(p + ((<usize>i) << 2));
}

/** Class of a value, from 0 to `last`. */
@inline
export function bin(value: f32, scale: f32, last: i32): i32 {
  return min(last, max(0, <i32>(value * scale)));
}
