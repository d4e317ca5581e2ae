import { randomUUID } from 'node:crypto';
import { drift, inputsOf, ticketHash, type Ticket } from '@zinc/core';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { presses } from '../house/tables.ts';
import { recordPicture } from '../shelf/pictures.ts';
import { claimTakes, LEASE_SECONDS, renewLease, settleTake, type Claim } from './claims.ts';
import { PressError } from './pressClient.ts';
import { batches, proofs, runLooks, takes } from './tables.ts';

const MOST_ATTEMPTS = 4;
const IDLE_MS = 400;

class LeaseLostError extends Error {}

/** Carries out takes: claims them under a lease, has the press make them, measures and keeps what comes back. */
export class Maker {
  private readonly owner = `${process.pid}-${randomUUID().slice(0, 8)}`;
  private readonly working = new Set<Promise<void>>();
  private running = false;
  private loop: Promise<void> = Promise.resolve();

  constructor(private readonly context: Context) {}

  start(): void {
    this.running = true;
    this.loop = this.run();
  }

  /** Stops claiming, and waits at most `graceMs` for what is in hand; leases of the rest run out by themselves. */
  async stop(graceMs = 3000): Promise<void> {
    this.running = false;
    await Promise.race([Promise.allSettled([this.loop, ...this.working]), new Promise(r => setTimeout(r, graceMs))]);
  }

  private async run(): Promise<void> {
    while (this.running) {
      let claims: Claim[] = [];
      try {
        const capabilities = await this.context.press.capabilities();
        // A few more than the press paints at once, so that it never waits for the next order.
        const most = capabilities ? capabilities.atOnce * 2 : 1;
        if (this.working.size < most) claims = await claimTakes(this.context.db, this.owner, most - this.working.size);
      } catch (error) {
        this.context.log.warn({ err: error }, 'takes could not be claimed');
      }
      for (const claim of claims) {
        const work: Promise<void> = this.carryOut(claim).finally(() => this.working.delete(work));
        this.working.add(work);
      }
      if (claims.length === 0) await Promise.race([new Promise(r => setTimeout(r, IDLE_MS)), ...this.working]);
    }
  }

  private async carryOut(claim: Claim): Promise<void> {
    const { context } = this;
    const started = Date.now();
    try {
      await this.make(claim);
      await this.recordPace((Date.now() - started) / 1000, claim);
    } catch (error) {
      if (error instanceof LeaseLostError) return;
      await this.putBack(claim, error as Error).catch(inner =>
        context.log.error({ err: inner }, 'a take could not be put back; its lease will run out'),
      );
    }
    await this.finishBatch(claim.batchId).catch(error => context.log.warn({ err: error }, 'a batch could not be closed yet'));
  }

  private async make(claim: Claim): Promise<void> {
    const { context, owner } = this;
    const { ticket } = claim;
    let renewed = Date.now();
    const keepLease = async (): Promise<void> => {
      if (Date.now() - renewed < (LEASE_SECONDS * 1000) / 3) return;
      if (!(await renewLease(context.db, owner, claim))) throw new LeaseLostError();
      renewed = Date.now();
    };
    for (const sha256 of inputsOf(ticket)) await context.press.bringInput(sha256, () => context.store.read(sha256));
    const image = await context.press.make(ticket, `${claim.ticketHash}:${claim.generation}`, keepLease);
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
      throw new PressError('The picture changed on its way from the press.', 'fault', true);
    const sha256 = await context.store.put(image.bytes);
    const [target] = await context.db
      .select({ target: runLooks.target, runId: runLooks.runId })
      .from(runLooks)
      .innerJoin(batches, eq(batches.runId, runLooks.runId))
      .where(and(eq(batches.id, claim.batchId), eq(runLooks.lookId, ticket.look.id)));
    // A run begun under an older measure has nothing its pictures could be compared with.
    const comparable = target?.target?.measure === taken.fingerprint.measure;
    const measured = target?.target && comparable ? drift(taken.fingerprint, target.target) : null;
    const likeness = await this.likenessOf(claim, image.bytes, keepLease);
    const proofId = uuidv7();
    await context.db.transaction(async tx => {
      if (!(await settleTake(tx, owner, claim, { state: 'made', problem: null, finishedAt: new Date() })))
        throw new LeaseLostError();
      await recordPicture(tx, sha256, sha256, image.bytes.length, taken);
      await tx.insert(proofs).values({
        id: proofId,
        takeId: claim.takeId,
        generation: claim.generation,
        sha256,
        pixelHash: taken.pixelHash,
        ticketHash: claim.ticketHash,
        drift: measured,
        likeness,
        madeAt: new Date(),
      });
      await tx.update(batches).set({ waitingFor: null }).where(eq(batches.id, claim.batchId));
      await context.events.add(tx, 'takeMade', target?.runId ?? null, null, { takeId: claim.takeId, proofId });
    });
  }

