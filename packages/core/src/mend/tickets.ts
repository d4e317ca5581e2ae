import { applyAsk, type Applied, type Known } from '../asks/applyAsk.ts';
import type { AskChange } from '../asks/types.ts';
import { FACETS, type Fingerprint } from '../measure/types.ts';
import { mix } from '../mix/mix.ts';
import type { Style } from '../mix/style.ts';
import { lerp } from '../number/scalar.ts';
import type { BindingSheet } from '../set/bind.ts';
import type { Kin, Retouch, Ticket } from '../ticket/types.ts';
import { joinParts } from '../words/template.ts';

/** What a proof is, as the ticket of one made from it needs to know it. */
export interface Parent {
  proof: string;
  ticket: Ticket;
}

/** The parent's recipe without what was done to its finished picture: the next one is made from the original again. */
function recipeOf({ proof, ticket }: Parent, how: Kin, take: number): Ticket {
  const made: Ticket = { ...ticket, take, parents: [{ proof, how }] };
  delete made.retouch;
  return made;
}

/** One more like the parent, `distance` 0–100 away from it towards `seed`. */
export function offshootTicket(parent: Parent, distance: number, seed: number, take: number): Ticket {
  const made = recipeOf(parent, 'offshoot', take);
  return { ...made, offshoots: [...(made.offshoots ?? []), { seed, distance }] };
}

/** The parent with a region done anew. `note` is told to the painter of the region only. */
export function retouchTicket(parent: Parent, retouch: Retouch, note: string, take: number): Ticket {
  const how = retouch.how === 'remove' ? 'removed' : 'paintedAgain';
  const made: Ticket = { ...parent.ticket, take, retouch, parents: [{ proof: parent.proof, how }] };
  if (!note) return made;
  const parts = [...made.text.parts, { from: 'ask' as const, words: `, ${note}` }];
  return { ...made, text: { ...made.text, parts, final: joinParts(parts) } };
}

/** The parent with what was asked, and everything else as it was. */
export function askTicket(
  parent: Parent,
  changes: readonly AskChange[],
  known: Known,
  take: number,
): { ticket: Ticket; applied: Applied[] } {
  return applyAsk(recipeOf(parent, 'asked', take), changes, known);
}

/** What a set has in common: its sheet, and the style, strength (0–100) and fingerprint of the proof nearest to its middle. */
export interface Common {
  sheet: BindingSheet;
  style: Style;
  strength: number;
  print: Fingerprint;
}

/**
 * The parent pulled to its set, `amount` 0–100 of the way: what it was made with otherwise than the set is mixed with what the set is made
 * with, and it is bound to the set's sheet. `own` is what the parent measures.
 */
export function matchTicket(parent: Parent, own: Fingerprint, set: Common, amount: number, take: number): Ticket {
  const made = recipeOf(parent, 'matched', take);
  const { look, settings } = made;
  const strength = Math.round(lerp(settings.strength, set.strength, amount / 100));
  return {
    ...made,
    look: { ...look, style: styleTowards(look.style, own, set, amount) },
    settings: { ...settings, strength },
    binding: { sheet: set.sheet, amount },
  };
}

function styleTowards(style: Style, own: Fingerprint, set: Common, amount: number): Style {
  // A style without colours of its own cannot be mixed with one that has some; binding alone pulls it then.
  const plain = style.palette.length === 0 || set.style.palette.length === 0;
  if (plain || JSON.stringify(style) === JSON.stringify(set.style)) return style;
  const { style: mixed } = mix([
    { style, fingerprint: own, parts: 100 - amount, facets: FACETS },
    { style: set.style, fingerprint: set.print, parts: amount, facets: FACETS },
  ]);
  return { ...mixed, framing: style.framing ?? null };
}

/** A further take of a ticket, with a seed of its own: of what was made from another proof, what is by chance is drawn anew. */
export function furtherTicket(ticket: Ticket, seed: number, take: number): Ticket {
  const { retouch, offshoots } = ticket;
  if (retouch) return { ...ticket, take, retouch: { ...retouch, seed } };
  if (offshoots?.length) return { ...ticket, take, offshoots: [...offshoots.slice(0, -1), { ...offshoots.at(-1)!, seed }] };
  return { ...ticket, take, seed };
}
