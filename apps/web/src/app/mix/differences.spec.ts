import type { LookSource } from '@zinc/contract';
import { differencesOf } from './differences';
import { EMPTY_DRAFT, type Draft } from './draft';

const source = (id: string, parts: number, more: Partial<LookSource> = {}): LookSource => ({
  kind: 'reference',
  id,
  name: `The ${id}`,
  sha256: id,
  parts,
  facets: ['colour', 'line'],
  ...more,
});
const draft = (...sources: LookSource[]): Draft => ({ ...EMPTY_DRAFT, sources });

describe('what differs between two versions', () => {
  it('is told setting by setting, and nothing else', () => {
    const one = { ...draft(source('a', 3), source('b', 1)), strength: 80, words: ['flat'] };
    const other = { ...draft(source('a', 3), source('c', 3, { facets: ['line'] })), strength: 95, words: ['flat'] };
    expect(differencesOf(one, other)).toEqual([
      { what: 'The a', one: '3 parts, 75 %, gives colour, line', other: '3 parts, 50 %, gives colour, line' },
      { what: 'The b', one: '1 part, 25 %, gives colour, line', other: 'not in it' },
      { what: 'The c', one: 'not in it', other: '3 parts, 50 %, gives line' },
      { what: 'Strength', one: '80 %', other: '95 %' },
    ]);
    expect(differencesOf(one, one)).toEqual([]);
  });

  it('sees another picture, other colours and other phrases under the same name', () => {
    expect(differencesOf(draft(source('a', 1)), draft(source('a', 1, { sha256: 'x' })))[0].other).toBe('another picture');
    const own = (colours: string[]): LookSource => source('own', 1, { kind: 'palette', sha256: null, colours });
    expect(differencesOf(draft(own(['#111111'])), draft(own(['#222222'])))[0]).toEqual({
      what: 'The own',
      one: '#111111',
      other: '#222222',
    });
  });
});
