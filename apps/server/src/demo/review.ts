import type { RunDetail, Verdict } from '@zinc/contract';
import { randomFor } from '@zinc/core/number/random';
import { and, eq } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connect.ts';
import { campaigns } from '../house/tables.ts';
import { events } from '../house/eventTables.ts';
import { people } from '../people/tables.ts';
import { openRound } from '../review/rounds.ts';
import { decisions } from '../review/tables.ts';
import { describeRun } from '../runs/service.ts';
import { DEMO_PEOPLE } from './facts.ts';

/** Drift that the demo's brand allows; its people drop what lies beyond. */
export const ALLOWED_DRIFT = 0.6;
/** Of every run so much is decided; the rest waits for review, so that there is something left to do. */
const DECIDED = 0.75;
/** The run whose best proof leads its campaign. */
const HERO_RUN = 'Market posters';
const HERO_CAMPAIGN = 'Market Saturdays';
const LOOK_EVERY_MS = 2500;

/**
 * Decides on proofs as the demo people would, run by run as each is made, once per run. Runs to be decided are marked by an event of their
 * own; it ends when the house is stopped.
 */
export async function reviewDemoRuns(context: Context): Promise<void> {
  const { db } = context;
  for (;;) {
    const rows = await db.select({ kind: events.kind, about: events.about }).from(events).where(eq(events.kind, 'demoRun'));
    for (const { about: runId } of rows) {
      if (!runId) continue;
      const [done] = await db
        .select({ seq: events.seq })
        .from(events)
        .where(and(eq(events.kind, 'demoReviewed'), eq(events.about, runId)))
        .limit(1);
      if (!done) await decideOn(context, runId);
    }
    await new Promise(resolve => setTimeout(resolve, LOOK_EVERY_MS).unref());
  }
}

async function decideOn(context: Context, runId: string): Promise<void> {
  const { db } = context;
  const detail = await describeRun(context, runId);
  if (detail.run.state !== 'done' && detail.run.state !== 'stopped') return;
  const staff = await db.select({ id: people.id, email: people.email }).from(people);
  const who = (email: string): string => staff.find(p => p.email === email)?.id ?? staff[0].id;
  const random = randomFor(1907, `demo review of ${detail.run.name}`);
  const rows: (typeof decisions.$inferInsert)[] = [];
  const most = Math.max(...detail.cells.map(c => c.row)) + 1;
  for (const cell of detail.cells)
    cell.takes.forEach((take, i) => {
      if (!take.proof || (most > 1 ? cell.row / most : cell.column / detail.cells.length) >= DECIDED) return;
      const drift = take.proof.drift?.total ?? 0;
      const far = drift > ALLOWED_DRIFT;
      const verdict: Verdict = far
        ? 'drop'
        : i === 0 && random() < 0.7
          ? 'keep'
          : random() < 0.35
            ? 'hold'
            : random() < 0.5
              ? 'drop'
              : 'keep';
      const base = { proofId: take.proof.id, figures: take.proof.drift, at: new Date(), note: '' };
      rows.push({
        ...base,
        id: uuidv7(),
        personId: who(DEMO_PEOPLE[3].email),
        verdict: i === 1 ? 'hold' : verdict,
        grade: null,
        reasons: [],
      });
      rows.push({
        ...base,
        id: uuidv7(),
        personId: who(DEMO_PEOPLE[0].email),
        verdict,
        grade: verdict === 'keep' ? 6 + Math.floor(random() * 4) : null,
        reasons: verdict === 'drop' ? [far ? 'off palette' : 'crop'] : [],
      });
    });
  const roundId = rows.length > 0 ? await openRound(context, runId, who(DEMO_PEOPLE[0].email)) : null;
  await db.transaction(async tx => {
    for (let i = 0; i < rows.length; i += 200)
      await tx.insert(decisions).values(rows.slice(i, i + 200).map(r => ({ ...r, roundId })));
    if (detail.run.name === HERO_RUN) await chooseHero(tx, detail, rows, who(DEMO_PEOPLE[0].email));
    await context.events.add(tx, 'demoReviewed', runId, null);
  });
}

/** The kept proof nearest to its look leads the campaign. */
async function chooseHero(
  tx: Queries,
  { cells }: RunDetail,
  rows: readonly (typeof decisions.$inferInsert)[],
  personId: string,
): Promise<void> {
  const kept = new Set(rows.filter(r => r.personId === personId && r.verdict === 'keep').map(r => r.proofId));
  const proofs = cells.flatMap(c => c.takes.flatMap(t => (t.proof && kept.has(t.proof.id) ? [t.proof] : [])));
  if (proofs.length === 0) return;
  const hero = proofs.reduce((p, q) => ((q.drift?.total ?? 1) < (p.drift?.total ?? 1) ? q : p));
  await tx.update(campaigns).set({ hero: hero.id, heroBy: personId }).where(eq(campaigns.name, HERO_CAMPAIGN));
}
