import { resamplePlane } from '../image/filter.ts';
import type { Lab, LabPlanes } from '../image/types.ts';

/** Empty planes of a size. */
export function emptyPlanes(width: number, height: number): LabPlanes {
  const n = width * height;
  return { width, height, L: new Float32Array(n), a: new Float32Array(n), b: new Float32Array(n) };
}

/** `p` with `t` of `q` in it, as new planes. */
export function mixPlanes(p: LabPlanes, q: LabPlanes, t: number): LabPlanes {
  const out = { ...p, L: p.L.slice(), a: p.a.slice(), b: p.b.slice() };
  blendInto(out, q, t);
  return out;
}

/** Moves `out` a share `t` of the way to `over`, in place. */
export function blendInto(out: LabPlanes, over: LabPlanes, t: number): void {
  if (t <= 0 || out === over) return;
  const n = out.L.length;
  for (const k of ['L', 'a', 'b'] as const) {
    const p = out[k];
    const q = over[k];
    for (let i = 0; i < n; i++) p[i] += (q[i] - p[i]) * t;
  }
}

/** All three planes at another size. */
export function resamplePlanes(planes: LabPlanes, width: number, height: number): LabPlanes {
  const { width: w, height: h } = planes;
  if (w === width && h === height) return planes;
  const at = { width: w, height: h };
  return {
    width,
    height,
    L: resamplePlane({ ...at, data: planes.L }, width, height),
    a: resamplePlane({ ...at, data: planes.a }, width, height),
    b: resamplePlane({ ...at, data: planes.b }, width, height),
  };
}

/** Lays one colour over the planes with the coverage (0–1) of each pixel times `amount`, in place. */
export function layInk(planes: LabPlanes, coverage: Float32Array, ink: Lab, amount: number): void {
  const { L, a, b } = planes;
  for (let i = 0; i < coverage.length; i++) {
    const c = coverage[i] * amount;
    if (c <= 0) continue;
    L[i] += (ink.L - L[i]) * c;
    a[i] += (ink.a - a[i]) * c;
    b[i] += (ink.b - b[i]) * c;
  }
}
