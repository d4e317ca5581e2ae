import { bindingSheet, ticketHash, type BindingSheet, type Fingerprint, type Share, type Ticket } from '@zinc/core';
import { and, asc, eq, isNotNull } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { PressError } from '../presses/pressClient.ts';
import { fingerprintsOf } from '../shelf/service.ts';
import { orderImage } from './makeTake.ts';
import { MOST_PROBES, probeFormat } from './probes.ts';
import { batches, cells, proofs, takes } from './tables.ts';

const IDLE_MS = 500;
const PRESS_AWAY_MS = 2000;

type Batch = typeof batches.$inferSelect;
type BoundTake = { id: string; ticket: Ticket; bind: NonNullable<(typeof cells.$inferSelect)['bind']> };

/**
 * The first phase of binding. For every batch that waits for it, cells are painted small and unbound, measured, and what they share is kept
 * with the batch and written onto its tickets; then the batch runs. Every step can be done again, by this server or another: the press gives
 * the same probe for the same key, and tickets are written in one transaction with the state of the batch.
 */
export class Binder {
  private running = false;
  private loop: Promise<void> = Promise.resolve();

  constructor(private readonly context: Context) {}

  start(): void {
    this.running = true;
    this.loop = this.run();
  }

  async stop(graceMs = 3000): Promise<void> {
    this.running = false;
    await Promise.race([this.loop, new Promise(r => setTimeout(r, graceMs))]);
  }

  private async run(): Promise<void> {
    while (this.running) {
      let pause = IDLE_MS;
      try {
        const [batch] = await this.context.db
          .select()
          .from(batches)
          .where(and(eq(batches.state, 'waiting'), isNotNull(batches.sheets)))
          .orderBy(asc(batches.frozenAt))
          .limit(1);
        if (batch) {
          await this.bind(batch);
          pause = 0;
        }
      } catch (error) {
        pause = PRESS_AWAY_MS;
        if (!(error instanceof PressError)) this.context.log.warn({ err: error }, 'a set could not be bound yet');
      }
      if (pause > 0) await new Promise(r => setTimeout(r, pause).unref());
    }
  }

  private async bind(batch: Batch): Promise<void> {
    const { context } = this;
    const rows = await context.db
      .select({ id: takes.id, ticket: takes.ticket, bind: cells.bind })
      .from(takes)
      .innerJoin(cells, eq(cells.id, takes.cellId))
      .where(eq(takes.batchId, batch.id))
      .orderBy(asc(cells.row), asc(cells.col), asc(takes.take));
    const bound = rows.filter((r): r is BoundTake => r.bind !== null);
    const share = batch.plan.binding?.share ?? (['palette', 'ground', 'light', 'line', 'texture'] as Share[]);
    const sheets: Record<string, BindingSheet> = { ...batch.sheets };
    for (const { bind } of bound) {
      const key = keyOf(bind);
      if (sheets[key]) continue;
      const own = bound.filter(t => keyOf(t.bind) === key);
      try {
        sheets[key] = bind.anchor ? await this.sheetOfAnchor(bind.anchor, share) : await this.sheetOfSet(batch.id, own, share);
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        await this.giveUp(batch, error.message);
        return;
      }
    }
    await context.db.transaction(async tx => {
      for (const { id, ticket, bind } of bound) {
        const whole: Ticket = { ...ticket, binding: { sheet: sheets[keyOf(bind)], amount: bind.amount } };
        await tx
          .update(takes)
          .set({ ticket: whole, ticketHash: ticketHash(whole) })
          .where(eq(takes.id, id));
      }
      await tx
        .update(batches)
        .set({ state: 'running', waitingFor: null, sheets })
        .where(and(eq(batches.id, batch.id), eq(batches.state, 'waiting')));
      await context.events.add(tx, 'runMoved', batch.runId, null, { state: 'running' });
    });
  }

  /** A proof that the set follows. */
  private async sheetOfAnchor(proofId: string, share: Share[]): Promise<BindingSheet> {
    const [proof] = await this.context.db.select({ sha256: proofs.sha256 }).from(proofs).where(eq(proofs.id, proofId));
    const print = proof && (await fingerprintsOf(this.context, [proof.sha256]))[proof.sha256];
    if (!print) throw new ProblemError('notFound', 'The anchor that the set was to follow is not in the house any more.');
    return bindingSheet([], share, print);
  }

  /** The middle of the set: its cells painted small and free, one take each. */
  private async sheetOfSet(batchId: string, own: BoundTake[], share: Share[]): Promise<BindingSheet> {
    const firsts = own.filter(t => t.ticket.take === 1);
    const step = Math.max(1, firsts.length / MOST_PROBES);
    const chosen = Array.from({ length: Math.min(firsts.length, MOST_PROBES) }, (_, i) => firsts[Math.floor(i * step)]);
    const prints: Fingerprint[] = [];
    let done = 0;
    const queue = [...chosen];
    const work = async (): Promise<void> => {
      for (let take = queue.shift(); take; take = queue.shift()) {
        const print = await this.probe(take.ticket);
        if (print) prints.push(print);
        done++;
        await this.tell(batchId, `Deciding what the set shares: ${done} of ${chosen.length} looked at.`);
      }
    };
    const { says, row } = await this.context.presses.openFor(own[0].ticket.press.id);
    const atOnce = Math.min(says?.atOnce ?? 1, row.atOnce ?? Infinity);
    await Promise.all(Array.from({ length: atOnce }, work));
    if (prints.length === 0) throw new ProblemError('notPossible', 'None of the set could be painted, so nothing can be shared.');
    return bindingSheet(prints, share);
  }

  /** Null when the press says that this one cannot be made: the run itself will say so of it. */
  private async probe(ticket: Ticket): Promise<Fingerprint | null> {
    const { context } = this;
    // Marks are laid over what is painted, and have no part in it.
    const { marks: _, ...rest } = ticket;
    const small: Ticket = { ...rest, format: probeFormat(ticket.format) };
    try {
      const stopped = (): void => {
        if (!this.running) throw new PressError('The server is being stopped.', 'gone', true);
      };
      const image = await context.presses.at(ticket.press.id, client =>
        orderImage(context, client, small, `${ticketHash(small)}:probe`, stopped),
      );
      const taken = await context.pictures.run({ kind: 'proof', bytes: image.bytes });
      return taken.ok ? taken.fingerprint : null;
    } catch (error) {
      if (error instanceof PressError && !error.mayRetry) return null;
      throw error;
    }
  }

  private async tell(batchId: string, what: string): Promise<void> {
    await this.context.db
      .update(batches)
      .set({ waitingFor: what })
      .where(and(eq(batches.id, batchId), eq(batches.state, 'waiting')));
  }

  private async giveUp(batch: Batch, reason: string): Promise<void> {
    const { context } = this;
    await context.db.transaction(async tx => {
      await tx
        .update(takes)
        .set({ state: 'failed', problem: reason, finishedAt: new Date() })
        .where(and(eq(takes.batchId, batch.id), eq(takes.state, 'waiting')));
      await tx.update(batches).set({ state: 'done', waitingFor: null }).where(eq(batches.id, batch.id));
      await context.events.add(tx, 'runDone', batch.runId, null);
    });
  }
}

function keyOf({ group, anchor }: BoundTake['bind']): string {
  return anchor ? `${group}#${anchor}` : group;
}
