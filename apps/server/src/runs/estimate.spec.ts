import type { ExpandedPlan, Ticket } from '@zinc/core';
import type { KnownPress } from '../presses/presses.ts';
import { secondsOf } from './estimate.ts';

type Cell = ExpandedPlan['cells'][number];

const press = (secondsPerImage: number | null, secondsPerBound: number | null): KnownPress =>
  ({ row: { id: 'house', secondsPerImage, secondsPerBound }, says: null }) as KnownPress;
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
  it('goes with the number of images and, less than in proportion, with their pixels', () => {
    const large = secondsOf(cells(3, 2, 768), [press(2, 5)])!;
    const small = secondsOf(cells(3, 2, 384), [press(2, 5)])!;
    expect(secondsOf(cells(6, 2, 768), [press(2, 5)])).toBeCloseTo(2 * large);
    expect(small).toBeLessThan(large);
    expect(small).toBeGreaterThan(large / 4);
  });
  it('of bound ones goes by their own pace, and counts what is painted small beforehand', () => {
    const follows = secondsOf(cells(3, 2, 768, { amount: 70, anchor: 'a proof' }), [press(2, 3)])!;
    expect(follows).toBeCloseTo(secondsOf(cells(3, 2, 768, { amount: 70, anchor: 'a proof' }), [press(9, 3)])!);
    const probes = secondsOf(cells(3, 2, 768, BOUND), [press(2, 3)])! - follows;
    expect(probes).toBeCloseTo(secondsOf(cells(3, 1, 256), [press(2, 3)])!);
    // Of a large set, some cells only.
    const many =
      secondsOf(cells(96, 1, 768, BOUND), [press(2, 3)])! -
      secondsOf(cells(96, 1, 768, { amount: 70, anchor: 'a' }), [press(2, 3)])!;
    expect(many).toBeCloseTo(16 * probes);
  });
  it('takes the one pace for the other until both are measured', () => {
    expect(secondsOf(cells(3, 2, 768), [press(null, 3)])).toBeCloseTo(secondsOf(cells(3, 2, 768), [press(3, 3)])!);
    const bound = secondsOf(cells(3, 2, 768, BOUND), [press(3, null)])!;
    expect(bound).toBeGreaterThan(2 * secondsOf(cells(3, 2, 768), [press(3, null)])!);
  });
});
