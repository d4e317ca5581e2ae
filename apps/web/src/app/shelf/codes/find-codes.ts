import type { StyleCode } from '@zinc/contract';

/** What the slip asks of codes. */
export interface CodeSlip {
  words: string;
  /** Least grade; null takes codes without a grade too. */
  grade: number | null;
  shelf: string;
  order: 'newest' | 'grade' | 'name';
}

/** Words of a search, each of which must be found somewhere in a code. */
function fits(code: StyleCode, words: readonly string[]): boolean {
  const all = `${code.text} ${code.name} ${code.note} ${code.press} ${code.tags.join(' ')}`.toLowerCase();
  return words.every(w => all.includes(w));
}

const ORDERS: Record<CodeSlip['order'], (p: StyleCode, q: StyleCode) => number> = {
  newest: (p, q) => (p.id < q.id ? 1 : -1),
  grade: (p, q) => (q.grade ?? -1) - (p.grade ?? -1),
  name: (p, q) => (p.name || p.text).localeCompare(q.name || q.text),
};

/** The codes that fit a slip, in its order; with distances, only those that have one, nearest first. */
export function findCodes(
  codes: readonly StyleCode[],
  slip: CodeSlip,
  distances: ReadonlyMap<string, number> | null,
): StyleCode[] {
  const words = slip.words.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const found = codes.filter(
    c =>
      (slip.grade === null || (c.grade ?? -1) >= slip.grade) &&
      (slip.shelf === '' || c.shelf === slip.shelf) &&
      (!distances || distances.has(c.text)) &&
      fits(c, words),
  );
  return found.sort(distances ? (p, q) => distances.get(p.text)! - distances.get(q.text)! : ORDERS[slip.order]);
}

/** A list in rows of so many, for showing only the rows in sight. */
export function rowsOf<T>(items: readonly T[], columns: number): T[][] {
  const out: T[][] = [];
  for (let i = 0; i < items.length; i += columns) out.push(items.slice(i, i + columns));
  return out;
}
