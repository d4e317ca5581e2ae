import { keptReportSchema, KEPT_BY, type KeptBy, type KeptReport, type KeptShare, type LearntRange } from '@zinc/contract';
import { wilson } from '@zinc/core';
import { and, asc, eq } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { EVERYONE, route } from '../http/route.ts';
import { lookRanges, lookVersions } from '../mix/tables.ts';
import { batches, cells, proofs, runs, takes } from '../runs/tables.ts';
import { subjects, templates } from '../wording/tables.ts';
import { isKept, standingOf } from './service.ts';

/** Strengths are told apart in steps of so many per cent. */
const BAND = 10;
const MOST_SHOWN = 8;
/** A recommendation needs so many decided proofs in its band, and its least likely share above that of the rest. */
const LEAST_LEARNT = 6;
const LEAST_SHARE = 0.5;

interface Decided {
  id: string;
  runId: string;
  sha256: string;
  kept: boolean;
  lookId: string;
  lookName: string;
  version: number;
  subjectId: string;
  subject: string;
  strength: number;
  cellId: string;
  take: number;
  templateId: string | null;
  press: string;
  voices: { personId: string; person: string; kept: boolean }[];
}

async function decidedProofs(context: Context, campaignId: string | null): Promise<Decided[]> {
  const rows = await context.db
    .select({
      id: proofs.id,
      sha256: proofs.sha256,
      runId: batches.runId,
      plan: batches.plan,
      cell: cells,
      take: takes.take,
      ticket: takes.ticket,
      at: proofs.madeAt,
    })
    .from(proofs)
    .innerJoin(takes, and(eq(takes.id, proofs.takeId), eq(takes.generation, proofs.generation)))
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .innerJoin(runs, eq(runs.id, batches.runId))
    .where(campaignId ? eq(runs.campaignId, campaignId) : undefined)
    .orderBy(asc(proofs.id));
  const standing = await standingOf(
    context,
    rows.map(r => r.id),
  );
  return rows.flatMap((r): Decided[] => {
    const own = standing.get(r.id);
    const verdict = own?.decision?.verdict;
    if (!verdict) return [];
    return [
      {
        id: r.id,
        runId: r.runId,
        sha256: r.sha256,
        kept: isKept(verdict),
        lookId: r.cell.lookId,
        lookName: r.cell.lookName,
        version: r.cell.lookVersion,
        subjectId: r.cell.subjectId,
        subject: r.cell.subjectLabel,
        strength: r.ticket.settings.strength,
        cellId: r.cell.id,
        take: r.take,
        templateId: r.plan.templateId ?? null,
        press: r.ticket.press.name,
        voices: own.voices.flatMap(v => (v.verdict ? [{ personId: v.personId, person: v.person, kept: isKept(v.verdict) }] : [])),
      },
    ];
  });
}

/** Counts under keys, and what each key is called. */
class Tally {
  private readonly shares = new Map<string, { name: string; all: Decided[]; kept: number }>();

  add(key: string, name: string, proof: Decided, kept = proof.kept): void {
    const share = this.shares.get(key) ?? { name, all: [], kept: 0 };
    this.shares.set(key, share);
    share.all.push(proof);
    if (kept) share.kept++;
  }

  /** The surest first: by the lower end of where the share may lie. */
  list(): KeptShare[] {
    return [...this.shares]
      .map(([key, { name, all, kept }]) => ({
        key,
        name,
        decided: all.length,
        kept,
        ...wilson(kept, all.length),
        proofs: all
          .slice(-MOST_SHOWN)
          .reverse()
          .map(p => ({ id: p.id, runId: p.runId, pictureSha: p.sha256, kept: p.kept })),
      }))
      .sort((p, q) => q.from - p.from || q.decided - p.decided);
  }
}

const bandOf = (strength: number): number => Math.min(100 - BAND, Math.floor(strength / BAND) * BAND);

