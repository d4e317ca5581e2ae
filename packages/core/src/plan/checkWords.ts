import { labDistance2, labOfHex } from '../colour/oklab.ts';
import { avoidedColours } from '../lexicon/avoid.ts';
import { repeatedWords, stands, wordsIn } from '../words/marks.ts';
import type { TextPart } from '../words/template.ts';
import type { Finding, PreflightFacts } from './preflight.ts';
import type { Cell } from './types.ts';

/** A colour word is at odds with a palette whose nearest colour is this far from all it may mean, in OKLab. */
const FAR = 0.2;

/** What the words of a plan say twice, against each other, or against the palette. */
export function checkWords(live: readonly Cell[], facts: PreflightFacts): Finding[] {
  return [...meanings(live, facts), ...contradictions(live), ...repeated(live), ...colours(live), ...carried(live, facts)];
}

function meanings(live: readonly Cell[], facts: PreflightFacts): Finding[] {
  return facts.subjects.flatMap((s): Finding[] => {
    const cells = live.filter(c => c.subjectId === s.id).map(c => c.key);
    if (!s.unclear || s.picture || cells.length === 0) return [];
    const { word, senses } = s.unclear;
    return [
      {
        code: 'twoMeanings',
        severity: 'note',
        message: `${s.label}: “${word}” means several things: ${senses.slice(0, 3).join('; ')}. A press may take the wrong one.`,
        cells,
        mend: { action: 'openSubject', label: 'Choose the meaning', subjectId: s.id },
      },
    ];
  });
}

function contradictions(live: readonly Cell[]): Finding[] {
  const found = new Map<string, Cell[]>();
  for (const c of live) for (const word of c.avoid) if (stands(word, c.text)) found.set(word, [...(found.get(word) ?? []), c]);
  return [...found].map(([word, cells]): Finding => {
    const from = new Set(cells.flatMap(c => c.parts.filter(p => stands(word, p.words)).map(p => p.from)));
    const where = from.size === 1 && from.has('subject') ? 'the subject' : from.has('override') ? 'the note' : 'the text';
    const own = where === 'the subject';
    return {
      code: 'contradiction',
      severity: 'note',
      message: `“${word}” is to be avoided, and stands in ${where} all the same, in ${cells.length === 1 ? 'one cell' : `${cells.length} cells`}.`,
      cells: cells.map(c => c.key),
      words: [word],
      mend: own
        ? { action: 'openSubject', label: 'Change the subject', subjectId: cells[0].subjectId }
        : { action: 'openWording', label: 'Mend the wording' },
    };
  });
}

const SAID = new Set<TextPart['from']>(['template', 'override', 'anchor']);
const SOURCE: Readonly<Record<TextPart['from'], string>> = {
  template: 'the template',
  subject: 'the subject',
  look: 'the look',
  override: 'the note or a fill',
  anchor: 'the words of the anchor',
  ask: 'what was asked',
  brand: 'the brand',
};

/** Words that a text says twice: the press takes them for twice as weighty. */
function repeated(live: readonly Cell[]): Finding[] {
  const found = new Map<string, { from: Set<TextPart['from']>; cells: string[] }>();
  for (const c of live)
    for (const { word, from } of repeatedWords(c.parts)) {
      const known = found.get(word) ?? { from: new Set(), cells: [] };
      for (const f of from) known.from.add(f);
      known.cells.push(c.key);
      found.set(word, known);
    }
  return [...found].map(([word, { from, cells }]) => ({
    code: 'saidTwice' as const,
    severity: 'note' as const,
    message: `“${word}” is said twice, in ${[...from].map(f => SOURCE[f]).join(' and ')}, in ${cells.length === 1 ? 'one cell' : `${cells.length} cells`}. Some presses weigh a repeated word double.`,
    cells,
    words: [word],
    mend: { action: 'openWording' as const, label: 'Mend the wording' },
  }));
}

/** Style words that the references of a look give by themselves. */
function carried(live: readonly Cell[], facts: PreflightFacts): Finding[] {
  return (facts.looks ?? []).flatMap((look): Finding[] => {
    const words = look.carried ?? [];
    const cells = live.filter(c => c.lookId === look.id).map(c => c.key);
    if (words.length === 0 || cells.length === 0) return [];
    return [
      {
        code: 'alreadyCarried',
        severity: 'note',
        message: `${look.name} says ${words.map(w => `“${w}”`).join(', ')}, which its sources give already. Some presses weigh it double.`,
        cells,
        words,
        mend: { action: 'openLook', label: 'Look at its words', lookId: look.id },
      },
    ];
  });
}

/** Colour words of the template and the note that the palette has nothing for; a subject's own colour words are its own matter. */
function colours(live: readonly Cell[]): Finding[] {
  const found = new Map<string, { word: string; look: string; cells: Cell[] }>();
  for (const c of live) {
    const { palette } = c.tickets[0].look.style;
    if (palette.length === 0) continue;
    const said = c.parts.filter(p => SAID.has(p.from)).flatMap(p => wordsIn(p.words));
    for (const word of new Set(said)) {
      const meant = avoidedColours([word]).map(a => labOfHex(a.hex));
      if (meant.length === 0 || meant.some(m => palette.some(q => labDistance2(m, q) < FAR * FAR))) continue;
      const key = `${word}/${c.lookId}`;
      const known = found.get(key) ?? { word, look: c.tickets[0].look.name, cells: [] };
      known.cells.push(c);
      found.set(key, known);
    }
  }
  return [...found.values()].map(({ word, look, cells }) => ({
    code: 'colourNotThere' as const,
    severity: 'note' as const,
    message: `The words ask for “${word}”, but the palette of ${look} has none of it. The palette wins.`,
    cells: cells.map(c => c.key),
    words: [word],
    mend: { action: 'openWording' as const, label: 'Mend the wording' },
  }));
}
