import { isKnownColour } from '../lexicon/avoid.ts';
import { isStyleWord } from '../lexicon/applyWords.ts';
import type { AskChange, AskReading } from './types.ts';

/** Words for comparing, and the style word each comes to. */
const COMPARED: Readonly<Record<string, string>> = {
  ...{ lighter: 'light', brighter: 'bright', darker: 'dark', moodier: 'moody', warmer: 'warm', cooler: 'cool', colder: 'cool' },
  ...{
    softer: 'soft',
    sharper: 'sharp',
    crisper: 'crisp',
    rougher: 'rough',
    cleaner: 'clean',
    smoother: 'smooth',
    flatter: 'flat',
  },
  ...{ simpler: 'simplified', plainer: 'simplified', looser: 'loose', tighter: 'tight', finer: 'fine', coarser: 'coarse' },
  ...{
    paler: 'pale',
    duller: 'muted',
    quieter: 'quiet',
    richer: 'rich',
    deeper: 'deep',
    grainier: 'grainy',
    drier: 'dry',
    wetter: 'wet',
  },
};

/** What more and less of a thing come to. */
const MORE: Readonly<Record<string, readonly [more: string, less: string | null]>> = {
  detail: ['detailed', 'simplified'],
  details: ['detailed', 'simplified'],
  contrast: ['high contrast', 'low contrast'],
  colour: ['vivid', 'muted'],
  texture: ['rough', 'smooth'],
  grain: ['grainy', 'smooth'],
  saturation: ['vivid', 'muted'],
  line: ['outlined', 'no outline'],
  lines: ['outlined', 'no outline'],
  outline: ['bold outline', 'no outline'],
  outlines: ['bold outline', 'no outline'],
  hatching: ['hatched', null],
  brushwork: ['brushy', 'flat'],
  dots: ['dotted', 'solid'],
  shadow: ['layered', 'shadowless'],
  shadows: ['layered', 'shadowless'],
  light: ['light', 'dark'],
};

const GROUND = '(?:ground|background|backdrop)';
const STEP = { strength: 15, fidelity: 20, ground: 1, size: 1.2, place: 0.08, more: 1.8, less: 0.5 } as const;
const SIDES: Readonly<Record<string, readonly [dx: number, dy: number]>> = {
  left: [-1, 0],
  right: [1, 0],
  up: [0, -1],
  higher: [0, -1],
  down: [0, 1],
  lower: [0, 1],
};

type Rule = readonly [pattern: RegExp, read: (m: RegExpMatchArray) => AskChange | null];

const groundTo = (word: string): AskChange | null => {
  if (/^(lighter|paler|brighter)$/.test(word)) return { kind: 'ground', to: STEP.ground };
  if (/^(darker|deeper)$/.test(word)) return { kind: 'ground', to: -STEP.ground };
  if (/^(plain|bare|empty|plainer)$/.test(word)) return { kind: 'style', word: 'bare ground' };
  return isKnownColour(word) || word === 'white' ? { kind: 'ground', to: word } : null;
};

const RULES: readonly Rule[] = [
  [new RegExp(`^(?:make )?(?:the )?${GROUND} (?:is |be )?(?:a (?:bit|little) |much )?([a-z]+)$`), m => groundTo(m[1])],
  [new RegExp(`^(?:a |an )?([a-z]+) ${GROUND}$`), m => groundTo(m[1])],
  [
    /^(?:no|without|remove|avoid|leave out|take out|drop|not)(?: the| any| a| an)? (.+)$/,
    m => ({ kind: 'avoid', word: /^(text|letters|letter|words|writing)$/.test(m[1]) ? 'lettering' : m[1] }),
  ],
  [
    /^(?:look |style )?strength (?:at |of |to )?(\d{1,3}) ?%?$/,
    m => (Number(m[1]) <= 100 ? { kind: 'strength', to: Number(m[1]) } : null),
  ],
  [
    /^(?:a )?stronger (?:look|style)$|^more of the (?:look|style)$|^(?:the )?(?:look|style) stronger$/,
    () => ({ kind: 'strength', by: STEP.strength }),
  ],
  [
    /^(?:a )?weaker (?:look|style)$|^less of the (?:look|style)$|^(?:the )?(?:look|style) weaker$/,
    () => ({ kind: 'strength', by: -STEP.strength }),
  ],
  [
    /^(?:stay |keep |be )?(?:closer|nearer|truer) to the (?:photo|photograph|original|picture)$|^keep more of the (?:photo|photograph|original|picture)$/,
    () => ({ kind: 'fidelity', by: STEP.fidelity }),
  ],
  [
    /^(?:freer|further) from the (?:photo|photograph|original|picture)$|^keep less of the (?:photo|photograph|original|picture)$/,
    () => ({ kind: 'fidelity', by: -STEP.fidelity }),
  ],
  [/^(?:make )?(?:it |the .+ )?(?:a (?:bit|little) )?(?:larger|bigger)$/, () => ({ kind: 'size', factor: STEP.size })],
  [/^(?:make )?(?:it |the .+ )?(?:a (?:bit|little) )?smaller$/, () => ({ kind: 'size', factor: 1 / STEP.size })],
  [
    /^(?:move |put )?(?:it |the .+ )?(?:further |more |a (?:bit|little) )?(?:to the )?(left|right|up|down|higher|lower)$/,
    m => ({ kind: 'place', dx: SIDES[m[1]][0] * STEP.place, dy: SIDES[m[1]][1] * STEP.place }),
  ],
  [
    /^(?:(much|a lot|a (?:bit|little)) )?(more|less|fewer)(?: of the)? ([a-z -]+)$/,
    m => {
      const more = m[2] === 'more';
      const word = MORE[m[3]]?.[more ? 0 : 1];
      if (word) return { kind: 'style', word };
      if (isKnownColour(m[3])) return { kind: 'area', colour: m[3], factor: more ? STEP.more : STEP.less };
      return more && isStyleWord(m[3]) ? { kind: 'style', word: m[3] } : null;
    },
  ],
  [
    /^(?:make )?(?:it |everything |all )?(?:a (?:bit|little) |much )?([a-z]+)$/,
    m => (COMPARED[m[1]] ? { kind: 'style', word: COMPARED[m[1]] } : null),
  ],
];

/**
 * Reads what a person asks to be changed, phrase by phrase (parted by commas, stops, “and”, “but”). What no rule knows is returned as it
 * was written, never swallowed; a press may know it still.
 */
export function readAsk(words: string): AskReading {
  const phrases = words
    .split(/[,;.\n]|\band\b|\bbut\b/i)
    .map(p =>
      p
        .trim()
        .replace(/^(?:please|also|then)\s+/i, '')
        .replace(/\s+/g, ' '),
    )
    .filter(p => p !== '');
  const changes: AskChange[] = [];
  const left: string[] = [];
  for (const phrase of phrases) {
    const change = readPhrase(phrase.toLowerCase());
    if (change) changes.push(change);
    else left.push(phrase);
  }
  return { changes, left };
}

function readPhrase(phrase: string): AskChange | null {
  for (const [pattern, read] of RULES) {
    const hit = phrase.match(pattern);
    const change = hit ? read(hit) : null;
    if (change) return change;
  }
  return isStyleWord(phrase) ? { kind: 'style', word: phrase } : null;
}
