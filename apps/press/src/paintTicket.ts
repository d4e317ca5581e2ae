import { decodeWorkingCopy, fitPicture, labOfHex, paint, type Picture, type Ticket } from '@zinc/core';
import { drawSubject, findSubject } from '@zinc/scenes';

/** A ticket this press cannot carry out, in words for people. */
export class CannotDrawError extends Error {
  override name = 'CannotDrawError';
}

/** Paints one ticket: its first content picture, or the subject its wording names. `readInput` gives the bytes of a working copy. */
export async function paintTicket(ticket: Ticket, readInput: (sha256: string) => Promise<Uint8Array>): Promise<Picture> {
  const { width, height } = ticket.format;
  const never = ticket.never.map(n => ({ ...labOfHex(n.hex), radius: n.radius }));
  const strength = ticket.settings.strength / 100;
  const content = ticket.contents[0];
  if (content) {
    const picture = fitPicture(decodeWorkingCopy(await readInput(content.sha256)), width, height);
    return paint(picture, ticket.look.style, strength, ticket.seed, { never });
  }
  const { subject, wishes } = findSubject(ticket.subject.wording);
  if (!subject)
    throw new CannotDrawError(
      `This press cannot draw “${ticket.subject.wording}”. Give the subject a picture, or another wording.`,
    );
  // The subject is the same in every take; how it stands follows the take's own seed.
  const scene = drawSubject(subject.name, ticket.subject.identity, width, height, { ...wishes, pose: ticket.seed });
  return paint(scene.picture, ticket.look.style, strength, ticket.seed, { mask: scene.mask, parts: scene.parts, never });
}
