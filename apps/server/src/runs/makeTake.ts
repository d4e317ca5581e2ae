import { drift, inputsOf, ticketHash, type Ticket } from '@zinc/core';
import { and, eq } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { inSpiteOfDeadlocks, type Queries } from '../db/connect.ts';
import type { PressClient } from '../presses/pressClient.ts';
import { PressError } from '../presses/pressClient.ts';
import type { KnownPress } from '../presses/presses.ts';
import { recordPicture } from '../shelf/pictures.ts';
import { LEASE_SECONDS, renewLease, settleTake, type Claim } from './claims.ts';
import { batches, proofs, runLooks } from './tables.ts';

/** The take is not this server's any more. */
export class LeaseLostError extends Error {
  override name = 'LeaseLostError';
}

/** Brings a press what a ticket names, and has it make the image. */
export async function orderImage(
  context: Context,
  client: PressClient,
  ticket: Ticket,
  key: string,
  onWait: () => Promise<void> | void,
): Promise<{ bytes: Buffer; pixels: string }> {
  for (const sha256 of inputsOf(ticket)) await client.bringInput(sha256, () => context.store.read(sha256));
  return client.make(ticket, key, onWait);
}

/** The ticket as this press carries it out: its own, or one taken over from another of its make. */
function ticketAt(ticket: Ticket, { row }: KnownPress): Ticket {
  return ticket.press.id === row.id ? ticket : { ...ticket, press: { ...ticket.press, id: row.id, name: row.name } };
}

/** Has a press make a claimed take, measures what comes back, and keeps it. Throws PressError when it is not what was asked. */
export async function makeTake(context: Context, owner: string, claim: Claim, press: KnownPress): Promise<void> {
  const ticket = ticketAt(claim.ticket, press);
  const hash = ticket === claim.ticket ? claim.ticketHash : ticketHash(ticket);
  let renewed = performance.now();
  const keepLease = async (): Promise<void> => {
    if (performance.now() - renewed < (LEASE_SECONDS * 1000) / 3) return;
    if (!(await renewLease(context.db, owner, claim))) throw new LeaseLostError();
    renewed = performance.now();
  };
  const image = await orderImage(context, press.client, ticket, `${hash}:${claim.generation}`, keepLease);
  await keepLease();
  const taken = await context.pictures.run({ kind: 'proof', bytes: image.bytes });
  if (!taken.ok) throw new PressError(`The press sent a broken picture. ${taken.reason}`, 'fault', true);
  if (taken.width !== ticket.format.width || taken.height !== ticket.format.height)
    throw new PressError(
      `The press sent ${taken.width} × ${taken.height} pixels; ${ticket.format.width} × ${ticket.format.height} were asked.`,
      'fault',
      true,
    );
  if (image.pixels && image.pixels !== taken.pixelHash)
    throw new PressError('The picture is not the one that the press said it made.', 'fault', true);
  const sha256 = await context.store.put(image.bytes);
  const [target] = await context.db
    .select({ target: runLooks.target, runId: runLooks.runId })
    .from(runLooks)
    .innerJoin(batches, eq(batches.runId, runLooks.runId))
    .where(and(eq(batches.id, claim.batchId), eq(runLooks.lookId, ticket.look.id)));
  // A run begun under an older measure has nothing its pictures could be compared with.
  const comparable = target?.target?.measure === taken.fingerprint.measure;
  const measured = target?.target && comparable ? drift(taken.fingerprint, target.target) : null;
  const likeness = await likenessOf(context, claim, ticket, press, image.bytes, keepLease);
  const proofId = uuidv7();
  const keep = async (tx: Queries): Promise<void> => {
    const settled = { state: 'made' as const, ticket, ticketHash: hash, problem: null, finishedAt: new Date() };
    if (!(await settleTake(tx, owner, claim, settled))) throw new LeaseLostError();
    await recordPicture(tx, sha256, sha256, image.bytes.length, taken);
    await tx.insert(proofs).values({
      id: proofId,
      takeId: claim.takeId,
      generation: claim.generation,
      sha256,
      pixelHash: taken.pixelHash,
      ticketHash: hash,
      drift: measured,
      likeness,
      madeAt: new Date(),
    });
    await tx.update(batches).set({ waitingFor: null }).where(eq(batches.id, claim.batchId));
    await context.events.add(tx, 'takeMade', target?.runId ?? null, null, { takeId: claim.takeId, proofId });
  };
  await inSpiteOfDeadlocks(() => context.db.transaction(keep));
}

/**
 * How much an image keeps of its content: of its content picture, or, on a test strip, of what the press draws without any strength. Null
 * when there is neither.
 */
async function likenessOf(
  context: Context,
  claim: Claim,
  { contents, settings, ...rest }: Ticket,
  press: KnownPress,
  painted: Buffer,
  keepLease: () => Promise<void>,
): Promise<number | null> {
  if (contents[0]) return context.pictures.likeness(painted, await context.store.read(contents[0].sha256));
  const [batch] = await context.db.select({ plan: batches.plan }).from(batches).where(eq(batches.id, claim.batchId));
  if (batch?.plan.kind !== 'testStrip') return null;
  const plain: Ticket = { ...rest, contents, settings: { ...settings, strength: 0 } };
  delete plain.binding;
  delete plain.fidelity;
  const image = await press.client.make(plain, `${ticketHash(plain)}:plain`, keepLease);
  return context.pictures.likeness(painted, image.bytes);
}
