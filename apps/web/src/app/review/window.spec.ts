import { rowsInSight, scrollToRow } from './window';

describe('Rows of a long set', () => {
  it('are laid out in sight and a little beyond, and keep their room', () => {
    const w = rowsInSight(500, 100, 20_000, 600);
    expect(w).toEqual({ first: 197, end: 209, above: 19_700, below: 29_100 });
    expect(w.above + w.below + (w.end - w.first) * 100).toBe(50_000);
  });
  it('begin and end with the set', () => {
    expect(rowsInSight(4, 100, 0, 600)).toEqual({ first: 0, end: 4, above: 0, below: 0 });
    expect(rowsInSight(0, 100, 0, 600)).toEqual({ first: 0, end: 0, above: 0, below: 0 });
    // A filter may leave fewer rows than were scrolled past.
    expect(rowsInSight(5, 100, 9000, 600)).toEqual({ first: 5, end: 5, above: 500, below: 0 });
  });
  it('are scrolled to no farther than needed', () => {
    expect(scrollToRow(5, 100, 0, 1000, 40)).toBe(0);
    expect(scrollToRow(12, 100, 0, 1000, 40)).toBe(340);
    expect(scrollToRow(2, 100, 500, 1000, 40)).toBe(200);
  });
});
