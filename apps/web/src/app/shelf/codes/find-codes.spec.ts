import type { StyleCode } from '@zinc/contract';
import { findCodes, rowsOf, textOfCode, type CodeSlip } from './find-codes';

const code = (id: string, more: Partial<StyleCode>): StyleCode => ({
  id,
  kind: 'own',
  text: `amber-${id}-0001`,
  press: '',
  name: '',
  grade: null,
  note: '',
  tags: [],
  shelf: 'Just arrived',
  state: 'in use',
  revision: 1,
  addedAt: '',
  addedBy: '',
  ...more,
});
const codes = [
  code('a', { name: 'Frost on kale', grade: 7, tags: ['winter'] }),
  code('b', { note: 'good for posters, winter too', grade: 3 }),
  code('c', { shelf: 'Market', grade: 9 }),
];
const slip: CodeSlip = { words: '', grade: null, shelf: '', order: 'newest' };
const ids = (found: StyleCode[]): string => found.map(c => c.id).join('');

describe('finding codes', () => {
  it('keeps to those that fit the words, in the order asked for', () => {
    expect(ids(findCodes(codes, slip, new Set(['a', 'b']), null))).toBe('ba');
    expect(ids(findCodes(codes, slip, new Set(), null))).toBe('');
    expect(textOfCode(codes[0])).toContain('amber a 0001');
    expect(textOfCode(codes[0])).toContain('winter');
  });
  it('goes by grade and shelf, and orders', () => {
    expect(ids(findCodes(codes, { ...slip, grade: 4, order: 'grade' }, null, null))).toBe('ca');
    expect(ids(findCodes(codes, { ...slip, shelf: 'Market' }, null, null))).toBe('c');
    expect(ids(findCodes(codes, slip, null, null))).toBe('cba');
  });
  it('by nearness shows what is measured, nearest first', () => {
    const distances = new Map([
      ['a', 0.5],
      ['c', 0.2],
    ]);
    expect(ids(findCodes(codes, slip, null, distances))).toBe('ca');
  });
  it('lays things out in rows', () => {
    expect(rowsOf([1, 2, 3, 4, 5], 2)).toEqual([[1, 2], [3, 4], [5]]);
    expect(rowsOf([], 3)).toEqual([]);
  });
});
