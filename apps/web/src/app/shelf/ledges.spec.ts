import type { Reference } from '@zinc/contract';
import { GAP, HEAD, layOut, ledgesByShelf, movedTo, placeBetween, rowsWithin, STAND, widthOf } from './ledges';

const thing = (id: number, shelf: string, place = id, width = 150): Reference =>
  ({ id: String(id), name: `n${id}`, shelf, place, picture: { sha256: '', width, height: 150 } }) as unknown as Reference;

describe('ledges', () => {
  it('stand in the order given by hand, and so do the things on them', () => {
    const all = [thing(1, 'Paint', 5), thing(2, 'Prints'), thing(3, 'Paint', 2), thing(4, 'Just arrived'), thing(5, 'Cloth')];
    const ledges = ledgesByShelf(all, ['Prints', 'Paint']);
    expect(ledges.map(l => l.name)).toEqual(['Just arrived', 'Prints', 'Paint', 'Cloth']);
    expect(ledges[2].items.map(i => i.reference.id)).toEqual(['3', '1']);
    expect(ledges[2].note).toBe('2 references');
  });

  it('fill rows no wider than the page, and lose nothing', () => {
    const all = Array.from({ length: 500 }, (_, i) => thing(i, i % 3 ? 'A' : 'B', i, 60 + ((i * 37) % 400)));
    const rows = layOut(ledgesByShelf(all, []), 900);
    const standing = rows.flatMap(r => (r.kind === 'stand' ? r.items : []));
    expect(standing.length).toBe(500);
    for (const r of rows) {
      if (r.kind === 'head') expect(r.height).toBe(HEAD);
      else expect(r.items.reduce((s, i) => s + i.width + GAP, -GAP)).toBeLessThanOrEqual(900);
    }
    rows.forEach((r, i) => i > 0 && expect(r.top).toBe(rows[i - 1].top + rows[i - 1].height));
    // A thing wider than the page still stands.
    expect(layOut(ledgesByShelf([thing(1, 'A', 1, 900)], []), 100).length).toBe(2);
  });

  it('show only the rows in sight', () => {
    const rows = layOut(
      ledgesByShelf(
        Array.from({ length: 10_000 }, (_, i) => thing(i, 'A')),
        [],
      ),
      1000,
    );
    const seen = rowsWithin(rows, 20_000, 20_800);
    expect(seen.length).toBeLessThan(6);
    expect(seen[0].top).toBeLessThanOrEqual(20_000);
    expect(seen[0].top + STAND).toBeGreaterThan(20_000);
    expect(seen.at(-1)!.top).toBeLessThan(20_800);
    expect(rowsWithin(rows, -500, 0)).toEqual([]);
    expect(rowsWithin([], 0, 100)).toEqual([]);
  });

  it('pictures keep their shape within bounds', () => {
    expect(widthOf(thing(1, 'A', 1, 150))).toBe(150);
    expect(widthOf(thing(1, 'A', 1, 5000))).toBe(280);
    expect(widthOf(thing(1, 'A', 1, 5))).toBe(96);
  });

  it('find a place between neighbours', () => {
    expect(placeBetween(thing(1, 'A', 4), thing(2, 'A', 5))).toBe(4.5);
    expect(placeBetween(undefined, thing(2, 'A', 5))).toBe(4);
    expect(placeBetween(thing(2, 'A', 5), undefined)).toBe(6);
    expect(placeBetween(undefined, undefined)).toBe(0);
  });

  it('move past a neighbour and leave those between in order', () => {
    expect(movedTo(['a', 'b', 'c', 'd'], 'd', 'b')).toEqual(['a', 'd', 'b', 'c']);
    expect(movedTo(['a', 'b', 'c', 'd'], 'a', 'c')).toEqual(['b', 'c', 'a', 'd']);
  });
});
