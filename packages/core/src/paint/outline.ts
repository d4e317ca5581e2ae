import { exp, length2 } from '../number/trig.ts';
import { noisePlane } from '../number/noise.ts';
import { smoothstep } from '../number/scalar.ts';
import { blur } from '../image/filter.ts';
import type { Flow } from '../image/tensor.ts';
import type { LabPlanes } from '../image/types.ts';

/**
 * Coverage of drawn outlines: a difference of Gaussians across the edge, averaged along it (flow-based; Kang et al. 2007, Winnemöller
 * et al. 2012). `width` in pixels; `rag` 0–1 breaks the line up.
 */
export function drawOutlines(content: LabPlanes, flow: Flow, width: number, rag: number, seed: number): Float32Array {
  const { width: w, height: h, L, a, b } = content;
  const n = w * h;
  const sigma = Math.max(0.6, width * 0.5);
  const reach = 6;
  const step = sigma * 0.6;
  const narrow = new Float32Array(2 * reach + 1);
  const wide = new Float32Array(2 * reach + 1);
  let sumNarrow = 0;
  let sumWide = 0;
  for (let q = -reach; q <= reach; q++) {
    const d = q * step;
    sumNarrow += narrow[q + reach] = exp((-d * d) / (2 * sigma * sigma));
    sumWide += wide[q + reach] = exp((-d * d) / (2 * sigma * sigma * 2.56));
  }
  const signal = new Float32Array(n);
  for (let i = 0; i < n; i++) signal[i] = L[i] + 0.35 * (a[i] - 0.5 * b[i]);
  const across = new Float32Array(n);
  // Far from any edge the difference is nothing; calm pixels are left at 0.
  const near = blur(flow.gradient, w, h, Math.max(1, reach * step * 0.5));
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (near[i] < 0.0012) continue;
      const nx = -flow.ty[i] * step;
      const ny = flow.tx[i] * step;
      let p = 0;
      let q = 0;
      for (let k = -reach; k <= reach; k++) {
        let sx = (x + nx * k + 0.5) | 0;
        let sy = (y + ny * k + 0.5) | 0;
        sx = sx < 0 ? 0 : sx >= w ? w - 1 : sx;
        sy = sy < 0 ? 0 : sy >= h ? h - 1 : sy;
        const v = signal[sy * w + sx];
        p += v * narrow[k + reach];
        q += v * wide[k + reach];
      }
      across[i] = p / sumNarrow - q / sumWide;
    }
  const breaks = rag > 0 ? noisePlane(w, h, 5 + 3 * width, seed, 2) : null;
  const out = new Float32Array(n);
  const along = 4;
  const stride = Math.max(1, width * 0.8);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (across[i] > 0.004 || near[i] < 0.0012) continue;
      let sum = across[i];
      let weights = 1;
      for (let direction = -1; direction <= 1; direction += 2) {
        let px = x;
        let py = y;
        let vx = flow.tx[i] * direction;
        let vy = flow.ty[i] * direction;
        for (let k = 1; k <= along; k++) {
          px += vx * stride;
          py += vy * stride;
          if (px < 0 || py < 0 || px >= w || py >= h) break;
          const j = (py | 0) * w + (px | 0);
          const weight = 1 - k / (along + 2);
          sum += across[j] * weight;
          weights += weight;
          const turn = flow.tx[j] * vx + flow.ty[j] * vy < 0 ? -1 : 1;
          vx = flow.tx[j] * turn;
          vy = flow.ty[j] * turn;
        }
      }
      const depth = -sum / weights - (breaks ? rag * 0.005 * (0.4 + breaks[i]) : 0);
      out[i] = smoothstep(0.006, 0.02, depth);
    }
  return out;
}

/** Thin lines where the content had an edge and the flat picture has none, 0–1; `width` in pixels. */
export function findLostEdges(content: LabPlanes, flat: LabPlanes, flow: Flow, width: number, parts?: Uint8Array): Float32Array {
  const { width: w, height: h } = content;
  const out = new Float32Array(w * h);
  const r = Math.max(1, Math.round(width));
  for (let y = r; y < h - r; y++)
    for (let x = r; x < w - r; x++) {
      const i = y * w + x;
      let edge = smoothstep(0.03, 0.075, flow.gradient[i]);
      if (parts && (parts[i] !== parts[i + 1] || parts[i] !== parts[i + w])) edge = Math.max(edge, 0.9);
      if (edge <= 0) continue;
      const gx = flat.L[i + r] - flat.L[i - r];
      const gy = flat.L[i + r * w] - flat.L[i - r * w];
      const ga = flat.a[i + r] - flat.a[i - r] + flat.a[i + r * w] - flat.a[i - r * w];
      out[i] = edge * (1 - smoothstep(0.03, 0.1, length2(gx, gy) + Math.abs(ga)));
    }
  return out;
}
