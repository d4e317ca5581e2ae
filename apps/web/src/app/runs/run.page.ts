import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Cohesion, TakeView } from '@zinc/contract';
import { Api } from '../shared/api';
import { writtenSpan } from '../shared/dates';
import { Keys } from '../shared/keys';
import { Messages } from '../shared/messages';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';
import { subjects } from '../wording/wording.store';
import { Arrivals } from './arrivals';
import { RunFeed } from './run-feed';
import { StripPanel } from './strip-panel';

/** A run while it is made: the grid filling up, what failed and why, pause, resume, stop, repeat. */
@Component({
  selector: 'zs-run',
  imports: [Thumb, StateView, RouterLink, StripPanel],
  providers: [RunFeed],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (feed.detail(); as d) {
      <div class="page">
        <div class="row head">
          <h1 class="clip">{{ d.run.name }}</h1>
          <span class="state" [class.on]="d.run.state === 'running'" role="status">{{ d.run.state }}</span>
          <span class="grow"></span>
          @if (mayMake()) {
            @if (d.run.state === 'running') {
              <button class="b" type="button" (click)="move('pause')">Pause <kbd>P</kbd></button>
            }
            @if (d.run.state === 'paused') {
              <button class="b main" type="button" (click)="move('resume')">Go on <kbd>P</kbd></button>
            }
            @if (d.run.state === 'running' || d.run.state === 'waiting' || d.run.state === 'paused') {
              <button class="b" type="button" (click)="move('stop')">Stop for good</button>
            }
            @if (d.run.state === 'done' || d.run.state === 'stopped') {
              @if (rest() > 0) {
                <a class="b main" routerLink="/runs/new" [queryParams]="{ addTo: d.run.id }">{{
                  rest() === 1 ? 'Make the other cell' : 'Make the other ' + rest() + ' cells'
                }}</a>
              } @else {
                <a class="b" routerLink="/runs/new" [queryParams]="{ addTo: d.run.id }">Add to it</a>
              }
              @if (d.run.made > 0) {
                <button class="b" type="button" (click)="more()">One more take each</button>
              }
            }
            <a class="b" routerLink="/runs/new" [queryParams]="{ again: d.run.id }">Change one thing</a>
            @if (d.run.failed > 0) {
              <button class="b go" type="button" (click)="repeat()">
                {{ d.run.failed === 1 ? 'Try the failed one again' : 'Try the ' + d.run.failed + ' failed again' }}
              </button>
            }
          }
          @if (d.run.made > 0) {
            <a class="b main" [routerLink]="['/review', d.run.id]">Review</a>
          }
        </div>
        <div class="progress">
          <progress [value]="d.run.made + d.run.failed" [max]="d.run.images" aria-label="Images made"></progress>
          <p>
            <b>{{ d.run.made }}</b> of {{ d.run.images }} made{{ left() ? ', about ' + left() + ' to go' : '' }}
            @if (d.run.failed > 0) {
              <span class="wrong">{{ d.run.failed }} did not come back</span>
            }
          </p>
          @if (d.run.waitingFor) {
            <p class="wrong" role="alert">{{ d.run.waitingFor }}</p>
          }
          @if (d.leftOut.length > 0) {
            <p class="dim">Left out of this run: {{ leftOut() }}.</p>
          }
          @for (b of d.batches; track b.number) {
            @if (b.differs.length > 0) {
              <p class="dim">Batch {{ b.number }}: {{ b.differs.join('; ') }}.</p>
            }
          }
          @if (boundLine(); as line) {
            <p>
              {{ line }}
              @if (cohesion(); as c) {
                @for (i of c.items; track i.lookId) {
                  <span class="figure"
                    >{{ i.lookName }}: <b>{{ i.cohesion.total.toFixed(2) }}</b> from its middle over {{ i.proofs }} proofs</span
                  >
                }
              } @else if (d.run.made > 1) {
                <button class="b small" type="button" (click)="measureCohesion()">How well does it hang together</button>
              }
            </p>
          }
        </div>
        @if (d.run.kind === 'testStrip') {
          <zs-strip-panel [detail]="d" [mayMake]="mayMake()" />
        }
        <div class="wide">
          <table [style.--n]="feed.widest()">
            <caption class="sr">
              Subjects by looks, takes in each cell
            </caption>
            <thead>
              <tr>
                <td></td>
                @for (l of feed.columns(); track l.id) {
                  <th scope="col">
                    {{ l.detail || l.name }}
                    <span class="dim">{{ l.detail ? l.name : l.version ? 'v' + l.version : '' }}</span>
                  </th>
                }
              </tr>
            </thead>
            <tbody>
              @for (row of feed.rows(); track row.subject.id) {
                <tr>
                  <th scope="row">
                    {{ row.subject.label }}
                    @if (originals()[row.subject.id]; as sha) {
                      <zs-thumb
                        class="original"
                        [sha]="sha"
                        [alt]="'The original of ' + row.subject.label"
                        [side]="160"
                        [width]="84"
                        [height]="84"
                      />
                    }
                  </th>
                  @for (cell of row.cells; track cell?.key ?? $index) {
                    <td>
                      <div class="takes">
                        @for (t of cell?.takes ?? []; track t.id) {
                          <div class="take" [class]="t.state" [title]="titleOf(t)">
                            @if (t.proof) {
                              <a [routerLink]="['/review/proof', t.proof.id]"
                                ><zs-thumb
                                  [sha]="t.proof.pictureSha"
                                  [alt]="row.subject.label + ', take ' + t.take"
                                  [side]="320"
                                  [width]="180"
                                  [height]="180"
                              /></a>
                              @if (d.run.kind !== 'set' && t.proof.likeness !== null) {
                                <span class="like" title="Likeness: how much of the content is kept">{{
                                  t.proof.likeness.toFixed(2)
                                }}</span>
                              }
                            } @else if (t.state === 'failed') {
                              <span class="why">{{ t.problem }}</span>
                              @if (mayMake()) {
                                <button class="b small" type="button" (click)="again(t)">Again</button>
                              }
                            } @else {
                              <span class="sr">{{ t.state }}</span>
                              @if (mayMake() && (t.state === 'waiting' || t.state === 'painting')) {
                                <button
                                  class="off"
                                  type="button"
                                  [attr.aria-label]="'Call off take ' + t.take + ' of ' + row.subject.label"
                                  title="Call it off"
                                  (click)="callOff(t)"
                                >
                                  ×
                                </button>
                              }
                            }
                          </div>
                        }
                      </div>
                    </td>
                  }
                </tr>
              }
            </tbody>
          </table>
        </div>
      </div>
    } @else if (feed.problem()) {
      <zs-state kind="failed" title="This run cannot be shown" action="To the runs" (act)="router.navigateByUrl('/runs')">{{
        feed.problem()!.detail
      }}</zs-state>
    } @else {
      <zs-state kind="loading" />
    }
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    .state {
      padding: 1px 8px;
      font-weight: 650;
      background: var(--well);
    }
    .state.on {
      color: var(--white);
      background: var(--brine);
    }
    .progress {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px 18px;
      margin: 12px 0 16px;
    }
    progress {
      width: 260px;
      height: 10px;
      accent-color: #2a6450;
    }
    .wide {
      container-type: inline-size;
      overflow-x: auto;
    }
    table {
      --p: clamp(84px, calc((100cqw - 150px) / var(--n) - 10px), 168px);
      border-collapse: separate;
      border-spacing: 0 6px;
    }
    th {
      padding-right: 16px;
      text-align: left;
      vertical-align: top;
      font-weight: 640;
    }
    tbody th {
      min-width: 120px;
      padding-top: 6px;
    }
    .takes {
      display: flex;
      gap: 5px;
      padding-right: 18px;
    }
    .take {
      display: grid;
      place-items: center;
      width: var(--p);
      height: var(--p);
      overflow: hidden;
      background: #dcddde;
      border: 1px solid var(--zinc);
    }
    .take.made {
      border-color: transparent;
    }
    .take a,
    .take zs-thumb {
      width: 100%;
      height: 100%;
    }
    .take.painting {
      background: repeating-linear-gradient(90deg, #c6c8c9 0 13px, #dcddde 13px 26px);
      animation: roll 1s linear infinite;
    }
    @keyframes roll {
      to {
        background-position: 26px 0;
      }
    }
    .take.failed {
      align-content: space-between;
      padding: 5px;
      border: 2px solid var(--vermilion);
      background: var(--white);
    }
    .why {
      max-height: 62px;
      overflow: hidden;
      font-size: 11px;
      line-height: 1.25;
    }
    .take {
      position: relative;
    }
    .like {
      position: absolute;
      right: 0;
      bottom: 0;
      padding: 0 5px;
      font-size: var(--s1);
      color: var(--white);
      background: var(--brine);
    }
    .off {
      position: absolute;
      top: 0;
      right: 0;
      width: 24px;
      height: 24px;
      padding: 0;
      font-weight: 700;
      background: none;
      border: 0;
      cursor: pointer;
    }
    .original {
      width: 84px;
      height: 84px;
      margin-top: 5px;
    }
    .figure {
      margin-left: 10px;
    }
    .take.cancelled {
      background: repeating-linear-gradient(135deg, #d5d6d7 0 7px, #f6f6f6 7px 14px);
    }
  `,
})
export class RunPage {
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  readonly router = inject(Router);
  readonly feed = inject(RunFeed);
  readonly id = input.required<string>();
  private readonly store = inject(Store);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayMake = computed(() => this.person()?.role !== 'reviewer');
  private readonly arrivals = computed(() => {
    this.id();
    return new Arrivals();
  });
  readonly left = computed(() => {
    const run = this.feed.detail()?.run;
    if (!run) return '';
    const now = performance.now();
    this.arrivals().see(run.state === 'running', run.made, now);
    const rest = run.images - run.made - run.failed;
    const seconds = rest > 0 ? this.arrivals().secondsFor(rest, run.made, now) : null;
    return seconds === null ? '' : writtenSpan(seconds);
  });

  private readonly allSubjects = this.store.selectSignal(subjects.all);
  /** Content pictures of the subjects of a restyle, by their ids. */
  readonly originals = computed((): Record<string, string> => {
    if (this.feed.detail()?.run.kind !== 'restyle') return {};
    return Object.fromEntries(this.allSubjects().flatMap(s => (s.picture ? [[s.id, s.picture.sha256] as const] : [])));
  });
  /** Cells that a pilot left for later. */
  readonly rest = computed(() => {
    const d = this.feed.detail();
    return d?.batches.some(b => b.plan.pilot) && d.batches.length === 1 ? d.leftOut.length : 0;
  });
  readonly leftOut = computed(() => {
    const names = [...new Set(this.feed.detail()?.leftOut ?? [])];
    return names.length > 8 ? `${names.slice(0, 7).join(', ')} and ${names.length - 7} more` : names.join(', ');
  });
  readonly boundLine = computed(() => {
    const batch = this.feed.detail()?.batches.find(b => b.plan.binding || b.bound);
    if (!batch) return '';
    const { amount, share } = batch.plan.binding ?? { amount: null, share: [] };
    const how = amount === null ? '' : ` at ${amount} %`;
    return `Bound${how}${share.length > 0 ? ` in ${share.join(', ')}` : ''}${batch.bound === 'anchor' ? ', to one image' : ''}.`;
  });
  readonly cohesion = signal<Cohesion | null>(null);

  constructor() {
    this.feed.follow(this.id);
    inject(Keys).declare([
      {
        key: 'P',
        does: 'Pause, or go on',
        run: () => void this.move(this.feed.detail()?.run.state === 'paused' ? 'resume' : 'pause'),
      },
      { key: 'R', does: 'Review what is made', run: () => void this.router.navigate(['/review', this.id()]) },
    ]);
  }

  titleOf(t: TakeView): string {
    return [`take ${t.take}`, `seed ${t.seed}`, t.state, t.attempts > 0 ? `${t.attempts} failed tries` : '', t.problem ?? '']
      .filter(Boolean)
      .join(', ');
  }

  async move(how: 'pause' | 'resume' | 'stop'): Promise<void> {
    await this.try(() => this.api.send('POST', `/runs/${this.id()}/${how}`));
  }

  async repeat(): Promise<void> {
    await this.try(async () => {
      const { message } = await this.api.send<{ message: string }>('POST', `/runs/${this.id()}/repeat-failed`);
      this.messages.done(message);
    });
  }

  async again(t: TakeView): Promise<void> {
    await this.try(() => this.api.send('POST', `/takes/${t.id}/again`));
  }

  async callOff(t: TakeView): Promise<void> {
    await this.try(() => this.api.send('POST', `/takes/${t.id}/cancel`));
  }

  async more(): Promise<void> {
    await this.try(async () => {
      const { message } = await this.api.send<{ message: string }>('POST', `/runs/${this.id()}/more-takes`, { takes: 1 });
      this.messages.done(message);
    });
  }

  async measureCohesion(): Promise<void> {
    await this.try(async () => this.cohesion.set(await this.api.get<Cohesion>(`/runs/${this.id()}/cohesion`)));
  }

  private async try(work: () => Promise<unknown>): Promise<void> {
    try {
      await work();
      this.feed.refresh();
    } catch (error) {
      this.messages.failed(error);
    }
  }
}
