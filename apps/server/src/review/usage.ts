import type { LookUsage } from '@zinc/contract';
import { and, eq } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { cells, proofs, takes } from '../runs/tables.ts';
import { isKept, standingDecisions } from './service.ts';

/** From this share of kept proofs on a look is good for a subject; up to the other it is bad for it. */
const GOOD = 0.6;
const BAD = 0.25;

interface Tally {
  decided: number;
  kept: number;
}

/** How every version of every look did, by the verdicts that stand. */
export async function lookUsage(context: Context): Promise<LookUsage[]> {
  const rows = await context.db
    .select({
      proofId: proofs.id,
      drift: proofs.drift,
      lookId: cells.lookId,
      version: cells.lookVersion,
      subject: cells.subjectLabel,
    })
    .from(proofs)
    .innerJoin(takes, and(eq(takes.id, proofs.takeId), eq(takes.generation, proofs.generation)))
    .innerJoin(cells, eq(cells.id, takes.cellId));
  const standing = await standingDecisions(
    context,
    rows.map(r => r.proofId),
  );
  const out = new Map<string, LookUsage & { subjects: Map<string, Tally>; drifts: number[] }>();
  for (const { proofId, drift, lookId, version, subject } of rows) {
    const key = `${lookId}/${version}`;
    const usage = out.get(key) ?? {
      ...{ lookId, version, images: 0, decided: 0, kept: 0, drift: null, goodFor: [], badFor: [] },
      subjects: new Map<string, Tally>(),
      drifts: [],
    };
    out.set(key, usage);
    usage.images++;
    if (drift) usage.drifts.push(drift.total);
    const verdict = standing.get(proofId)?.verdict;
    if (!verdict) continue;
    const kept = isKept(verdict) ? 1 : 0;
    const tally = usage.subjects.get(subject) ?? { decided: 0, kept: 0 };
    usage.subjects.set(subject, { decided: tally.decided + 1, kept: tally.kept + kept });
    usage.decided++;
    usage.kept += kept;
  }
  return [...out.values()].map(({ subjects, drifts, ...usage }) => {
    const shares = [...subjects].map(([subject, t]) => ({ subject, share: t.kept / t.decided }));
    shares.sort((p, q) => q.share - p.share);
    return {
      ...usage,
      drift: drifts.length > 0 ? drifts.reduce((sum, d) => sum + d, 0) / drifts.length : null,
      goodFor: shares.filter(s => s.share >= GOOD).map(s => s.subject),
      badFor: shares.filter(s => s.share <= BAD).map(s => s.subject),
    };
  });
}
