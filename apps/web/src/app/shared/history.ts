import { computed, signal } from '@angular/core';

const MOST = 100;

/** Something that is changed step by step, each of which can be taken back. Equal states are no step. */
export class History<T> {
  private readonly past = signal<T[]>([]);
  private readonly future = signal<T[]>([]);
  private kept: T;
  readonly now;
  readonly canUndo = computed(() => this.past().length > 0);
  readonly canRedo = computed(() => this.future().length > 0);

  constructor(first: T) {
    this.kept = first;
    this.now = signal<T>(first);
  }

  /** Begins anew; what was before is forgotten. */
  reset(state: T): void {
    this.kept = state;
    this.past.set([]);
    this.future.set([]);
    this.now.set(state);
  }

  /** Changes for good: one step. */
  change(next: T): void {
    this.now.set(next);
    this.keep();
  }

  /** Changes on the way, while a hand moves; {@link keep} makes a step of it. */
  glide(next: T): void {
    this.now.set(next);
  }

  keep(): void {
    const now = this.now();
    if (JSON.stringify(now) === JSON.stringify(this.kept)) return;
    const before = this.kept;
    this.past.update(p => [...p.slice(1 - MOST), before]);
    this.future.set([]);
    this.kept = now;
  }

  undo(): void {
    this.step(this.past, this.future);
  }

  redo(): void {
    this.step(this.future, this.past);
  }

  private step(from: typeof this.past, to: typeof this.past): void {
    const next = from().at(-1);
    if (next === undefined) return;
    from.update(list => list.slice(0, -1));
    to.update(list => [...list, this.now()]);
    this.kept = next;
    this.now.set(next);
  }
}
