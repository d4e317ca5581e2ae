import { computed, effect, inject, Injectable, signal, untracked, type Signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Actions, ofType } from '@ngrx/effects';
import type { CellView, Decision, Problem, RunDetail } from '@zinc/contract';
import { auditTime, filter, Subject } from 'rxjs';
import { Api, problemOf } from '../shared/api';
import { sessionActions } from '../shared/session.store';

/** One run with its whole grid, kept up to date while a page shows it. */
@Injectable()
export class RunFeed {
  private readonly api = inject(Api);
  private readonly stale = new Subject<void>();
  private id: Signal<string> | null = null;
  private turn = 0;
  readonly detail = signal<RunDetail | null>(null);
  readonly problem = signal<Problem | null>(null);
  readonly columns = computed(() => {
    const seen = new Map<string, CellView['look']>();
    for (const c of this.detail()?.cells ?? []) seen.set(c.look.id, c.look);
    return [...seen.values()];
  });
  readonly rows = computed(() => {
    const byRow = new Map<number, CellView[]>();
    for (const c of this.detail()?.cells ?? []) byRow.set(c.row, [...(byRow.get(c.row) ?? []), c]);
    return [...byRow.entries()]
      .sort(([p], [q]) => p - q)
      .map(([, cells]) => ({
        subject: cells[0].subject,
        cells: this.columns().map(l => cells.find(c => c.look.id === l.id) ?? null),
      }));
  });

  /** Most takes that stand side by side in a row. */
  readonly widest = computed(() =>
    Math.max(1, ...this.rows().map(r => r.cells.reduce((sum, c) => sum + (c?.takes.length ?? 0), 0))),
  );

  constructor() {
    inject(Actions)
      .pipe(
        ofType(sessionActions.heard),
        filter(({ about }) => about !== null && about === this.id?.()),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.stale.next());
    this.stale.pipe(auditTime(350), takeUntilDestroyed()).subscribe(() => void this.load());
    effect(() => {
      this.id?.();
      untracked(() => void this.load());
    });
  }

  /** Shows the run this signal names, now and whenever it changes. Call in a constructor. */
  follow(id: Signal<string>): void {
    this.id = id;
  }

  refresh(): void {
    void this.load();
  }

  /** Puts a decision in at once; the next load brings what the server made of it. */
  decide(proofId: string, decision: Decision | null): void {
    this.detail.update(d =>
      d
        ? {
            ...d,
            cells: d.cells.map(c =>
              c.takes.some(t => t.proof?.id === proofId)
                ? { ...c, takes: c.takes.map(t => (t.proof?.id === proofId ? { ...t, proof: { ...t.proof, decision } } : t)) }
                : c,
            ),
          }
        : d,
    );
  }

  private async load(): Promise<void> {
    const id = this.id?.();
    if (!id) return;
    const turn = ++this.turn;
    try {
      const detail = await this.api.get<RunDetail>(`/runs/${id}`);
      if (turn !== this.turn) return;
      this.detail.set(detail);
      this.problem.set(null);
    } catch (error) {
      if (turn === this.turn) this.problem.set(problemOf(error));
    }
  }
}
