import type { BatchView, CellView, Cohesion, Proof, Run, RunDetail } from '@zinc/contract';
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { cohesionOf, planDifferences, type Plan, type PlanNames } from '@zinc/core';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { findBrand, listFormats } from '../house/service.ts';
import { campaigns } from '../house/tables.ts';
import { looks, lookVersions } from '../mix/tables.ts';
import { people } from '../people/tables.ts';
import { threadOf } from '../review/asks.ts';
import { listComments, openComments } from '../review/comments.ts';
import { depthOf, familyOf } from '../review/family.ts';
import { listRounds } from '../review/rounds.ts';
import { listDecisions, standingDecisions, standingOf } from '../review/service.ts';
import { presses } from '../presses/tables.ts';
import { fingerprintsOf } from '../shelf/service.ts';
import { pictures } from '../shelf/tables.ts';
import { subjects, templates } from '../wording/tables.ts';
import { readPlan } from './planning.ts';
import { batches, cells, proofs, runLooks, runs, takes } from './tables.ts';

const COVER = 6;

interface Counts {
  runId: string;
  images: number;
  made: number;
  failed: number;
}

type State = Run['state'];
/** The state of a run is that of its liveliest batch. */
const LIVELIEST: readonly State[] = ['running', 'waiting', 'paused', 'stopped', 'done'];

/** Runs, newest first, with what has come of them. */
export async function listRuns(context: Context, only?: string): Promise<Run[]> {
  const rows = await context.db
    .select({ run: runs, by: people.name })
    .from(runs)
    .innerJoin(people, eq(people.id, runs.startedBy))
    .where(only ? eq(runs.id, only) : undefined)
    .orderBy(desc(runs.id))
    .limit(200);
  if (rows.length === 0) return [];
  const ids = rows.map(r => r.run.id);
  const batchRows = await context.db
    .select({ runId: batches.runId, state: batches.state, waitingFor: batches.waitingFor })
    .from(batches)
    .where(inArray(batches.runId, ids));
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
  const proofsOf = new Map<string, typeof proofRows>();
  for (const p of proofRows) (proofsOf.get(p.runId) ?? proofsOf.set(p.runId, []).get(p.runId)!).push(p);
  return rows.map(({ run, by }) => {
    const count = counts.find(c => c.runId === run.id);
    const own = proofsOf.get(run.id) ?? [];
    const batchesOf = batchRows.filter(b => b.runId === run.id);
    const verdictOf = (id: string): string | null | undefined => standing.get(id)?.verdict;
    const kept = own.filter(p => verdictOf(p.id) === 'keep');
    const cover = [...kept, ...own.filter(p => verdictOf(p.id) !== 'keep')].slice(0, COVER).map(p => p.sha256);
    return {
      id: run.id,
      name: run.name,
      kind: run.kind,
      state: LIVELIEST.find(s => batchesOf.some(b => b.state === s)) ?? 'done',
      batches: batchesOf.length,
      images: count?.images ?? 0,
      made: count?.made ?? 0,
      failed: count?.failed ?? 0,
      kept: kept.length,
      decided: own.filter(p => verdictOf(p.id)).length,
      startedAt: run.startedAt.toISOString(),
      startedBy: by,
      cover,
      waitingFor: batchesOf.find(b => b.waitingFor)?.waitingFor ?? null,
    };
  });
}

