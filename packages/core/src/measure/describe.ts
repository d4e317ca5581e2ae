import type { Facet, Fingerprint } from './types.ts';

/** A fingerprint in plain words, one phrase a facet. */
export function describeFingerprint(f: Fingerprint): Record<Facet, string> {
  const { colour, light, line, texture } = f;
  const chroma = colour.chroma[6];
  const colourWords = [
    colour.inks < 2.6 ? 'few inks' : colour.inks < 4.5 ? 'some inks' : 'many colours',
    chroma < 0.03 ? 'nearly grey' : chroma < 0.08 ? 'muted' : chroma < 0.14 ? 'clear' : 'vivid',
    colour.warmth > 0.03 ? 'warm' : colour.warmth < -0.02 ? 'cool' : '',
  ];
  const mean = light.tone.reduce((s, v) => s + v, 0) / light.tone.length;
  const lightWords = [
    mean > 0.78 ? 'high key' : mean < 0.45 ? 'low key' : 'middle key',
    light.contrast > 0.6 ? 'strong contrast' : light.contrast < 0.3 ? 'soft contrast' : '',
    light.paper > 0.4 ? 'much bare ground' : '',
  ];
  const dark = line.dark.slice(0, 4).reduce((s, v) => s + v, 0);
  const cut = line.light.slice(0, 3).reduce((s, v) => s + v, 0);
  const lineWords = [
    dark > 0.015 ? 'dark fine lines' : cut > 0.007 ? 'light cut lines' : line.edge > 0.08 ? 'clear edges' : 'no drawn line',
    line.coherence > 0.75 && line.edge > 0.05 ? 'that follow the form' : '',
    line.raggedness > 0.35 ? 'ragged' : '',
  ];
  const textureWords = [
    texture.flatness > 0.5 ? 'flat areas' : texture.softness > 0.4 ? 'soft gradations' : 'worked surface',
    texture.period.share > 0.15 ? (texture.period.dots > 0.6 ? 'regular dots' : 'regular hatching') : '',
    texture.grain > 0.008 ? 'dry grain' : '',
  ];
  const join = (words: string[]): string => words.filter(Boolean).join(', ');
  return {
    colour: join(colourWords),
    light: join(lightWords),
    line: join(lineWords).replace(', that', ' that'),
    texture: join(textureWords),
  };
}
