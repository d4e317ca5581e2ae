import type { Ticket } from './types.ts';

/** Something in which tickets differ, with what each of them has, in their order. */
export interface TicketDifference {
  what: string;
  values: string[];
}

const NONE = 'none';
const listed = (words: readonly string[]): string => words.join(', ') || NONE;

/** What of a ticket a person would compare, in the order of the ticket, each as people read it. */
const FIELDS: readonly (readonly [what: string, read: (t: Ticket) => string])[] = [
  ['Subject', t => t.subject.label],
  ['Text', t => t.text.final],
  ['Avoid', t => listed(t.text.avoid)],
  ['Lettering', t => listed(t.text.lettering)],
  ['Own colours', t => listed(t.subject.colours ?? [])],
  ['Content picture', t => t.contents.map(c => `${c.sha256.slice(0, 8)}, ${c.strength} %, read as ${c.read}`).join('; ') || NONE],
  ['Look', t => t.look.name],
  ['Version of the look', t => String(t.look.version)],
  ['Style', t => styleOf(t)],
  ['Strength', t => `${t.settings.strength} %`],
  [
    'Bind',
    t => (t.binding ? `${t.binding.amount} %, to ${t.binding.sheet.from === 'anchor' ? 'an anchor' : 'its middle'}` : NONE),
  ],
  ['Fidelity', t => (t.fidelity ? `${t.fidelity.subject} % subject, ${t.fidelity.ground} % ground` : 'left to the look')],
  ['Format', t => `${t.format.width} × ${t.format.height}`],
  ['Offshoot', t => listed((t.offshoots ?? []).map(o => `${o.distance} away`))],
  ['Retouch', t => (t.retouch ? (t.retouch.how === 'remove' ? 'a part removed' : 'a part painted again') : NONE)],
  ['Areas left clear', t => String(t.format.clear?.length ?? 0)],
  ['Marks', t => String(t.marks?.length ?? 0)],
  ['Press', t => `${t.press.name}, ${t.press.model}`],
  ['Painter', t => `${t.press.version}, ${t.press.painterVersion ?? 'not said'}`],
  ['Seed', t => String(t.seed)],
  ['Take', t => String(t.take)],
];

/** The inks of a style: enough to see that two of one name are not the same. */
function styleOf({ look }: Ticket): string {
  const { palette, amounts } = look.style;
  const mass = Object.values(amounts).reduce((sum, v) => sum + v, 0);
  return `${palette.length} inks, ${mass.toFixed(2)} of everything`;
}

/** In what tickets differ, and nothing in which they are the same. Settings of a press are told by their keys. */
export function ticketDifferences(tickets: readonly Ticket[]): TicketDifference[] {
  const keys = [...new Set(tickets.flatMap(t => Object.keys(t.settings)))].filter(k => k !== 'strength').sort();
  const settings = keys.map(key => [key, (t: Ticket) => String(t.settings[key] ?? NONE)] as const);
  return [...FIELDS, ...settings]
    .map(([what, read]) => ({ what, values: tickets.map(read) }))
    .filter(({ values }) => new Set(values).size > 1);
}
