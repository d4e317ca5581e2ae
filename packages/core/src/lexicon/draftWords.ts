import type { Facet, Fingerprint, PaletteColour } from '../measure/types.ts';
import { mediaOf, inferStyle } from '../mix/inferStyle.ts';
import { atan2, length2 } from '../number/trig.ts';
import { smoothstep } from '../number/scalar.ts';

/** A drafted word of style, the facet it speaks of, and how sure the measurement is, 0–1. */
export interface DraftWord {
  word: string;
  facet: Facet;
  sureness: number;
}

/** Words drafted from a measurement: for a person to read and correct, never used unread. */
export interface WordDraft {
  /** The medium it was most likely made in, and how likely, 0–1; null when nothing points to one. */
  medium: { word: string; sureness: number } | null;
  words: DraftWord[];
  /** Plain names of the main colours, largest area first. */
  colours: string[];
}

/** Below this a medium is not named: a wrong one is worse than none. */
const LEAST_SURE = 0.35;

/** Drafts style words from a fingerprint. Every word but the colours is one of the lexicon, so that it does what it says when it is used. */
export function draftWords(f: Fingerprint): WordDraft {
  const { colour, light, line, texture } = f;
  const words: DraftWord[] = [];
  const say = (word: string, facet: Facet, sureness: number): void => {
    if (sureness > LEAST_SURE) words.push({ word, facet, sureness: Math.min(1, sureness) });
  };
  const medium = mediumOf(f);
  if (medium) words.push({ word: medium.word, facet: 'texture', sureness: medium.sureness });
  const chroma = colour.chroma[6];
  say('two-colour', 'colour', smoothstep(2.6, 2, colour.inks));
  say('few colours', 'colour', smoothstep(4.4, 3.4, colour.inks) * smoothstep(2, 2.7, colour.inks));
  say('many colours', 'colour', smoothstep(4.6, 6, colour.inks));
  say('black and white', 'colour', smoothstep(0.02, 0.008, colour.chroma[8]));
  say('muted', 'colour', smoothstep(0.09, 0.05, chroma) * smoothstep(0.008, 0.02, colour.chroma[8]));
  say('vivid', 'colour', smoothstep(0.11, 0.16, chroma));
  say('warm', 'colour', smoothstep(0.02, 0.05, colour.warmth));
  say('cool', 'colour', smoothstep(-0.01, -0.04, colour.warmth));
  const mean = light.tone.reduce((s, v) => s + v, 0) / light.tone.length;
  say('high key', 'light', smoothstep(0.74, 0.84, mean));
  say('low key', 'light', smoothstep(0.48, 0.36, mean));
  say('high contrast', 'light', smoothstep(0.52, 0.68, light.contrast));
  say('low contrast', 'light', smoothstep(0.34, 0.2, light.contrast));
  say('bare ground', 'light', smoothstep(0.3, 0.5, light.bare));
  const m = mediaOf(f);
  const marks = inferStyle(f).amounts;
  say(
    'slanted',
    'line',
    m.hatch *
      smoothstep(0.5, 0.8, line.agreement) *
      smoothstep(0.3, 0.6, Math.abs(line.direction)) *
      smoothstep(1.3, 1, Math.abs(line.direction)),
  );
  say('form-following', 'line', m.hatch * smoothstep(0.6, 0.3, line.agreement));
  say('fine-lined', 'line', smoothstep(0.004, 0.012, line.dark[0] + line.dark[1]) * smoothstep(2.8, 1.8, line.width));
  say(
    'no outline',
    'line',
    smoothstep(
      0.003,
      0.001,
      line.dark.slice(0, 4).reduce((s, v) => s + v, 0),
    ) *
      smoothstep(
        0.003,
        0.001,
        line.light.slice(0, 3).reduce((s, v) => s + v, 0),
      ),
  );
  say('ragged', 'line', smoothstep(0.3, 0.5, line.raggedness));
  say('crisp', 'line', smoothstep(0.16, 0.06, line.raggedness) * smoothstep(0.12, 0.2, line.sharpness));
  say('flat', 'texture', m.flat * (1 - m.carve));
  say('grainy', 'texture', smoothstep(0.008, 0.016, texture.grain));
  say(
    'streaky',
    'texture',
    m.brush *
      smoothstep(0.5, 0.8, marks.bristle) *
      smoothstep(0.2, 0.5, 1 - texture.along[0] / Math.max(0.002, texture.across[0])),
  );
  say('long strokes', 'texture', m.brush * smoothstep(8, 10.5, marks.brushLength));
  say('soft', 'texture', smoothstep(0.45, 0.65, texture.softness) * (1 - m.flat));
  words.sort((p, q) => q.sureness - p.sureness);
  return { medium, words, colours: colourNames(colour.palette) };
}

