import type { Ticket } from '@zinc/core';

/** Long side of the small paintings that a set's sheet is read from. */
const PROBE_SIDE = 256;
/** Most cells that are painted small for one sheet; of more, every so-manieth is taken. */
export const MOST_PROBES = 48;

/** How large a cell is painted to learn what its set has in common. */
export function probeFormat(format: Ticket['format']): Ticket['format'] {
  const k = Math.min(1, PROBE_SIDE / Math.max(format.width, format.height));
  const [width, height] = [format.width, format.height].map(v => Math.max(64, Math.round(v * k)));
  return { ...format, width, height };
}
