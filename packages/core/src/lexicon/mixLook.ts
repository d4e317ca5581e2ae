import { mix, type MixSource, type Mixture } from '../mix/mix.ts';
import { applyWords } from './applyWords.ts';

/** A mixture with its style words applied, and the words that the lexicon does not know. */
export interface MixedLook extends Mixture {
  unknown: string[];
}

/**
 * Mixes a look: its sources by parts and facets, then its style words over them. Words change how it is painted, not what drift is measured
 * against. Throws MixError as {@link mix} does.
 */
export function mixLook(sources: readonly MixSource[], words: readonly string[]): MixedLook {
  const mixture = mix(sources);
  const { style, unknown } = applyWords(mixture.style, words);
  return { ...mixture, style: { ...style, swatch: mixture.style.swatch }, unknown };
}
