import { coverageSchema, endsInputSchema, heroInputSchema, messageSchema, type Coverage, type Covered } from '@zinc/contract';
import { cohesionOf } from '@zinc/core';
import { and, asc, eq } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, LEADS, MAKERS, route } from '../http/route.ts';
import { listFormats } from '../house/service.ts';
import { campaigns } from '../house/tables.ts';
import { people } from '../people/tables.ts';
import { batches, cells, proofs, runs, takes } from '../runs/tables.ts';
import { fingerprintsOf } from '../shelf/service.ts';
import { isKept, standingOf } from './service.ts';

/** Kept proofs are compared evenly when a campaign has more. */
const MOST_COMPARED = 240;

async function oneCampaign(context: Context, id: string): Promise<typeof campaigns.$inferSelect> {
  const [row] = await context.db.select().from(campaigns).where(eq(campaigns.id, id));
  if (!row) throw new ProblemError('notFound', 'There is no such campaign.');
  return row;
}

/** Every proof of a campaign's sets and restyles; test strips try things out and cover nothing. */
function proofsOf(context: Context, campaignId: string) {
  return context.db
    .select({
      id: proofs.id,
      sha256: proofs.sha256,
      drift: proofs.drift,
      runId: batches.runId,
      runName: runs.name,
      kind: runs.kind,
      subjectId: cells.subjectId,
      label: cells.subjectLabel,
      formatId: cells.formatId,
      take: takes.take,
    })
    .from(cells)
    .innerJoin(batches, eq(batches.id, cells.batchId))
    .innerJoin(runs, eq(runs.id, batches.runId))
    .leftJoin(takes, eq(takes.cellId, cells.id))
    .leftJoin(proofs, and(eq(proofs.takeId, takes.id), eq(proofs.generation, takes.generation)))
    .where(and(eq(runs.campaignId, campaignId), eq(cells.struckOut, false)))
    .orderBy(asc(cells.id), asc(takes.take));
}

/** What a campaign has and lacks: each of its subjects in each of its formats. */
async function cover(context: Context, campaignId: string): Promise<Coverage> {
  const campaign = await oneCampaign(context, campaignId);
  const rows = (await proofsOf(context, campaignId)).filter(r => r.kind !== 'testStrip');
  const made = rows.flatMap(r => (r.id && r.sha256 ? [{ ...r, id: r.id, sha256: r.sha256 }] : []));
  const standing = await standingOf(
    context,
    made.map(p => p.id),
  );
  const cellsOf = new Map<string, Covered & { score: number }>();
  for (const { subjectId, formatId } of rows) {
    const key = `${subjectId}/${formatId ?? ''}`;
    if (!cellsOf.has(key))
      cellsOf.set(key, {
        ...{ subjectId, formatId: formatId ?? '', made: 0, kept: 0, disputed: 0, undecided: 0, best: null, score: -1 },
      });
  }
  const kept: string[] = [];
  for (const p of made) {
    const cell = cellsOf.get(`${p.subjectId}/${p.formatId ?? ''}`)!;
    const { decision, voices = [] } = standing.get(p.id) ?? {};
    const own = isKept(decision?.verdict);
    cell.made++;
    if (own) {
      cell.kept++;
      kept.push(p.sha256);
    }
    if (!decision?.verdict) cell.undecided++;
    if (voices.some(v => isKept(v.verdict)) && voices.some(v => v.verdict === 'drop')) cell.disputed++;
    const score = (own ? 100 : decision?.verdict === 'drop' ? 0 : 50) + (decision?.grade ?? 0) * 4 - (p.drift?.total ?? 1);
    if (score <= cell.score) continue;
    cell.score = score;
    cell.best = { proofId: p.id, runId: p.runId, pictureSha: p.sha256, kept: own };
  }
  const used = new Set(rows.map(r => r.formatId));
  const step = Math.max(1, kept.length / MOST_COMPARED);
  const compared = Array.from({ length: Math.min(kept.length, MOST_COMPARED) }, (_, i) => kept[Math.floor(i * step)]);
  const prints = Object.values(await fingerprintsOf(context, compared));
  const labels = new Map(rows.map(r => [r.subjectId, r.label]));
  const hero = made.find(p => p.id === campaign.hero);
  const [by] = campaign.heroBy
    ? await context.db.select({ name: people.name }).from(people).where(eq(people.id, campaign.heroBy))
    : [];
  return {
    campaign: { id: campaign.id, name: campaign.name, ends: campaign.ends },
    subjects: [...labels].map(([id, label]) => ({ id, label })),
    formats: (await listFormats(context)).filter(f => used.has(f.id)),
    cells: [...cellsOf.values()].map(({ score: _, ...cell }) => cell),
    hero: hero ? { proofId: hero.id, pictureSha: hero.sha256, label: hero.label, by: by?.name ?? '' } : null,
    cohesion: prints.length > 1 ? cohesionOf(prints).total : null,
    kept: kept.length,
    runs: [...new Map(rows.map(r => [r.runId, { id: r.runId, name: r.runName }])).values()],
  };
}

export const coverageRoutes = [
  route({
    method: 'get',
    path: '/campaigns/:id/coverage',
    roles: EVERYONE,
    summary: 'What a campaign has and lacks: its subjects in its formats, with what is kept, missing and in dispute',
    response: coverageSchema,
    handle: ({ context, params }) => cover(context, params.id),
  }),
  route({
    method: 'put',
    path: '/campaigns/:id/hero',
    roles: MAKERS,
    summary: 'Say which kept proof leads a campaign, or that none does',
    body: heroInputSchema,
    response: messageSchema,
    async handle({ context, params, body, person }) {
      const campaign = await oneCampaign(context, params.id);
      const hero = body.proofId ? (await proofsOf(context, campaign.id)).find(p => p.id === body.proofId) : null;
      if (body.proofId && !hero)
        throw new ProblemError('badInput', `This proof is not of ${campaign.name}.`, { field: 'proofId' });
      if (hero?.id && !isKept((await standingOf(context, [hero.id])).get(hero.id)?.decision?.verdict))
        throw new ProblemError('notPossible', 'Only a proof that is kept can lead a campaign. Decide on it first.', {
          field: 'proofId',
        });
      await context.db.transaction(async tx => {
        await tx
          .update(campaigns)
          .set({ hero: hero?.id ?? null, heroBy: hero ? person.id : null })
          .where(eq(campaigns.id, campaign.id));
        await context.events.add(tx, 'heroChosen', campaign.id, person.id, { proofId: hero?.id ?? null });
      });
      return { message: hero ? `${hero.label} leads ${campaign.name}.` : `No proof leads ${campaign.name}.` };
    },
  }),
  route({
    method: 'put',
    path: '/campaigns/:id/ends',
    roles: LEADS,
    summary: 'Say by which day a campaign must be done, or that there is none',
    body: endsInputSchema,
    response: messageSchema,
    async handle({ context, params, body }) {
      const campaign = await oneCampaign(context, params.id);
      const ends = body.ends ?? null;
      await context.db
        .update(campaigns)
        .set({ ends: ends === '' ? null : ends })
        .where(eq(campaigns.id, campaign.id));
      return { message: ends ? `${campaign.name} is due on ${ends}.` : `${campaign.name} has no day to be done by.` };
    },
  }),
];