  /**
   * How much an image keeps of its content: of its content picture, or, on a test strip, of what the press draws without any strength. Null
   * when there is neither.
   */
  private async likenessOf(claim: Claim, painted: Buffer, keepLease: () => Promise<void>): Promise<number | null> {
    const { context } = this;
    const { contents, settings, ...rest } = claim.ticket;
    if (contents[0]) return context.pictures.likeness(painted, await context.store.read(contents[0].sha256));
    const [batch] = await context.db.select({ plan: batches.plan }).from(batches).where(eq(batches.id, claim.batchId));
    if (batch?.plan.kind !== 'testStrip') return null;
    const plain: Ticket = { ...rest, contents, settings: { ...settings, strength: 0 } };
    delete plain.binding;
    delete plain.fidelity;
    const image = await context.press.make(plain, `${ticketHash(plain)}:plain`, keepLease);
    return context.pictures.likeness(painted, image.bytes);
  }

  private async putBack(claim: Claim, error: Error): Promise<void> {
    const { context, owner } = this;
    const known = error instanceof PressError;
    if (!known) context.log.error({ err: error }, 'a take failed in an unexpected way');
    const runId = await this.runOf(claim.batchId);
    if (known && error.kind === 'gone') {
      // Nobody's fault and no attempt spent: the run waits, and goes on when the press is back.
      await settleTake(context.db, owner, claim, { state: 'waiting', notBefore: new Date(Date.now() + 2000) });
      await context.db
        .update(batches)
        .set({ waitingFor: 'The press does not answer. The run goes on by itself when it is back.' })
        .where(eq(batches.id, claim.batchId));
      await context.events.add(context.db, 'runWaits', runId, null);
      return;
    }
    const attempts = claim.attempts + 1;
    const again = (!known || error.mayRetry) && attempts < MOST_ATTEMPTS;
    const backoff = Math.max(known ? error.waitSeconds * 1000 : 0, 400 * 2 ** attempts * (0.75 + Math.random() / 2));
    const problem = (known ? error.message : 'Something went wrong in Zinc Shelf while this image was made.').slice(0, 500);
    await settleTake(
      context.db,
      owner,
      claim,
      again
        ? { state: 'waiting', attempts, problem, notBefore: new Date(Date.now() + backoff) }
        : { state: 'failed', attempts, problem, finishedAt: new Date() },
    );
    await context.events.add(context.db, again ? 'takeRetried' : 'takeFailed', runId, null, { takeId: claim.takeId });
  }

  private async runOf(batchId: string): Promise<string | null> {
    const [row] = await this.context.db.select({ runId: batches.runId }).from(batches).where(eq(batches.id, batchId));
    return row?.runId ?? null;
  }

  /** A batch with nothing left to make is done. */
  private async finishBatch(batchId: string): Promise<void> {
    const { context } = this;
    const [result] = (await context.db.execute(sql`
      update batches set state = 'done', waiting_for = null where id = ${batchId} and state = 'running'
      and not exists (select 1 from takes where takes.batch_id = ${batchId} and takes.state in ('waiting', 'painting'))`)) as unknown as [
      { affectedRows: number },
    ];
    if (result.affectedRows === 1) await context.events.add(context.db, 'runDone', await this.runOf(batchId), null);
  }

  /** Remembers how long the press takes an image of 768 × 768, all its painters together, as a running mean. */
  private async recordPace(seconds: number, claim: Claim): Promise<void> {
    const { width, height } = claim.ticket.format;
    const atOnce = Math.max(1, this.working.size);
    const pace = (seconds / atOnce) * (589_824 / (width * height));
    await this.context.db
      .update(presses)
      .set({
        secondsPerImage: sql`coalesce(${presses.secondsPerImage} * 0.85 + ${pace} * 0.15, ${pace})`,
        capabilities: await this.context.press.capabilities(),
        seenAt: new Date(),
      })
      .where(eq(presses.id, claim.ticket.press.id));
  }
}

/** Takes of a batch that can still be called off become cancelled. */
export async function cancelWaiting(context: Context, batchId: string): Promise<void> {
  await context.db
    .update(takes)
    .set({ state: 'cancelled', leaseOwner: null, leaseEnds: null })
    .where(and(eq(takes.batchId, batchId), inArray(takes.state, ['waiting', 'painting'])));
}
