import { computed, effect, inject, Injectable, signal, untracked, type Signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Actions, ofType } from '@ngrx/effects';
import type { CellView, Decision, Problem, RunDetail, TakeView } from '@zinc/contract';
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

/** A run with some decisions in the place of those it has. */
function withDecisions(detail: RunDetail, decisions: ReadonlyMap<string, Decision | null>): RunDetail {
  if (decisions.size === 0) return detail;
  const isOf = (t: TakeView): boolean => t.proof !== null && decisions.has(t.proof.id);
  return {
    ...detail,
    cells: detail.cells.map(c =>
      c.takes.some(isOf)
        ? {
            ...c,
            takes: c.takes.map(t =>
              t.proof && isOf(t) ? { ...t, proof: { ...t.proof, decision: decisions.get(t.proof.id) ?? null } } : t,
            ),
          }
        : c,
    ),
  };
}

/** One run with its whole grid, kept up to date while a page shows it. */
@Injectable()
export class RunFeed {
  private readonly api = inject(Api);
  private readonly stale = new Subject<void>();
  private id: Signal<string> | null = null;
  private turn = 0;
  /** Decisions made here, by proof, and the load that had begun when the server had them; null while they are on their way. */
  private readonly own = new Map<string, { decision: Decision | null; settled: number | null }>();
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

  /** Puts a decision in at once. It stands over what the server says until `settle` tells that the server has it. */
  decide(proofId: string, decision: Decision | null): void {
    this.own.set(proofId, { decision, settled: null });
    this.detail.update(d => d && withDecisions(d, new Map([[proofId, decision]])));
  }

  /** The server has the newest decision on a proof: what is loaded from now on knows it. */
  settle(proofId: string, decision: Decision | null): void {
    const own = this.own.get(proofId);
    if (own?.decision === decision) own.settled = this.turn;
  }

  /** The server will not have a decision: what stood before stands again. */
  withdraw(proofId: string, before: Decision | null): void {
    this.own.delete(proofId);
    this.detail.update(d => d && withDecisions(d, new Map([[proofId, before]])));
    this.refresh();
  }

  private async load(): Promise<void> {
    const id = this.id?.();
    if (!id) return;
    const turn = ++this.turn;
    try {
      const detail = await this.api.get<RunDetail>(`/runs/${id}`);
      if (turn !== this.turn) return;
      // What was on its way when this load began may not be in it.
      for (const [proofId, { settled }] of this.own) if (settled !== null && settled < turn) this.own.delete(proofId);
      this.detail.set(withDecisions(detail, new Map([...this.own].map(([proofId, { decision }]) => [proofId, decision]))));
      this.problem.set(null);
    } catch (error) {
      if (turn === this.turn) this.problem.set(problemOf(error));
    }
  }
}
