import { budgetInputSchema, budgetSchema, type Budget } from '@zinc/contract';
import type { PreflightFacts } from '@zinc/core';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { array, object } from 'yup';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, route } from '../http/route.ts';
import { budgets, campaigns } from '../house/tables.ts';
import { people } from '../people/tables.ts';
import { batches, runs, takes } from './tables.ts';

/** Every budget with what of it is used: images made, and images that are ordered. */
async function selectBudgets(context: Context, about?: string[]): Promise<Budget[]> {
  const rows = await context.db
    .select({ budget: budgets, campaign: campaigns.name, person: people.name })
    .from(budgets)
    .leftJoin(campaigns, eq(campaigns.id, budgets.about))
    .leftJoin(people, eq(people.id, budgets.about))
    .where(about ? inArray(budgets.about, about) : undefined);
  return Promise.all(
    rows.map(async ({ budget, campaign, person }) => {
      const by = budget.kind === 'campaign' ? eq(runs.campaignId, budget.about) : eq(runs.startedBy, budget.about);
      const [{ used }] = await context.db
        .select({ used: sql<number>`count(*)`.mapWith(Number) })
        .from(takes)
        .innerJoin(batches, eq(batches.id, takes.batchId))
        .innerJoin(runs, eq(runs.id, batches.runId))
        .where(and(by, inArray(takes.state, ['waiting', 'painting', 'made'])));
      return { about: budget.about, kind: budget.kind, name: campaign ?? person ?? '', images: budget.images, used };
    }),
  );
}

/** Images that a campaign and a person may still make; those without a budget are left out. */
export async function budgetsLeft(
  context: Context,
  campaignId: string | null,
  personId: string,
): Promise<NonNullable<PreflightFacts['budgets']>> {
  const found = await selectBudgets(context, [personId, ...(campaignId ? [campaignId] : [])]);
  return found.map(b => ({ of: b.name, left: Math.max(0, b.images - b.used) }));
}

/** Budgets are counted under a lock, so that two runs that start at once cannot both take the last of one. */
export async function holdBudgets(
  context: Context,
  tx: Queries,
  images: number,
  campaignId: string | null,
  personId: string,
): Promise<void> {
  for (const about of [campaignId, personId])
    if (about) await tx.select().from(budgets).where(eq(budgets.about, about)).for('update');
  for (const b of await budgetsLeft(context, campaignId, personId))
    if (images > b.left)
      throw new ProblemError('notPossible', `${images} images are more than the ${b.left} that ${b.of} may still make.`);
}

const answer = object({ items: array(budgetSchema.required()).required() });

export const budgetRoutes = [
  route({
    method: 'get',
    path: '/budgets',
    roles: EVERYONE,
    summary: 'How many images campaigns and people may make, and have made or ordered',
    response: answer,
    handle: async ({ context }) => ({ items: await selectBudgets(context) }),
  }),
  route({
    method: 'put',
    path: '/budgets/:about',
    roles: ['lead'],
    summary: 'Set the budget of a campaign or a person; null takes it away',
    body: budgetInputSchema,
    response: answer,
    async handle({ context, params, body, person }) {
      const { about } = params;
      const [[campaign], [someone]] = await Promise.all([
        context.db.select().from(campaigns).where(eq(campaigns.id, about)),
        context.db.select().from(people).where(eq(people.id, about)),
      ]);
      if (!campaign && !someone) throw new ProblemError('notFound', 'There is no such campaign or person in the house.');
      const kind = campaign ? ('campaign' as const) : ('person' as const);
      if (body.images === null) await context.db.delete(budgets).where(eq(budgets.about, about));
      else
        await context.db
          .insert(budgets)
          .values({ about, kind, images: body.images, setBy: person.id, setAt: new Date() })
          .onDuplicateKeyUpdate({ set: { images: body.images, setBy: person.id, setAt: new Date() } });
      await context.events.add(context.db, 'budgetSet', about, person.id, { images: body.images });
      return { items: await selectBudgets(context) };
    },
  }),
];
