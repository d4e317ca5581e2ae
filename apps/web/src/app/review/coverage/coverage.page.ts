import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import type { Coverage, Problem } from '@zinc/contract';
import { auditTime, filter } from 'rxjs';
import { Api, problemOf } from '../../shared/api';
import { Messages } from '../../shared/messages';
import { sessionActions, sessionFeature } from '../../shared/session.store';
import { StateView } from '../../shared/state';
import { Thumb } from '../../shared/thumb';
import { daysLeft, GAP_WORDS, rowsOf, type Gap } from './gaps';

/** A campaign as a whole: its subjects in its formats, what is kept, missing, in dispute or late, and what leads it. */
@Component({
  selector: 'zs-coverage',
  imports: [RouterLink, StateView, Thumb],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './coverage.page.html',
  styleUrl: './coverage.page.css',
})
export class CoveragePage {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  private readonly store = inject(Store);
  readonly id = input.required<string>();
  readonly coverage = signal<Coverage | null>(null);
  readonly problem = signal<Problem | null>(null);
  readonly onlyOpen = signal(false);
  readonly words = GAP_WORDS;
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly isLead = computed(() => this.person()?.role === 'lead');

  readonly rows = computed(() => (this.coverage() ? rowsOf(this.coverage()!) : []));
  readonly shown = computed(() => (this.onlyOpen() ? this.rows().filter(r => r.open) : this.rows()));
  readonly counts = computed(() => {
    const all = this.rows().flatMap(r => r.cells.map(c => c.gap));
    const of = (gap: Gap): number => all.filter(g => g === gap).length;
    return {
      asked: all.length - of('none'),
      kept: of('kept'),
      disputed: of('disputed'),
      undecided: of('undecided'),
      open: of('dropped') + of('missing'),
    };
  });
  /** How the campaign stands against its day. */
  readonly due = computed(() => {
    const ends = this.coverage()?.campaign.ends;
    if (!ends) return null;
    const days = daysLeft(ends, new Date());
    const { asked, kept } = this.counts();
    const open = asked - kept;
    const on = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' }).format(
      new Date(`${ends}T00:00:00Z`),
    );
    if (open === 0) return { late: false, says: `due on ${on}, and all of it is kept` };
    if (days < 0) return { late: true, says: `${open} late since ${on}` };
    return {
      late: days <= 3,
      says: `${open} to go until ${on}, ${days === 0 ? 'today' : days === 1 ? 'tomorrow' : `in ${days} days`}`,
    };
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => void this.load(id));
    });
    inject(Actions)
      .pipe(
        ofType(sessionActions.heard),
        filter(({ kind, about }) => kind === 'runStarted' || about === this.id() || this.isOurs(about)),
        auditTime(1500),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.load(this.id()));
  }

  /** Whether something happened to a run of this campaign. */
  private isOurs(about: string | null): boolean {
    return this.coverage()?.runs.some(r => r.id === about) ?? false;
  }

  private async load(id: string): Promise<void> {
    try {
      const found = await this.api.get<Coverage>(`/campaigns/${id}/coverage`);
      if (id !== this.id()) return;
      this.coverage.set(found);
      this.problem.set(null);
    } catch (error) {
      if (!this.coverage()) this.problem.set(problemOf(error));
    }
  }

  go(id: string): void {
    void this.router.navigate(['/campaigns', id]);
  }

  async setEnds(value: string): Promise<void> {
    try {
      const { message } = await this.api.send<{ message: string }>('PUT', `/campaigns/${this.id()}/ends`, {
        ends: value || null,
      });
      this.messages.done(message);
      await this.load(this.id());
    } catch (error) {
      this.messages.failed(error);
    }
  }
}
