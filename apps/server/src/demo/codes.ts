import { FAMILIES, decodeStyle, randomCode } from '@zinc/core';
import { randomFor } from '@zinc/core/number/random';
import type { styleCodes } from '../shelf/codes/tables.ts';

type DemoCode = Pick<typeof styleCodes.$inferInsert, 'kind' | 'text' | 'press' | 'name' | 'grade' | 'note' | 'tags' | 'shelf'>;

/** How many: of the whole demo house, and of the small one. */
const COUNTS = { full: { own: 376, foreign: 24 }, small: { own: 28, foreign: 4 } } as const;
const SHELVES = ['Years of finds', 'Market Saturdays', 'Winter catalogue', 'Odile’s pile', 'To look at again'];
const TAGS = ['winter', 'posters', 'thumbnails', 'labels', 'stall banner', 'quiet', 'loud', 'two inks', 'seedlings', 'roots'];
const FIRST = ['Frosted', 'Late', 'Barn', 'Orchard', 'Salt', 'Lantern', 'Early', 'Kettle', 'Rain', 'Chalk', 'Hay', 'Tin'];
const SECOND = ['morning', 'ledger', 'furrow', 'window', 'packet', 'row', 'crate', 'labels', 'almanac', 'bench', 'stall', 'plot'];
const NOTES = [
  'Good for roots; leaves go muddy.',
  'Holds at thumbnail size.',
  'Too loud beside lettering.',
  'Try with the brand palette.',
  'Kept from the spring pitch.',
  'Good for anything round.',
  'Nice paper, weak darks.',
];

/** Years of collected style codes: most of them own ones of every medium, some of a press that the co-operative once used. */
export function demoCodes(size: keyof typeof COUNTS): DemoCode[] {
  const count = COUNTS[size];
  const random = randomFor(1907, 'demo codes');
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const about = (): Pick<DemoCode, 'name' | 'grade' | 'note' | 'tags' | 'shelf'> => ({
    name: random() < 0.4 ? `${pick(FIRST)} ${pick(SECOND)}` : '',
    grade: random() < 0.75 ? Math.min(9, Math.floor(2 + random() * 5 + random() * 4)) : null,
    note: random() < 0.35 ? pick(NOTES) : '',
    tags: [...new Set(Array.from({ length: Math.floor(random() * 3) }, () => pick(TAGS)))],
    shelf: pick(SHELVES),
  });
  const texts = new Set<string>();
  while (texts.size < count.own) texts.add(randomCode(random));
  const own = [...texts].map((text): DemoCode => {
    const known = about();
    return { kind: 'own', text, press: '', ...known, tags: [FAMILIES[decodeStyle(text).family], ...known.tags!] };
  });
  const foreign = Array.from({ length: count.foreign }, (_, i): DemoCode => ({
    kind: 'foreign',
    text: `tl/${(7000 + i * 37).toString(36)}/${Math.floor(random() * 900 + 100)}`,
    press: 'Tallow press',
    ...about(),
  }));
  // Found over the years, they stand among the others.
  return [...own, ...foreign]
    .map(code => ({ code, at: random() }))
    .sort((p, q) => p.at - q.at)
    .map(({ code }) => code);
}
