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
  };
}
