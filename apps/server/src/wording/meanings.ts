import type { Subject, UnclearWord, WordSense } from '@zinc/contract';
import { sensesOf, type NounSense } from './wordnet.ts';

/**
 * Fields of WordNet whose things can be pictured. Meanings in one group would be drawn alike, so they are one: a radish is a plant and a
 * food, and nobody is misled.
 */
const GROUPS: Readonly<Record<number, string>> = {
  5: 'animal',
  6: 'thing',
  8: 'body',
  17: 'place',
  18: 'person',
  20: 'plant',
};
/** Words that say nothing of which thing is meant. */
const SMALL = new Set(
  'a an the of on in with and or its their some fresh freshly pulled small large big little tall old young ripe whole single one two three four five red green blue yellow white black'.split(
    ' ',
  ),
);

const FOOD = 13;

function groupOf(s: NounSense, seen: ReadonlyMap<string, unknown>): string | null {
  // Names of people and places, and slang, are not what anybody would have drawn.
  if (/^[A-Z]/.test(s.words[0]) || /^(informal|slang)/i.test(s.gloss)) return null;
  if (s.field === FOOD) return seen.has('animal') ? 'animal' : 'plant';
  return GROUPS[s.field] ?? null;
}

/** The one word that a wording hangs on; null when others beside it say what is meant. */
function bareWord(wording: string): string | null {
  const words = wording
    .toLowerCase()
    .split(/[^a-z'-]+/)
    .filter(w => w && !SMALL.has(w));
  return words.length === 1 ? words[0] : null;
}

/** Meanings of a word that would be drawn differently, the commonest of each kind; fewer than two when it is clear. */
export function meaningsOf(word: string): WordSense[] {
  const singular = word.endsWith('s') && sensesOf(word).length === 0 ? word.slice(0, -1) : word;
  const seen = new Map<string, WordSense>();
  for (const s of sensesOf(singular)) {
    const group = groupOf(s, seen);
    if (!group || seen.has(group)) continue;
    const other = s.words.find(w => w.toLowerCase() !== singular);
    seen.set(group, { hint: other ?? s.broader, gloss: s.gloss });
  }
  return [...seen.values()];
}

/** Subjects whose wording is one word with several meanings, of which none was chosen yet; those with a picture are clear by it. */
export function unclearWords(subjects: readonly Pick<Subject, 'id' | 'wording' | 'meaning' | 'picture'>[]): UnclearWord[] {
  return subjects.flatMap(s => {
    const word = s.picture || s.meaning ? null : bareWord(s.wording);
    const senses = word ? meaningsOf(word) : [];
    return word && senses.length > 1 ? [{ subjectId: s.id, word, senses }] : [];
  });
}
