import { kernels, plane, put, within } from '@zinc/kernels';
import { blur, halve } from '../image/filter.ts';
import { clamp } from '../number/scalar.ts';
import { length2 } from '../number/trig.ts';
import type { Plane } from '../image/types.ts';
import { measureBrushwork } from './brushwork.ts';
import { measureShadow } from './shadow.ts';
import { measurePeriod } from './spectrum.ts';
import type { Fingerprint } from './types.ts';
import type { View } from './view.ts';

export function measureTexture(view: View): Fingerprint['texture'] {
  const { planes, slopes, flow, pyramid } = view;
  const { width, height, L } = planes;
  const n = L.length;
  const [flat, notEdge] = within(() => {
    const size = put(slopes.size);
    return [kernels.countBelow(size, n, 0.006), kernels.countBelow(size, n, 0.03)];
  });
  const chromaA = bandsOf(chromaPyramid({ width, height, data: planes.a }), 3);
  const chromaB = bandsOf(chromaPyramid({ width, height, data: planes.b }), 3);
  return {
    flatness: flat / n,
    softness: (notEdge - flat) / n,
    bands: bandsOf(pyramid, 6),
    chromaBands: chromaA.map((v, o) => length2(v, chromaB[o])),
    grain: medianOffEdges(pyramid, slopes.size),
    rim: measureRim(view),
    ...measureBrushwork(planes, slopes, flow),
    shadow: measureShadow(L, slopes),
    period: measurePeriod(L, width, height),
  };
}

/** Chroma is seen coarsely, so its octaves start at half size. */
function chromaPyramid(plane: Plane): Plane[] {
  const out = [halve(plane)];
  for (let o = 0; o < 3 && Math.min(out[o].width, out[o].height) >= 4; o++) out.push(halve(out[o]));
  return out;
}

/**
 * RMS of each octave, fine to coarse: the energy lost from one level of a pyramid of 2 × 2 means to the next (Haar 1910). Missing octaves
 * of a small picture are 0.
 */
function bandsOf(pyramid: Plane[], count: number): number[] {
  const energies = pyramid.map(({ data }) => within(() => kernels.power(put(data), data.length)));
  return Array.from({ length: count }, (_, o) =>
    o + 1 < energies.length ? Math.sqrt(Math.max(0, energies[o] - energies[o + 1])) : 0,
  );
}

/** Median deviation of pixels from the mean of their 2 × 2 block, edges left out. */
function medianOffEdges(pyramid: Plane[], gradient: Float32Array): number {
  const [full, half] = pyramid;
  if (!half) return 0;
  return within(() => {
    const [fine, coarse, size] = [full.data, half.data, gradient].map(put);
    return kernels.offEdges(fine, full.width, coarse, half.width, half.height, size, 0.03, plane(512));
  });
}

function measureRim(view: View): number {
  const half = view.pyramid[1];
  if (!half) return 0;
  const { width, height, data } = half;
  const near = blur(data, width, height, 1.2);
  const wide = blur(data, width, height, 3.5);
  const full = view.slopes;
  let sum = 0;
  let count = 0;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const g = full.size[2 * y * full.width + 2 * x];
      if (g > 0.008 && g < 0.05) {
        sum += clamp((wide[i] - near[i]) * 10, -1, 1);
        count++;
      }
    }
  return count > 0 ? sum / count : 0;
}
