import { signal } from '@angular/core';
import type { Drift, Fingerprint, Preparation } from '@zinc/core';
import type { PrepareAnswer, PrepareOrder, Shown } from './preparing';

export interface Made {
  /** Counts what was made. */
  id: number;
  shown: Shown;
  small: Shown;
  fingerprint: Fingerprint;
  drift: Drift;
  preparation: Preparation;
}

/** One picture in a worker of its own. Of several preparations asked for while one is being made only the newest is made. */
export class Preparer {
  private readonly worker = new Worker(new URL('./prepare.worker', import.meta.url), { type: 'module' });
  private busy = false;
  private next = 1;
  private waiting: { preparation: Preparation; whole: boolean } | null = null;
  private making: Preparation = {};
  readonly original = signal<Extract<PrepareAnswer, { kind: 'ready' }> | null>(null);
  readonly made = signal<Made | null>(null);
  readonly refused = signal<{ part: string; message: string } | null>(null);
  readonly working = signal(false);

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<PrepareAnswer>) => {
      if (data.kind === 'ready') this.original.set(data);
      else {
        if (data.kind === 'made') {
          const { id, shown, small, fingerprint, drift } = data;
          this.made.set({ id, shown, small, fingerprint, drift, preparation: this.making });
        }
        this.refused.set(data.kind === 'refused' ? data : null);
      }
      this.busy = false;
      this.pump();
    };
  }

  /** Loads the working copy of a picture of the house. */
  async open(sha256: string): Promise<void> {
    const response = await fetch(`/api/pictures/${sha256}/working`);
    if (!response.ok) throw new Error('The picture could not be fetched. Try again in a moment.');
    this.busy = true;
    this.send({ kind: 'picture', bytes: await response.arrayBuffer() });
  }

  ask(preparation: Preparation, whole: boolean): void {
    this.waiting = { preparation, whole };
    this.pump();
  }

  private pump(): void {
    this.working.set(this.busy || this.waiting !== null);
    if (this.busy || !this.waiting || !this.original()) return;
    const { preparation, whole } = this.waiting;
    this.waiting = null;
    this.busy = true;
    this.making = preparation;
    this.send({ kind: 'prepare', id: this.next++, preparation, whole });
  }

  private send(order: PrepareOrder): void {
    this.worker.postMessage(order, order.kind === 'picture' ? [order.bytes] : []);
  }

  close(): void {
    this.worker.terminate();
  }
}
