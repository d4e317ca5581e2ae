import type { Fingerprint, Preparation } from '@zinc/core';
import type { Shown } from './prepare/preparing';

/** One measured figure as a gauge: a share of its usual most, and what it says. */
export interface Gauge {
  name: string;
  share: number;
  figure: string;
}

const gauge = (name: string, value: number, most: number, figure: string): Gauge => ({
  name,
  share: Math.min(1, Math.max(0, value / most)),
  figure,
});
const per = (value: number): string => `${Math.round(value * 100)} %`;

/** Line and texture in figures that a designer can read. */
export function gaugesOf({ line, texture, light, colour }: Fingerprint): Gauge[] {
  const thin = line.dark.reduce((s, v) => s + v, 0) + line.light.reduce((s, v) => s + v, 0);
  return [
    gauge('Inks', colour.inks, 8, colour.inks.toFixed(1)),
    gauge('Bare ground', light.bare, 1, per(light.bare)),
    gauge('Contrast', light.contrast, 1, per(light.contrast)),
    gauge('Edges', line.edge, 0.4, per(line.edge)),
    gauge('Thin lines', thin, 0.12, per(thin)),
    gauge('Line width', line.width, 12, line.width > 0 ? `${line.width.toFixed(1)} px` : 'none'),
    gauge('Ragged edges', line.raggedness, 1, per(line.raggedness)),
    gauge('Flat areas', texture.flatness, 1, per(texture.flatness)),
    gauge('Grain', texture.grain, 0.03, per(texture.grain)),
    gauge('Hatching or dots', texture.period.share, 1, per(texture.period.share)),
  ];
}

/** In a few words how a variant was made. */
export function howMade(p: Preparation): string {
  const t = p.treatment;
  const parts = [
    p.paintOut?.length ? 'painted out' : '',
    p.recolour?.length ? 'recoloured' : '',
    p.cutOut ? 'cut out' : '',
    p.crop ? 'cropped' : '',
    t?.roller ? `dry roller ${t.roller} %` : '',
    t?.plate ? `worn plate ${t.plate} %` : '',
    t?.dots ? `coarse dots ${t.dots} %` : '',
    t?.soften ? `softened ${t.soften} %` : '',
    t?.hue ? `hue shifted ${t.hue}°` : '',
    t?.grain ? `grain turned ${t.grain}°` : '',
  ].filter(Boolean);
  return parts.join(', ');
}

/** A map of 0–1 as a veil over its picture: what does not matter is covered in dark, what does shows through. */
export function veilOf({ width, height, data }: { width: number; height: number; data: Float32Array }): Shown {
  const pixels = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < data.length; i++) {
    // Black by its opacity alone, so that the colours under it keep their hue.
    pixels[i * 4 + 3] = 235 * (1 - Math.min(1, 1.6 * data[i]));
  }
  return { width, height, pixels };
}
