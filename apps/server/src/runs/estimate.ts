import type { ExpandedPlan, Ticket } from '@zinc/core';
import { isUp, sameMake, type KnownPress } from '../presses/presses.ts';
import { MOST_PROBES, probeFormat } from './probes.ts';

type Size = Pick<Ticket['format'], 'width' | 'height'>;

const PACE_PIXELS = 768 * 768;
/** The share of an image of 768 × 768 that goes with its pixels; the rest an image of any size costs. */
const BY_PIXELS = 0.55;
/** What settling a bound image costs, whatever its size, for it is done small. */
const SETTLING = 2.8;

/** How much work an image is at the house press, in free images of 768 × 768. */
export function workOf({ width, height }: Size, bound: boolean): number {
  return BY_PIXELS * ((width * height) / PACE_PIXELS) + 1 - BY_PIXELS + (bound ? SETTLING : 0);
}

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
    const free = paceOf(sharing.map(p => p.row.secondsPerImage ?? p.row.secondsPerBound));
    const bound = paceOf(sharing.map(p => p.row.secondsPerBound ?? p.row.secondsPerImage));
    if (free === null || bound === null) continue;
    const seconds = own.reduce(
      (sum, { tickets, bind }) => sum + tickets.length * workOf(tickets[0].format, bind !== null) * (bind ? bound : free),
      workOfProbes(own) * free,
    );
    longest = Math.max(longest ?? 0, seconds);
  }
  return longest;
}

/** The pace of presses that share the work; null when none is known. */
function paceOf(paces: readonly (number | null)[]): number | null {
  const known = paces.filter(p => p !== null);
  return known.length === 0 ? null : 1 / known.reduce((sum, pace) => sum + 1 / pace, 0);
}

/** What is painted small beforehand, so that a set without an anchor knows its middle. */
function workOfProbes(cells: ExpandedPlan['cells']): number {
  const probed = cells.filter(c => c.bind && !c.bind.anchor);
  const all = probed.reduce((sum, { tickets: [{ format }] }) => sum + workOf(probeFormat(format), false), 0);
  return all * Math.min(1, MOST_PROBES / Math.max(1, probed.length));
}
