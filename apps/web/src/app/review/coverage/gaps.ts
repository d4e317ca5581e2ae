import type { Coverage, Covered } from '@zinc/contract';

export type Gap = 'kept' | 'disputed' | 'undecided' | 'dropped' | 'missing' | 'none';

/** How a subject in a format stands, the most pressing first. `none` when no run asked for it. */
export function gapOf(cell: Covered | undefined): Gap {
  if (!cell) return 'none';
  if (cell.disputed > 0) return 'disputed';
  if (cell.kept > 0) return 'kept';
  if (cell.made === 0) return 'missing';
  return cell.undecided > 0 ? 'undecided' : 'dropped';
}

export const GAP_WORDS: Record<Gap, string> = {
  kept: 'kept',
  disputed: 'in dispute',
  undecided: 'not decided',
  dropped: 'nothing kept',
  missing: 'not made yet',
  none: 'not asked for',
};

export interface CoverageRow {
  id: string;
  label: string;
  cells: { formatId: string; cell: Covered | undefined; gap: Gap }[];
  open: boolean;
}

/** A row a subject, a place a format; a row is open while something that was asked for has nothing kept. */
export function rowsOf({ subjects, formats, cells }: Coverage): CoverageRow[] {
  const byKey = new Map(cells.map(c => [`${c.subjectId}/${c.formatId}`, c]));
  return subjects.map(({ id, label }) => {
    const own = formats.map(f => {
      const cell = byKey.get(`${id}/${f.id}`);
      return { formatId: f.id, cell, gap: gapOf(cell) };
    });
    return { id, label, cells: own, open: own.some(c => c.gap !== 'kept' && c.gap !== 'none') };
  });
}

/** Days until a campaign must be done; below 0 it is late. */
export function daysLeft(ends: string, today: Date): number {
  const [year, month, day] = ends.split('-').map(Number);
  const from = Date.UTC(today.getFullYear(), today.getMonth(), today.getDate());
  return Math.round((Date.UTC(year, month - 1, day) - from) / 86_400_000);
}
