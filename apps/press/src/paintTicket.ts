import {
  apart,
  avoidMarks,
  decodeWorkingCopy,
  fitPicture,
  labOfHex,
  onSheet,
  paint,
  paintInto,
  PictureError,
  placeMark,
  readContent,
  removeRegion,
  RetouchError,
  varyStyle,
  wordsAround,
  wordsAsked,
  type PaintOptions,
  type Picture,
  type Ticket,
} from '@zinc/core';
import { drawSubject, findSubject, findWishes, type Wishes } from '@zinc/scenes';

/** A ticket this press cannot carry out, in words for people. */
export class CannotDrawError extends Error {
  override name = 'CannotDrawError';
}

/** From this adherence on, words around the subject decide where, when and how many. */
const HEEDED = 0.5;

type ReadInput = (sha256: string) => Promise<Uint8Array>;

/** Carries out one ticket: paints it or does a region of it anew. `readInput` gives the bytes of a working copy. */
export async function paintTicket(ticket: Ticket, readInput: ReadInput): Promise<Picture> {
  const { retouch } = ticket;
  if (!retouch) return paintWhole(ticket, readInput);
  const read = async (sha256: string): Promise<Picture> => decodeWorkingCopy(await readInput(sha256));
  const [own, mask] = [await read(retouch.picture), await read(retouch.mask)];
  try {
    return retouch.how === 'remove'
      ? removeRegion(own, mask, retouch.seed)
      : paintInto(own, await paintWhole(ticket, readInput), mask);
  } catch (error) {
    if (error instanceof RetouchError || error instanceof PictureError) throw new CannotDrawError(error.message);
    throw error;
  }
}

/** Paints a ticket, then lays its marks over the painting. */
async function paintWhole(ticket: Ticket, readInput: ReadInput): Promise<Picture> {
  let picture = await paintContent(ticket, readInput);
  for (const { sha256, box } of ticket.marks ?? []) picture = placeMark(picture, decodeWorkingCopy(await readInput(sha256)), box);
  return picture;
}

/** Its first content picture, or the subject its wording names, in its look. */
async function paintContent(ticket: Ticket, readInput: ReadInput): Promise<Picture> {
  const steps = (ticket.offshoots ?? []).map(o => ({ seed: o.seed, ...apart(o.distance) }));
  const varied = steps.reduce((s, step) => varyStyle(s, step.seed, step.manner), ticket.look.style);
  const style = avoidMarks(varied, ticket.text.avoid);
  // The newest marks are those of the last step; what stands under them comes from the first seed.
  const marks = ticket.retouch?.seed ?? steps.at(-1)?.seed ?? ticket.seed;
  const options = optionsOf(ticket);
  const strength = ticket.settings.strength / 100;
  // Without any strength there is no look, and no framing.
  const framing = strength > 0 ? style.framing : null;
  const framed = (worked: (width: number, height: number) => Picture): Picture =>
    onSheet(framing, ticket.format.width, ticket.format.height, options.never, worked);
  const content = ticket.contents[0];
  if (content) {
    const own = decodeWorkingCopy(await readInput(content.sha256));
    return framed((width, height) =>
      paint(readContent(fitPicture(own, width, height), content.read, content.strength / 100), style, strength, marks, options),
    );
  }
  const { subject, wishes } = findSubject(ticket.subject.wording);
  if (!subject)
    throw new CannotDrawError(
      `This press cannot draw “${ticket.subject.wording}”. Give the subject a picture, or another wording.`,
    );
  // The subject is the same in every take; how it stands follows the take's own seed.
  const standing = { ...wishesOf(ticket, wishes), pose: ticket.seed, apart: steps, seat: framing?.seat ?? undefined };
  return framed((width, height) => {
    const { picture, mask, parts } = drawSubject(subject.name, ticket.subject.identity, width, height, standing);
    return paint(picture, style, strength, marks, { ...options, mask, parts });
  });
}

function optionsOf({ never, format, binding, fidelity }: Ticket): PaintOptions {
  return {
    never: never.map(n => ({ ...labOfHex(n.hex), radius: n.radius })),
    ...(format.clear ? { clear: format.clear } : {}),
    ...(binding ? { bind: { sheet: binding.sheet, amount: binding.amount / 100 } } : {}),
    ...(fidelity ? { fidelity: { subject: fidelity.subject / 100, ground: fidelity.ground / 100 } } : {}),
  };
}

/** What the words ask for: the wording's own wishes before those of the template and the note, as literally as the adherence says. */
function wishesOf(ticket: Ticket, own: Wishes): Wishes {
  const adherence = shareOf(ticket, 'adherence');
  const said = findWishes(wordsAround(ticket.text.parts)).wishes;
  const asked = findWishes(wordsAsked(ticket.text.parts)).wishes;
  const { colour, ...place } = { ...said, ...own, ...asked };
  const [first] = ticket.subject.colours ?? [];
  return {
    ...(adherence >= HEEDED ? place : {}),
    ...(first && !asked.colour ? { colour: labOfHex(first) } : colour ? { colour, colourAmount: adherence } : {}),
    scatter: shareOf(ticket, 'scatter'),
  };
}

/** A setting of whole per cent as 0–1; all of it when the ticket does not have it. */
function shareOf({ settings }: Ticket, key: string): number {
  const value = settings[key];
  return typeof value === 'number' ? value / 100 : 1;
}
