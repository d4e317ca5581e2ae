import { randomUUID } from 'node:crypto';
import type { Context } from '../context.ts';
import { closeForgotten } from './ending.ts';
import { PressLine } from './pressLine.ts';

const LOOK_EVERY_MS = 1500;

/** Carries out takes: one line a press claims them under a lease, has them made, measures and keeps what comes back. */
export class Maker {
  private readonly owner = `${process.pid}-${randomUUID().slice(0, 8)}`;
  private readonly lines = new Map<string, PressLine>();
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
    const stops = [...this.lines.values()].map(l => l.stop());
    await Promise.race([Promise.allSettled([this.loop, ...stops]), new Promise(r => setTimeout(r, graceMs))]);
  }

  /** Sees to it that every press of the house has a line (one of a press out of use rests by itself), and that no batch is left open. */
  private async run(): Promise<void> {
    while (this.running) {
      try {
        for (const { row } of await this.context.presses.all())
          if (!this.lines.has(row.id)) {
            const line = new PressLine(this.context, row.id, this.owner);
            this.lines.set(row.id, line);
            line.start();
          }
        await closeForgotten(this.context);
      } catch (error) {
        this.context.log.warn({ err: error }, 'presses and batches could not be looked after');
      }
      await new Promise(r => setTimeout(r, LOOK_EVERY_MS).unref());
    }
  }
}
