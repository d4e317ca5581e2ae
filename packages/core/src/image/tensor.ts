import { length2 } from '../number/trig.ts';
import { blur } from './filter.ts';

/** Local direction of a plane: unit tangent, how coherent it is (0–1), and the gradient's size before smoothing. */
export interface Flow {
  tx: Float32Array;
  ty: Float32Array;
  coherence: Float32Array;
  gradient: Float32Array;
}

/**
 * Smoothed structure tensor and its minor eigenvector (the direction lines run in), after Kang et al., "Coherent line drawing",
 * 2007, and Kyprianidis & Kang, 2009. `sigma` in pixels.
 */
export function measureFlow(L: Float32Array, width: number, height: number, sigma: number): Flow {
  const n = width * height;
  const e = new Float32Array(n);
  const f = new Float32Array(n);
  const g = new Float32Array(n);
  const gradient = new Float32Array(n);
  for (let y = 0; y < height; y++) {
    const o = y * width;
    const up = (y > 0 ? y - 1 : y) * width;
    const down = (y < height - 1 ? y + 1 : y) * width;
    for (let x = 0; x < width; x++) {
      const left = x > 0 ? x - 1 : x;
      const right = x < width - 1 ? x + 1 : x;
      const gx = (L[up + right] + 2 * L[o + right] + L[down + right] - L[up + left] - 2 * L[o + left] - L[down + left]) * 0.125;
      const gy = (L[down + left] + 2 * L[down + x] + L[down + right] - L[up + left] - 2 * L[up + x] - L[up + right]) * 0.125;
      const i = o + x;
      e[i] = gx * gx;
      f[i] = gx * gy;
      g[i] = gy * gy;
      gradient[i] = length2(gx, gy);
    }
  }
  const E = blur(e, width, height, sigma);
  const F = blur(f, width, height, sigma);
  const G = blur(g, width, height, sigma);
  const tx = new Float32Array(n);
  const ty = new Float32Array(n);
  const coherence = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    const spread = Math.sqrt((E[i] - G[i]) * (E[i] - G[i]) + 4 * F[i] * F[i]);
    const sum = E[i] + G[i];
    const major = 0.5 * (sum + spread);
    let vx = F[i];
    let vy = -(major - G[i]);
    if (vx * vx + vy * vy < 1e-18) {
      vx = E[i] >= G[i] ? 0 : 1;
      vy = E[i] >= G[i] ? 1 : 0;
    }
    const m = length2(vx, vy);
    tx[i] = vx / m;
    ty[i] = vy / m;
    coherence[i] = sum > 1e-7 ? spread / sum : 0;
  }
  return { tx, ty, coherence, gradient };
}
