import type { PaintAnswer, PaintOrder } from './painting';

type Wanted = Omit<PaintOrder, 'id' | 'slot'>;

/**
 * Two workers that paint the yardstick. Of several orders for the same picture only the newest is painted: while a divider is dragged,
 * what is stale before it starts is never started.
 */
export class PaintPool {
  private readonly workers: Worker[];
  private readonly busy: (PaintOrder | null)[];
  private readonly queue = new Map<string, PaintOrder>();
  private next = 1;

  constructor(
    private readonly onPainted: (answer: PaintAnswer) => void,
    count = 2,
  ) {
    this.workers = Array.from(
      { length: count },
      () => new Worker(new URL('./paint.worker', import.meta.url), { type: 'module' }),
    );
    this.busy = this.workers.map(() => null);
    this.workers.forEach((worker, i) => {
      worker.onmessage = ({ data }: MessageEvent<PaintAnswer>) => {
        this.busy[i] = null;
        this.onPainted(data);
        this.pump();
      };
      worker.onerror = () => {
        this.busy[i] = null;
        this.pump();
      };
    });
  }

  /** Orders a picture; `slot` is what it is for, and a newer order for the same slot replaces one that still waits. */
  order(slot: string, wanted: Wanted): void {
    this.queue.delete(slot);
    this.queue.set(slot, { ...wanted, slot, id: this.next++ });
    this.pump();
  }

  /** Takes back an order that still waits; false when it is being painted already, or is not known. */
  withdraw(slot: string): boolean {
    return this.queue.delete(slot);
  }

  private pump(): void {
    for (let i = 0; i < this.workers.length; i++) {
      if (this.busy[i]) continue;
      const first = this.queue.entries().next();
      if (first.done) return;
      const [slot, order] = first.value;
      this.queue.delete(slot);
      this.busy[i] = order;
      this.workers[i].postMessage(order);
    }
  }

  close(): void {
    for (const worker of this.workers) worker.terminate();
  }
}
