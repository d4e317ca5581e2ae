import {
  askInputSchema,
  askReadingSchema,
  matchInputSchema,
  messageSchema,
  offshootsInputSchema,
  retouchInputSchema,
  type AskAnswer,
  type AskInput,
  type RetouchInput,
} from '@zinc/contract';
import {
  bindingSheet,
  drift,
  matchTicket,
  offshootTicket,
  retouchTicket,
  SHARES,
  type Common,
  type Kin,
  type Parent,
  type Ticket,
} from '@zinc/core';
import { and, eq, ne } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { MAKERS, route } from '../http/route.ts';
import { addTakeAs, goOn, readTakes, type TakeRow } from '../runs/again.ts';
import { holdBudgets } from '../runs/budgets.ts';
import { batches, cells, proofs, takes } from '../runs/tables.ts';
import { recordPicture } from '../shelf/pictures.ts';
import { fingerprintsOf } from '../shelf/service.ts';
import { prepareAsk, rootOf, type PreparedAsk } from './asks.ts';
import { asks } from './tables.ts';

interface Found extends Parent {
  sha256: string;
  takeId: string;
}

async function findProof(context: Context, id: string): Promise<Found> {
  const [row] = await context.db
    .select({ sha256: proofs.sha256, takeId: takes.id, ticket: takes.ticket })
    .from(proofs)
    .innerJoin(takes, eq(takes.id, proofs.takeId))
    .where(eq(proofs.id, id));
  if (!row) throw new ProblemError('notFound', 'There is no such proof any more.');
  return { proof: id, ...row };
}

/** Orders proofs made from another, as further takes of its cell; all of them or, beyond a budget, none. Returns the takes’ ids. */
async function order(
  context: Context,
  { proof, takeId }: Found,
  how: Kin,
  personId: string,
  tickets: readonly ((seed: number, take: number) => Ticket)[],
  along?: (tx: Queries, ids: string[]) => Promise<void>,
): Promise<string[]> {
  return context.db.transaction(async tx => {
    const [row]: TakeRow[] = await readTakes(tx, [takeId]);
    await holdBudgets(context, tx, tickets.length, row.campaignId, personId);
    const ids: string[] = [];
    for (const make of tickets) ids.push(await addTakeAs(tx, row, { proofId: proof, how }, make));
    await along?.(tx, ids);
    await goOn(context, tx, [row], personId, ids.length);
    return ids;
  });
}

/** Throws when the press of a ticket says that it cannot do this. */
async function mustBeAble(context: Context, ticket: Ticket, ability: string, what: string): Promise<void> {
  const { says, row } = await context.presses.openFor(ticket.press.id);
  const abilities = (says ?? row.capabilities)?.abilities;
  if (abilities && !abilities.includes(ability))
    throw new ProblemError('notPossible', `${row.name} does not ${what}. Another press of the house may.`);
}

/** Draws the mask of a retouch and keeps it, so that the ticket can name it. */
async function keepMask(context: Context, { ticket }: Found, { strokes }: RetouchInput): Promise<string> {
  const { width, height } = ticket.format;
  const made = await context.pictures.run({ kind: 'mask', width, height, strokes });
  if (!made.ok) throw new ProblemError('badInput', made.reason, { field: 'strokes' });
  const sha256 = await context.store.put(made.working);
  await recordPicture(context.db, sha256, sha256, made.working.length, made);
  return sha256;
}

/** What the other proofs of a set, those of its run and look, have in common. */
async function commonOfSet(context: Context, { proof }: Found): Promise<Common> {
  const [own] = await context.db
    .select({ runId: batches.runId, lookId: cells.lookId })
    .from(proofs)
    .innerJoin(takes, eq(takes.id, proofs.takeId))
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(eq(proofs.id, proof));
  const others = await context.db
    .select({ sha256: proofs.sha256, ticket: takes.ticket })
    .from(proofs)
    .innerJoin(takes, and(eq(takes.id, proofs.takeId), eq(takes.generation, proofs.generation)))
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(and(eq(batches.runId, own.runId), eq(cells.lookId, own.lookId), ne(proofs.id, proof)))
    .limit(MOST_MATCHED);
  const prints = await fingerprintsOf(
    context,
    others.map(o => o.sha256),
  );
  const measured = others.flatMap(o => (prints[o.sha256] ? [{ ticket: o.ticket, print: prints[o.sha256] }] : []));
  if (measured.length < LEAST_SET)
    throw new ProblemError(
      'notPossible',
      `Its set has ${measured.length === 1 ? 'one other proof' : `${measured.length} other proofs`}; a set to be matched to needs at least ${LEAST_SET}.`,
    );
  const sheet = bindingSheet(
    measured.map(m => m.print),
    SHARES,
  );
  const [nearest] = measured.map(m => ({ ...m, away: drift(m.print, sheet.target).total })).sort((p, q) => p.away - q.away);
  const { look, settings } = nearest.ticket;
  return { sheet, style: look.style, strength: settings.strength, print: nearest.print };
}
const MOST_MATCHED = 240;
const LEAST_SET = 3;

