import type { Decision, Role, Voice } from '@zinc/contract';
import { asc, eq, inArray } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { people } from '../people/tables.ts';
import { decisions } from './tables.ts';

type Row = { d: typeof decisions.$inferSelect; person: string; role: Role };

/** Whether a verdict keeps a proof, as it is or once it is mended. */
export const isKept = (verdict: string | null | undefined): boolean => verdict === 'keep' || verdict === 'keepOnceMended';

/** What stands for a proof, and what everyone says of it. */
export interface Standing {
  decision: Decision | null;
  voices: Voice[];
}

function toDecision({ d, person }: Row): Decision {
  return {
    id: d.id,
    proofId: d.proofId,
    verdict: d.verdict,
    grade: d.grade,
    reasons: d.reasons,
    note: d.note,
    person,
    at: d.at.toISOString(),
  };
}

/**
 * What stands for each proof: the newest decision of a lead if there is one, else the newest of anyone. A newest decision without a
 * verdict means that its person took theirs back.
 */
export async function standingOf(context: Context, proofIds: string[]): Promise<Map<string, Standing>> {
  const out = new Map<string, Standing>();
  if (proofIds.length === 0) return out;
  const rows: Row[] = await context.db
    .select({ d: decisions, person: people.name, role: people.role })
    .from(decisions)
    .innerJoin(people, eq(people.id, decisions.personId))
    .where(inArray(decisions.proofId, proofIds))
    .orderBy(asc(decisions.seq));
  const newest = new Map<string, Map<string, Row>>();
  for (const row of rows) {
    const ofProof = newest.get(row.d.proofId) ?? new Map<string, Row>();
    ofProof.set(row.d.personId, row);
    newest.set(row.d.proofId, ofProof);
  }
  for (const [proofId, ofProof] of newest) {
    const live = [...ofProof.values()].filter(r => r.d.verdict !== null || r.d.grade !== null).sort((p, q) => q.d.seq - p.d.seq);
    if (live.length === 0) continue;
    out.set(proofId, {
      decision: toDecision(live.find(r => r.role === 'lead') ?? live[0]),
      voices: live.map(({ d, person, role }) => ({ personId: d.personId, person, role, verdict: d.verdict, grade: d.grade })),
    });
  }
  return out;
}

/** The decisions that stand, by proof. */
export async function standingDecisions(context: Context, proofIds: string[]): Promise<Map<string, Decision>> {
  const all = await standingOf(context, proofIds);
  return new Map([...all].flatMap(([id, s]) => (s.decision ? [[id, s.decision] as const] : [])));
}

/** Every decision on a proof, oldest first. */
export async function listDecisions(context: Context, proofId: string): Promise<Decision[]> {
  const rows: Row[] = await context.db
    .select({ d: decisions, person: people.name, role: people.role })
    .from(decisions)
    .innerJoin(people, eq(people.id, decisions.personId))
    .where(eq(decisions.proofId, proofId))
    .orderBy(asc(decisions.seq));
  return rows.map(toDecision);
}
