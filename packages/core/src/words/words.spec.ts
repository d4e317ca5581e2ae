import fc from 'fast-check';
import { fillName, plainName, uniqueNames } from './fileNames.ts';
import { readSubjectList } from './subjectList.ts';
import { checkTemplate, fillTemplate, joinParts, slotsOf, type Slot } from './template.ts';

const light: Slot = { name: 'light', kind: 'choice', choices: ['soft', 'low'], default: 'soft' };

describe('templates', () => {
  it('fill slots and remember where each word came from', () => {
    const parts = fillTemplate('A {{subject}} in {{light}} light', [light], { subject: 'ripe pumpkin', light: 'low' });
    expect(parts.map(p => p.from)).toEqual(['template', 'subject', 'template', 'override', 'template']);
    expect(joinParts(parts)).toBe('A ripe pumpkin in low light');
  });
  it('take defaults, and leave no stray commas or spaces', () => {
    expect(joinParts(fillTemplate('A {{subject}}, {{light}}, on chalk', [light], { subject: 'leek' }))).toBe(
      'A leek, soft, on chalk',
    );
    expect(
      joinParts(fillTemplate('A {{subject}}, {{note}}, on  chalk', [{ name: 'note', kind: 'text' }], { subject: 'leek' })),
    ).toBe('A leek, on chalk');
  });
  it('never change words: no escaping, no tags inside fills', () => {
    fc.assert(
      fc.property(fc.string(), words => {
        const parts = fillTemplate('{{subject}}', [], { subject: words });
        return parts.length === 0 ? words === '' : parts[0].words === words;
      }),
    );
  });
  it('list slots in order, once each', () => expect(slotsOf('{{b}} {{a}} {{b}}')).toEqual(['b', 'a']));
  it('name every fault', () => {
    const codes = (text: string, slots: Slot[] = []): string[] => checkTemplate(text, slots).map(f => f.code);
    expect(codes('   ')).toEqual(['empty']);
    expect(codes('A {{subject')).toEqual(['unclosed']);
    expect(codes('A {{#subject}}x{{/subject}}')).toEqual(['unclosed']);
    expect(codes('A {{subjct}}')).toEqual(['unknownSlot', 'noSubject']);
    expect(codes('A {{subject}}', [light])).toEqual(['unusedSlot']);
    expect(codes('A {{subject}} {{light}}', [light, light])).toEqual(['duplicateSlot']);
    expect(codes('A {{subject}} in {{light}}', [light])).toEqual([]);
  });
});

describe('pasted subjects', () => {
  it('read label and wording by semicolon or tab, and skip empty lines', () => {
    const { subjects, faults } = readSubjectList('Wren; a wren on a spade\r\n\nLeek\tyoung leeks\nKale');
    expect(faults).toEqual([]);
    expect(subjects.map(s => [s.line, s.label, s.wording])).toEqual([
      [1, 'Wren', 'a wren on a spade'],
      [3, 'Leek', 'young leeks'],
      [4, 'Kale', 'kale'],
    ]);
  });
  it('tell doubles in the list and in the house, by line', () => {
    const { faults } = readSubjectList('Leek\nleek; other\nRadish\n; no label', ['radish']);
    expect(faults.map(f => f.line)).toEqual([2, 3, 4]);
    expect(faults[0].message).toContain('line 1');
  });
  it('refuse labels and wordings that are too long', () => {
    expect(readSubjectList('x'.repeat(121)).faults[0].message).toContain('121');
    expect(readSubjectList(`a; ${'x'.repeat(501)}`).faults[0].message).toContain('501');
  });
});

describe('file names', () => {
  const facts = {
    run: 'First Frost',
    subject: 'Globe artichoke',
    look: 'Block & Brine',
    take: 2,
    seed: 7,
    format: 'Square 768',
    grade: null,
  };
  it('fill the rule with plain letters', () => {
    expect(fillName('{{subject}}_{{ look }} {{take}}', facts)).toEqual({ name: 'globe-artichoke-block-brine-2' });
    expect(fillName('{{grade}}', facts)).toEqual({ name: 'untitled' });
  });
  it('name an unknown tag', () =>
    expect(fillName('{{colour}}', facts)).toEqual({ fault: jasmine.stringContaining('{{colour}}') as unknown as string }));
  it('are safe whatever was typed', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme' }),
        text => /^[a-z0-9]+(-[a-z0-9]+)*$/.test(plainName(text).replace(/-+$/, '')) && plainName(text).length <= 100,
      ),
    );
    expect(plainName('../../etc/Crème brûlée')).toBe('etc-creme-brulee');
  });
  it('are never used twice', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'a-2', 'b', 'a-3')), names => new Set(uniqueNames(names)).size === names.length),
    );
    expect(uniqueNames(['a', 'a', 'b', 'a'])).toEqual(['a', 'a-2', 'b', 'a-3']);
  });
});