/** An ask as it was understood, with the proof whose recipe it changes. */
async function readBack(
  context: Context,
  proofId: string,
  input: AskInput,
): Promise<{ ask: PreparedAsk; base: Found; answer: AskAnswer }> {
  const found = await findProof(context, proofId);
  const ask = await prepareAsk(context, proofId, found.ticket, input);
  const base = await findProof(context, ask.baseId);
  const { applied } = ask.make(base.ticket, base.ticket.take);
  return { ask, base, answer: { says: applied.map(({ done, says }) => ({ done, says })), left: ask.reading.left } };
}

const ordered = (n: number, what: string): { message: string } => ({
  message: n === 1 ? `One ${what} is ordered.` : `${n} ${what}s are ordered.`,
});

export const mendRoutes = [
  route({
    method: 'post',
    path: '/proofs/:id/offshoots',
    roles: MAKERS,
    summary: 'Order offshoots of a proof, near or far, as further takes of its cell',
    body: offshootsInputSchema,
    response: messageSchema,
    async handle({ context, params, body, person }) {
      const found = await findProof(context, params.id);
      await mustBeAble(context, found.ticket, 'offshoot', 'make offshoots');
      const make = (seed: number, take: number): Ticket => offshootTicket(found, body.distance, seed, take);
      const ids = await order(context, found, 'offshoot', person.id, Array<typeof make>(body.count).fill(make));
      return ordered(ids.length, 'offshoot');
    },
  }),
  route({
    method: 'post',
    path: '/proofs/:id/retouches',
    roles: MAKERS,
    summary: 'Have a region of a proof taken out or painted again, as a further take; what lies beyond the region stays as it is',
    body: retouchInputSchema,
    response: messageSchema,
    async handle({ context, params, body, person }) {
      const found = await findProof(context, params.id);
      await mustBeAble(context, found.ticket, 'mask', 'work on a region');
      const mask = await keepMask(context, found, body);
      const { how } = body;
      const make = (seed: number, take: number): Ticket =>
        retouchTicket(found, { picture: found.sha256, mask, how, seed }, how === 'again' ? body.note : '', take);
      await order(context, found, how === 'remove' ? 'removed' : 'paintedAgain', person.id, [make]);
      return ordered(1, 'retouch');
    },
  }),
  route({
    method: 'post',
    path: '/proofs/:id/asks/reading',
    roles: MAKERS,
    summary: 'Say what an ask would change of a proof’s ticket, and what of it is not understood; nothing is ordered',
    body: askInputSchema,
    response: askReadingSchema,
    async handle({ context, params, body }): Promise<AskAnswer> {
      return (await readBack(context, params.id, body)).answer;
    },
  }),
  route({
    method: 'post',
    path: '/proofs/:id/asks',
    roles: MAKERS,
    summary: 'Ask for a change of a proof: the next try is ordered, from the first of its thread unless told otherwise',
    body: askInputSchema,
    response: askReadingSchema,
    async handle({ context, params, body, person }): Promise<AskAnswer> {
      const { ask, base, answer } = await readBack(context, params.id, body);
      if (!answer.says.some(a => a.done))
        throw new ProblemError(
          'notPossible',
          [...answer.says.map(a => a.says), ...answer.left.map(l => `“${l}” is not understood.`)].join(' '),
          { field: 'words' },
        );
      const rootId = await rootOf(context, params.id);
      await order(context, base, 'asked', person.id, [(_, take) => ask.make(base.ticket, take).ticket], async (tx, [takeId]) => {
        const { changes, reading } = ask;
        await tx.insert(asks).values({
          id: uuidv7(),
          rootId,
          proofId: params.id,
          takeId,
          personId: person.id,
          words: body.words || `towards “${body.picture?.name ?? ''}”`,
          changes,
          left: reading.left,
          at: new Date(),
        });
      });
      return answer;
    },
  }),
  route({
    method: 'post',
    path: '/proofs/:id/match',
    roles: MAKERS,
    summary: 'Have a proof made again, pulled to what the rest of its set has in common, as a further take',
    body: matchInputSchema,
    response: messageSchema,
    async handle({ context, params, body, person }) {
      const found = await findProof(context, params.id);
      await mustBeAble(context, found.ticket, 'bind', 'bind images to a set');
      const set = await commonOfSet(context, found);
      const own = (await fingerprintsOf(context, [found.sha256]))[found.sha256];
      if (!own) throw new ProblemError('notPossible', 'This proof is not measured yet. Try again in a moment.');
      await order(context, found, 'matched', person.id, [(_, take) => matchTicket(found, own, set, body.amount, take)]);
      return { message: 'It is made again, matched to its set.' };
    },
  }),
];
