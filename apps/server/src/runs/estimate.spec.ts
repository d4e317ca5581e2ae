import type { ExpandedPlan, Ticket } from '@zinc/core';
import type { KnownPress } from '../presses/presses.ts';
import { secondsOf } from './estimate.ts';

type Cell = ExpandedPlan['cells'][number];

const press = (secondsPerImage: number | null, secondsToSettle: number | null): KnownPress =>
  ({ row: { id: 'house', secondsPerImage, secondsToSettle }, says: null }) as KnownPress;
const cells = (count: number, takes: number, side: number, bind: Cell['bind'] = null): ExpandedPlan => {
  const ticket = { format: { width: side, height: side }, press: { id: 'house' } } as Ticket;
  return {
    cells: Array.from({ length: count }, () => ({ bind, tickets: Array<Ticket>(takes).fill(ticket) }) as Cell),
  } as ExpandedPlan;
};
const BOUND = { amount: 70, anchor: null };

describe('how long a plan takes', () => {
  it('is unknown of a press that made nothing yet', () => {
    expect(secondsOf(cells(3, 2, 768), [press(null, null)])).toBeNull();
  });
  it('goes with the pixels of free images', () => {
    expect(secondsOf(cells(3, 2, 768), [press(2, 5)])).toBeCloseTo(12);
    expect(secondsOf(cells(3, 2, 384), [press(2, 5)])).toBeCloseTo(3);
  });
  it('of bound ones, with their number too, and with what is painted small beforehand', () => {
    const probe = (256 / 768) ** 2 * 2;
    expect(secondsOf(cells(3, 2, 768, BOUND), [press(2, 5)])).toBeCloseTo(12 + 6 * 5 + 3 * probe);
    expect(secondsOf(cells(3, 2, 768, { amount: 70, anchor: 'a proof' }), [press(2, 5)])).toBeCloseTo(12 + 6 * 5);
    // Of a large set, some cells only.
    expect(secondsOf(cells(96, 1, 768, BOUND), [press(2, 5)])).toBeCloseTo(96 * 7 + 48 * probe);
  });
  it('takes a share for granted where no bound image was made yet', () => {
    const free = secondsOf(cells(3, 2, 768), [press(2, null)])!;
    expect(secondsOf(cells(3, 2, 768, BOUND), [press(2, null)])).toBeGreaterThan(2 * free);
  });
});
