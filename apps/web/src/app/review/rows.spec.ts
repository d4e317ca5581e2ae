import type { CellView, TakeView, Verdict } from '@zinc/contract';
import { rowsOfGroups, rowsOfSubjects, type Grounds } from './rows';

let count = 0;
function take(verdict: Verdict | null, number = 1): TakeView {
  const proof = { id: `p${count++}`, decision: verdict && { verdict } };
  return { id: `t${count}`, take: number, proof } as unknown as TakeView;
}
const cell = (subject: string, column: number, takes: TakeView[]): CellView =>
  ({ key: `${subject}/${column}`, column, subject: { id: subject, label: `The ${subject}` }, takes }) as unknown as CellView;
const row = (subject: string, ...cells: (CellView | null)[]) => ({ subject: { id: subject, label: `The ${subject}` }, cells });

const grounds = (more: Partial<Grounds> = {}): Grounds => ({
  columns: [
    { id: 0, name: 'Slate Morning', version: 1, detail: '' },
    { id: 1, name: 'Slate Morning', version: 1, detail: '60 %' },
  ],
  tags: new Map(),
  stood: new Map(),
  drift: () => null,
  ...more,
});

describe('The rows of a set', () => {
  it('are its subjects, with a place for what is still to be made and for cells that are not there', () => {
    const waiting = { id: 'w', take: 2, proof: null } as unknown as TakeView;
    const rows = rowsOfSubjects([
      row('bee', cell('bee', 0, [take('keep'), waiting]), null),
      row('hive', cell('hive', 0, [take('drop')]), cell('hive', 1, [])),
    ]);
    expect(rows.map(r => [r.title, r.under, r.bare])).toEqual([
      ['The bee', '1 kept', false],
      ['The hive', 'nothing kept', true],
    ]);
    expect(rows[0].cells.map(c => c.spots.length)).toEqual([2, 0]);
  });

  it('are groups by look that go on in further rows, and hold each proof once', () => {
    const takes = [1, 2, 3, 4, 5].map(n => take(null, n));
    const other = [take('keep')];
    const rows = rowsOfGroups([row('bee', cell('bee', 0, takes), cell('bee', 1, other))], 'look', 2, grounds());
    expect(rows.map(r => [r.title, r.goesOn, r.cells[0].spots.length])).toEqual([
      ['Slate Morning', false, 2],
      ['Slate Morning', true, 2],
      ['Slate Morning', true, 1],
      ['60 %, Slate Morning', false, 1],
    ]);
    expect(rows[0].under).toBe('5 proofs, 0 kept');
    expect(rows[3].under).toBe('1 proof, 1 kept');
    const laid = rows.flatMap(r => r.cells[0].spots.map(s => s.take.id));
    expect(laid).toEqual([...takes, ...other].map(t => t.id));
    expect(new Set(rows.map(r => r.id)).size).toBe(rows.length);
  });

  it('are groups by tag, what has none last', () => {
    const set = ['fern', 'bee', 'spade'].map(s => row(s, cell(s, 0, [take(null)])));
    const tags = new Map([
      ['bee', 'insect'],
      ['spade', 'tool'],
    ]);
    expect(rowsOfGroups(set, 'tag', 9, grounds({ tags })).map(r => r.title)).toEqual(['insect', 'tool', 'Without a tag']);
  });

  it('are groups by decision as they stood when grouped, though judged since', () => {
    const [open, kept] = [take('keep'), take('keep')];
    const set = [row('bee', cell('bee', 0, [kept, open]))];
    const stood = new Map<string, Verdict | null>([[kept.proof!.id, 'keep']]);
    const rows = rowsOfGroups(set, 'decision', 9, grounds({ stood }));
    expect(rows.map(r => [r.title, r.cells[0].spots.map(s => s.take.id)])).toEqual([
      ['Without a decision', [open.id]],
      ['Kept', [kept.id]],
    ]);
  });

  it('are steps of drift, the farthest first, also within a step', () => {
    const figures = [0.3, 0.24, 0.29, 0.71, null];
    const takes = figures.map(() => take(null));
    const drift = (t: TakeView): number | null => figures[takes.indexOf(t)];
    const rows = rowsOfGroups([row('bee', cell('bee', 0, takes))], 'drift', 9, grounds({ drift }));
    expect(rows.map(r => [r.title, r.cells[0].spots.map(s => drift(s.take))])).toEqual([
      ['Drift 0.7 to 0.8', [0.71]],
      ['Drift 0.3 to 0.4', [0.3]],
      ['Drift 0.2 to 0.3', [0.29, 0.24]],
      ['Not measured', [null]],
    ]);
  });
});
