import type { Context } from '../context.ts';
import { inSpiteOfDeadlocks } from '../db/connect.ts';
import { isUp, sameMake, type KnownPress } from '../presses/presses.ts';
import { claimTakes, type Claim } from './claims.ts';
import { finishBatch, putBack, recordPace } from './ending.ts';
import { LeaseLostError, makeTake } from './makeTake.ts';

const IDLE_MS = 400;

/** One press at work: claims takes for it, its own and those of presses of the same make, and has it make them. */
export class PressLine {
  private readonly working = new Set<Promise<void>>();
  private running = false;
  private loop: Promise<void> = Promise.resolve();

  constructor(
    private readonly context: Context,
    private readonly pressId: string,
    private readonly owner: string,
  ) {}

  start(): void {
    this.running = true;
    this.loop = this.run();
  }

  /** Claims nothing more; done when nothing is in hand any more. */
  async stop(): Promise<void> {
    this.running = false;
    await Promise.allSettled([this.loop, ...this.working]);
  }

  private async run(): Promise<void> {
    while (this.running) {
      let taken = 0;
      try {
        taken = await this.claim();
      } catch (error) {
        this.context.log.warn({ err: error }, 'takes could not be claimed');
      }
      if (taken === 0) await Promise.race([new Promise(r => setTimeout(r, IDLE_MS)), ...this.working]);
    }
  }

  private async claim(): Promise<number> {
    const all = await this.context.presses.all();
    const press = all.find(p => p.row.id === this.pressId);
    if (!press?.row.inUse || press.rests) return 0;
    const mates = all.filter(p => p !== press && sameMake(p, press));
    const most = mostOf(press, mates) - this.working.size;
    if (most <= 0) return 0;
    const claims = await inSpiteOfDeadlocks(() =>
      claimTakes(this.context.db, this.owner, most, {
        own: this.pressId,
        // What a press does not get to, because it is away or has its hands full, another of its make makes.
        mates: isUp(press) ? mates.map(p => p.row.id) : [],
        othersUp: mates.some(isUp),
      }),
    );
    for (const claim of claims) {
      const work: Promise<void> = this.carryOut(claim, press).finally(() => this.working.delete(work));
      this.working.add(work);
    }
    return claims.length;
  }

  private async carryOut(claim: Claim, press: KnownPress): Promise<void> {
    const { context, owner } = this;
    const started = performance.now();
    try {
      await makeTake(context, owner, claim, press);
      await recordPace(context, (performance.now() - started) / 1000 / Math.max(1, this.working.size), claim, press);
    } catch (error) {
      if (error instanceof LeaseLostError) return;
      await putBack(context, owner, claim, press, error as Error).catch(inner =>
        context.log.error({ err: inner }, 'a take could not be put back; its lease will run out'),
      );
    }
    await finishBatch(context, claim.batchId).catch(error => context.log.warn({ err: error }, 'a batch could not be closed yet'));
  }
}

/** Images that a press is asked for at once: a few more than it paints, so that it never waits for the next order. */
function mostOf(press: KnownPress, mates: readonly KnownPress[]): number {
  // A press that is away is asked for one, so that the run can say what it waits for; unless another does its work.
  if (!press.says) return mates.some(isUp) ? 0 : 1;
  // One that has just gone wrong is tried with little.
  if (press.row.faults > 2) return 1;
  return Math.min(press.says.atOnce * 2, press.row.atOnce ?? Infinity);
}
