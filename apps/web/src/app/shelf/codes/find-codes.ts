import type { StyleCode } from '@zinc/contract';

/** What the slip asks of codes. */
export interface CodeSlip {
  words: string;
  /** Least grade; null takes codes without a grade too. */
  grade: number | null;
  shelf: string;
  order: 'newest' | 'grade' | 'name';
}

/** What is searched by words. The words of a code are words too. */
export function textOfCode({ text, name, note, press, tags, shelf }: StyleCode): string {
  return `${text.replaceAll('-', ' ')} ${name} ${note} ${press} ${tags.join(' ')} ${shelf}`;
}

const ORDERS: Record<CodeSlip['order'], (p: StyleCode, q: StyleCode) => number> = {
  newest: (p, q) => (p.id < q.id ? 1 : -1),
  grade: (p, q) => (q.grade ?? -1) - (p.grade ?? -1),
  name: (p, q) => (p.name || p.text).localeCompare(q.name || q.text),
};

/**
 * The codes that fit a slip, in its order; with distances (by id), only those that have one, nearest first. `fitting` are the ids of those that
 * fit its words, or null when it has none.
 */
export function findCodes(
  codes: readonly StyleCode[],
  slip: CodeSlip,
  fitting: ReadonlySet<string> | null,
  distances: ReadonlyMap<string, number> | null,
): StyleCode[] {
  const found = codes.filter(
    c =>
      (slip.grade === null || (c.grade ?? -1) >= slip.grade) &&
      (slip.shelf === '' || c.shelf === slip.shelf) &&
      (!distances || distances.has(c.id)) &&
      (!fitting || fitting.has(c.id)),
  );
  return found.sort(distances ? (p, q) => distances.get(p.id)! - distances.get(q.id)! : ORDERS[slip.order]);
}

/** A list in rows of so many, for showing only the rows in sight. */
export function rowsOf<T>(items: readonly T[], columns: number): T[][] {
  const out: T[][] = [];
  for (let i = 0; i < items.length; i += columns) out.push(items.slice(i, i + columns));
  return out;
}
