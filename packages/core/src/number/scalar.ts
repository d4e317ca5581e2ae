/** `x` held between `low` and `high` (0 and 1 when not given). */
export function clamp(x: number, low = 0, high = 1): number {
  return x < low ? low : x > high ? high : x;
}

/** The value a share `t` of the way from `a` to `b`. */
export function lerp(a: number, b: number, t: number): number {
  return a + (b - a) * t;
}

/** Smooth step: 0 at or before `from`, 1 at or after `to`, cubic between. `from` may lie above `to`. */
export function smoothstep(from: number, to: number, x: number): number {
  const t = clamp((x - from) / (to - from));
  return t * t * (3 - 2 * t);
}
