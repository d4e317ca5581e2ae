import { inBlocks, kernels, plane, put, take, within } from '@zinc/kernels';
import { blurAt, resamplePlane } from './filter.ts';

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
  return within(() => {
    const [x, y, size] = [plane(n), plane(n), plane(n)];
    kernels.slopes(put(L), width, height, x, y, size);
    const out = (at: number): Float32Array => take(at, new Float32Array(n));
    return { width, height, x: out(x), y: out(y), size: out(size) };
  });
}

/**
 * Smoothed structure tensor and its minor eigenvector, after Kang et al., "Coherent line drawing", 2007, and Kyprianidis & Kang,
 * 2009. It is worked out at half size, where nothing of it is lost; `sigma` is in pixels of the slopes given.
 */
export function measureFlow(slopes: Slopes, sigma: number): Flow {
  const { width: w, height: h } = slopes;
  // One row or column has no direction across it.
  if (w < 2 || h < 2) {
    const n = Math.max(1, w >> 1) * Math.max(1, h >> 1);
    const along = new Float32Array(n).fill(1);
    const none = new Float32Array(n);
    const at = { width: Math.max(1, w >> 1), height: Math.max(1, h >> 1), coherence: none };
    return w < 2 ? { ...at, tx: none.slice(), ty: along } : { ...at, tx: along, ty: none.slice() };
  }
  const width = w >> 1;
  const height = h >> 1;
  const n = width * height;
  return within(() => {
    const [e, f, g] = [plane(n), plane(n), plane(n)];
    within(() => kernels.tensor(put(slopes.x), put(slopes.y), w, h, e, f, g));
    for (const at of [e, f, g]) blurAt(at, width, height, sigma / 2);
    kernels.eigen(e, f, g, n);
    const out = (at: number): Float32Array => take(at, new Float32Array(n));
    return { width, height, tx: out(e), ty: out(f), coherence: out(g) };
  });
}

/** A flow at another size; directions are averaged as doubled angles, so opposite tangents do not cancel. */
export function resampleFlow(flow: Flow, width: number, height: number): Flow {
  const c = new Float32Array(flow.tx.length);
  const s = new Float32Array(flow.tx.length);
  inBlocks([c, s], [flow.tx, flow.ty], ([C, S, tx, ty], count) => kernels.doubleAngles(tx, ty, count, C, S));
  const at = { width: flow.width, height: flow.height };
  const C = resamplePlane({ ...at, data: c }, width, height);
  const S = resamplePlane({ ...at, data: s }, width, height);
  halveAngles(C, S);
  return { width, height, tx: C, ty: S, coherence: resamplePlane({ ...at, data: flow.coherence }, width, height) };
}

/** Turns planes of doubled-angle cosine and sine (of any length) into unit tangents, in place, without a trigonometric call. */
export function halveAngles(c: Float32Array, s: Float32Array): void {
  inBlocks([c, s], [], ([C, S], count) => kernels.halveAngles(C, S, count));
}
