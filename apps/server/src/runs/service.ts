import type { CellView, Decision, Proof, Run, RunDetail } from '@zinc/contract';
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import { seedFor, ticketHash, type Ticket } from '@zinc/core';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { findBrand } from '../house/service.ts';
import { lookVersions } from '../mix/tables.ts';
import { people } from '../people/tables.ts';
import { listDecisions, standingDecisions } from '../review/service.ts';
import { pictures } from '../shelf/tables.ts';
import { batches, cells, proofs, runLooks, runs, takes } from './tables.ts';

const COVER = 6;

interface Counts {
  runId: string;
  images: number;
  made: number;
  failed: number;
}

/** Runs, newest first, with what has come of them. */
export async function listRuns(context: Context, only?: string): Promise<Run[]> {
  const rows = await context.db
    .select({ run: runs, state: batches.state, waitingFor: batches.waitingFor, by: people.name })
    .from(runs)
    .innerJoin(batches, eq(batches.runId, runs.id))
    .innerJoin(people, eq(people.id, runs.startedBy))
    .where(only ? eq(runs.id, only) : undefined)
    .orderBy(desc(runs.id))
    .limit(200);
  if (rows.length === 0) return [];
  const ids = rows.map(r => r.run.id);
  const counts = (await context.db
    .select({
      runId: batches.runId,
      images: sql<number>`count(*)`.mapWith(Number),
      made: sql<number>`sum(${takes.state} = 'made')`.mapWith(Number),
      failed: sql<number>`sum(${takes.state} = 'failed')`.mapWith(Number),
    })
    .from(takes)
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(inArray(batches.runId, ids))
    .groupBy(batches.runId)) as Counts[];
  const proofRows = await context.db
    .select({ id: proofs.id, sha256: proofs.sha256, runId: batches.runId })
    .from(proofs)
    .innerJoin(takes, and(eq(takes.id, proofs.takeId), eq(takes.generation, proofs.generation)))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(inArray(batches.runId, ids))
    .orderBy(asc(proofs.id));
  const standing = await standingDecisions(
    context,
    proofRows.map(p => p.id),
  );
  return rows.map(({ run, state, waitingFor, by }) => {
    const count = counts.find(c => c.runId === run.id);
    const own = proofRows.filter(p => p.runId === run.id);
    const verdictOf = (id: string): string | null | undefined => standing.get(id)?.verdict;
    const kept = own.filter(p => verdictOf(p.id) === 'keep');
    const cover = [...kept, ...own.filter(p => verdictOf(p.id) !== 'keep')].slice(0, COVER).map(p => p.sha256);
    return {
      id: run.id,
      name: run.name,
      state,
      images: count?.images ?? 0,
      made: count?.made ?? 0,
      failed: count?.failed ?? 0,
      kept: kept.length,
      decided: own.filter(p => verdictOf(p.id)).length,
      startedAt: run.startedAt.toISOString(),
      startedBy: by,
      cover,
      waitingFor,
    };
  });
}

/** One run with its whole grid: cells, takes, proofs, figures and standing decisions. */
export async function describeRun(context: Context, runId: string): Promise<RunDetail> {
  const [run] = await listRuns(context, runId);
  if (!run) throw new ProblemError('notFound', 'There is no such run.');
  const cellRows = await context.db
    .select({ cell: cells })
    .from(cells)
    .innerJoin(batches, eq(batches.id, cells.batchId))
    .where(eq(batches.runId, runId))
    .orderBy(asc(cells.row), asc(cells.col));
  const takeRows = await context.db
    .select({
      id: takes.id,
      cellId: takes.cellId,
      take: takes.take,
      seed: takes.seed,
      state: takes.state,
      problem: takes.problem,
      attempts: takes.attempts,
      ticketHash: takes.ticketHash,
      proofId: proofs.id,
      sha256: proofs.sha256,
      drift: proofs.drift,
      width: pictures.width,
      height: pictures.height,
    })
    .from(takes)
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .leftJoin(proofs, and(eq(proofs.takeId, takes.id), eq(proofs.generation, takes.generation)))
    .leftJoin(pictures, eq(pictures.sha256, proofs.sha256))
    .where(eq(batches.runId, runId))
    .orderBy(asc(takes.take));
  const standing = await standingDecisions(
    context,
    takeRows.flatMap(t => (t.proofId ? [t.proofId] : [])),
  );
  const byCell = new Map<string, typeof takeRows>();
  for (const t of takeRows) byCell.set(t.cellId, [...(byCell.get(t.cellId) ?? []), t]);
  const [first] = await context.db
    .select({ ticket: takes.ticket })
    .from(takes)
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(eq(batches.runId, runId))
    .limit(1);
  const [looked] = await context.db.select({ facets: runLooks.facets }).from(runLooks).where(eq(runLooks.runId, runId)).limit(1);
  const brand = await findBrand(context);
  const { name, width, height } = first.ticket.format;
  return {
    run,
    allowedDrift: brand?.allowedDrift ?? 0.4,
    facets: looked?.facets ?? [],
    format: { name, width, height },
    leftOut: cellRows.filter(r => r.cell.struckOut).map(r => r.cell.subjectLabel),
    cells: cellRows
      .filter(r => !r.cell.struckOut)
      .map(({ cell }): CellView => ({
        key: cell.cellKey,
        row: cell.row,
        column: cell.col,
        subject: { id: cell.subjectId, label: cell.subjectLabel },
        look: { id: cell.lookId, name: cell.lookName, version: cell.lookVersion },
        text: cell.text,
        takes: (byCell.get(cell.id) ?? []).map(t => ({
          id: t.id,
          take: t.take,
          seed: t.seed,
          state: t.state,
          problem: t.problem,
          attempts: t.attempts,
          proof:
            t.proofId && t.sha256
              ? {
                  id: t.proofId,
                  pictureSha: t.sha256,
                  width: t.width ?? width,
                  height: t.height ?? height,
                  drift: t.drift,
                  decision: standing.get(t.proofId) ?? null,
                  seed: t.seed,
                  ticketHash: t.ticketHash,
                }
              : null,
        })),
      })),
  };
}

