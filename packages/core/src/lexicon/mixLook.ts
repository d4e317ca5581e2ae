import { mix, type MixSource, type Mixture } from '../mix/mix.ts';
import { neutralStyle } from '../mix/style.ts';
import { applyWords } from './applyWords.ts';
import { avoidMarks } from './avoid.ts';

/** A mixture with its style words applied, and the words that the lexicon does not know. */
export interface MixedLook extends Mixture {
  unknown: string[];
}

/** A stack of words mixed into a look in parts. */
export interface WordSource {
  parts: number;
  words: readonly string[];
}

/**
 * How far the words of a word style go, 0–1: with as many parts as all other sources have together (or with none beside it) they go all the
 * way, with fewer as far as their parts allow.
 */
export function wordAmount(parts: number, others: number): number {
  return others <= 0 ? (parts > 0 ? 1 : 0) : Math.min(1, parts / others);
}

/**
 * Mixes a look: its sources by parts and facets, then its word styles in their order, then its own style words; marks that are to be avoided
 * go out last. Words change how it is painted, not what drift is measured against. Throws MixError as {@link mix} does; a look of words alone starts from the neutral style.
 */
export function mixLook(
  sources: readonly MixSource[],
  words: readonly string[],
  wordStyles: readonly WordSource[] = [],
  avoid: readonly string[] = [],
): MixedLook {
  const worded = wordStyles.filter(w => w.parts > 0);
  const others = sources.reduce((sum, s) => sum + s.parts, 0);
  const mixture = others === 0 && worded.length > 0 ? { style: neutralStyle(), target: null, facets: [] } : mix(sources);
  const unknown: string[] = [];
  let { style } = mixture;
  for (const { words: list, amount } of [
    ...worded.map(w => ({ words: w.words, amount: wordAmount(w.parts, others) })),
    { words, amount: 1 },
  ]) {
    const said = applyWords(style, list, amount);
    style = said.style;
    unknown.push(...said.unknown);
  }
  style = avoidMarks({ ...style, swatch: mixture.style.swatch, framing: mixture.style.framing }, avoid);
  return { ...mixture, style, unknown };
}
