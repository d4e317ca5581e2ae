import type { Reference } from '@zinc/contract';

/** A thing on a ledge, and how far it is from what was asked about. */
export interface Standing {
  reference: Reference;
  distance: number | null;
  /** Width on the ledge in pixels. */
  width: number;
}

export interface Ledge {
  name: string;
  note: string;
  items: { reference: Reference; distance: number | null }[];
}

/** A row of the page: the heading of a ledge, or a stretch of what stands on it. */
export type Row = { top: number; height: number; key: string; ledge: Ledge } & (
  { kind: 'head' } | { kind: 'stand'; items: Standing[] }
);

export const PICTURE_HEIGHT = 150;
export const GAP = 16;
export const HEAD = 46;
export const STAND = PICTURE_HEIGHT + 78;

/** Pictures stand at one height, each as wide as its own shape asks. */
export function widthOf({ picture }: Reference): number {
  return Math.round(Math.max(96, Math.min(280, (PICTURE_HEIGHT * picture.width) / picture.height)));
}

/** Ledges by shelf: those in the order given by hand, what just arrived first of the others, the rest by name. */
export function ledgesByShelf(found: readonly Reference[], order: readonly string[]): Ledge[] {
  const by = new Map<string, Reference[]>();
  for (const r of found) {
    const list = by.get(r.shelf);
    if (list) list.push(r);
    else by.set(r.shelf, [r]);
  }
  const places = new Map(order.map((name, i) => [name, i]));
  const rank = (name: string): number => {
    const i = places.get(name);
    return i !== undefined ? i : name === 'Just arrived' ? -1 : order.length;
  };
  return [...by.entries()]
    .sort(([p], [q]) => rank(p) - rank(q) || p.localeCompare(q))
    .map(([name, list]) => ({
      name,
      note: list.length === 1 ? '1 reference' : `${list.length.toLocaleString('en')} references`,
      items: list.sort((p, q) => p.place - q.place).map(reference => ({ reference, distance: null })),
    }));
}

/** Lays ledges out in rows of a width, from the top down. */
export function layOut(ledges: readonly Ledge[], width: number): Row[] {
  const rows: Row[] = [];
  let top = 0;
  let inLedge = 0;
  const add = (row: { kind: 'head' } | { kind: 'stand'; items: Standing[] }, ledge: Ledge, height: number): void => {
    // A ledge keeps its rows when others move: what is being written in one is not lost.
    rows.push({ ...row, ledge, top, height, key: `${ledge.name}/${inLedge++}` });
    top += height;
  };
  for (const ledge of ledges) {
    inLedge = 0;
    add({ kind: 'head' }, ledge, HEAD);
    let items: Standing[] = [];
    let used = 0;
    for (const { reference, distance } of ledge.items) {
      const own = widthOf(reference);
      if (items.length > 0 && used + GAP + own > width) {
        add({ kind: 'stand', items }, ledge, STAND);
        items = [];
        used = 0;
      }
      used += (items.length > 0 ? GAP : 0) + own;
      items.push({ reference, distance, width: own });
    }
    if (items.length > 0) add({ kind: 'stand', items }, ledge, STAND);
  }
  return rows;
}

/** The rows that meet a stretch of the page, found by halving. */
export function rowsWithin(rows: readonly Row[], from: number, to: number): Row[] {
  let [low, high] = [0, rows.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (rows[middle].top + rows[middle].height <= from) low = middle + 1;
    else high = middle;
  }
  let end = low;
  while (end < rows.length && rows[end].top < to) end++;
  return rows.slice(low, end);
}

/** The place between two neighbours of a ledge, either of which may be missing. */
export function placeBetween(before: Reference | undefined, after: Reference | undefined): number {
  if (before && after) return (before.place + after.place) / 2;
  if (before) return before.place + 1;
  return after ? after.place - 1 : 0;
}

/** A list with one name moved to where another stands: before it when it came after, after it when it came before. */
export function movedTo(names: readonly string[], name: string, neighbour: string): string[] {
  const out = names.filter(n => n !== name);
  out.splice(names.indexOf(neighbour), 0, name);
  return out;
}