/** One run with its whole grid: cells, takes, proofs, figures and standing decisions. */
export async function describeRun(context: Context, runId: string): Promise<RunDetail> {
  const [run] = await listRuns(context, runId);
  if (!run) throw new ProblemError('notFound', 'There is no such run.');
  const cellRows = await context.db
    .select({ cell: cells, batch: batches.number })
    .from(cells)
    .innerJoin(batches, eq(batches.id, cells.batchId))
    .where(eq(batches.runId, runId))
    .orderBy(asc(batches.number), asc(cells.row), asc(cells.col));
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
      parentProof: takes.parentProof,
      kin: takes.kin,
      proofId: proofs.id,
      sha256: proofs.sha256,
      drift: proofs.drift,
      likeness: proofs.likeness,
      width: pictures.width,
      height: pictures.height,
    })
    .from(takes)
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .leftJoin(proofs, and(eq(proofs.takeId, takes.id), eq(proofs.generation, takes.generation)))
    .leftJoin(pictures, eq(pictures.sha256, proofs.sha256))
    .where(eq(batches.runId, runId))
    .orderBy(asc(takes.take));
  const proofIds = takeRows.flatMap(t => (t.proofId ? [t.proofId] : []));
  const [standing, said] = await Promise.all([standingOf(context, proofIds), openComments(context, proofIds)]);
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
  const formats = new Map((await listFormats(context)).map(f => [f.id, f]));
  const live = cellRows.filter(r => !r.cell.struckOut);
  const made = new Set(live.map(r => r.cell.cellKey));
  // Batches number their rows and columns by themselves; the grid of the run has one row a subject, one column a way to make it.
  const rows = [...new Set(live.map(r => r.cell.subjectId))];
  const columns = [...new Set(live.map(r => columnOf(r.cell)))];
  return {
    run,
    allowedDrift: brand?.allowedDrift ?? 0.4,
    facets: looked?.facets ?? [],
    format: { name, width, height },
    leftOut: cellRows.filter(r => r.cell.struckOut && !made.has(r.cell.cellKey)).map(r => r.cell.subjectLabel),
    batches: await describeBatches(context, runId),
    rounds: await listRounds(context, runId),
    cells: live
      .sort(
        (p, q) => rows.indexOf(p.cell.subjectId) - rows.indexOf(q.cell.subjectId) || p.batch - q.batch || p.cell.col - q.cell.col,
      )
      .map(({ cell, batch }): CellView => ({
        key: cell.cellKey,
        row: rows.indexOf(cell.subjectId),
        column: columns.indexOf(columnOf(cell)),
        subject: { id: cell.subjectId, label: cell.subjectLabel },
        look: { id: cell.lookId, name: cell.lookName, version: cell.lookVersion },
        format: formats.get(cell.formatId ?? '') ?? { id: cell.formatId ?? '', name, width, height },
        values: cell.values,
        batch,
        text: cell.text,
        takes: (byCell.get(cell.id) ?? []).map(t => ({
          id: t.id,
          take: t.take,
          seed: t.seed,
          state: t.state,
          problem: t.problem,
          attempts: t.attempts,
          from: t.parentProof && t.kin ? { proofId: t.parentProof, how: t.kin } : null,
          proof:
            t.proofId && t.sha256
              ? {
                  id: t.proofId,
                  pictureSha: t.sha256,
                  width: t.width ?? width,
                  height: t.height ?? height,
                  drift: t.drift,
                  likeness: t.likeness,
                  decision: standing.get(t.proofId)?.decision ?? null,
                  voices: standing.get(t.proofId)?.voices ?? [],
                  openComments: said.get(t.proofId) ?? 0,
                  seed: t.seed,
                  ticketHash: t.ticketHash,
                }
              : null,
        })),
      })),
  };
}

/** A proof with what it was made from, without what people said of it. */
export type BareProof = Omit<Proof, 'decisions' | 'comments' | 'family' | 'depth' | 'asks'>;

export async function bareProof(context: Context, id: string): Promise<BareProof> {
  const [row] = await context.db
    .select({
      proof: proofs,
      take: takes,
      cell: cells,
      run: runs,
      campaign: campaigns,
      width: pictures.width,
      height: pictures.height,
    })
    .from(proofs)
    .innerJoin(takes, eq(takes.id, proofs.takeId))
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .innerJoin(runs, eq(runs.id, batches.runId))
    .leftJoin(campaigns, eq(campaigns.id, runs.campaignId))
    .innerJoin(pictures, eq(pictures.sha256, proofs.sha256))
    .where(eq(proofs.id, id));
  if (!row) throw new ProblemError('notFound', 'There is no such proof.');
  const { proof, take, cell, run, campaign } = row;
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
    likeness: proof.likeness,
    targetPalette: version?.target?.colour.palette ?? take.ticket.look.style.palette,
    sources: version?.sources ?? [],
    madeAt: proof.madeAt.toISOString(),
    original: original ?? null,
    campaign: campaign ? { id: campaign.id, name: campaign.name, isHero: campaign.hero === id } : null,
  };
}

