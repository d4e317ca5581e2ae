import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Run } from '@zinc/contract';
import { Actions, ofType } from '@ngrx/effects';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { debounceTime, filter } from 'rxjs';
import { writtenMoment } from '../shared/dates';
import { sessionActions, sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';
import { runs } from './runs.store';

const HEADS = {
  runs: { title: 'Runs', empty: 'Nothing has been made yet', hint: 'Plan a run: choose subjects, a look, and words.' },
  review: {
    title: 'Review',
    empty: 'Nothing to review yet',
    hint: 'When a run has made its first images, they are judged here.',
  },
  deliver: { title: 'Deliver', empty: 'Nothing to deliver yet', hint: 'What has been kept in review is exported here.' },
} as const;

/** The runs of the house, for watching, for reviewing, or for delivering. */
@Component({
  selector: 'zs-runs',
  imports: [RouterLink, Thumb, StateView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="page">
      <div class="row head">
        <h1 class="grow">{{ head().title }}</h1>
        @if (to() === 'runs' && mayMake()) {
          <a class="b main" routerLink="/runs/new">Plan a run</a>
        }
        @if (to() === 'review') {
          @for (c of campaigns(); track c.id) {
            <a class="b small" [routerLink]="['/campaigns', c.id]">{{ c.name }}</a>
          }
          <a class="b" routerLink="/reports/kept">What gets kept</a>
        }
      </div>
      @if (status() === 'loading' || status() === 'idle') {
        <zs-state kind="loading" />
      } @else if (status() === 'failed') {
        <zs-state kind="failed" title="The runs could not be fetched" action="Try again" (act)="load()">{{
          problem()?.detail
        }}</zs-state>
      } @else if (runs().length === 0) {
        <zs-state kind="empty" [title]="head().empty">{{ head().hint }}</zs-state>
      } @else {
        <ul>
          @for (r of runs(); track r.id) {
            <li>
              <a [routerLink]="['/' + to(), r.id]">
                <span class="cover">
                  @for (sha of r.cover; track sha) {
                    <zs-thumb [sha]="sha" alt="" [side]="160" [width]="96" [height]="96" />
                  } @empty {
                    <span class="none dim">nothing made yet</span>
                  }
                </span>
                <span class="about">
                  <b>{{ r.name }}</b>
                  <span>{{ say(r) }}</span>
                  @if (r.waitingFor) {
                    <span class="wrong">{{ r.waitingFor }}</span>
                  }
                  <span class="dim">{{ r.startedBy }}, {{ moment(r.startedAt) }}</span>
                </span>
              </a>
            </li>
          }
        </ul>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    .head {
      margin-bottom: 14px;
    }
    ul {
      display: grid;
      gap: 18px;
    }
    a:not(.b) {
      display: grid;
      grid-template-columns: auto minmax(200px, 1fr);
      gap: 18px;
      align-items: center;
      text-decoration: none;
    }
    .cover {
      display: flex;
      gap: 3px;
      width: 591px;
      max-width: 54vw;
      height: 99px;
      overflow: hidden;
      border-bottom: 3px solid var(--ink);
    }
    .cover zs-thumb {
      flex: 0 0 96px;
      width: 96px;
      height: 96px;
    }
    .none {
      display: grid;
      place-items: center;
      width: 100%;
      background: var(--well);
    }
    .about {
      display: grid;
      gap: 2px;
    }
    .about b {
      font-size: var(--s3);
    }
    a:hover b {
      text-decoration: underline;
    }
  `,
})
export class RunsPage {
  private readonly store = inject(Store);
  /** Where a run opens: runs, review or deliver (from the route's data). */
  readonly to = input<'runs' | 'review' | 'deliver', 'runs' | 'review' | 'deliver' | undefined>('runs', {
    transform: v => v ?? 'runs',
  });
  readonly head = computed(() => HEADS[this.to()]);
  readonly all = this.store.selectSignal(runs.all);
  readonly runs = computed(() => this.all().filter(r => this.to() === 'runs' || r.made > 0));
  readonly status = this.store.selectSignal(runs.status);
  readonly problem = this.store.selectSignal(runs.problem);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayMake = computed(() => this.person()?.role !== 'reviewer');
  readonly moment = writtenMoment;
  private readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  readonly campaigns = computed(() => this.house()?.campaigns ?? []);

  constructor() {
    effect(() => {
      this.to();
      this.load();
    });
    inject(Actions)
      .pipe(
        ofType(sessionActions.heard),
        filter(({ kind }) => kind.startsWith('run') || kind.startsWith('take') || kind === 'decided'),
        debounceTime(800),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.load());
  }

  load(): void {
    this.store.dispatch(runs.actions.load());
  }

  say(r: Run): string {
    if (this.to() !== 'runs') return `${r.kept} kept of ${r.made} made, ${r.made - r.decided} without a decision`;
    const rest = r.images - r.made - r.failed;
    const failed = r.failed > 0 ? `, ${r.failed} failed` : '';
    if (r.state === 'done') return `${r.made} of ${r.images} made${failed}`;
    return `${r.state}: ${r.made} of ${r.images} made, ${rest} to go${failed}`;
  }
}
