import type { Facet } from '../measure/types.ts';
import type { WordDraft } from './draftWords.ts';
import { LEXICON } from './lexicon.ts';

/** A style word that says what a source says already, or the opposite of it. */
export interface WordConflict {
  word: string;
  kind: 'repeats' | 'fights';
  /** Which of the sources, and the word that was measured of it. */
  source: number;
  measured: string;
  facet: Facet;
}

/** Words that cannot both hold. Each stands for all words that mean the same. */
const OPPOSITES: readonly (readonly [string, string])[] = [
  ['high key', 'low key'],
  ['high contrast', 'low contrast'],
  ['muted', 'vivid'],
  ['warm', 'cool'],
  ['black and white', 'vivid'],
  ['black and white', 'many colours'],
  ['two-colour', 'many colours'],
  ['few colours', 'many colours'],
  ['flat', 'soft'],
  ['crisp', 'ragged'],
  ['crisp', 'soft'],
  ['grainy', 'smooth'],
  ['no outline', 'outlined'],
  ['no outline', 'fine-lined'],
  ['bare ground', 'worked ground'],
  ['engraved', 'no outline'],
  ['block print', 'wash'],
  ['block print', 'soft'],
  ['long strokes', 'small strokes'],
];

const FIRST_OF = new Map<string, string>(
  LEXICON.flatMap(m => {
    const all = m.words.split(',').map(w => w.trim());
    return all.map(w => [w, all[0]] as const);
  }),
);
const plain = (word: string): string => word.trim().toLowerCase().replace(/\s+/g, ' ');
const meaningOf = (word: string): string => FIRST_OF.get(plain(word)) ?? plain(word);
const FIGHTS = new Set(OPPOSITES.flatMap(([p, q]) => [`${meaningOf(p)}/${meaningOf(q)}`, `${meaningOf(q)}/${meaningOf(p)}`]));

/** Only what was measured with this sureness is held against a word. */
const SURE = 0.6;

/**
 * Which words repeat what sources already give, or fight it. `drafts` are the words measured of each source with the facets it gives; one
 * finding a word, a fight before a repetition.
 */
export function wordConflicts(
  words: readonly string[],
  drafts: readonly { draft: WordDraft; facets: readonly Facet[] }[],
): WordConflict[] {
  const out: WordConflict[] = [];
  for (const word of words) {
    const meaning = meaningOf(word);
    const found: WordConflict[] = [];
    drafts.forEach(({ draft, facets }, source) => {
      for (const m of draft.words) {
        if (m.sureness < SURE || !facets.includes(m.facet)) continue;
        const kind = meaningOf(m.word) === meaning ? 'repeats' : FIGHTS.has(`${meaning}/${meaningOf(m.word)}`) ? 'fights' : null;
        if (kind) found.push({ word, kind, source, measured: m.word, facet: m.facet });
      }
    });
    const worst = found.find(f => f.kind === 'fights') ?? found[0];
    if (worst) out.push(worst);
  }
  return out;
}
