import { blur, resamplePlane } from '../image/filter.ts';
import type { Picture, Plane } from '../image/types.ts';
import { length2 } from '../number/trig.ts';
import { groundColour } from './palette.ts';
import { measureColour } from './colour.ts';
import type { Facet } from './types.ts';
import { marginsOf, withoutMargins } from '../framing/measureFraming.ts';
import { windowOf } from '../framing/types.ts';
import { viewOf } from './view.ts';

/** Long side of a map. */
const SIDE = 160;

/**
 * Where in a picture each facet comes from: for each, a small plane of 0–1 that is 1 where most of it is. Colour: how far a place is from the
 * ground, and how much of an ink it is; light: how far its tone is from the middle one; line: edges and thin lines; texture: what goes on
 * away from edges.
 */
export function facetMaps(picture: Picture): Record<Facet, Plane> {
  const margins = { ...marginsOf(picture), seat: null };
  const view = viewOf(withoutMargins(picture, margins));
  const { planes, slopes, around, unrest, inkWeights } = view;
  const { width: w, height: h, L, a, b } = planes;
  const ground = groundColour(measureColour(view).palette);
  const mean = L.reduce((s, v) => s + v, 0) / L.length;
  const colour = new Float32Array(w * h);
  const light = new Float32Array(w * h);
  const line = new Float32Array(w * h);
  const texture = new Float32Array(w * h);
  for (let i = 0; i < L.length; i++) {
    const chroma = length2(a[i] - ground.a, b[i] - ground.b);
    colour[i] = inkWeights[i] * (chroma + 0.35 * Math.abs(L[i] - ground.L));
    light[i] = Math.abs(L[i] - mean);
    line[i] =
      Math.max(0, slopes.size[i] - 0.03) + 0.4 * Math.max(0, Math.abs(L[i] - around[i]) - 0.05) * Math.min(1, unrest[i] * 20);
    // On an edge the slope is far above what is usual around it; brushwork and grain are not.
    texture[i] = Math.min(slopes.size[i], unrest[i]);
  }
  const out = { colour, light, line, texture };
  const small = {} as Record<Facet, Plane>;
  const k = Math.min(1, SIDE / Math.max(picture.width, picture.height));
  const [width, height] = [picture.width, picture.height].map(v => Math.max(1, Math.round(v * k)));
  const window = windowOf(margins, width, height);
  for (const facet of Object.keys(out) as Facet[]) {
    const soft = blur(out[facet], w, h, facet === 'line' ? 2 : 4);
    const inner = stretched(resamplePlane({ width: w, height: h, data: soft }, window.width, window.height));
    const data = new Float32Array(width * height);
    for (let y = 0; y < window.height; y++)
      data.set(inner.subarray(y * window.width, (y + 1) * window.width), (y + window.top) * width + window.left);
    small[facet] = { width, height, data };
  }
  return small;
}

/** The same values from 0 (their least) to 1 (all but the highest hundredth). */
function stretched(values: Float32Array): Float32Array {
  const sorted = values.slice().sort();
  const low = sorted[Math.floor(sorted.length * 0.05)];
  const high = sorted[Math.floor(sorted.length * 0.99)];
  return values.map(v => (high - low < 1e-6 ? 0 : Math.min(1, Math.max(0, (v - low) / (high - low)))));
}
