import { decisionInputSchema, decisionSchema } from '@zinc/contract';
import { eq } from 'drizzle-orm';
import { isDuplicate } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, route } from '../http/route.ts';
import { batches, proofs, takes } from '../runs/tables.ts';
import { decisions } from './tables.ts';

export const reviewRoutes = [
  route({
    method: 'post',
    path: '/decisions',
    roles: EVERYONE,
    summary: 'Decide on a proof. Decisions are added; the id is made by the client, so sending one twice adds it once',
    body: decisionInputSchema,
    response: decisionSchema,
    status: 201,
    async handle({ context, body, person }) {
      const [proof] = await context.db
        .select({ drift: proofs.drift, runId: batches.runId })
        .from(proofs)
        .innerJoin(takes, eq(takes.id, proofs.takeId))
        .innerJoin(batches, eq(batches.id, takes.batchId))
        .where(eq(proofs.id, body.proofId));
      if (!proof) throw new ProblemError('badInput', 'There is no such proof.', { field: 'proofId' });
      const at = new Date();
      try {
        await context.db.transaction(async tx => {
          await tx.insert(decisions).values({
            ...body,
            verdict: body.verdict ?? null,
            grade: body.grade ?? null,
            personId: person.id,
            figures: proof.drift,
            at,
          });
          await context.events.add(tx, 'decided', proof.runId, person.id, { proofId: body.proofId, verdict: body.verdict });
        });
      } catch (error) {
        if (!isDuplicate(error)) throw error;
      }
      return { ...body, person: person.name, at: at.toISOString() };
    },
  }),
];
