import type { CellView, TakeView, Verdict } from '@zinc/contract';
import type { RunColumn } from '../runs/run-feed';

/** How the set is laid out; `subject` is the grid of subjects by looks, the others are groups of proofs, one after another. */
export const GROUPINGS = ['subject', 'look', 'tag', 'decision', 'drift'] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** A place in a row: a take with the cell it is of. */
export interface Spot {
  cell: CellView;
  take: TakeView;
}

/** A row as it is laid out; a group that does not fit in one goes on in the next, which has no title of its own. */
export interface SetRow {
  id: string;
  title: string;
  /** What stands under the title. */
  under: string;
  /** Nothing of it is kept: told in red, in the grid of subjects. */
  bare: boolean;
  goesOn: boolean;
  cells: { key: string; spots: Spot[] }[];
}

export interface SubjectRow {
  subject: { id: string; label: string };
  cells: (CellView | null)[];
}

/** What groups are made from, beside the proofs themselves. */
export interface Grounds {
  columns: readonly RunColumn[];
  /** The first tag of each subject that has one. */
  tags: ReadonlyMap<string, string>;
  /** The verdicts as they stood when the set was grouped, so that nothing moves away under the hand. */
  stood: ReadonlyMap<string, Verdict | null>;
  drift(take: TakeView): number | null;
}

const keptOf = (spots: readonly Spot[]): number => spots.filter(s => s.take.proof?.decision?.verdict === 'keep').length;

/** Subjects down, looks across. */
export function rowsOfSubjects(rows: readonly SubjectRow[]): SetRow[] {
  return rows.map(({ subject, cells }, r) => {
    const laid = cells.map((cell, c) => ({
      key: cell?.key ?? `${r}/${c}`,
      spots: (cell?.takes ?? []).map(take => ({ cell: cell!, take })),
    }));
    const kept = keptOf(laid.flatMap(c => c.spots));
    return {
      id: `${r}/${subject.id}`,
      title: subject.label,
      under: kept === 0 ? 'nothing kept' : `${kept} kept`,
      bare: kept === 0,
      goesOn: false,
      cells: laid,
    };
  });
}

const DECISIONS: [Verdict | null, string][] = [
  [null, 'Without a decision'],
  ['hold', 'Held'],
  ['keepOnceMended', 'Kept once mended'],
  ['keep', 'Kept'],
  ['drop', 'Dropped'],
];

/** Drift is told apart in steps of this much. */
const STEP = 0.1;

/** Where a proof belongs: a title, and a number that groups are ordered by. */
function groupOf({ cell, take }: Spot, by: Exclude<Grouping, 'subject'>, grounds: Grounds): { title: string; order: number } {
  if (by === 'look') {
    const at = grounds.columns.findIndex(c => c.id === cell.column);
    const column = grounds.columns[at];
    return { title: column ? [column.detail, column.name].filter(Boolean).join(', ') : '', order: at };
  }
  if (by === 'tag') {
    const tag = grounds.tags.get(cell.subject.id);
    return tag ? { title: tag, order: 0 } : { title: 'Without a tag', order: 1 };
  }
  if (by === 'decision') {
    const at = DECISIONS.findIndex(([v]) => v === (grounds.stood.get(take.proof!.id) ?? null));
    return { title: DECISIONS[at][1], order: at };
  }
  const drift = grounds.drift(take);
  if (drift === null) return { title: 'Not measured', order: 1 };
  // A figure that lies at a step in print belongs above it.
  const step = Math.floor(Number((drift / STEP).toFixed(4)));
  return { title: `Drift ${(step * STEP).toFixed(1)} to ${((step + 1) * STEP).toFixed(1)}`, order: -step };
}

/** Proofs in groups, in rows of so many; within a group in the order of the set, or by drift from the farthest when grouped so. */
export function rowsOfGroups(
  rows: readonly SubjectRow[],
  by: Exclude<Grouping, 'subject'>,
  across: number,
  grounds: Grounds,
): SetRow[] {
  const groups = new Map<string, { order: number; spots: Spot[] }>();
  for (const cell of rows.flatMap(r => r.cells))
    for (const take of cell?.takes ?? []) {
      if (!take.proof) continue;
      const spot = { cell: cell!, take };
      const { title, order } = groupOf(spot, by, grounds);
      (groups.get(title) ?? groups.set(title, { order, spots: [] }).get(title)!).spots.push(spot);
    }
  if (by === 'drift')
    for (const { spots } of groups.values()) spots.sort((p, q) => (grounds.drift(q.take) ?? 0) - (grounds.drift(p.take) ?? 0));
  return [...groups]
    .sort(([p, a], [q, b]) => a.order - b.order || p.localeCompare(q))
    .flatMap(([title, { spots }]) =>
      Array.from({ length: Math.ceil(spots.length / across) }, (_, line) => ({
        id: `${by}/${title}/${line}`,
        title,
        under: `${spots.length === 1 ? '1 proof' : `${spots.length} proofs`}, ${keptOf(spots)} kept`,
        bare: false,
        goesOn: line > 0,
        cells: [{ key: `${title}/${line}`, spots: spots.slice(line * across, (line + 1) * across) }],
      })),
    );
}
