import type { Fingerprint } from './types.ts';

/** A fingerprint as one packed vector for search: tone, chroma, hue, line and texture numbers, each scaled to about 0–1. */
export function packVector(f: Fingerprint): Float32Array {
  const { colour, light, line, texture } = f;
  return Float32Array.from([
    ...light.tone,
    ...light.spread,
    light.contrast,
    light.paper,
    light.bimodality,
    ...colour.chroma.map(v => v * 3),
    ...colour.hue,
    colour.inks / 8,
    colour.warmth * 4,
    line.edge * 2,
    line.sharpness * 3,
    ...line.dark.map(v => v * 40),
    ...line.light.map(v => v * 40),
    line.width / 10,
    line.raggedness,
    line.coherence,
    texture.flatness,
    texture.softness,
    ...texture.bands.map(v => v * 6),
    ...texture.chromaBands.map(v => v * 10),
    texture.grain * 20,
    texture.rim,
    ...texture.along.map(v => v * 12),
    ...texture.across.map(v => v * 12),
    texture.jitter * 20,
    texture.shadow.depth * 40,
    texture.period.share,
    texture.period.length / 12,
    texture.period.dots,
  ]);
}
