import type { AskInput, AskView } from '@zinc/contract';
import { askTicket, readAsk, wordsAround, wordsIn, type AskChange, type AskReading, type Known, type Ticket } from '@zinc/core';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { people } from '../people/tables.ts';
import { PressError } from '../presses/pressClient.ts';
import { proofs, takes } from '../runs/tables.ts';
import { fingerprintsOf } from '../shelf/service.ts';
import { asks } from './tables.ts';

/** The first proof of the thread that a proof stands in: of the ask that made it, or else itself. */
export async function rootOf(context: Context, proofId: string): Promise<string> {
  const [row] = await context.db
    .select({ root: asks.rootId })
    .from(asks)
    .innerJoin(proofs, eq(proofs.takeId, asks.takeId))
    .where(eq(proofs.id, proofId));
  return row?.root ?? proofId;
}

/** Everything asked in the thread of a proof, oldest first, each with what came of it. */
export async function threadOf(context: Context, proofId: string): Promise<AskView[]> {
  const rows = await context.db
    .select({ ask: asks, person: people.name, take: takes.take, state: takes.state, madeId: proofs.id, sha256: proofs.sha256 })
    .from(asks)
    .innerJoin(people, eq(people.id, asks.personId))
    .innerJoin(takes, eq(takes.id, asks.takeId))
    .leftJoin(proofs, and(eq(proofs.takeId, takes.id), eq(proofs.generation, takes.generation)))
    .where(eq(asks.rootId, await rootOf(context, proofId)))
    .orderBy(asc(asks.at), asc(asks.id));
  return rows.map(({ ask, person, take, state, madeId, sha256 }) => ({
    id: ask.id,
    proofId: ask.proofId,
    words: ask.words,
    changes: ask.changes,
    left: ask.left,
    person,
    at: ask.at.toISOString(),
    take,
    state,
    madeId,
    pictureSha: sha256,
  }));
}

/** An ask as it would be carried out. */
export interface PreparedAsk {
  /** The proof whose recipe it changes. */
  baseId: string;
  reading: AskReading;
  /** What of the thread goes on being heeded, and then what is asked now. */
  changes: AskChange[];
  make(ticket: Ticket, take: number): ReturnType<typeof askTicket>;
}

/** Reads an ask; phrases that no rule knows are offered to the press, which may draw them. Throws when it asks for nothing. */
export async function prepareAsk(context: Context, proofId: string, ticket: Ticket, input: AskInput): Promise<PreparedAsk> {
  if (!input.words && !input.picture)
    throw new ProblemError('badInput', 'Say what to change, or choose a picture that it should go towards.', { field: 'words' });
  const rootId = await rootOf(context, proofId);
  const baseId = input.onTop ? proofId : rootId;
  const reading = await withPress(context, ticket, readAsk(input.words));
  if (input.picture) reading.changes.push({ kind: 'picture', ...input.picture });
  const earlier =
    input.keep.length > 0 && !input.onTop ? await context.db.select().from(asks).where(inArray(asks.id, input.keep)) : [];
  if (earlier.some(a => a.rootId !== rootId))
    throw new ProblemError('badInput', 'An ask to be kept is not of this thread.', { field: 'keep' });
  earlier.sort((p, q) => p.at.getTime() - q.at.getTime());
  const changes = [...earlier.flatMap(a => a.changes), ...reading.changes];
  const known = await knownOf(context, baseId, changes);
  return {
    baseId,
    reading,
    changes: reading.changes,
    make: (base, take) => askTicket({ proof: baseId, ticket: base }, changes, known, take),
  };
}

async function withPress(context: Context, ticket: Ticket, reading: AskReading): Promise<AskReading> {
  // A content picture is not drawn, so no words change it.
  if (reading.left.length === 0 || ticket.contents.length > 0) return reading;
  const about = { wording: ticket.subject.wording, text: '', contents: [], settings: {} };
  const before = wordsAround(ticket.text.parts);
  try {
    const { client } = await context.presses.openFor(ticket.press.id);
    const [plain, ...answers] = await client.check([
      { ...about, key: 'before', around: before },
      ...reading.left.map((words, k) => ({ ...about, key: String(k), around: `${before} ${words}` })),
    ]);
    const own = wordsIn(`${ticket.subject.wording} ${ticket.subject.label}`);
    // Its own name, in the plural too, is no wish that a press could ignore.
    const isOwn = (word: string): boolean => own.some(o => word === o || word === `${o}s` || word === `${o}es`);
    const knows = (k: number): boolean => answers[k].ignored.every(word => isOwn(word) || plain.ignored.includes(word));
    return {
      changes: [
        ...reading.changes,
        ...reading.left.filter((_, k) => knows(k)).map((words): AskChange => ({ kind: 'drawing', words })),
      ],
      left: reading.left.filter((_, k) => !knows(k)),
    };
  } catch (error) {
    if (error instanceof PressError) return reading;
    throw error;
  }
}

async function knownOf(context: Context, baseId: string, changes: readonly AskChange[]): Promise<Known> {
  const [base] = await context.db.select({ sha256: proofs.sha256 }).from(proofs).where(eq(proofs.id, baseId));
  if (!base) throw new ProblemError('notFound', 'The first proof of this thread is not in the house any more.');
  const named = changes.flatMap(c => (c.kind === 'picture' ? [c.sha256] : []));
  const prints = await fingerprintsOf(context, [base.sha256, ...named]);
  const missing = named.find(sha256 => !prints[sha256]);
  if (missing) throw new ProblemError('notFound', 'The picture it should go towards is not on the shelf.', { field: 'picture' });
  return { own: prints[base.sha256] ?? null, prints };
}
