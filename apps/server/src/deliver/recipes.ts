import { recipeSchema, type Recipe } from '@zinc/contract';
import { ticketHash } from '@zinc/core';
import { desc, eq, or } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, route } from '../http/route.ts';
import { proofs } from '../runs/tables.ts';
import { readUpload } from '../shelf/upload.ts';
import { ticketOfXmp } from './xmp.ts';

/** What a picture is to this house: one of its proofs by its pixels or ticket, another house's with its recipe inside, or neither. */
async function recogniseBytes(context: Context, name: string, bytes: Buffer): Promise<Recipe> {
  const taken = await context.pictures.run({ kind: 'intake', name, bytes });
  if (!taken.ok) throw new ProblemError('notAPicture', `${name}: ${taken.reason}`, { field: 'file' });
  const ticket = await ticketOfXmp(bytes);
  const hash = ticket ? ticketHash(ticket) : null;
  const [found] = await context.db
    .select({ id: proofs.id, pixelHash: proofs.pixelHash })
    .from(proofs)
    .where(or(eq(proofs.pixelHash, taken.pixelHash), hash ? eq(proofs.ticketHash, hash) : undefined))
    .orderBy(desc(proofs.id))
    .limit(1);
  if (found) {
    const same = found.pixelHash === taken.pixelHash;
    return {
      proofId: found.id,
      ticket: null,
      says: same
        ? 'This is one of our proofs, pixel for pixel.'
        : 'Its recipe is that of one of our proofs; its pixels were changed since.',
    };
  }
  if (ticket) return { proofId: null, ticket, says: 'Another house made this, and its recipe is inside.' };
  return { proofId: null, ticket: null, says: 'No recipe is inside, and none of our proofs looks exactly like it.' };
}

export const recipeRoutes = [
  route({
    method: 'post',
    path: '/recipes',
    roles: EVERYONE,
    summary: 'Say what a picture is to this house: which proof, or the recipe inside it',
    upload: 'file',
    response: recipeSchema,
    async handle({ context, req, res }) {
      const { name, bytes } = await readUpload(req, res);
      return recogniseBytes(context, name, bytes);
    },
  }),
];
