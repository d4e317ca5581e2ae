import type { WordStyleInput } from '@zinc/contract';
import { NO_TREATMENT, type Treatment } from '@zinc/core';

const words = (
  name: string,
  purpose: string,
  before: string[],
  after: string[],
  more: Partial<WordStyleInput> = {},
): WordStyleInput => ({ name, purpose, before, after, avoid: [], byDefault: false, grade: null, ...more });

/** Word styles of the demo house. */
export const DEMO_WORD_STYLES: readonly WordStyleInput[] = [
  words('Early talk', 'early talks, when it should not look decided', ['loose sketch of'], ['pencil', 'wobbly', 'few colours'], {
    grade: 8,
  }),
  words('Final print', 'final art for print', [], ['crisp', 'clean print', 'flat'], { grade: 7 }),
  words('Winter light', 'winter catalogue, cold mornings', [], ['cool', 'low contrast', 'pale'], { grade: 6 }),
  words('Market loud', 'posters read from across the square', [], ['vivid', 'high contrast', 'bold outline'], { grade: 8 }),
  words('Almanac page', 'small vignettes in running text', ['vignette of'], ['engraved', 'fine lines', 'black and white'], {
    avoid: ['colour'],
  }),
  words('Chalk board', 'menu boards', [], ['chalky', 'low key', 'broad strokes'], { grade: 5 }),
  words('Old seed packet', 'labels with an old feel', [], ['antique', 'spot print', 'misregistered'], { grade: 9 }),
  words('Washed out', 'backgrounds under lettering', [], ['wash', 'pale', 'no outline'], { avoid: ['shadow'] }),
  words('One ink', 'rubber stamps and till receipts', [], ['stamped', 'single colour', 'bare ground']),
  words('Noon in the hothouse', 'summer covers', [], ['thick paint', 'sunlit', 'vivid'], { grade: 7 }),
];

/** Treatments kept in the demo house. */
export const DEMO_TREATMENTS: readonly { name: string; settings: Treatment }[] = [
  { name: 'Tired roller', settings: { ...NO_TREATMENT, roller: 45 } },
  { name: 'Third printing', settings: { ...NO_TREATMENT, plate: 40, roller: 15 } },
  { name: 'Newsprint', settings: { ...NO_TREATMENT, dots: 90, dotGap: 7, soften: 5 } },
];
