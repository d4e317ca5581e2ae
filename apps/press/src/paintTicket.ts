import {
  avoidMarks,
  decodeWorkingCopy,
  fitPicture,
  labOfHex,
  onSheet,
  paint,
  placeMark,
  readContent,
  wordsAround,
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

/** Carries out one ticket: paints it, then lays its marks over the painting. `readInput` gives the bytes of a working copy. */
export async function paintTicket(ticket: Ticket, readInput: ReadInput): Promise<Picture> {
  let picture = await paintContent(ticket, readInput);
  for (const { sha256, box } of ticket.marks ?? []) picture = placeMark(picture, decodeWorkingCopy(await readInput(sha256)), box);
  return picture;
}

/** Its first content picture, or the subject its wording names, in its look. */
async function paintContent(ticket: Ticket, readInput: ReadInput): Promise<Picture> {
  const style = avoidMarks(ticket.look.style, ticket.text.avoid);
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
      paint(
        readContent(fitPicture(own, width, height), content.read, content.strength / 100),
        style,
        strength,
        ticket.seed,
        options,
      ),
    );
  }
  const { subject, wishes } = findSubject(ticket.subject.wording);
  if (!subject)
    throw new CannotDrawError(
      `This press cannot draw “${ticket.subject.wording}”. Give the subject a picture, or another wording.`,
    );
  // The subject is the same in every take; how it stands follows the take's own seed.
  const standing = { ...wishesOf(ticket, wishes), pose: ticket.seed, seat: framing?.seat ?? undefined };
  return framed((width, height) => {
    const { picture, mask, parts } = drawSubject(subject.name, ticket.subject.identity, width, height, standing);
    return paint(picture, style, strength, ticket.seed, { ...options, mask, parts });
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
  const { colour, ...place } = { ...findWishes(wordsAround(ticket.text.parts)).wishes, ...own };
  const [first] = ticket.subject.colours ?? [];
  return {
    ...(adherence >= HEEDED ? place : {}),
    ...(first ? { colour: labOfHex(first) } : colour ? { colour, colourAmount: adherence } : {}),
    scatter: shareOf(ticket, 'scatter'),
  };
}

/** A setting of whole per cent as 0–1; all of it when the ticket does not have it. */
function shareOf({ settings }: Ticket, key: string): number {
  const value = settings[key];
  return typeof value === 'number' ? value / 100 : 1;
}
