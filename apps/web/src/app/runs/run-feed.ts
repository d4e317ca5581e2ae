import { computed, effect, inject, Injectable, signal, untracked, type Signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Actions, ofType } from '@ngrx/effects';
import type { CellView, Decision, Problem, RunDetail } from '@zinc/contract';
import { auditTime, filter, Subject } from 'rxjs';
import { Api, problemOf } from '../shared/api';
import { sessionActions } from '../shared/session.store';

export interface RunColumn {
  id: number;
  name: string;
  /** Of the look; 0 when there is none. */
  version: number;
  detail: string;
}

/** One run with its whole grid, kept up to date while a page shows it. */
@Injectable()
export class RunFeed {
  private readonly api = inject(Api);
  private readonly stale = new Subject<void>();
  private id: Signal<string> | null = null;
  private turn = 0;
  readonly detail = signal<RunDetail | null>(null);
  readonly problem = signal<Problem | null>(null);
  /** Ways in which every subject is made: a look, at the values of what is stepped, in a format. */
  readonly columns = computed((): RunColumn[] => {
    const cells = this.detail()?.cells ?? [];
    const formats = new Set(cells.map(c => c.format.id));
    const seen = new Map<number, RunColumn>();
    for (const c of cells)
      if (!seen.has(c.column))
        seen.set(c.column, {
          id: c.column,
          name: c.look.name,
          version: c.look.version,
          detail: [...c.values.map(v => v.value), ...(formats.size > 1 ? [c.format.name] : [])].join(', '),
        });
    return [...seen.values()].sort((p, q) => p.id - q.id);
  });
  readonly rows = computed(() => {
    const byRow = new Map<number, CellView[]>();
    for (const c of this.detail()?.cells ?? []) (byRow.get(c.row) ?? byRow.set(c.row, []).get(c.row)!).push(c);
    return [...byRow.entries()]
      .sort(([p], [q]) => p - q)
      .map(([, cells]) => ({
        subject: cells[0].subject,
        cells: this.columns().map(l => cells.find(c => c.column === l.id) ?? null),
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