/** Everything that made an image and all that was said of it, one read away from the image. */
export async function describeProof(context: Context, id: string): Promise<Proof> {
  const [proof, family] = [await bareProof(context, id), await familyOf(context, id)];
  return {
    ...proof,
    decisions: await listDecisions(context, id),
    comments: await listComments(context, id),
    family,
    depth: depthOf(family, id),
    asks: await threadOf(context, id),
  };
}

/** Names what a cell's column is: a look, at the values of what is stepped, in a format. */
function columnOf({ lookId, values, formatId }: typeof cells.$inferSelect): string {
  return JSON.stringify([lookId, values.map(v => [v.setting, v.value]), formatId]);
}

/** The batches of a run as they were frozen, each with how it differs from the one before. */
async function describeBatches(context: Context, runId: string): Promise<BatchView[]> {
  const rows = await batchesOf(context, runId);
  const names = await planNames(context, rows);
  return rows.map((b, i): BatchView => {
    const plan = readPlan(b.plan);
    const [sheet] = Object.values(b.sheets ?? {});
    return {
      number: b.number,
      state: b.state,
      plan,
      differs: i === 0 ? [] : planDifferences(readPlan(rows[i - 1].plan) as Plan, plan as Plan, names),
      bound: sheet?.from ?? null,
      frozenAt: b.frozenAt.toISOString(),
    };
  });
}

async function planNames(context: Context, rows: readonly (typeof batches.$inferSelect)[]): Promise<PlanNames> {
  if (rows.length < 2) return { subjects: {}, looks: {}, templates: {}, formats: {} };
  const [subjectRows, lookRows, templateRows, formatRows, pressRows] = await Promise.all([
    context.db.select({ id: subjects.id, name: subjects.label }).from(subjects),
    context.db.select({ id: looks.id, name: looks.name }).from(looks),
    context.db.select({ id: templates.id, name: templates.name }).from(templates),
    listFormats(context),
    context.db.select({ id: presses.id, name: presses.name }).from(presses),
  ]);
  const byId = (list: { id: string; name: string }[]): Record<string, string> =>
    Object.fromEntries(list.map(r => [r.id, r.name]));
  return {
    subjects: byId(subjectRows),
    looks: byId(lookRows),
    templates: byId(templateRows),
    formats: byId(formatRows),
    presses: byId(pressRows),
  };
}

/** The batches of a run, oldest first, or a problem when there is no such run. */
export async function batchesOf(context: Context, runId: string): Promise<(typeof batches.$inferSelect)[]> {
  const rows = await context.db.select().from(batches).where(eq(batches.runId, runId)).orderBy(asc(batches.number));
  if (rows.length === 0) throw new ProblemError('notFound', 'There is no such run.');
  return rows;
}

/** Proofs are taken evenly when a run has more: the figure hardly changes, the time does. */
const MOST_COMPARED = 240;

/** How loosely the proofs of a run hang together, look by look; looks with fewer than two proofs are left out. */
export async function cohesionOfRun(context: Context, runId: string): Promise<Cohesion> {
  const rows = await context.db
    .select({ sha256: proofs.sha256, lookId: cells.lookId, lookName: cells.lookName })
    .from(proofs)
    .innerJoin(takes, and(eq(takes.id, proofs.takeId), eq(takes.generation, proofs.generation)))
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(eq(batches.runId, runId))
    .orderBy(asc(proofs.id));
  const out: Cohesion['items'] = [];
  for (const lookId of new Set(rows.map(r => r.lookId))) {
    const own = rows.filter(r => r.lookId === lookId);
    const step = Math.max(1, own.length / MOST_COMPARED);
    const chosen = Array.from({ length: Math.min(own.length, MOST_COMPARED) }, (_, i) => own[Math.floor(i * step)]);
    const prints = Object.values(
      await fingerprintsOf(
        context,
        chosen.map(r => r.sha256),
      ),
    );
    if (prints.length > 1) out.push({ lookId, lookName: own[0].lookName, proofs: own.length, cohesion: cohesionOf(prints) });
  }
  return { items: out };
}
