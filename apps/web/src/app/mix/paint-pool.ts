import type { PaintAnswer, PaintOrder, PictureMessage } from './painting';

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
  /** Which worker painted a slot last: what it worked out for one strength serves the others. */
  private readonly lastOf = new Map<string, number>();

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

  /** Tells the workers a picture that contents may name. */
  tell(key: string, picture: Omit<PictureMessage, 'kind' | 'key'>): void {
    for (const worker of this.workers) worker.postMessage({ kind: 'picture', key, ...picture } satisfies PictureMessage);
  }

  /** Takes back an order that still waits; false when it is being painted already, or is not known. */
  withdraw(slot: string): boolean {
    return this.queue.delete(slot);
  }

  private pump(): void {
    for (let i = 0; i < this.workers.length; i++) {
      if (this.busy[i]) continue;
      const order = this.nextFor(i);
      if (!order) return;
      this.queue.delete(order.slot);
      this.lastOf.set(order.slot, i);
      this.busy[i] = order;
      this.workers[i].postMessage(order);
    }
  }

  /** The first order that this worker or none has painted before, else simply the first: no worker stands idle. */
  private nextFor(worker: number): PaintOrder | undefined {
    for (const order of this.queue.values()) if ((this.lastOf.get(order.slot) ?? worker) === worker) return order;
    const first = this.queue.values().next();
    return first.done ? undefined : first.value;
  }

  close(): void {
    for (const worker of this.workers) worker.terminate();
  }
}
