import { blur, halve, resamplePlane } from '../image/filter.ts';
import { halveAngles, measureFlow, slopesOf } from '../image/tensor.ts';
import { noisePlane } from '../number/noise.ts';
import { lerp, smoothstep } from '../number/scalar.ts';
import { cos, sin } from '../number/trig.ts';
import type { Sketch } from './sketch.ts';

/** A unit tangent at every pixel of a sketch. */
export interface Field {
  width: number;
  height: number;
  tx: Float32Array;
  ty: Float32Array;
}

/**
 * A direction for marks everywhere: the form's own where it has one (as far as `follow` says), else a fixed angle that drifts slowly by up
 * to `drift` radians.
 */
export function markField(sketch: Sketch, angle: number, follow: number, drift: number, seed: number): Field {
  const { width, height, u } = sketch;
  let low = { width, height, data: sketch.content.L };
  let factor = 1;
  while (Math.max(low.width, low.height) > 220) {
    low = halve(low) as typeof low;
    factor *= 2;
  }
  const slopes = slopesOf(low.data, low.width, low.height);
  const flow = measureFlow(slopes, Math.max(1, (9 * u) / factor));
  const m = flow.tx.length;
  const c2 = new Float32Array(m);
  const s2 = new Float32Array(m);
  const strengths = resamplePlane(
    { ...low, data: blur(slopes.size, low.width, low.height, (5 * u) / factor) },
    flow.width,
    flow.height,
  );
  const wander = noisePlane(flow.width, flow.height, Math.max(2, (35 * u) / factor), seed, 2);
  for (let i = 0; i < m; i++) {
    const own = follow * smoothstep(0.002, 0.02, strengths[i]) * flow.coherence[i];
    const base = angle + wander[i] * drift;
    c2[i] = lerp(cos(2 * base), flow.tx[i] * flow.tx[i] - flow.ty[i] * flow.ty[i], own);
    s2[i] = lerp(sin(2 * base), 2 * flow.tx[i] * flow.ty[i], own);
  }
  const at = { width: flow.width, height: flow.height };
  const tx = resamplePlane({ ...at, data: c2 }, width, height);
  const ty = resamplePlane({ ...at, data: s2 }, width, height);
  halveAngles(tx, ty);
  return { width, height, tx, ty };
}
