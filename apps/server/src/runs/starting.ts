import type { PlanInput } from '@zinc/contract';
import { NO_LOOK, styleKey, ticketHash, type Cell } from '@zinc/core';
import { and, desc, eq } from 'drizzle-orm';
import type { MySqlInsertValue } from 'drizzle-orm/mysql-core';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { inMilliseconds } from '../db/columns.ts';
import type { Queries } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { holdBudgets } from './budgets.ts';
import { planRun, type Planned } from './planning.ts';
import { batches, cells, runLooks, runs, takes, type CellBind } from './tables.ts';

/** Freezes a plan and orders its images. Findings that must be settled stop it. Returns the run's id. */
export async function startRun(context: Context, input: PlanInput, personId: string): Promise<string> {
  const planned = await readyPlan(context, input, personId);
  const runId = uuidv7();
  await context.db.transaction(async tx => {
    await tx.insert(runs).values({
      id: runId,
      name: input.name,
      kind: input.kind ?? 'set',
      campaignId: input.campaignId ?? null,
      startedBy: personId,
      startedAt: new Date(),
    });
    await insertBatch(context, tx, runId, 1, planned, input, personId);
  });
  return runId;
}

/**
 * Adds a batch to a run: more takes, subjects that join, or the rest after a pilot. What is there stays as it is, cells that are there
 * already are not made again, and bound cells take the sheet that the run's other batches decided.
 */
export async function addBatch(context: Context, runId: string, input: PlanInput, personId: string): Promise<void> {
  const earlier = await context.db.select().from(batches).where(eq(batches.runId, runId)).orderBy(desc(batches.number));
  if (earlier.length === 0) throw new ProblemError('notFound', 'There is no such run.');
  const there = await context.db
    .select({ key: cells.cellKey })
    .from(cells)
    .innerJoin(batches, eq(batches.id, cells.batchId))
    .where(and(eq(batches.runId, runId), eq(cells.struckOut, false)));
  const planned = await readyPlan(context, input, personId, new Set(there.map(c => c.key)));
  const sheets = Object.assign({}, ...earlier.map(b => b.sheets ?? {}).reverse()) as NonNullable<(typeof earlier)[0]['sheets']>;
  await context.db.transaction(async tx => {
    await insertBatch(context, tx, runId, earlier[0].number + 1, planned, input, personId, sheets);
  });
}

async function readyPlan(
  context: Context,
  input: PlanInput,
  personId: string,
  there: ReadonlySet<string> = new Set(),
): Promise<Planned> {
  const planned = await planRun(context, { ...input, struckOut: [...new Set([...input.struckOut, ...there])] }, personId);
  const must = planned.preview.findings.filter(f => f.severity === 'must');
  if (must.length > 0)
    throw new ProblemError(
      'notPossible',
      `${must.length === 1 ? 'One finding' : `${must.length} findings`} must be settled first. ${must[0].message}`,
      { findings: must },
    );
  if (planned.expanded.images === 0)
    throw new ProblemError(
      'badInput',
      there.size > 0
        ? 'Every cell of this plan is in the run already. Add subjects, looks or values to it.'
        : 'This run would make 0 images. Take at least one cell back in.',
      { field: 'struckOut' },
    );
  return planned;
}

/** Which cells share a binding sheet: those of one look at one way of mixing it. */
function groupOf(c: Cell): string {
  const mixing = new Map(c.values.map(v => [v.setting, v.value]));
  return `${styleKey(c.lookId, mixing)}@${c.tickets[0].settings.strength}`;
}

async function insertBatch(
  context: Context,
  tx: Queries,
  runId: string,
  number: number,
  planned: Planned,
  input: PlanInput,
  personId: string,
  sheets: (typeof batches.$inferSelect)['sheets'] = null,
): Promise<void> {
  await holdBudgets(context, tx, planned.expanded.images, input.campaignId ?? null, personId);
  const batchId = uuidv7();
  const now = new Date();
  const cellRows: (typeof cells.$inferInsert)[] = [];
  const takeRows: MySqlInsertValue<typeof takes>[] = [];
  let bound = false;
  for (const c of planned.expanded.cells) {
    const [{ subject, look }] = c.tickets;
    const cellId = uuidv7();
    const bind: CellBind | null = c.bind && { ...c.bind, group: groupOf(c) };
    bound ||= bind !== null && !c.struckOut;
    cellRows.push({
      id: cellId,
      batchId,
      cellKey: c.key,
      row: c.row,
      col: c.column,
      subjectId: subject.id,
      subjectLabel: subject.label,
      lookId: look.id,
      lookName: look.name,
      lookVersion: look.version,
      formatId: c.formatId,
      values: c.values,
      bind,
      text: c.text.slice(0, 4000),
      struckOut: c.struckOut,
    });
    if (c.struckOut) continue;
    for (const ticket of c.tickets)
      takeRows.push({
        id: uuidv7(),
        cellId,
        batchId,
        take: ticket.take,
        pressId: ticket.press.id,
        seed: ticket.seed,
        ticket,
        ticketHash: ticketHash(ticket),
        state: 'waiting',
        notBefore: inMilliseconds(0),
      });
  }
  await tx.insert(batches).values({
    id: batchId,
    runId,
    number,
    // A bound batch waits until it is decided what its images share.
    state: bound ? 'waiting' : 'running',
    waitingFor: bound ? 'Deciding what the set shares.' : null,
    plan: input,
    sheets: bound ? (sheets ?? {}) : null,
    pressId: input.pressId,
    frozenAt: now,
  });
  const aims = planned.looks.filter(l => l.id !== NO_LOOK);
  if (aims.length > 0)
    await tx
      .insert(runLooks)
      .ignore()
      .values(
        aims.map(l => ({
          runId,
          lookId: l.id,
          version: l.latest.version,
          target: l.latest.target,
          facets: l.latest.facets,
        })),
      );
  for (let i = 0; i < cellRows.length; i += 200) await tx.insert(cells).values(cellRows.slice(i, i + 200));
  for (let i = 0; i < takeRows.length; i += 100) await tx.insert(takes).values(takeRows.slice(i, i + 100));
  await context.events.add(tx, 'runStarted', runId, personId, { name: input.name, images: takeRows.length });
}
