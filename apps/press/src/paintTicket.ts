import { decodeWorkingCopy, fitPicture, labOfHex, onSheet, paint, type Picture, type Ticket } from '@zinc/core';
import { drawSubject, findSubject } from '@zinc/scenes';

/** A ticket this press cannot carry out, in words for people. */
export class CannotDrawError extends Error {
  override name = 'CannotDrawError';
}

/** Paints one ticket: its first content picture, or the subject its wording names. `readInput` gives the bytes of a working copy. */
export async function paintTicket(ticket: Ticket, readInput: (sha256: string) => Promise<Uint8Array>): Promise<Picture> {
  const { style } = ticket.look;
  const never = ticket.never.map(n => ({ ...labOfHex(n.hex), radius: n.radius }));
  const strength = ticket.settings.strength / 100;
  // Without any strength there is no look, and no framing.
  const framing = strength > 0 ? style.framing : null;
  const framed = (worked: (width: number, height: number) => Picture): Picture =>
    onSheet(framing, ticket.format.width, ticket.format.height, never, worked);
  const content = ticket.contents[0];
  if (content) {
    const own = decodeWorkingCopy(await readInput(content.sha256));
    return framed((width, height) => paint(fitPicture(own, width, height), style, strength, ticket.seed, { never }));
  }
  const { subject, wishes } = findSubject(ticket.subject.wording);
  if (!subject)
    throw new CannotDrawError(
      `This press cannot draw “${ticket.subject.wording}”. Give the subject a picture, or another wording.`,
    );
  // The subject is the same in every take; how it stands follows the take's own seed.
  const standing = { ...wishes, pose: ticket.seed, seat: framing?.seat ?? undefined };
  return framed((width, height) => {
    const { picture, mask, parts } = drawSubject(subject.name, ticket.subject.identity, width, height, standing);
    return paint(picture, style, strength, ticket.seed, { mask, parts, never });
  });
}
