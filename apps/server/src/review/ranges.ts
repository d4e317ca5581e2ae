import { rangeInputSchema, rangeSchema, type LookRange, type RangeProof } from '@zinc/contract';
import { and, desc, eq, inArray } from 'drizzle-orm';
import { array, object } from 'yup';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { oneVersion } from '../mix/service.ts';
import { lookRanges } from '../mix/tables.ts';
import { people } from '../people/tables.ts';
import { cells, proofs, takes } from '../runs/tables.ts';

async function selectRanges(context: Context, lookId: string): Promise<LookRange[]> {
  const rows = await context.db
    .select({ r: lookRanges, author: people.name })
    .from(lookRanges)
    .innerJoin(people, eq(people.id, lookRanges.author))
    .where(and(eq(lookRanges.lookId, lookId), eq(lookRanges.withdrawn, false)))
    .orderBy(desc(lookRanges.id));
  return rows.map(({ r, author }) => {
    const { id, version, setting, from, to, goodFor, note, proofs: speaking, at } = r;
    return { id, lookId, version, setting, from, to, goodFor, note, proofs: speaking, author, at: at.toISOString() };
  });
}

/** Proofs that speak for a range; each must have been made with the look. */
async function speakingProofs(context: Context, lookId: string, ids: string[]): Promise<RangeProof[]> {
  if (ids.length === 0) return [];
  const rows = await context.db
    .select({ id: proofs.id, sha256: proofs.sha256, subject: cells.subjectLabel, lookId: cells.lookId, ticket: takes.ticket })
    .from(proofs)
    .innerJoin(takes, eq(takes.id, proofs.takeId))
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .where(inArray(proofs.id, ids));
  return ids.map((id, i) => {
    const found = rows.find(r => r.id === id);
    if (!found) throw new ProblemError('notFound', 'This proof is not in the house.', { field: `proofIds[${i}]` });
    if (found.lookId !== lookId)
      throw new ProblemError('badInput', `${found.subject} was not made with this look, so it cannot speak for it.`, {
        field: `proofIds[${i}]`,
      });
    return { id, sha256: found.sha256, label: `${found.subject}, ${found.ticket.settings.strength} %` };
  });
}

export const rangeRoutes = [
  route({
    method: 'get',
    path: '/looks/:id/ranges',
    roles: EVERYONE,
    summary: 'Ranges recommended for a look, newest first',
    response: object({ items: array(rangeSchema.required()).required() }),
    handle: async ({ context, params }) => ({ items: await selectRanges(context, params.id) }),
  }),
  route({
    method: 'post',
    path: '/looks/:id/ranges',
    roles: MAKERS,
    summary: 'Recommend a range of strength, or of another setting, for a look, with the proofs that speak for it',
    body: rangeInputSchema,
    status: 201,
    response: object({ items: array(rangeSchema.required()).required() }),
    async handle({ context, params, body, person }) {
      await oneVersion(context, params.id, body.version);
      const speaking = await speakingProofs(context, params.id, body.proofIds);
      const { version, setting, from, to, goodFor, note } = body;
      await context.db.insert(lookRanges).values({
        id: uuidv7(),
        lookId: params.id,
        version,
        setting,
        from,
        to,
        goodFor,
        note,
        proofs: speaking,
        author: person.id,
        at: new Date(),
      });
      await context.events.add(context.db, 'lookSaved', params.id, person.id);
      return { items: await selectRanges(context, params.id) };
    },
  }),
  route({
    method: 'delete',
    path: '/looks/:id/ranges/:range',
    roles: MAKERS,
    summary: 'Withdraw a recommended range; it stays in the records',
    status: 204,
    async handle({ context, params, person }) {
      const [result] = await context.db
        .update(lookRanges)
        .set({ withdrawn: true })
        .where(and(eq(lookRanges.id, params.range), eq(lookRanges.lookId, params.id), eq(lookRanges.withdrawn, false)));
      if (result.affectedRows === 0) throw new ProblemError('notFound', 'This range is withdrawn already.');
      await context.events.add(context.db, 'lookSaved', params.id, person.id);
    },
  }),
];
