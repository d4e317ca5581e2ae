import { messageSchema, reopenSchema, type RoundView, type Verdict } from '@zinc/contract';
import { and, asc, desc, eq } from 'drizzle-orm';
import { alias } from 'drizzle-orm/mysql-core';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { isDuplicate, type Queries } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { LEADS, route } from '../http/route.ts';
import { people } from '../people/tables.ts';
import { batches, proofs, runs, takes } from '../runs/tables.ts';
import { standingOf } from './service.ts';
import { rounds } from './tables.ts';

/** The rounds of a run, oldest first. */
export async function listRounds(context: Context, runId: string): Promise<RoundView[]> {
  const signer = alias(people, 'signer');
  const rows = await context.db
    .select({ r: rounds, opener: people.name, signer: signer.name })
    .from(rounds)
    .innerJoin(people, eq(people.id, rounds.openedBy))
    .leftJoin(signer, eq(signer.id, rounds.signedBy))
    .where(eq(rounds.runId, runId))
    .orderBy(asc(rounds.number));
  return rows.map(({ r, opener, signer: signed }) => ({
    number: r.number,
    openedBy: opener,
    openedAt: r.openedAt.toISOString(),
    reason: r.reason,
    signedBy: signed,
    signedAt: r.signedAt?.toISOString() ?? null,
    stood: r.stood,
  }));
}

const newest = async (db: Queries, runId: string): Promise<typeof rounds.$inferSelect | undefined> =>
  (await db.select().from(rounds).where(eq(rounds.runId, runId)).orderBy(desc(rounds.number)).limit(1))[0];

/** The open round of a run; the first decision opens the first one. Throws when the newest is signed off. */
export async function openRound(context: Context, runId: string, personId: string): Promise<string> {
  const last = await newest(context.db, runId);
  if (last?.signedAt)
    throw new ProblemError(
      'inTheWay',
      `Round ${last.number} of this run is signed off. A lead can open it again, with the reason.`,
    );
  if (last) return last.id;
  const id = uuidv7();
  try {
    await context.db.insert(rounds).values({ id, runId, number: 1, openedBy: personId, openedAt: new Date() });
    return id;
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    // Another person decided at the same moment.
    return (await newest(context.db, runId))!.id;
  }
}

async function signOff(context: Context, runId: string, personId: string): Promise<string> {
  const round = await newest(context.db, runId);
  if (!round) throw new ProblemError('inTheWay', 'Nothing is decided in this run yet, so there is nothing to sign off.');
  if (round.signedAt) throw new ProblemError('inTheWay', `Round ${round.number} is signed off already.`);
  const made = await context.db
    .select({ id: proofs.id })
    .from(proofs)
    .innerJoin(takes, and(eq(takes.id, proofs.takeId), eq(takes.generation, proofs.generation)))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(eq(batches.runId, runId));
  const ids = made.map(p => p.id);
  const standing = await standingOf(context, ids);
  const stood: Record<string, Verdict | null> = Object.fromEntries(
    ids.map(id => [id, standing.get(id)?.decision?.verdict ?? null]),
  );
  await context.db.transaction(async tx => {
    // Two leads who sign off at once: the second finds it done.
    const [locked] = await tx.select().from(rounds).where(eq(rounds.id, round.id)).for('update');
    if (locked.signedAt) throw new ProblemError('inTheWay', `Round ${round.number} is signed off already.`);
    await tx.update(rounds).set({ signedBy: personId, signedAt: new Date(), stood }).where(eq(rounds.id, round.id));
    await context.events.add(tx, 'roundSigned', runId, personId, { number: round.number });
  });
  const open = Object.values(stood).filter(v => v === null).length;
  const rest = open === 0 ? '' : open === 1 ? ', with one proof undecided' : `, with ${open} proofs undecided`;
  return `Round ${round.number} is signed off${rest}.`;
}

async function reopen(context: Context, runId: string, reason: string, personId: string): Promise<string> {
  const last = await newest(context.db, runId);
  if (!last?.signedAt) throw new ProblemError('inTheWay', 'The round is open; there is nothing to open again.');
  const number = last.number + 1;
  try {
    await context.db.transaction(async tx => {
      await tx.insert(rounds).values({ id: uuidv7(), runId, number, openedBy: personId, openedAt: new Date(), reason });
      await context.events.add(tx, 'roundOpened', runId, personId, { number });
    });
  } catch (error) {
    if (isDuplicate(error)) throw new ProblemError('inTheWay', `Round ${number} was opened by someone else just now.`);
    throw error;
  }
  return `Round ${number} is open.`;
}

async function mustBeThere(context: Context, runId: string): Promise<void> {
  const [run] = await context.db.select({ id: runs.id }).from(runs).where(eq(runs.id, runId));
  if (!run) throw new ProblemError('notFound', 'There is no such run.');
}

export const roundRoutes = [
  route({
    method: 'post',
    path: '/runs/:id/sign-off',
    roles: LEADS,
    summary: 'Sign off the open round of a run: what stands is kept, and no more is decided until it is opened again',
    response: messageSchema,
    async handle({ context, params, person }) {
      await mustBeThere(context, params.id);
      return { message: await signOff(context, params.id, person.id) };
    },
  }),
  route({
    method: 'post',
    path: '/runs/:id/reopen',
    roles: LEADS,
    summary: 'Open the next round of a run whose last one is signed off, with the reason',
    body: reopenSchema,
    response: messageSchema,
    async handle({ context, params, body, person }) {
      await mustBeThere(context, params.id);
      return { message: await reopen(context, params.id, body.reason, person.id) };
    },
  }),
];
