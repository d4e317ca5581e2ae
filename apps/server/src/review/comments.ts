import { commentCloseSchema, commentInputSchema, commentSchema, type Comment } from '@zinc/contract';
import { and, asc, count, eq, inArray, isNull } from 'drizzle-orm';
import { alias } from 'drizzle-orm/mysql-core';
import type { Context } from '../context.ts';
import { isDuplicate } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, route } from '../http/route.ts';
import { people } from '../people/tables.ts';
import { batches, proofs, takes } from '../runs/tables.ts';
import { comments } from './tables.ts';

/** What is said of a proof, oldest first. */
export async function listComments(context: Context, proofId: string): Promise<Comment[]> {
  const closer = alias(people, 'closer');
  const rows = await context.db
    .select({ c: comments, person: people.name, closer: closer.name })
    .from(comments)
    .innerJoin(people, eq(people.id, comments.personId))
    .leftJoin(closer, eq(closer.id, comments.closedBy))
    .where(eq(comments.proofId, proofId))
    .orderBy(asc(comments.at), asc(comments.id));
  return rows.map(({ c, person, closer: closedBy }) => ({
    id: c.id,
    proofId: c.proofId,
    answers: c.answers,
    x: c.x,
    y: c.y,
    words: c.words,
    person,
    personId: c.personId,
    at: c.at.toISOString(),
    closedBy,
    closedAt: c.closedAt?.toISOString() ?? null,
  }));
}

/** How many comments of each proof are not closed; answers are not counted. */
export async function openComments(context: Context, proofIds: string[]): Promise<Map<string, number>> {
  if (proofIds.length === 0) return new Map();
  const rows = await context.db
    .select({ proofId: comments.proofId, n: count() })
    .from(comments)
    .where(and(inArray(comments.proofId, proofIds), isNull(comments.closedAt), isNull(comments.answers)))
    .groupBy(comments.proofId);
  return new Map(rows.map(r => [r.proofId, r.n]));
}

async function runOf(context: Context, proofId: string): Promise<string | null> {
  const [row] = await context.db
    .select({ runId: batches.runId })
    .from(proofs)
    .innerJoin(takes, eq(takes.id, proofs.takeId))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(eq(proofs.id, proofId));
  return row?.runId ?? null;
}

export const commentRoutes = [
  route({
    method: 'post',
    path: '/comments',
    roles: EVERYONE,
    summary: 'Say something of a proof, perhaps of a place in it, or answer what was said. The id is made by the client',
    body: commentInputSchema,
    response: commentSchema,
    status: 201,
    async handle({ context, body, person }) {
      const { id, proofId, answers, words } = body;
      const runId = await runOf(context, proofId);
      if (!runId) throw new ProblemError('notFound', 'There is no such proof any more.', { field: 'proofId' });
      if ((body.x === null) !== (body.y === null))
        throw new ProblemError('badInput', 'A place has both x and y.', { field: body.x === null ? 'x' : 'y' });
      const thread = await listComments(context, proofId);
      const first = answers ? thread.find(c => c.id === answers) : null;
      if (answers && !first)
        throw new ProblemError('badInput', 'What this answers is not said of this proof.', { field: 'answers' });
      if (first?.closedAt) throw new ProblemError('inTheWay', `${first.closedBy} closed this; open it again to answer.`);
      // An answer to an answer belongs to the same thread, at the same place.
      const root = first?.answers ?? first?.id ?? null;
      const [x, y] = root ? [null, null] : [body.x ?? null, body.y ?? null];
      try {
        await context.db.transaction(async tx => {
          await tx.insert(comments).values({ id, proofId, personId: person.id, answers: root, x, y, words, at: new Date() });
          await context.events.add(tx, 'commented', runId, person.id, { proofId });
        });
      } catch (error) {
        if (!isDuplicate(error)) throw error;
      }
      return (await listComments(context, proofId)).find(c => c.id === id);
    },
  }),
  route({
    method: 'put',
    path: '/comments/:id/closed',
    roles: EVERYONE,
    summary: 'Close what was said, or open it again',
    body: commentCloseSchema,
    response: commentSchema,
    async handle({ context, params, body, person }) {
      const [row] = await context.db.select().from(comments).where(eq(comments.id, params.id));
      if (!row) throw new ProblemError('notFound', 'There is no such comment.');
      if (row.answers) throw new ProblemError('badInput', 'An answer is closed with what it answers.');
      const set = body.closed ? { closedBy: person.id, closedAt: new Date() } : { closedBy: null, closedAt: null };
      await context.db.transaction(async tx => {
        await tx.update(comments).set(set).where(eq(comments.id, row.id));
        await context.events.add(tx, 'commented', await runOf(context, row.proofId), person.id, { proofId: row.proofId });
      });
      return (await listComments(context, row.proofId)).find(c => c.id === row.id);
    },
  }),
];