async function keptReport(context: Context, campaignId: string | null): Promise<KeptReport> {
  const decided = await decidedProofs(context, campaignId);
  const [versionRows, templateRows, subjectRows, rangeRows] = await Promise.all([
    context.db
      .select({ lookId: lookVersions.lookId, version: lookVersions.version, sources: lookVersions.sources })
      .from(lookVersions),
    context.db.select({ id: templates.id, name: templates.name }).from(templates),
    context.db.select({ id: subjects.id, tags: subjects.tags }).from(subjects),
    context.db.select().from(lookRanges).where(eq(lookRanges.withdrawn, false)),
  ]);
  const sources = new Map(versionRows.map(v => [`${v.lookId}/${v.version}`, v.sources]));
  const templateNames = new Map(templateRows.map(t => [t.id, t.name]));
  const tallies = Object.fromEntries(KEPT_BY.map(by => [by, new Tally()])) as Record<KeptBy, Tally>;
  for (const p of decided) {
    tallies.look.add(`${p.lookId}/${p.version}`, `${p.lookName}, version ${p.version}`, p);
    const band = bandOf(p.strength);
    tallies.strength.add(String(band), `${band} to ${band + BAND - (band === 100 - BAND ? 0 : 1)} %`, p);
    for (const s of sources.get(`${p.lookId}/${p.version}`) ?? []) if (s.parts > 0) tallies.source.add(s.id ?? s.name, s.name, p);
    tallies.template.add(
      p.templateId ?? '',
      p.templateId ? (templateNames.get(p.templateId) ?? 'a template that is gone') : 'no template',
      p,
    );
    tallies.press.add(p.press, p.press, p);
    tallies.subject.add(p.subjectId, p.subject, p);
    for (const v of p.voices) tallies.reviewer.add(v.personId, v.person, p, v.kept);
  }
  const first = new Map<string, number>();
  for (const p of decided) if (p.kept) first.set(p.cellId, Math.min(first.get(p.cellId) ?? Infinity, p.take));
  const tries = new Map<number, number>();
  for (const take of first.values()) tries.set(take, (tries.get(take) ?? 0) + 1);
  const tags = new Map(subjectRows.map(s => [s.id, s.tags]));
  return {
    decided: decided.length,
    kept: decided.filter(p => p.kept).length,
    by: Object.fromEntries(KEPT_BY.map(by => [by, tallies[by].list()])) as Record<KeptBy, KeptShare[]>,
    tries: [...tries].sort((p, q) => p[0] - q[0]).map(([n, count]) => ({ tries: n, cells: count })),
    learnt: learn(decided, tags, rangeRows),
  };
}

/**
 * Bands of strength in which a look is kept clearly more often than at its other strengths, for all its subjects or those with a tag: the
 * whole interval lies above the share of the rest. What is recommended already is left out.
 */
function learn(
  decided: readonly Decided[],
  tags: ReadonlyMap<string, string[]>,
  known: readonly (typeof lookRanges.$inferSelect)[],
): LearntRange[] {
  const out: LearntRange[] = [];
  for (const lookId of new Set(decided.map(p => p.lookId))) {
    const ofLook = decided.filter(p => p.lookId === lookId);
    const kinds = ['', ...new Set(ofLook.flatMap(p => tags.get(p.subjectId) ?? []))];
    for (const kind of kinds) {
      const own = kind ? ofLook.filter(p => tags.get(p.subjectId)?.includes(kind)) : ofLook;
      const best = bestBand(own);
      if (!best) continue;
      const goodFor = kind || 'all subjects';
      if (known.some(r => r.lookId === lookId && r.setting === 'strength' && r.goodFor === goodFor)) continue;
      const { lookName, version } = own.reduce((p, q) => (q.version > p.version ? q : p));
      out.push({ lookId, lookName, version, goodFor, ...best });
    }
  }
  return out.sort((p, q) => q.decided - p.decided);
}

function bestBand(own: readonly Decided[]): Omit<LearntRange, 'lookId' | 'lookName' | 'version' | 'goodFor'> | null {
  const strengths = own.map(p => p.strength);
  let best: ReturnType<typeof bestBand> = null;
  let surest = LEAST_SHARE;
  for (const from of new Set(strengths))
    for (const to of new Set(strengths)) {
      if (to < from) continue;
      const inside = own.filter(p => p.strength >= from && p.strength <= to);
      const rest = own.filter(p => p.strength < from || p.strength > to);
      if (inside.length < LEAST_LEARNT || rest.length === 0) continue;
      const kept = inside.filter(p => p.kept).length;
      const elsewhere = { kept: rest.filter(p => p.kept).length, decided: rest.length };
      const low = wilson(kept, inside.length).from;
      if (low <= surest || low <= elsewhere.kept / elsewhere.decided) continue;
      surest = low;
      const proofIds = inside
        .filter(p => p.kept)
        .slice(0, 12)
        .map(p => p.id);
      best = { from, to, kept, decided: inside.length, elsewhere, proofIds };
    }
  return best;
}

export const keptRoutes = [
  route({
    method: 'get',
    path: '/reports/kept',
    roles: EVERYONE,
    summary:
      'What gets kept: by look, strength, source, template, press, reviewer and subject, with intervals; and what it teaches',
    query: ['campaign'],
    response: keptReportSchema,
    handle: ({ context, query }) => keptReport(context, query['campaign'] ?? null),
  }),
];
