import { groundColour, mergeNear, normaliseShares } from '../measure/palette.ts';
import type { PaletteColour } from '../measure/types.ts';
import { clampAmounts } from '../mix/inferStyle.ts';
import { STYLE_FIELDS, type Style, type StyleField } from '../mix/style.ts';
import { clamp, lerp } from '../number/scalar.ts';
import { LEXICON, type Meaning } from './lexicon.ts';

/** How far one word moves a style towards what it means. */
const REACH = 0.75;

/** Below this factor on chroma colours count as greys. */
const GREY = 0.15;
const GREYS: readonly PaletteColour[] = [0.12, 0.3, 0.48, 0.66, 0.82, 0.95].map(L => ({ L, a: 0, b: 0, share: 1 / 6 }));
/** Seventeen lightness quantiles of a picture with every tone in it. */
const EVEN_TONE: readonly number[] = Array.from({ length: 17 }, (_, i) => 0.18 + (0.78 * i) / 16);

const BY_WORD = new Map<string, Meaning>(LEXICON.flatMap(m => m.words.split(',').map(w => [w.trim(), m] as const)));

/** How many words and phrases are understood. */
export const WORD_COUNT = BY_WORD.size;

/** Whether a word or phrase is one of the lexicon's. */
export const isStyleWord = (word: string): boolean => BY_WORD.has(plain(word));

const plain = (word: string): string => word.trim().toLowerCase().replace(/\s+/g, ' ');

/** A style changed by words, the words that were understood, and those that were not. */
export interface Worded {
  style: Style;
  understood: string[];
  unknown: string[];
}

/**
 * Applies style words, each a word or phrase of the lexicon, to a style. What is not understood is returned, never swallowed; words may
 * stand in any order and come to the same. `amount` 0–1 says how far they go of what they would.
 */
export function applyWords(style: Style, words: readonly string[], amount = 1): Worded {
  const found: { word: string; meaning: Meaning }[] = [];
  const unknown: string[] = [];
  for (const raw of words) {
    const word = plain(raw);
    if (!word) continue;
    const meaning = BY_WORD.get(word);
    if (meaning) found.push({ word: raw.trim(), meaning });
    else unknown.push(raw.trim());
  }
  const amounts = { ...style.amounts };
  const wanted = new Map<StyleField, number[]>();
  let chroma = 1;
  let lightness = 0;
  let warmth = 0;
  // Fewer colours cannot be had in part: from half on a word has its way.
  let colours = Infinity;
  let contrast = 1;
  let key = 0;
  for (const m of new Set(found.map(f => f.meaning))) {
    for (const [field, value] of Object.entries(m.to ?? {}) as [StyleField, number][])
      wanted.set(field, [...(wanted.get(field) ?? []), value]);
    chroma *= lerp(1, m.chroma ?? 1, amount);
    lightness += amount * (m.lightness ?? 0);
    warmth += amount * (m.warmth ?? 0);
    if (amount >= 0.5) colours = Math.min(colours, m.colours ?? Infinity);
    contrast *= lerp(1, m.contrast ?? 1, amount);
    key += amount * (m.key ?? 0);
  }
  for (const [field, values] of wanted) {
    const mean = values.reduce((s, v) => s + v, 0) / values.length;
    const owner = 'owner' in STYLE_FIELDS[field] ? (STYLE_FIELDS[field] as { owner: StyleField }).owner : null;
    // The size of a mark that was not there is taken as it is asked for.
    const fresh = owner !== null && style.amounts[owner] < 0.1;
    amounts[field] += (mean - amounts[field]) * (fresh ? 1 : amount * REACH);
  }
  // Subjects that keep their own colours and light have nothing to change yet: greys and the tones of an even picture stand in.
  const palette = style.palette.length === 0 && chroma < GREY ? GREYS : style.palette;
  const tone = style.tone.length === 0 && (contrast !== 1 || key !== 0) ? EVEN_TONE : style.tone;
  return {
    style: {
      palette: fewer(palette, colours).map(c => ({
        L: clamp(c.L + lightness * (1 - c.L) * 2, 0.04, 0.985),
        a: c.a * chroma + warmth * 0.3 * (chroma > 0 ? 1 : 0),
        b: c.b * chroma + warmth * (chroma > 0 ? 1 : 0),
        share: c.share,
      })),
      tone: tone.map(v => clamp(mean(tone) + (v - mean(tone)) * contrast + key, 0.02, 0.985)),
      amounts: clampAmounts({
        ...amounts,
        toneAmount: Math.max(amounts.toneAmount, contrast !== 1 || key !== 0 ? 0.55 * amount : 0),
      }),
    },
    understood: found.map(f => f.word),
    unknown,
  };
}

const mean = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0) / Math.max(1, values.length);

/** At most `count` colours: ground and darkest stay, then the largest. */
function fewer(palette: readonly PaletteColour[], count: number): readonly PaletteColour[] {
  if (palette.length <= count) return palette;
  const ground = groundColour([...palette]);
  const dark = palette.reduce((p, c) => (c.L < p.L ? c : p));
  const rest = palette.filter(c => c !== ground && c !== dark).sort((p, q) => q.share - p.share);
  const kept = new Set([ground, dark, ...rest.slice(0, Math.max(0, count - 2))]);
  return mergeNear(normaliseShares(palette.filter(c => kept.has(c))), 1e-5);
}
