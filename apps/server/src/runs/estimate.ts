import type { ExpandedPlan } from '@zinc/core';
import { isUp, sameMake, type KnownPress } from '../presses/presses.ts';

const PACE_PIXELS = 768 * 768;

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
    const paces = sharing.flatMap(p => (p.row.secondsPerImage === null ? [] : [p.row.secondsPerImage]));
    if (paces.length === 0) continue;
    const together = 1 / paces.reduce((sum, pace) => sum + 1 / pace, 0);
    // How many times longer a bound image takes, as measured at this press.
    const bound =
      press.row.secondsPerBound && press.row.secondsPerImage ? press.row.secondsPerBound / press.row.secondsPerImage : 1;
    const pixels = own.reduce((sum, { tickets, bind }) => {
      const { width, height } = tickets[0].format;
      return sum + tickets.length * width * height * (bind ? bound : 1);
    }, 0);
    longest = Math.max(longest ?? 0, (together * pixels) / PACE_PIXELS);
  }
  return longest;
}
