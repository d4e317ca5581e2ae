import { ChangeDetectionStrategy, Component, effect, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { Dialog } from 'primeng/dialog';
import { Toast } from 'primeng/toast';
import { DroppedPicture } from './frame/dropped-picture';
import { Galley } from './frame/galley';
import { JobLine } from './frame/job-line';
import { LineGauge } from './frame/line-gauge';
import { looks } from './mix/looks.store';
import { wordStyles } from './mix/word-styles.store';
import { runs } from './runs/runs.store';
import { Keys } from './shared/keys';
import { Live } from './shared/live';
import { sessionActions, sessionFeature } from './shared/session.store';
import { StateView } from './shared/state';
import { codes, references } from './shelf/shelf.store';
import { subjects, templates } from './wording/wording.store';

/** The frame: job line, line gauge, the page, the galley. */
@Component({
  selector: 'zs-root',
  imports: [RouterOutlet, Toast, Dialog, JobLine, LineGauge, Galley, StateView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (status() === 'failed') {
      <zs-state kind="failed" title="Zinc Shelf does not answer" action="Try again" (act)="open()">{{
        problem()?.detail
      }}</zs-state>
    } @else if (status() !== 'ready') {
      <zs-state kind="loading" title="Opening the house …" />
    } @else if (person()) {
      <a class="skip" href="#page" (click)="skip($event)">Skip to the page</a>
      <div class="frame">
        <zs-job-line class="line" />
        <zs-line-gauge class="gauge" />
        <main id="page" class="page-slot" tabindex="-1"><router-outlet /></main>
        <zs-galley class="galley" />
      </div>
    } @else {
      <router-outlet />
    }
    <p-toast position="bottom-center" />
    <p-dialog
      closeAriaLabel="Close"
      header="Keys"
      [visible]="keys.shown()"
      (visibleChange)="keys.shown.set($event)"
      [modal]="true"
      [style]="{ width: '420px' }"
      [draggable]="false"
    >
      <dl class="keys">
        @for (k of keys.page(); track k.key) {
          <dt>
            <kbd>{{ k.key }}</kbd>
          </dt>
          <dd>{{ k.does }}</dd>
        } @empty {
          <dd class="none">This page has no keys of its own.</dd>
        }
        @for (k of keys.always(); track k.key) {
          <dt>
            <kbd>{{ k.key }}</kbd>
          </dt>
          <dd>{{ k.does }}</dd>
        }
      </dl>
    </p-dialog>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    .frame {
      display: grid;
      height: 100%;
      grid-template: var(--line) minmax(0, 1fr) / var(--gauge) minmax(0, 1fr) var(--galley);
    }
    .line {
      grid-column: 1 / -1;
    }
    .page-slot {
      min-height: 0;
      min-width: 0;
      overflow: hidden;
      outline: none;
    }
    .skip {
      position: absolute;
      z-index: 10;
      top: -60px;
      left: 8px;
      padding: 8px 12px;
      background: var(--ink);
      color: var(--white);
    }
    .skip:focus {
      top: 6px;
    }
    .keys {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 6px 14px;
    }
    .none {
      grid-column: 1 / -1;
    }
  `,
  host: {
    '(document:keydown)': 'keys.handle($event)',
    '(document:dragover)': 'person() && dropped.over($event)',
    '(document:drop)': 'person() && dropped.take($event)',
  },
})
export class App {
  private readonly store = inject(Store);
  private readonly live = inject(Live);
  readonly keys = inject(Keys);
  readonly dropped = inject(DroppedPicture);
  readonly status = this.store.selectSignal(sessionFeature.selectStatus);
  readonly problem = this.store.selectSignal(sessionFeature.selectProblem);
  readonly person = this.store.selectSignal(sessionFeature.selectPerson);

  constructor() {
    this.open();
    this.keys.always.set([
      { key: '/', does: 'Find anything', run: () => document.getElementById('find')?.focus() },
      { key: '?', does: 'Show or hide the keys of this page', run: () => this.keys.shown.update(v => !v) },
    ]);
    effect(() => {
      if (this.status() !== 'ready') return;
      if (this.person()) {
        this.live.start();
        for (const slice of [references, looks, codes, wordStyles, templates, subjects, runs])
          this.store.dispatch(slice.actions.load());
      } else this.live.stop();
    });
  }

  open(): void {
    this.store.dispatch(sessionActions.open());
  }

  skip(event: Event): void {
    event.preventDefault();
    document.getElementById('page')?.focus();
  }
}
