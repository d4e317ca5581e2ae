import { kernels, put, within } from '@zinc/kernels';
import { groundColour } from './palette.ts';
import { histogramOf, quantilesOf, temper } from './quantiles.ts';
import type { Fingerprint, PaletteColour } from './types.ts';
import type { View } from './view.ts';

export function measureLight(view: View, palette: PaletteColour[]): Fingerprint['light'] {
  const { L } = view.planes;
  const histogram = histogramOf(L);
  const tone = quantilesOf(histogram, 17);
  const low = tone[1];
  const range = Math.max(0.05, tone[15] - low);
  let middle = 0;
  const last = histogram.length - 1;
  for (let bin = 0; bin <= last; bin++) {
    const t = (bin / last - low) / range;
    if (t > 0.25 && t < 0.75) middle += histogram[bin];
  }
  const lightest = palette.filter(c => c.share > 0.08).sort((p, q) => q.L - p.L)[0];
  return {
    tone,
    spread: quantilesOf(temper(histogram), 9),
    contrast: tone[15] - tone[1],
    paper: lightest && lightest.L > 0.75 ? lightest.share : 0,
    bimodality: 1 - middle / L.length,
    bare: bareShare(view, palette),
  };
}

/** Share of the picture that is ground and nothing else: its colour, with no mark or edge near. */
function bareShare(view: View, palette: PaletteColour[]): number {
  const { L, a, b } = view.planes;
  const ground = groundColour(palette);
  const bare = within(() => {
    const [pL, pa, pb, unrest] = [L, a, b, view.unrest].map(put);
    return kernels.countBare(pL, pa, pb, unrest, L.length, ground.L, ground.a, ground.b, 0.06, 0.008);
  });
  return bare / L.length;
}
