import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import type { Comment, Problem, Proof, Reference, Remake } from '@zinc/contract';
import { Api, problemOf } from '../shared/api';
import { writtenMoment } from '../shared/dates';
import { FacetGauges } from '../shared/facet-gauges';
import { Keys } from '../shared/keys';
import { Messages } from '../shared/messages';
import { PaletteBar } from '../shared/palette-bar';
import { sessionActions, sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';
import { references } from '../shelf/shelf.store';
import { auditTime, filter } from 'rxjs';
import { Comments, threadsOf, type Place } from './comments';
import { Findings, type Found } from './findings';
import { Mending } from './mend/mending';
import { MendPane } from './mend/mend-pane';
import { Region } from './mend/region';
import { TicketList } from './ticket-list';

const SAID: Record<string, string> = { keep: 'keep', keepOnceMended: 'keep once mended', hold: 'hold', drop: 'drop' };

/** One proof and everything that made it, in plain words; made again on demand to show that the pixels are the same. */
@Component({
  selector: 'zs-proof',
  imports: [Thumb, PaletteBar, FacetGauges, StateView, RouterLink, Comments, Findings, MendPane, Region, TicketList],
  providers: [Mending],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (proof(); as p) {
      <div class="two">
        <section class="picture">
          <div class="sides">
            @if (before() && p.original) {
              <zs-thumb
                [sha]="p.original.sha256"
                alt="The original"
                [side]="1280"
                [width]="p.original.width"
                [height]="p.original.height"
              />
            } @else {
              <!-- A place is chosen here by hand; by keyboard with C and the arrows. -->
              <div class="pinned" (click)="pin($event)">
                <img
                  [src]="'/api/pictures/' + p.pictureSha + '/working'"
                  [alt]="p.subjectLabel + ', take ' + p.take"
                  [width]="p.width"
                  [height]="p.height"
                />
                @for (t of threads(); track t.comment.id) {
                  @if (t.comment.x !== null && !t.comment.closedAt) {
                    <span
                      class="pin"
                      [style.left.%]="t.comment.x! * 100"
                      [style.top.%]="t.comment.y! * 100"
                      [title]="t.comment.words"
                      >{{ t.number }}</span
                    >
                  }
                }
                @if (place(); as at) {
                  <span class="pin new" [style.left.%]="at.x * 100" [style.top.%]="at.y * 100">+</span>
                }
                @for (m of marks() ?? []; track $index) {
                  <span
                    class="found"
                    [class.echo]="m.kind === 'echo'"
                    [style.left.%]="m.place.x * 100"
                    [style.top.%]="m.place.y * 100"
                    [style.width.%]="m.place.width * 100"
                    [style.height.%]="m.place.height * 100"
                    [title]="m.says"
                  ></span>
                }
                @if (side() === 'mend' && mending.tool()) {
                  <zs-region [width]="p.width" [height]="p.height" (click)="$event.stopPropagation()" />
                }
              </div>
            }
          </div>
          @if (p.original) {
            <button class="b small" type="button" [attr.aria-pressed]="before()" (click)="before.set(!before())">
              {{ before() ? 'Show the proof' : 'Show the original' }} <kbd>B</kbd>
            </button>
          }
        </section>
        <section class="pane" aria-label="Ticket">
          <p class="dim">
            <a [routerLink]="['/review', p.runId]">{{ p.runName }}</a>
          </p>
          <h1>{{ p.subjectLabel }}, take {{ p.take }}</h1>
          <p class="dim">made {{ moment(p.madeAt) }} by {{ p.ticket.press.name }} {{ p.ticket.press.version }}</p>
          @if (mayMake()) {
            <div class="sides-of" role="tablist" aria-label="What of it">
              <button
                type="button"
                role="tab"
                id="tab-ticket"
                [attr.aria-selected]="side() === 'ticket'"
                (click)="show('ticket')"
              >
                Ticket
              </button>
              <button type="button" role="tab" id="tab-mend" [attr.aria-selected]="side() === 'mend'" (click)="show('mend')">
                Mend it <kbd>E</kbd>
              </button>
            </div>
          }
          @if (side() === 'mend') {
            <zs-mend-pane [proof]="p" (ordered)="refresh()" />
          } @else {
            <h2 class="ledge">Ticket</h2>
            <zs-ticket [proof]="p" />
            <div class="row acts">
              @if (mayMake()) {
                <button class="b main" type="button" [disabled]="remaking()" (click)="remake()">
                  {{ remaking() ? 'Painting …' : 'Make it again' }}
                </button>
              }
              @if (mayMake() && isKept()) {
                <button class="b" type="button" (click)="promote(p)">Keep as a reference</button>
              }
              @if (mayMake()) {
                <a class="b" routerLink="/runs/new" [queryParams]="{ anchor: p.id, named: p.subjectLabel + ', take ' + p.take }"
                  >A set that follows it</a
                >
              }
              @if (mayMake() && isKept() && p.campaign; as c) {
                <button class="b" type="button" [attr.aria-pressed]="c.isHero" (click)="lead(c)">
                  {{ c.isHero ? 'Leads ' + c.name : 'Let it lead ' + c.name }}
                </button>
              }
              <a class="b" routerLink="/shelf" [queryParams]="{ like: p.pictureSha, named: p.subjectLabel }">What is like it</a>
              <button class="b" type="button" (click)="showing.set(!showing())" [attr.aria-expanded]="showing()">
                {{ showing() ? 'Hide the whole ticket' : 'The whole ticket' }}
              </button>
            </div>
            <div aria-live="polite">
              @if (remade(); as r) {
                <p class="verdict" [class.same]="r.same">
                  {{ r.same ? 'The same, byte for byte' : 'Not the same pixels' }}, painted in {{ r.seconds.toFixed(1) }} s.
                </p>
              }
              @if (fault()) {
                <p class="wrong" role="alert">{{ fault()!.detail }}</p>
              }
            </div>
            @if (showing()) {
              <pre tabindex="0">{{ whole() }}</pre>
            }

            <h2 class="ledge">How far from the look</h2>
            <zs-facet-gauges [drift]="p.drift" [allowed]="allowed()" />
            <p class="dim">
              0 is on the look, about 1 as far off as another look would be; the line marks what the brand allows. Below it, the
              colours the look aims at.
            </p>
            <zs-palette-bar class="palette" [palette]="p.targetPalette" [figures]="true" />

            <h2 class="ledge">What nobody wanted</h2>
            <zs-findings [proofId]="p.id" [(marks)]="marks" />

            <h2 class="ledge">Comments</h2>
            <zs-comments [proofId]="p.id" [comments]="p.comments" [(place)]="place" (said)="take($event)" />

            <h2 class="ledge">Decisions</h2>
            <ol>
              @for (d of p.decisions; track d.id) {
                <li>
                  <b>{{ d.verdict ? said[d.verdict] : 'taken back' }}</b>
                  @if (d.grade !== null && d.grade !== undefined) {
                    , grade {{ d.grade }}
                  }
                  {{ d.reasons.join(', ') }}
                  @if (d.note) {
                    “{{ d.note }}”
                  }
                  <span class="dim">{{ d.person }}, {{ moment(d.at) }}</span>
                </li>
              } @empty {
                <li class="dim">None yet.</li>
              }
            </ol>
          }
        </section>
      </div>
    } @else if (problem()) {
      <zs-state kind="failed" title="This proof cannot be shown"
        >{{ problem()!.detail }} <a routerLink="/review">To the runs</a></zs-state
      >
    } @else {
      <zs-state kind="loading" />
    }
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    .two {
      grid-template-columns: minmax(0, 1fr) minmax(320px, 400px);
    }
    .picture {
      display: flex;
      flex-direction: column;
      align-items: center;
      justify-content: center;
      gap: 10px;
      min-height: 0;
      padding: 18px;
    }
    .sides {
      display: grid;
      min-height: 0;
      place-items: center;
    }
    .sides img,
    .sides zs-thumb {
      max-width: 100%;
      width: auto;
      height: auto;
      max-height: calc(100vh - 120px);
      background: none;
    }
    .pinned {
      position: relative;
      display: grid;
      min-height: 0;
      cursor: crosshair;
    }
    .pin {
      position: absolute;
      min-width: 22px;
      height: 22px;
      font-weight: 700;
      line-height: 22px;
      text-align: center;
      color: var(--white);
      background: var(--vermilion);
      outline: 2px solid var(--white);
      translate: -50% -50%;
      pointer-events: none;
    }
    .found {
      position: absolute;
      outline: 2px solid var(--vermilion);
      background: rgb(184 48 22 / 0.18);
    }
    .found.echo {
      outline: 3px dashed var(--ink);
      background: rgb(255 255 255 / 0.2);
    }
    .sides-of {
      display: flex;
      gap: 4px;
      margin-top: 12px;
    }
    .sides-of button {
      flex: 1;
      min-height: 32px;
      font-weight: 660;
      background: var(--white);
      border: 1px solid #8f9193;
      cursor: pointer;
    }
    .sides-of button[aria-selected='true'] {
      color: var(--white);
      background: var(--ink);
    }
    .pane {
      border-left: 1px solid var(--hair);
      border-right: 0;
    }
    h2 {
      margin: 18px 0 8px;
      padding-top: 8px;
    }
    .acts {
      flex-wrap: wrap;
      gap: 6px;
    }
    .verdict {
      margin-top: 10px;
      padding: 8px 12px;
      font-weight: 680;
      color: var(--white);
      background: var(--vermilion);
    }
    .verdict.same {
      background: var(--brine);
    }
    pre {
      max-height: 320px;
      overflow: auto;
      padding: 10px;
      font: 11px/1.4 var(--mono);
      background: var(--white);
    }
    .palette {
      display: block;
      height: 36px;
      margin-top: 8px;
    }
    ol {
      display: grid;
      gap: 5px;
    }
  `,
})
export class ProofPage {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly messages = inject(Messages);
  readonly id = input.required<string>();
  /** Set when it is opened to be mended. */
  readonly mend = input<string>();
  readonly moment = writtenMoment;
  readonly said = SAID;
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  private readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  readonly mayMake = computed(() => this.person()?.role !== 'reviewer');
  readonly allowed = computed(() => this.house()?.brand?.allowedDrift ?? 0.4);
  /** Someone keeps it; whether it stands, the server knows. */
  readonly isKept = computed(() => this.proof()?.decisions.some(d => d.verdict === 'keep' || d.verdict === 'keepOnceMended'));
  readonly proof = signal<Proof | null>(null);
  readonly problem = signal<Problem | null>(null);
  readonly fault = signal<Problem | null>(null);
  readonly remaking = signal(false);
  readonly remade = signal<Remake | null>(null);
  readonly showing = signal(false);
  readonly before = signal(false);
  readonly side = signal<'ticket' | 'mend'>('ticket');
  readonly mending = inject(Mending);
  /** What was found on the picture, while it is marked there. */
  readonly marks = signal<readonly Found[] | null>(null);
  readonly threads = computed(() => threadsOf(this.proof()?.comments ?? []));
  /** The place that the next comment is of. */
  readonly place = signal<Place | null>(null);
  readonly whole = computed(() => (this.showing() && this.proof() ? JSON.stringify(this.proof()!.ticket, null, 2) : ''));

  constructor() {
    inject(Keys).declare([
      { key: 'B', does: 'The original, and back', run: () => this.proof()?.original && this.before.update(v => !v) },
      { key: 'E', does: 'Mend it, or back to the ticket', run: () => this.show(this.side() === 'mend' ? 'ticket' : 'mend') },
      { key: 'C', does: 'Mark a place to say something of; the arrows move it', run: () => this.place.set({ x: 0.5, y: 0.5 }) },
      { key: 'ArrowLeft', does: 'The marked place to the left', run: () => this.movePlace(-0.02, 0) },
      { key: 'ArrowRight', does: 'The marked place to the right', run: () => this.movePlace(0.02, 0) },
      { key: 'ArrowUp', does: 'The marked place up', run: () => this.movePlace(0, -0.02) },
      { key: 'ArrowDown', does: 'The marked place down', run: () => this.movePlace(0, 0.02) },
      { key: 'Escape', does: 'No place', run: () => this.place.set(null) },
    ]);
    effect(() => {
      const id = this.id();
      untracked(() => {
        void this.load(id);
        if (this.mend()) this.show('mend');
      });
    });
    // Offshoots and other tries arrive while the page is open.
    inject(Actions)
      .pipe(
        ofType(sessionActions.heard),
        filter(({ about }) => about !== null && about === this.proof()?.runId),
        auditTime(400),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.refresh());
  }

  show(side: 'ticket' | 'mend'): void {
    if (side === 'mend' && !this.mayMake()) return;
    this.side.set(side);
    this.before.set(false);
    if (side === 'ticket') this.mending.tool.set(null);
  }

  /** Reads the proof again, and leaves everything else on the page as it is. */
  refresh(): void {
    const id = this.id();
    void this.api
      .get<Proof>(`/proofs/${id}`)
      .then(p => id === this.id() && this.proof.set(p))
      .catch(() => undefined);
  }

  /** Lets the proof lead its campaign, or no longer. */
  async lead(campaign: { id: string; isHero: boolean }): Promise<void> {
    try {
      const body = { proofId: campaign.isHero ? null : this.id() };
      const { message } = await this.api.send<{ message: string }>('PUT', `/campaigns/${campaign.id}/hero`, body);
      this.messages.done(message);
      this.refresh();
    } catch (error) {
      this.messages.failed(error);
    }
  }

  private async load(id: string): Promise<void> {
    this.proof.set(null);
    this.remade.set(null);
    this.place.set(null);
    this.marks.set(null);
    this.mending.clear();
    try {
      this.proof.set(await this.api.get<Proof>(`/proofs/${id}`));
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  /** Marks the place that was clicked. */
  pin(event: MouseEvent): void {
    const box = (event.currentTarget as HTMLElement).querySelector('img')!.getBoundingClientRect();
    const [x, y] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    if (x >= 0 && x <= 1 && y >= 0 && y <= 1) this.place.set({ x, y });
  }

  movePlace(dx: number, dy: number): void {
    const clamp = (v: number): number => Math.min(1, Math.max(0, v));
    this.place.update(p => p && { x: clamp(p.x + dx), y: clamp(p.y + dy) });
  }

  /** Takes in what was said, or changed of it. */
  take(comment: Comment): void {
    this.proof.update(p => {
      if (!p) return p;
      const there = p.comments.some(c => c.id === comment.id);
      return { ...p, comments: there ? p.comments.map(c => (c.id === comment.id ? comment : c)) : [...p.comments, comment] };
    });
  }

  /** Puts the proof on the shelf as a reference that remembers where it came from. */
  async promote(p: Proof): Promise<void> {
    try {
      const saved = await this.api.send<Reference>('POST', '/references/from-proof', { proofId: p.id });
      this.store.dispatch(references.actions.saved({ items: [saved] }));
      this.messages.done(`“${saved.name}” stands on the shelf, under “${saved.shelf}”.`);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  async remake(): Promise<void> {
    this.remaking.set(true);
    this.remade.set(null);
    this.fault.set(null);
    try {
      this.remade.set(await this.api.send<Remake>('POST', `/proofs/${this.id()}/remake`));
    } catch (error) {
      this.fault.set(problemOf(error));
    } finally {
      this.remaking.set(false);
    }
  }
}
