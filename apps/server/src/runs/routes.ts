import { performance } from 'node:perf_hooks';
import {
  cohesionSchema,
  messageSchema,
  moreTakesSchema,
  pictureSchema,
  planPreviewSchema,
  planSchema,
  proofSchema,
  remakeSchema,
  runDetailSchema,
  runSchema,
  type PlanInput,
  type Role,
} from '@zinc/contract';
import { ticketHash } from '@zinc/core';
import { and, inArray } from 'drizzle-orm';
import { array, object } from 'yup';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { PressError } from '../presses/pressClient.ts';
import { takeInPicture } from '../shelf/pictures.ts';
import { readUpload } from '../shelf/upload.ts';
import { cancelTake, moreTakes, repeatFailed, takeAgain } from './again.ts';
import { cancelWaiting } from './ending.ts';
import { orderImage } from './makeTake.ts';
import { planRun } from './planning.ts';
import { bareProof, batchesOf, cohesionOfRun, describeProof, describeRun, listRuns } from './service.ts';
import { addBatch, startRun } from './starting.ts';
import { batches } from './tables.ts';

type BatchState = (typeof batches.$inferSelect)['state'];

/** Moves the batches of a run that are in one of `from` to `to`, or says why none can be. */
async function moveBatches(
  context: Context,
  runId: string,
  from: BatchState[],
  to: BatchState,
  personId: string,
): Promise<string[]> {
  const all = await batchesOf(context, runId);
  const moved = all.filter(b => from.includes(b.state)).map(b => b.id);
  if (moved.length === 0) {
    const binding = all.some(b => b.state === 'waiting');
    throw new ProblemError(
      'inTheWay',
      binding
        ? 'It is still being decided what the set shares; that takes a few seconds. Then this can be done.'
        : `The run is ${all[all.length - 1].state}, so this cannot be done now.`,
    );
  }
  await context.db
    .update(batches)
    .set({ state: to, waitingFor: null })
    .where(and(inArray(batches.id, moved), inArray(batches.state, from)));
  await context.events.add(context.db, 'runMoved', runId, personId, { state: to });
  return moved;
}

function onlyLeadsOverride(plan: PlanInput, role: Role): void {
  if (plan.licenceOverrides?.length && role !== 'lead')
    throw new ProblemError('notAllowed', 'Only a lead can use a source whose licence has ended.', { field: 'licenceOverrides' });
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
    handle: async ({ context, body, person }) => (await planRun(context, body, person.id)).preview,
  }),
  route({
    method: 'post',
    path: '/marks',
    roles: MAKERS,
    summary: 'Bring a mark to be placed exactly, such as a logo: SVG, or a picture with clear parts',
    upload: 'file',
    response: pictureSchema,
    status: 201,
    async handle({ context, req, res }) {
      const { name, bytes } = await readUpload(req, res);
      const { sha256, width, height } = await takeInPicture(context, name, bytes);
      return { sha256, width, height };
    },
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
      onlyLeadsOverride(body, person.role);
      return one(context, await startRun(context, body, person.id));
    },
  }),
  route({
    method: 'post',
    path: '/runs/:id/batches',
    roles: MAKERS,
    summary: 'Add a batch to a run: the rest after a pilot, subjects that join. What is there is not touched or made again',
    body: planSchema,
    response: runSchema,
    status: 201,
    async handle({ context, params, body, person }) {
      onlyLeadsOverride(body, person.role);
      await addBatch(context, params.id, body, person.id);
      return one(context, params.id);
    },
  }),
  route({
    method: 'post',
    path: '/runs/:id/more-takes',
    roles: MAKERS,
    summary: 'Order more takes of every cell that has one made',
    body: moreTakesSchema,
    response: messageSchema,
    async handle({ context, params, body, person }) {
      const n = await moreTakes(context, params.id, body.takes, person.id);
      return { message: n === 1 ? 'One more take is ordered.' : `${n} more takes are ordered.` };
    },
  }),
  route({
    method: 'get',
    path: '/runs/:id/cohesion',
    roles: EVERYONE,
    summary: 'How loosely the proofs of a run hang together, look by look and facet by facet',
    response: cohesionSchema,
    handle: ({ context, params }) => cohesionOfRun(context, params.id),
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
      // What waits to be bound has not begun; it cannot be held half way.
      await moveBatches(context, params.id, ['running'], 'paused', person.id);
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
      await moveBatches(context, params.id, ['paused'], 'running', person.id);
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
      const stopped = await moveBatches(context, params.id, ['running', 'waiting', 'paused'], 'stopped', person.id);
      for (const id of stopped) await cancelWaiting(context, id);
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
    method: 'post',
    path: '/takes/:id/cancel',
    roles: MAKERS,
    summary: 'Call off a take that is not made yet',
    async handle({ context, params, person }) {
      await cancelTake(context, params.id, person.id);
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
      const proof = await bareProof(context, params.id);
      if (ticketHash(proof.ticket) !== proof.ticketHash)
        throw new ProblemError('notPossible', 'The ticket on file does not match the proof; it cannot be made again.');
      const started = performance.now();
      try {
        // A key of its own, so that the press paints afresh instead of handing out what it kept.
        const key = `${proof.ticketHash}:remake:${Date.now()}`;
        const image = await context.presses.at(proof.ticket.press.id, client =>
          orderImage(context, client, proof.ticket, key, () => undefined),
        );
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
          throw new ProblemError(
            error.kind === 'gone' ? 'pressGone' : error.kind === 'busy' ? 'pressBusy' : 'notPossible',
            error.message,
          );
        throw error;
      }
    },
  }),
];
