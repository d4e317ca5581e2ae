import type { Coverage, Covered } from '@zinc/contract';
import { daysLeft, gapOf, rowsOf } from './gaps';

const cell = (over: Partial<Covered>): Covered => ({
  ...{ subjectId: 's', formatId: 'f', made: 3, kept: 0, disputed: 0, undecided: 0, best: null },
  ...over,
});

describe('Gaps of a campaign', () => {
  it('tells the most pressing first', () => {
    expect(gapOf(undefined)).toBe('none');
    expect(gapOf(cell({ kept: 1 }))).toBe('kept');
    expect(gapOf(cell({ kept: 1, disputed: 1 }))).toBe('disputed');
    expect(gapOf(cell({ undecided: 2 }))).toBe('undecided');
    expect(gapOf(cell({}))).toBe('dropped');
    expect(gapOf(cell({ made: 0 }))).toBe('missing');
  });

  it('lays subjects by formats, and what was never asked for leaves no row open', () => {
    const rows = rowsOf({
      subjects: [
        { id: 'a', label: 'Leek' },
        { id: 'b', label: 'Wren' },
      ],
      formats: [{ id: 'f' }, { id: 'g' }],
      cells: [cell({ subjectId: 'a', kept: 1 }), cell({ subjectId: 'b', kept: 1 }), cell({ subjectId: 'b', formatId: 'g' })],
    } as unknown as Coverage);
    expect(rows.map(r => [r.label, r.open, r.cells.map(c => c.gap)])).toEqual([
      ['Leek', false, ['kept', 'none']],
      ['Wren', true, ['kept', 'dropped']],
    ]);
  });

  it('counts days by the calendar', () => {
    const late = new Date(2026, 10, 25, 23, 30);
    expect([daysLeft('2026-11-25', late), daysLeft('2026-11-26', late), daysLeft('2026-11-20', late)]).toEqual([0, 1, -5]);
  });
});
