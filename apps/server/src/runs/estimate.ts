import type { ExpandedPlan } from '@zinc/core';
import { isUp, sameMake, type KnownPress } from '../presses/presses.ts';
import { MOST_PROBES, probeFormat } from './probes.ts';

/** Paces are of images of so many pixels. */
export const PACE_PIXELS = 768 * 768;
/** How long settling a bound image takes where it was not measured, in times of what a free image of {@link PACE_PIXELS} takes. */
export const SETTLING = 2;

/** What an image costs at a press: what the house says, else what the press says. */
export function priceAt({ row, says }: KnownPress): number {
  return row.price ?? (says ?? row.capabilities)?.pricePerImage ?? 0;
}

/** What the live cells of a plan cost, each at its own press. */
export function costOf(expanded: ExpandedPlan, presses: readonly KnownPress[]): number {
  const prices = new Map(presses.map(p => [p.row.id, priceAt(p)]));
  return expanded.cells
    .filter(c => !c.struckOut)
    .reduce((sum, { tickets }) => sum + tickets.length * (prices.get(tickets[0].press.id) ?? 0), 0);
}

/**
 * Seconds that a plan takes at the pace its presses were measured at. Those of one make share the work; different ones work side by side.
 * Null when nothing was measured yet.
 */
export function secondsOf(expanded: ExpandedPlan, presses: readonly KnownPress[]): number | null {
  let longest: number | null = null;
  for (const press of presses) {
    const own = expanded.cells.filter(c => !c.struckOut && c.tickets[0].press.id === press.row.id);
    if (own.length === 0) continue;
    const sharing = [press, ...presses.filter(p => p !== press && isUp(p) && sameMake(p, press))];
    const known = sharing.flatMap(({ row }) =>
      row.secondsPerImage ? [{ image: row.secondsPerImage, settle: row.secondsToSettle || row.secondsPerImage * SETTLING }] : [],
    );
    if (known.length === 0) continue;
    const pixels = own.reduce((sum, { tickets: [t, ...more] }) => sum + (1 + more.length) * t.format.width * t.format.height, 0);
    const settled = own.reduce((sum, { tickets, bind }) => sum + (bind ? tickets.length : 0), 0);
    const seconds =
      (together(known.map(k => k.image)) * (pixels + pixelsOfProbes(own))) / PACE_PIXELS +
      (settled > 0 ? together(known.map(k => k.settle)) * settled : 0);
    longest = Math.max(longest ?? 0, seconds);
  }
  return longest;
}

/** Seconds apiece of presses that share the work. */
function together(paces: readonly number[]): number {
  return 1 / paces.reduce((sum, pace) => sum + 1 / pace, 0);
}

/** What is painted small beforehand, so that a set without an anchor knows its middle. */
function pixelsOfProbes(cells: ExpandedPlan['cells']): number {
  const probed = cells.filter(c => c.bind && !c.bind.anchor);
  const all = probed.reduce((sum, { tickets: [{ format }] }) => {
    const { width, height } = probeFormat(format);
    return sum + width * height;
  }, 0);
  return all * Math.min(1, MOST_PROBES / Math.max(1, probed.length));
}
