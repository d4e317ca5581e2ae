import type { PlanInput } from '@zinc/contract';
import { ticketHash } from '@zinc/core';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { planRun } from './planning.ts';
import { batches, cells, runLooks, runs, takes } from './tables.ts';

/** Freezes a plan and orders its images. Findings that must be settled stop it. Returns the run's id. */
export async function startRun(context: Context, input: PlanInput, personId: string): Promise<string> {
  const planned = await planRun(context, input);
  const must = planned.preview.findings.filter(f => f.severity === 'must');
  if (must.length > 0)
    throw new ProblemError(
      'notPossible',
      `${must.length === 1 ? 'One finding' : `${must.length} findings`} must be settled first. ${must[0].message}`,
      { findings: must },
    );
  if (planned.expanded.images === 0)
    throw new ProblemError('badInput', 'This run would make 0 images. Take at least one cell back in.', { field: 'struckOut' });
  const runId = uuidv7();
  const batchId = uuidv7();
  const now = new Date();
  const cellRows: (typeof cells.$inferInsert)[] = [];
  const takeRows: (typeof takes.$inferInsert)[] = [];
  for (const c of planned.expanded.cells) {
    const subject = planned.library.subjects.find(s => s.id === c.subjectId)!;
    const look = planned.library.looks.find(l => l.id === c.lookId)!;
    const cellId = uuidv7();
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
        seed: ticket.seed,
        ticket,
        ticketHash: ticketHash(ticket),
        state: 'waiting',
        notBefore: now,
      });
  }
  await context.db.transaction(async tx => {
    await tx.insert(runs).values({ id: runId, name: input.name, startedBy: personId, startedAt: now });
    await tx
      .insert(batches)
      .values({ id: batchId, runId, number: 1, state: 'running', plan: input, pressId: input.pressId, frozenAt: now });
    await tx.insert(runLooks).values(
      planned.looks.map(l => ({
        runId,
        lookId: l.id,
        version: l.latest.version,
        target: l.latest.target,
        facets: l.latest.facets,
      })),
    );
    await tx.insert(cells).values(cellRows);
    for (let i = 0; i < takeRows.length; i += 100) await tx.insert(takes).values(takeRows.slice(i, i + 100));
    await context.events.add(tx, 'runStarted', runId, personId, { name: input.name, images: takeRows.length });
  });
  return runId;
}
