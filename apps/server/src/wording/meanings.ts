import type { Subject, UnclearWord, WordSense } from '@zinc/contract';
import { isAdjective, isNoun, sensesOf, type NounSense } from './wordnet.ts';

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

const ACT = 4;
const FOOD = 13;

function groupOf(s: NounSense, seen: ReadonlyMap<string, unknown>): string | null {
  // Names of people and places, and slang, are not what anybody would have drawn.
  if (/^[A-Z]/.test(s.words[0]) || /^(informal|slang)/i.test(s.gloss)) return null;
  if (s.field === FOOD) return seen.has('animal') ? 'animal' : 'plant';
  // Of what people do, games are drawn by their things and players.
  if (s.field === ACT) return /\b(?:game|sport)\b/.test(s.gloss) ? 'game' : null;
  return GROUPS[s.field] ?? null;
}

/** Where the thing itself ends and what is said of its place or company begins. */
const LINKS =
  /[,;:(]|\b(?:on|in|at|by|with|without|beside|under|over|near|from|for|against|among|behind|before|after|of|and|or)\b/i;

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z'-]+/)
    .map(w => w.replace(/'s$/, ''))
    .filter(w => w && !SMALL.has(w));

const single = (word: string): string => (word.endsWith('s') && !isNoun(word) ? word.slice(0, -1) : word);

/** Of these there is always something: a sprig of mint is mint. */
const MEASURES =
  /^(?:an?|the|one|two|three|some)?\s*(?:[a-z-]+\s+)?(?:sprig|bunch|pot|sheaf|basket|bowl|row|heap|handful|head|pair|bed|tray|crate|box|sack|jar|leaf|leaves|slice|clove|bulb|tuft|patch)s?\s+of\s+/i;

/**
 * The word that a wording hangs on: the last of its first phrase, such as mint in “a sprig-green mint on a saucer”. Null when a noun before
 * it says which is meant (“seed packet”), or when both together are a word of their own (“watering can”).
 */
function headOf(wording: string): string | null {
  const [phrase] = wording
    .trim()
    .replace(MEASURES, '')
    .replace(/^(?:an?|the)\s+/i, '')
    .split(LINKS);
  const words = wordsOf(phrase);
  const head = words.at(-1);
  if (!head) return null;
  const before = words.at(-2);
  if (before && isNoun(`${before} ${single(head)}`)) return null;
  // Words that are both, such as “orange”, are taken for adjectives: they say how it looks, not which thing it is.
  if (words.slice(0, -1).some(w => isNoun(w) && !isAdjective(w))) return null;
  return head;
}

/**
 * Which of several meanings the other words of a wording speak for: the one whose gloss, words or wider meaning has any of them (a
 * simplified Lesk, 1986). False when none has, or several have.
 */
function isSettled(senses: readonly WordSense[], others: readonly string[]): boolean {
  const speaks = senses.filter(({ gloss, hint }) => {
    const told = new Set(wordsOf(`${gloss} ${hint}`).map(single));
    return others.some(w => w.length > 3 && told.has(single(w)));
  });
  return speaks.length === 1;
}

/** Meanings of a word that would be drawn differently, the commonest of each kind; fewer than two when it is clear. */
export function meaningsOf(word: string): WordSense[] {
  const singular = single(word);
  const seen = new Map<string, WordSense>();
  for (const s of sensesOf(singular)) {
    const group = groupOf(s, seen);
    if (!group || seen.has(group)) continue;
    const other = s.words.find(w => w.toLowerCase() !== singular);
    seen.set(group, { hint: other ?? s.broader, gloss: s.gloss });
  }
  return [...seen.values()];
}

/**
 * Subjects whose wording hangs on a word with several meanings, of which none was chosen yet and for none of which its other words speak;
 * those with a picture are clear by it.
 */
export function unclearWords(subjects: readonly Pick<Subject, 'id' | 'wording' | 'meaning' | 'picture'>[]): UnclearWord[] {
  return subjects.flatMap(s => {
    const word = s.picture || s.meaning ? null : headOf(s.wording);
    const senses = word ? meaningsOf(word) : [];
    if (!word || senses.length < 2) return [];
    const others = wordsOf(s.wording).filter(w => w !== word);
    return isSettled(senses, others) ? [] : [{ subjectId: s.id, word, senses }];
  });
}
