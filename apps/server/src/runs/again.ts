import { furtherTicket, seedFor, ticketHash, type Kin, type Ticket } from '@zinc/core';
import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { inMilliseconds } from '../db/columns.ts';
import type { Queries } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { holdBudgets } from './budgets.ts';
import { readPlan } from './planning.ts';
import { batchesOf } from './service.ts';
import { batches, cells, runs, takes } from './tables.ts';

/** What a take becomes that is ordered again in its place, from any press, as if it had never been tried. */
const AFRESH = {
  state: 'waiting' as const,
  generation: sql`${takes.generation} + 1`,
  attempts: 0,
  notAt: null,
  problem: null,
  finishedAt: null,
};

/** Orders every failed take of a run again. Returns how many. */
export async function repeatFailed(context: Context, runId: string, personId: string): Promise<number> {
  const ids = (await batchesOf(context, runId)).map(b => b.id);
  return context.db.transaction(async tx => {
    const failed = await tx
      .selectDistinct({ batchId: takes.batchId })
      .from(takes)
      .where(and(inArray(takes.batchId, ids), eq(takes.state, 'failed')));
    const [result] = await tx
      .update(takes)
      .set({ ...AFRESH, notBefore: inMilliseconds(0) })
      .where(and(inArray(takes.batchId, ids), eq(takes.state, 'failed')));
    if (result.affectedRows > 0) {
      const touched = failed.map(f => f.batchId);
      await tx
        .update(batches)
        .set({ state: 'running' })
        .where(and(inArray(batches.id, touched), eq(batches.state, 'done')));
      await context.events.add(tx, 'runStarted', runId, personId, { again: result.affectedRows });
    }
    return result.affectedRows;
  });
}

/** Calls one take off that is not made yet. */
export async function cancelTake(context: Context, takeId: string, personId: string): Promise<void> {
  const [row] = await context.db
    .select({ state: takes.state, batchId: takes.batchId, runId: batches.runId })
    .from(takes)
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(eq(takes.id, takeId));
  if (!row) throw new ProblemError('notFound', 'There is no such take.');
  const [result] = await context.db
    .update(takes)
    .set({ state: 'cancelled', leaseOwner: null, leaseEnds: null, finishedAt: new Date() })
    .where(and(eq(takes.id, takeId), inArray(takes.state, ['waiting', 'painting', 'failed'])));
  if (result.affectedRows === 0) throw new ProblemError('inTheWay', `This take is ${row.state} already.`);
  await context.events.add(context.db, 'runMoved', row.runId, personId, { cancelled: takeId });
}

/** Orders so many more takes of every cell of a run that has any made; all of them or, beyond a budget, none. Returns how many. */
export async function moreTakes(context: Context, runId: string, more: number, personId: string): Promise<number> {
  const batchIds = (await batchesOf(context, runId)).map(b => b.id);
  return context.db.transaction(async tx => {
    const newest = await tx
      .select({ cellId: takes.cellId, last: sql<string>`max(${takes.id})` })
      .from(takes)
      .where(and(inArray(takes.batchId, batchIds), eq(takes.state, 'made'), isNull(takes.parentProof)))
      .groupBy(takes.cellId);
    if (newest.length === 0)
      throw new ProblemError('inTheWay', 'Nothing of this run is made yet, so there is nothing to add takes to.');
    const found = await readTakes(
      tx,
      newest.map(n => n.last),
    );
    await holdBudgets(context, tx, found.length * more, found[0].campaignId, personId);
    for (let i = 0; i < more; i++) for (const row of found) await addTake(tx, row);
    await goOn(context, tx, found, personId, found.length * more);
    return found.length * more;
  });
}

/** Orders one take again: a failed one is repeated in its place; a made one gets a further take beside it, with a seed of its own. */
export async function takeAgain(context: Context, takeId: string, personId: string): Promise<void> {
  await context.db.transaction(async tx => {
    const [row] = await readTakes(tx, [takeId]);
    if (!row) throw new ProblemError('notFound', 'There is no such take.');
    const { take } = row;
    if (take.state === 'waiting' || take.state === 'painting')
      throw new ProblemError('inTheWay', 'This take is being made already.');
    if (take.state === 'made') {
      await holdBudgets(context, tx, 1, row.campaignId, personId);
      await addTake(tx, row);
    } else
      await tx
        .update(takes)
        .set({ ...AFRESH, notBefore: inMilliseconds(0) })
        .where(eq(takes.id, takeId));
    await goOn(context, tx, [row], personId, 1);
  });
}

export type TakeRow = Awaited<ReturnType<typeof readTakes>>[number];

export function readTakes(tx: Queries, ids: string[]) {
  return tx
    .select({ take: takes, runId: batches.runId, campaignId: runs.campaignId, plan: batches.plan, cellKey: cells.cellKey })
    .from(takes)
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .innerJoin(runs, eq(runs.id, batches.runId))
    .where(inArray(takes.id, ids));
}

/** Adds a take to the cell of one that is made, with the next number and a seed of its own. */
function addTake(tx: Queries, row: TakeRow): Promise<string> {
  const { parentProof, kin, ticket } = row.take;
  const from = parentProof && kin ? { proofId: parentProof, how: kin } : null;
  return addTakeAs(tx, row, from, (seed, number) => furtherTicket(ticket, seed, number));
}

/** Adds a take to the cell of another, of a ticket that `make` makes for its seed and number. Returns its id. */
export async function addTakeAs(
  tx: Queries,
  { take, plan: stored, cellKey }: TakeRow,
  from: { proofId: string; how: Kin } | null,
  make: (seed: number, number: number) => Ticket,
): Promise<string> {
  const plan = readPlan(stored);
  // The lock on the cell keeps two people from getting the same take number.
  await tx.execute(sql`select id from cells where id = ${take.cellId} for update`);
  const [{ last }] = await tx
    .select({ last: sql<number>`max(${takes.take})`.mapWith(Number) })
    .from(takes)
    .where(eq(takes.cellId, take.cellId));
  // The seed has no part in what is stepped.
  const base = cellKey.split('/').slice(0, 3).join('/');
  const seed = seedFor(plan.seedPolicy, plan.seed, take.ticket.subject.id, base, last + 1);
  const ticket = make(seed, last + 1);
  const id = uuidv7();
  await tx.insert(takes).values({
    id,
    cellId: take.cellId,
    batchId: take.batchId,
    take: last + 1,
    pressId: take.pressId,
    parentProof: from?.proofId ?? null,
    kin: from?.how ?? null,
    seed: ticket.seed,
    ticket,
    ticketHash: ticketHash(ticket),
    state: 'waiting',
    notBefore: inMilliseconds(0),
  });
  return id;
}

/** Batches that had ended go on for what was added to them. */
export async function goOn(context: Context, tx: Queries, found: TakeRow[], personId: string, again: number): Promise<void> {
  const touched = [...new Set(found.map(r => r.take.batchId))];
  await tx
    .update(batches)
    .set({ state: 'running' })
    .where(and(inArray(batches.id, touched), inArray(batches.state, ['done', 'stopped'])));
  await context.events.add(tx, 'runStarted', found[0].runId, personId, { again });
}