/** Everything that made an image, one read away from the image. */
export async function describeProof(context: Context, id: string): Promise<Proof> {
  const [row] = await context.db
    .select({ proof: proofs, take: takes, cell: cells, run: runs, width: pictures.width, height: pictures.height })
    .from(proofs)
    .innerJoin(takes, eq(takes.id, proofs.takeId))
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .innerJoin(runs, eq(runs.id, batches.runId))
    .innerJoin(pictures, eq(pictures.sha256, proofs.sha256))
    .where(eq(proofs.id, id));
  if (!row) throw new ProblemError('notFound', 'There is no such proof.');
  const { proof, take, cell, run } = row;
  const [version] = await context.db
    .select({ sources: lookVersions.sources, target: lookVersions.target })
    .from(lookVersions)
    .where(and(eq(lookVersions.lookId, cell.lookId), eq(lookVersions.version, cell.lookVersion)));
  const content = take.ticket.contents[0];
  const [original] = content
    ? await context.db
        .select({ sha256: pictures.sha256, width: pictures.width, height: pictures.height })
        .from(pictures)
        .where(eq(pictures.working, content.sha256))
        .limit(1)
    : [];
  const decided: Decision[] = await listDecisions(context, id);
  return {
    id,
    runId: run.id,
    runName: run.name,
    cellKey: cell.cellKey,
    take: take.take,
    subjectLabel: cell.subjectLabel,
    pictureSha: proof.sha256,
    pixelHash: proof.pixelHash,
    width: row.width,
    height: row.height,
    ticket: take.ticket,
    ticketHash: proof.ticketHash,
    drift: proof.drift,
    targetPalette: version?.target?.colour.palette ?? take.ticket.look.style.palette,
    sources: version?.sources ?? [],
    decisions: decided,
    madeAt: proof.madeAt.toISOString(),
    original: original ?? null,
  };
}

/** The batch of a run, or a problem when there is none. */
export async function batchOf(context: Context, runId: string): Promise<typeof batches.$inferSelect> {
  const [batch] = await context.db.select().from(batches).where(eq(batches.runId, runId));
  if (!batch) throw new ProblemError('notFound', 'There is no such run.');
  return batch;
}

/** Orders every failed take of a run again. Returns how many. */
export async function repeatFailed(context: Context, runId: string, personId: string): Promise<number> {
  const batch = await batchOf(context, runId);
  return context.db.transaction(async tx => {
    const [result] = await tx
      .update(takes)
      .set({
        state: 'waiting',
        generation: sql`${takes.generation} + 1`,
        attempts: 0,
        problem: null,
        notBefore: new Date(),
        finishedAt: null,
      })
      .where(and(eq(takes.batchId, batch.id), eq(takes.state, 'failed')));
    if (result.affectedRows > 0) {
      await tx
        .update(batches)
        .set({ state: 'running' })
        .where(and(eq(batches.id, batch.id), eq(batches.state, 'done')));
      await context.events.add(tx, 'runStarted', runId, personId, { again: result.affectedRows });
    }
    return result.affectedRows;
  });
}

/** Orders one take again: a failed one is repeated in its place; a made one gets a further take beside it, with a seed of its own. */
export async function takeAgain(context: Context, takeId: string, personId: string): Promise<void> {
  await context.db.transaction(async tx => {
    const [row] = await tx
      .select({ take: takes, runId: batches.runId, plan: batches.plan, cellKey: cells.cellKey })
      .from(takes)
      .innerJoin(batches, eq(batches.id, takes.batchId))
      .innerJoin(cells, eq(cells.id, takes.cellId))
      .where(eq(takes.id, takeId));
    if (!row) throw new ProblemError('notFound', 'There is no such take.');
    const { take } = row;
    if (take.state === 'waiting' || take.state === 'painting')
      throw new ProblemError('inTheWay', 'This take is being made already.');
    if (take.state === 'made') {
      // The lock on the cell keeps two people from getting the same take number.
      await tx.execute(sql`select id from cells where id = ${take.cellId} for update`);
      const [{ last }] = await tx
        .select({ last: sql<number>`max(${takes.take})`.mapWith(Number) })
        .from(takes)
        .where(eq(takes.cellId, take.cellId));
      const seed = seedFor(row.plan.seedPolicy, row.plan.seed, take.ticket.subject.id, row.cellKey, last + 1);
      const ticket: Ticket = { ...take.ticket, take: last + 1, seed };
      await tx.insert(takes).values({
        id: uuidv7(),
        cellId: take.cellId,
        batchId: take.batchId,
        take: last + 1,
        seed,
        ticket,
        ticketHash: ticketHash(ticket),
        state: 'waiting',
        notBefore: new Date(),
      });
    } else
      await tx
        .update(takes)
        .set({
          state: 'waiting',
          generation: sql`${takes.generation} + 1`,
          attempts: 0,
          problem: null,
          notBefore: new Date(),
          finishedAt: null,
        })
        .where(eq(takes.id, takeId));
    await tx
      .update(batches)
      .set({ state: 'running' })
      .where(and(eq(batches.id, take.batchId), inArray(batches.state, ['done', 'stopped'])));
    await context.events.add(tx, 'runStarted', row.runId, personId, { again: 1 });
  });
}
