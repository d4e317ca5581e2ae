import type { TextPart } from './template.ts';

/** Words that may stand in a text as often as they like. */
const SMALL = new Set(
  'about above across after against along among around another before behind below beneath beside between beyond down each from have into like more most much near only onto other over side some such than that their them then there these they this those through under upon very what when where which while with within without'.split(
    ' ',
  ),
);
const LEAST_LETTERS = 4;

/** The words of a text in their order, in small letters. */
export const wordsIn = (text: string): string[] => text.toLowerCase().match(/[a-z][a-z'-]*/g) ?? [];

/** Whether a phrase stands in a text as whole words. */
export function stands(phrase: string, text: string): boolean {
  const wanted = wordsIn(phrase);
  return wanted.length > 0 && ` ${wordsIn(text).join(' ')} `.includes(` ${wanted.join(' ')} `);
}

/** Words that a text says more than once, small ones aside, each with where it comes from. */
export function repeatedWords(parts: readonly TextPart[]): { word: string; from: TextPart['from'][] }[] {
  const seen = new Map<string, TextPart['from'][]>();
  for (const { words, from } of parts)
    for (const word of wordsIn(words))
      if (word.length >= LEAST_LETTERS && !SMALL.has(word)) seen.set(word, [...(seen.get(word) ?? []), from]);
  return [...seen].filter(([, from]) => from.length > 1).map(([word, from]) => ({ word, from: [...new Set(from)] }));
}

/** A stretch of a final text that something is to be said of. */
export interface MarkedPart extends TextPart {
  /** What is wrong with it; absent where nothing is. */
  why?: string;
}

/** Cuts the parts of a text so that every word or phrase of `marks` stands by itself, with what is to be said of it. */
export function markWords(parts: readonly TextPart[], marks: readonly { word: string; why: string }[]): MarkedPart[] {
  const phrases = marks.filter(m => wordsIn(m.word).length > 0);
  if (phrases.length === 0) return [...parts];
  const pattern = phrases
    .map(m => wordsIn(m.word).join("[^a-z'-]+"))
    .sort((p, q) => q.length - p.length)
    .join('|');
  const whole = new RegExp(`(?<![a-z'-])(?:${pattern})(?![a-z'-])`, 'gi');
  return parts.flatMap(({ from, words }): MarkedPart[] => {
    const out: MarkedPart[] = [];
    let at = 0;
    for (const found of words.matchAll(whole)) {
      if (found.index > at) out.push({ from, words: words.slice(at, found.index) });
      const said = wordsIn(found[0]).join(' ');
      const why = phrases.filter(m => wordsIn(m.word).join(' ') === said).map(m => m.why);
      out.push({ from, words: found[0], why: why.join('; ') });
      at = found.index + found[0].length;
    }
    if (at < words.length) out.push({ from, words: words.slice(at) });
    return out;
  });
}
