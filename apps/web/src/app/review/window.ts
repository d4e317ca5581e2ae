/** Which of many rows of one height are laid out: those in sight and a few beside, with the room of the rest above and below in pixels. */
export interface RowWindow {
  first: number;
  end: number;
  above: number;
  below: number;
}

/** Rows laid out beyond each edge, so that a scroll shows no gap before the next frame. */
const BESIDE = 3;

export function rowsInSight(rows: number, height: number, top: number, seen: number): RowWindow {
  const first = Math.max(0, Math.min(rows, Math.floor(top / height) - BESIDE));
  const end = Math.max(first, Math.min(rows, Math.ceil((top + seen) / height) + BESIDE));
  return { first, end, above: first * height, below: (rows - end) * height };
}

/** Where to scroll so that a row is wholly in sight below a header of `head` pixels; `top` itself when it is. */
export function scrollToRow(row: number, height: number, top: number, seen: number, head: number): number {
  if (row * height < top) return row * height;
  return (row + 1) * height + head > top + seen ? (row + 1) * height + head - seen : top;
}
