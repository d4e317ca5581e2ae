import type { LabPlanes } from '../image/types.ts';

function summedArea(plane: Float32Array, width: number, height: number, squared: boolean): Float64Array {
  const W = width + 1;
  const sums = new Float64Array(W * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    const o = y * width;
    const s = (y + 1) * W;
    for (let x = 0; x < width; x++) {
      const v = plane[o + x];
      row += squared ? v * v : v;
      sums[s + x + 1] = sums[s - W + x + 1] + row;
    }
  }
  return sums;
}

/**
 * Edge-keeping smoothing: each pixel takes the mean of the calmest of eight windows around it, softly weighted (a box-window form of
 * the Kuwahara filter; Kyprianidis et al. 2009). Summed-area tables make the cost independent of the radius, in pixels.
 */
export function smoothKeepingEdges(planes: LabPlanes, radius: number): LabPlanes {
  const r = Math.round(radius);
  if (r < 1) return planes;
  const { width, height } = planes;
  const n = width * height;
  const W = width + 1;
  const sumL = summedArea(planes.L, width, height, false);
  const sumA = summedArea(planes.a, width, height, false);
  const sumB = summedArea(planes.b, width, height, false);
  const sumQ = summedArea(planes.L, width, height, true);
  const L = new Float32Array(n);
  const a = new Float32Array(n);
  const b = new Float32Array(n);
  const e = Math.max(1, Math.round(r / 2));
  const windows = Int32Array.from([
    -r,
    -r,
    0,
    0,
    0,
    -r,
    r,
    0,
    -r,
    0,
    0,
    r,
    0,
    0,
    r,
    r,
    -e,
    -r,
    e,
    0,
    -e,
    0,
    e,
    r,
    -r,
    -e,
    0,
    e,
    0,
    -e,
    r,
    e,
  ]);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const xl = Math.max(0, x - e);
      const yt = Math.max(0, y - e);
      const xr = Math.min(width, x + e + 1);
      const yb = Math.min(height, y + e + 1);
      const inside = 1 / ((xr - xl) * (yb - yt));
      const p0 = yt * W + xl;
      const q0 = yt * W + xr;
      const s0 = yb * W + xl;
      const t0 = yb * W + xr;
      const mean = (sumL[t0] - sumL[q0] - sumL[s0] + sumL[p0]) * inside;
      if ((sumQ[t0] - sumQ[q0] - sumQ[s0] + sumQ[p0]) * inside - mean * mean < 2e-6) {
        // Nothing happens here, so every window would say the same.
        L[i] = mean;
        a[i] = (sumA[t0] - sumA[q0] - sumA[s0] + sumA[p0]) * inside;
        b[i] = (sumB[t0] - sumB[q0] - sumB[s0] + sumB[p0]) * inside;
        continue;
      }
      let weights = 0;
      let vL = 0;
      let vA = 0;
      let vB = 0;
      for (let k = 0; k < 32; k += 4) {
        const x0 = Math.max(0, x + windows[k]);
        const y0 = Math.max(0, y + windows[k + 1]);
        const x1 = Math.min(width, x + windows[k + 2] + 1);
        const y1 = Math.min(height, y + windows[k + 3] + 1);
        const p = y0 * W + x0;
        const q = y0 * W + x1;
        const s = y1 * W + x0;
        const t = y1 * W + x1;
        const inv = 1 / ((x1 - x0) * (y1 - y0));
        const mL = (sumL[t] - sumL[q] - sumL[s] + sumL[p]) * inv;
        let variance = (sumQ[t] - sumQ[q] - sumQ[s] + sumQ[p]) * inv - mL * mL;
        if (variance < 0) variance = 0;
        const u = variance + 4e-5;
        const weight = 1 / (u * u * u * u);
        weights += weight;
        vL += weight * mL;
        vA += weight * (sumA[t] - sumA[q] - sumA[s] + sumA[p]) * inv;
        vB += weight * (sumB[t] - sumB[q] - sumB[s] + sumB[p]) * inv;
      }
      L[i] = vL / weights;
      a[i] = vA / weights;
      b[i] = vB / weights;
    }
  return { width, height, L, a, b };
}
