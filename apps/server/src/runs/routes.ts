import { performance } from 'node:perf_hooks';
import {
  messageSchema,
  planPreviewSchema,
  planSchema,
  proofSchema,
  remakeSchema,
  runDetailSchema,
  runSchema,
} from '@zinc/contract';
import { ticketHash } from '@zinc/core';
import { and, eq, inArray } from 'drizzle-orm';
import { array, object } from 'yup';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { cancelWaiting } from './maker.ts';
import { planRun } from './planning.ts';
import { PressError } from './pressClient.ts';
import { batchOf, describeProof, describeRun, listRuns, repeatFailed, takeAgain } from './service.ts';
import { startRun } from './starting.ts';
import { batches } from './tables.ts';

type BatchState = (typeof batches.$inferSelect)['state'];

/** Moves a batch from one of `from` to `to`, or says why it cannot be. */
async function moveBatch(context: Context, runId: string, from: BatchState[], to: BatchState, personId: string): Promise<void> {
  const batch = await batchOf(context, runId);
  const [result] = await context.db
    .update(batches)
    .set({ state: to, waitingFor: null })
    .where(and(eq(batches.id, batch.id), inArray(batches.state, from)));
  if (result.affectedRows === 0) throw new ProblemError('inTheWay', `The run is ${batch.state}, so this cannot be done now.`);
  await context.events.add(context.db, 'runMoved', runId, personId, { state: to });
}

const one = async (context: Context, id: string): Promise<unknown> => (await describeRun(context, id)).run;

export const runRoutes = [
  route({
    method: 'post',
    path: '/plans',
    roles: MAKERS,
    summary: 'Read a plan back: every final text, count, time, cost, preflight findings. Nothing is made',
    body: planSchema,
    response: planPreviewSchema,
    handle: async ({ context, body }) => (await planRun(context, body)).preview,
  }),
  route({
    method: 'get',
    path: '/runs',
    roles: EVERYONE,
    summary: 'Runs, newest first',
    response: object({ items: array(runSchema.required()).required() }),
    handle: async ({ context }) => ({ items: await listRuns(context) }),
  }),
  route({
    method: 'post',
    path: '/runs',
    roles: MAKERS,
    summary: 'Freeze a plan and start it',
    body: planSchema,
    response: runSchema,
    status: 201,
    async handle({ context, body, person }) {
      if (body.licenceOverrides?.length && person.role !== 'lead')
        throw new ProblemError('notAllowed', 'Only a lead can use a source whose licence has ended.', {
          field: 'licenceOverrides',
        });
      return one(context, await startRun(context, body, person.id));
    },
  }),
  route({
    method: 'get',
    path: '/runs/:id',
    roles: EVERYONE,
    summary: 'One run: its grid of cells and takes, with proofs, figures and standing decisions',
    response: runDetailSchema,
    handle: ({ context, params }) => describeRun(context, params.id),
  }),
  route({
    method: 'post',
    path: '/runs/:id/pause',
    roles: MAKERS,
    summary: 'Pause a run; what is being painted is finished',
    response: runSchema,
    async handle({ context, params, person }) {
      await moveBatch(context, params.id, ['running', 'waiting'], 'paused', person.id);
      return one(context, params.id);
    },
  }),
  route({
    method: 'post',
    path: '/runs/:id/resume',
    roles: MAKERS,
    summary: 'Let a paused run go on',
    response: runSchema,
    async handle({ context, params, person }) {
      await moveBatch(context, params.id, ['paused'], 'running', person.id);
      return one(context, params.id);
    },
  }),
  route({
    method: 'post',
    path: '/runs/:id/stop',
    roles: MAKERS,
    summary: 'Stop a run for good; what is not made yet is cancelled',
    response: runSchema,
    async handle({ context, params, person }) {
      await moveBatch(context, params.id, ['running', 'waiting', 'paused'], 'stopped', person.id);
      await cancelWaiting(context, (await batchOf(context, params.id)).id);
      return one(context, params.id);
    },
  }),
  route({
    method: 'post',
    path: '/runs/:id/repeat-failed',
    roles: MAKERS,
    summary: 'Order every failed take of a run again',
    response: messageSchema,
    async handle({ context, params, person }) {
      const n = await repeatFailed(context, params.id, person.id);
      return {
        message:
          n === 0 ? 'No take of this run has failed.' : n === 1 ? 'One take is tried again.' : `${n} takes are tried again.`,
      };
    },
  }),
  route({
    method: 'post',
    path: '/takes/:id/again',
    roles: MAKERS,
    summary: 'Order a take again: a failed one in its place, a made one as a further take',
    async handle({ context, params, person }) {
      await takeAgain(context, params.id, person.id);
    },
  }),
  route({
    method: 'get',
    path: '/proofs/:id',
    roles: EVERYONE,
    summary: 'One proof with its complete ticket',
    response: proofSchema,
    handle: ({ context, params }) => describeProof(context, params.id),
  }),
  route({
    method: 'post',
    path: '/proofs/:id/remake',
    roles: MAKERS,
    summary: 'Make a proof again from its ticket and compare the pixels; nothing is kept',
    response: remakeSchema,
    async handle({ context, params }) {
      const proof = await describeProof(context, params.id);
      if (ticketHash(proof.ticket) !== proof.ticketHash)
        throw new ProblemError('notPossible', 'The ticket on file does not match the proof; it cannot be made again.');
      const started = performance.now();
      try {
        for (const content of proof.ticket.contents)
          await context.press.bringInput(content.sha256, () => context.store.read(content.sha256));
        // A key of its own, so that the press paints afresh instead of handing out what it kept.
        const image = await context.press.make(proof.ticket, `${proof.ticketHash}:remake:${Date.now()}`, () => undefined);
        const taken = await context.pictures.run({ kind: 'proof', bytes: image.bytes });
        if (!taken.ok) throw new PressError(taken.reason, 'fault', true);
        return {
          same: taken.pixelHash === proof.pixelHash,
          pixelHash: taken.pixelHash,
          expected: proof.pixelHash,
          seconds: (performance.now() - started) / 1000,
        };
      } catch (error) {
        if (error instanceof PressError)
          throw new ProblemError(error.kind === 'gone' ? 'pressGone' : 'notPossible', error.message);
        throw error;
      }
    },
  }),
];
