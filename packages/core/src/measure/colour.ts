import { kernels, plane, put, take, within } from '@zinc/kernels';
import { atan2, exp, log } from '../number/trig.ts';
import { measurePalette } from './palette.ts';
import { quantiles } from './quantiles.ts';
import type { Fingerprint, PaletteColour } from './types.ts';
import type { View } from './view.ts';

/** exp(entropy of the shares): how many inks a palette amounts to. */
export function inksOf(palette: PaletteColour[]): number {
  let entropy = 0;
  for (const c of palette) if (c.share > 0) entropy -= c.share * log(c.share);
  return exp(entropy);
}

export function measureColour(view: View): Fingerprint['colour'] {
  const { a, b } = view.planes;
  const n = a.length;
  const palette = measurePalette(view.planes, view.inkWeights, view.slopes.size);
  const chroma = within(() => {
    const out = plane(n);
    kernels.lengths(put(a), put(b), n, 2.5, out);
    return take(out, new Float32Array(n));
  });
  const hue = new Array<number>(12).fill(0);
  let warmth = 0;
  let coloured = 0;
  let seen = 0;
  // Hue and warmth change slowly; every seventh pixel tells them.
  for (let i = 0; i < n; i += 7) {
    const c = chroma[i] / 2.5;
    warmth += a[i] + b[i];
    seen++;
    if (c <= 0.02) continue;
    const turn = atan2(b[i], a[i]) / (2 * Math.PI) + 1;
    hue[((turn - Math.floor(turn)) * 12) | 0] += c;
    coloured += c;
  }
  return {
    palette,
    inks: inksOf(palette),
    chroma: quantiles(chroma, 9).map(v => v / 2.5),
    hue: coloured > 0 ? hue.map(v => v / coloured) : hue,
    warmth: warmth / seen,
  };
}
