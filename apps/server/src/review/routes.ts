import { decisionInputSchema, decisionSchema, lookUsageSchema, promoteSchema, referenceSchema } from '@zinc/contract';
import { eq } from 'drizzle-orm';
import { array, object } from 'yup';
import { isDuplicate } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { houseName } from '../house/service.ts';
import { bareProof } from '../runs/service.ts';
import { batches, proofs, takes } from '../runs/tables.ts';
import { addReference, oneReference } from '../shelf/service.ts';
import { openRound } from './rounds.ts';
import { isKept, standingDecisions } from './service.ts';
import { decisions } from './tables.ts';
import { lookUsage } from './usage.ts';

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
      const roundId = await openRound(context, proof.runId, person.id);
      const at = new Date();
      try {
        await context.db.transaction(async tx => {
          await tx.insert(decisions).values({
            ...body,
            verdict: body.verdict ?? null,
            grade: body.grade ?? null,
            personId: person.id,
            roundId,
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
  route({
    method: 'post',
    path: '/references/from-proof',
    roles: MAKERS,
    summary: 'Keep a proof that is kept as a reference; it remembers what it was made from',
    body: promoteSchema,
    status: 201,
    response: referenceSchema,
    async handle({ context, body, person }) {
      const proof = await bareProof(context, body.proofId);
      const verdict = (await standingDecisions(context, [proof.id])).get(proof.id)?.verdict;
      if (!isKept(verdict))
        throw new ProblemError('notPossible', 'Only a proof that is kept can become a reference. Decide on it first.', {
          field: 'proofId',
        });
      const { look } = proof.ticket;
      const id = await addReference(context, person.id, proof.pictureSha, {
        name: `${proof.subjectLabel}, take ${proof.take}`.slice(0, 120),
        shelf: 'From our own proofs',
        credit: (await houseName(context)) ?? '',
        licence: 'Made in this house',
        licenceEnds: null,
        origin: { kind: 'proof', proofId: proof.id, run: proof.runName, look: `${look.name} version ${look.version}` },
      });
      return oneReference(context, id);
    },
  }),
  route({
    method: 'get',
    path: '/usage/looks',
    roles: EVERYONE,
    summary: 'How every version of every look did: images made, share kept, what it is good and bad for',
    response: object({ items: array(lookUsageSchema.required()).required() }),
    handle: async ({ context }) => ({ items: await lookUsage(context) }),
  }),
];
