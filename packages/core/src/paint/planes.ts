import { inBlocks, kernels } from '@zinc/kernels';
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
  for (const k of ['L', 'a', 'b'] as const) inBlocks([out[k]], [over[k]], ([p, q], count) => kernels.blend(p, q, count, t));
}

/** {@link blendInto} but for the area `bare`, which stays as it is; −1 spares none. */
export function blendAreas(out: LabPlanes, over: LabPlanes, index: Uint8Array, bare: number, t: number): void {
  if (bare < 0) return blendInto(out, over, t);
  const share = Float32Array.from(index, j => (j === bare ? 0 : t));
  for (const k of ['L', 'a', 'b'] as const)
    inBlocks([out[k]], [over[k], share], ([p, q, s], count) => kernels.blendBy(p, q, s, count));
}

/** Moves all pixels towards one colour, in place: lightness by `tone`, chroma by `chroma` of the way. */
export function fadeTo(out: LabPlanes, to: Lab, tone: number, chroma: number): void {
  inBlocks([out.L, out.a, out.b], [], ([L, a, b], count) => {
    kernels.fade(L, count, to.L, tone);
    kernels.fade(a, count, to.a, chroma);
    kernels.fade(b, count, to.b, chroma);
  });
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
  inBlocks([planes.L, planes.a, planes.b], [coverage], ([L, a, b, cover], count) =>
    kernels.layInk(L, a, b, cover, count, ink.L, ink.a, ink.b, amount),
  );
}
