import { blur, resamplePlane } from './filter.ts';

/** Local direction of a plane: unit tangent (the direction lines run in) and how coherent it is (0–1). */
export interface Flow {
  width: number;
  height: number;
  tx: Float32Array;
  ty: Float32Array;
  coherence: Float32Array;
}

/** Slopes of a plane by the Scharr-weighted 3 × 3 difference, in value a pixel, and their length. */
export interface Slopes {
  width: number;
  height: number;
  x: Float32Array;
  y: Float32Array;
  size: Float32Array;
}

/** Slopes everywhere; at the border the last pixel repeats. */
export function slopesOf(L: Float32Array, width: number, height: number): Slopes {
  const n = width * height;
  const sx = new Float32Array(n);
  const sy = new Float32Array(n);
  const size = new Float32Array(n);
  for (let y = 0; y < height; y++) {
    const o = y * width;
    const up = (y > 0 ? y - 1 : y) * width;
    const down = (y < height - 1 ? y + 1 : y) * width;
    for (let x = 0; x < width; x++) {
      const l = x > 0 ? x - 1 : x;
      const r = x < width - 1 ? x + 1 : x;
      const a = L[up + l];
      const c = L[up + r];
      const g = L[down + l];
      const k = L[down + r];
      const gx = (c + k - a - g + 2 * (L[o + r] - L[o + l])) * 0.125;
      const gy = (g + k - a - c + 2 * (L[down + x] - L[up + x])) * 0.125;
      const i = o + x;
      sx[i] = gx;
      sy[i] = gy;
      size[i] = Math.sqrt(gx * gx + gy * gy);
    }
  }
  return { width, height, x: sx, y: sy, size };
}

/**
 * Smoothed structure tensor and its minor eigenvector, after Kang et al., "Coherent line drawing", 2007, and Kyprianidis & Kang,
 * 2009. It is worked out at half size, where nothing of it is lost; `sigma` is in pixels of the slopes given.
 */
export function measureFlow(slopes: Slopes, sigma: number): Flow {
  const { width: w, height: h } = slopes;
  const width = Math.max(1, w >> 1);
  const height = Math.max(1, h >> 1);
  const n = width * height;
  const e = new Float32Array(n);
  const f = new Float32Array(n);
  const g = new Float32Array(n);
  const right = w > 1 ? 1 : 0;
  const down = h > 1 ? w : 0;
  const X = slopes.x;
  const Y = slopes.y;
  for (let y = 0, o = 0; y < height; y++)
    for (let x = 0, i = 2 * y * w; x < width; x++, i += 2, o++) {
      const j = i + right;
      const k = i + down;
      const l = k + right;
      e[o] = X[i] * X[i] + X[j] * X[j] + X[k] * X[k] + X[l] * X[l];
      f[o] = X[i] * Y[i] + X[j] * Y[j] + X[k] * Y[k] + X[l] * Y[l];
      g[o] = Y[i] * Y[i] + Y[j] * Y[j] + Y[k] * Y[k] + Y[l] * Y[l];
    }
  const E = blur(e, width, height, sigma / 2);
  const F = blur(f, width, height, sigma / 2);
  const G = blur(g, width, height, sigma / 2);
  const tx = e;
  const ty = f;
  const coherence = g;
  for (let i = 0; i < n; i++) {
    const d = E[i] - G[i];
    const spread = Math.sqrt(d * d + 4 * F[i] * F[i]);
    const sum = E[i] + G[i];
    let vx = F[i];
    let vy = -(0.5 * (sum + spread) - G[i]);
    let m = vx * vx + vy * vy;
    if (m < 1e-18) {
      vx = E[i] >= G[i] ? 0 : 1;
      vy = E[i] >= G[i] ? 1 : 0;
      m = 1;
    }
    m = 1 / Math.sqrt(m);
    tx[i] = vx * m;
    ty[i] = vy * m;
    coherence[i] = sum > 4e-7 ? spread / sum : 0;
  }
  return { width, height, tx, ty, coherence };
}

/** A flow at another size; directions are averaged as doubled angles, so opposite tangents do not cancel. */
export function resampleFlow(flow: Flow, width: number, height: number): Flow {
  const n = flow.tx.length;
  const c = new Float32Array(n);
  const s = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    c[i] = flow.tx[i] * flow.tx[i] - flow.ty[i] * flow.ty[i];
    s[i] = 2 * flow.tx[i] * flow.ty[i];
  }
  const at = { width: flow.width, height: flow.height };
  const C = resamplePlane({ ...at, data: c }, width, height);
  const S = resamplePlane({ ...at, data: s }, width, height);
  halveAngles(C, S);
  return { width, height, tx: C, ty: S, coherence: resamplePlane({ ...at, data: flow.coherence }, width, height) };
}

/** Turns planes of doubled-angle cosine and sine (of any length) into unit tangents, in place, without a trigonometric call. */
export function halveAngles(c: Float32Array, s: Float32Array): void {
  for (let i = 0; i < c.length; i++) {
    const m = Math.sqrt(c[i] * c[i] + s[i] * s[i]);
    const k = m > 1e-12 ? c[i] / m : 1;
    const x = Math.sqrt((1 + k) * 0.5);
    const y = Math.sqrt((1 - k) * 0.5);
    s[i] = s[i] < 0 ? -y : y;
    c[i] = x;
  }
}