/** What the marks point to most; where two point as strongly the sureness is shared. */
function mediumOf(f: Fingerprint): WordDraft['medium'] {
  const m = mediaOf(f);
  const { relief } = inferStyle(f).amounts;
  const paint = m.brush * (1 - m.dry);
  const claims: [string, number][] = [
    ['engraved', m.hatch * (1 - m.brush)],
    ['block print', m.carve],
    ['spot print', m.dots],
    ['wash', m.wash],
    ['pastel', m.dry],
    ['thick paint', paint * smoothstep(0.35, 0.75, relief)],
    ['gouache', paint * smoothstep(0.75, 0.35, relief)],
    ['cut paper', m.flat * smoothstep(0.1, 0.4, m.shadow) * (1 - m.wash) * (1 - m.carve)],
  ];
  const total = claims.reduce((s, [, v]) => s + v, 0);
  const [word, most] = claims.reduce((p, c) => (c[1] > p[1] ? c : p));
  const sureness = total > 0 ? (most * most) / total : 0;
  return sureness > LEAST_SURE ? { word, sureness: Math.min(1, sureness) } : null;
}

const HUES: [number, string][] = [
  [0.02, 'pink'],
  [0.35, 'red'],
  [0.75, 'vermilion'],
  [1.15, 'orange'],
  [1.5, 'ochre'],
  [1.95, 'yellow'],
  [2.35, 'green'],
  [2.9, 'leaf green'],
  [-2.7, 'sea green'],
  [-2.2, 'teal'],
  [-1.6, 'blue'],
  [-1.05, 'violet blue'],
  [-0.6, 'violet'],
  [-0.25, 'purple'],
];

/** A plain name for a colour, such as “deep teal” or “pale ochre”. */
export function colourName({ L, a, b }: { L: number; a: number; b: number }): string {
  const chroma = length2(a, b);
  if (L > 0.9 && chroma >= 0.009 && chroma < 0.06) return b > 0 ? 'cream' : 'pale blue';
  if (chroma < 0.022) return L > 0.93 ? 'white' : L > 0.72 ? 'pale grey' : L > 0.45 ? 'grey' : L > 0.28 ? 'dark grey' : 'black';
  if (L < 0.3 && chroma < 0.07) return b > 0.01 ? 'dark brown' : a > 0.01 ? 'aubergine' : 'ink blue';
  const angle = atan2(b, a);
  const gap = (h: number): number => {
    const d = Math.abs(angle - h);
    return Math.min(d, 6.283185 - d);
  };
  const hue = HUES.reduce((p, c) => (gap(c[0]) < gap(p[0]) ? c : p))[1];
  if (['vermilion', 'orange', 'ochre'].includes(hue) && chroma < 0.09)
    return L > 0.75 ? 'sand' : L > 0.45 ? 'brown' : 'dark brown';
  if (hue === 'pink' && L < 0.52) return L < 0.42 ? 'deep wine red' : 'wine red';
  const tone = L > 0.8 ? 'pale ' : L < 0.42 ? 'deep ' : chroma < 0.06 ? 'dusty ' : '';
  return tone + hue;
}

function colourNames(palette: readonly PaletteColour[]): string[] {
  const names = [...palette]
    .sort((p, q) => q.share - p.share)
    .filter(c => c.share > 0.03)
    .map(colourName);
  return [...new Set(names)].slice(0, 5);
}
