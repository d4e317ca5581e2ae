import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  DestroyRef,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { REASONS, type Cohesion, type Subject, type TakeView, type Verdict, type Voice } from '@zinc/contract';
import { driftOver } from '@zinc/core';
import { RunFeed } from '../runs/run-feed';
import { Api } from '../shared/api';
import { FacetGauges } from '../shared/facet-gauges';
import { galleyActions, galleyFeature } from '../shared/galley.store';
import { Keys } from '../shared/keys';
import { KIN } from '../shared/kin';
import { Messages } from '../shared/messages';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { MID_GREY, nextSurround, Surround } from '../shared/surround';
import { Thumb, thumbUrl } from '../shared/thumb';
import { DecisionQueue } from './decision-queue';
import { DriftPlot, type Dot } from './drift-plot';
import { Judging } from './judging';
import { RoundLine } from './round-line';
import { GROUPINGS, rowsOfGroups, rowsOfSubjects, type Grouping, type Spot } from './rows';
import { rowsInSight, scrollToRow } from './window';
import { agreementOf, isDisputed, isShown, lastSigned, type Showing } from './voices';

/** A proof where it is laid out. */
interface Item extends Spot {
  proof: NonNullable<TakeView['proof']>;
  row: number;
  at: number;
}

const VERDICTS: { verdict: Verdict; name: string; key: string; said: string }[] = [
  { verdict: 'keep', name: 'Keep', key: 'K', said: 'kept' },
  { verdict: 'keepOnceMended', name: 'Mend', key: 'O', said: 'kept once mended' },
  { verdict: 'hold', name: 'Hold', key: 'H', said: 'held' },
  { verdict: 'drop', name: 'Drop', key: 'D', said: 'dropped' },
];

/** Sizes of the pictures: as many as fit across, or of one size. */
const SIZES = [
  { name: 'fitting', side: null },
  { name: 'small', side: 92 },
  { name: 'middling', side: 140 },
  { name: 'large', side: 260 },
] as const;
type Size = (typeof SIZES)[number]['name'];
const FITTING = { least: 92, most: 190 };
/** About the side of a fitting picture in a group, where as many stand side by side as there is room for. */
const IN_GROUP = 130;
/** Between two pictures. */
const GAP = 5;
/** What a row has beside its pictures: its label across; its own margins and the gap to the next down. */
const BESIDE = { across: 124, down: 12 };
/** Height of the header that stays in sight over the rows. */
const HEAD = 40;

/** Review: the proof in hand large at the left, the set beside it, the drift plot above; everything by keyboard. */
@Component({
  selector: 'zs-review',
  imports: [Thumb, FacetGauges, DriftPlot, RoundLine, StateView, Surround, RouterLink],
  providers: [RunFeed, Judging],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './review.page.html',
  styleUrl: './review.page.css',
})
export class ReviewPage {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly queue = inject(DecisionQueue);
  readonly judging = inject(Judging);
  readonly feed = inject(RunFeed);
  readonly id = input.required<string>();
  readonly verdicts = VERDICTS;
  readonly reasons = REASONS;
  readonly thumbUrl = thumbUrl;
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayMake = computed(() => this.person()?.role !== 'reviewer');
  readonly isLead = computed(() => this.person()?.role === 'lead');
  readonly isDisputed = isDisputed;

  readonly handId = signal<string | null>(null);
  readonly closer = signal(false);
  readonly range = signal<[number, number] | null>(null);
  /** What of the set is shown. */
  readonly showing = signal<Showing>('all');
  readonly lastRound = computed(() => lastSigned(this.feed.detail()?.rounds ?? []));
  readonly surround = signal(MID_GREY);
  readonly kin = KIN;
  readonly sizes = SIZES;
  readonly size = signal<Size>('fitting');
  readonly groupings = GROUPINGS;
  readonly grouping = signal<Grouping>('subject');
  /** The verdicts as they stood when the set was grouped by decision. */
  private readonly stood = signal<ReadonlyMap<string, Verdict | null>>(new Map());
  private readonly tags = signal<ReadonlyMap<string, string>>(new Map());
  private readonly grid = viewChild<ElementRef<HTMLElement>>('grid');
  private readonly place = signal({ top: 0, width: 800, height: 500 });
  private readonly cohesion = signal<Cohesion | null>(null);
  private readonly things = this.store.selectSignal(galleyFeature.selectThings);
  /** How far down the list of the most unlike the hand has come. */
  private unlike = -1;

  private figure(t: TakeView): number | null {
    const d = this.feed.detail();
    return d && t.proof?.drift ? driftOver(t.proof.drift, d.facets) : null;
  }

  private readonly across = computed(() => {
    const fixed = this.fixedSide();
    return Math.max(1, Math.floor((this.place().width - BESIDE.across) / ((fixed ?? IN_GROUP) + GAP)));
  });
  readonly rows = computed(() => {
    const by = this.grouping();
    const rows = this.feed.rows();
    if (by === 'subject') return rowsOfSubjects(rows);
    return rowsOfGroups(rows, by, this.across(), {
      columns: this.feed.columns(),
      tags: this.tags(),
      stood: this.stood(),
      drift: take => this.figure(take),
    });
  });
  /** Every proof, in the order it is laid out. */
  readonly items = computed((): Item[] =>
    this.rows().flatMap((row, r) =>
      row.cells
        .flatMap(c => c.spots)
        .flatMap(({ cell, take }) => (take.proof ? [{ cell, take, proof: take.proof }] : []))
        .map((item, at) => ({ ...item, row: r, at })),
    ),
  );
  readonly shown = computed(() => {
    const range = this.range();
    return new Set(
      this.items()
        .filter(i => {
          const d = this.figure(i.take);
          return (!range || (d !== null && d >= range[0] && d <= range[1])) && isShown(i.proof, this.showing(), this.lastRound());
        })
        .map(i => i.proof.id),
    );
  });
  readonly inHand = computed(() => this.items().find(i => i.proof.id === this.handId()) ?? this.items()[0] ?? null);
  /** In the order of the set, so that a dot keeps its place however the rows are laid out. */
  readonly dots = computed((): Dot[] =>
    this.feed
      .rows()
      .flatMap(r => r.cells)
      .flatMap(cell => (cell?.takes ?? []).map(take => ({ cell: cell!, take })))
      .flatMap(({ cell, take }) => {
        const drift = this.figure(take);
        if (!take.proof || drift === null) return [];
        const { id, pictureSha, decision } = take.proof;
        return [{ id, label: `${cell.subject.label}, take ${take.take}`, pictureSha, drift, verdict: decision?.verdict ?? null }];
      }),
  );
  private readonly fixedSide = computed(() => SIZES.find(s => s.name === this.size())!.side);
  /** The side of a picture in pixels. */
  readonly side = computed(() => {
    const fixed = this.fixedSide();
    if (fixed) return fixed;
    const room = this.place().width - BESIDE.across;
    if (this.grouping() !== 'subject') return Math.floor(room / this.across()) - GAP;
    const fitting = room / this.feed.widest() - BESIDE.down;
    return Math.round(Math.min(FITTING.most, Math.max(FITTING.least, fitting)));
  });
  readonly rowHeight = computed(() => this.side() + BESIDE.down);
  readonly sight = computed(() => rowsInSight(this.rows().length, this.rowHeight(), this.place().top, this.place().height));
  readonly inSight = computed(() => this.rows().slice(this.sight().first, this.sight().end));
  /** What a run is doing: while it is being made, how well it holds together is worked out once and not with every image. */
  private readonly steady = computed(() => this.feed.detail()?.run.state);
  /** How well the set holds together, in a word and in a sentence. */
  readonly holds = computed(() => {
    const items = this.cohesion()?.items ?? [];
    if (items.length === 0) return null;
    const mean = items.reduce((sum, i) => sum + i.cohesion.total * i.proofs, 0) / items.reduce((sum, i) => sum + i.proofs, 0);
    return {
      short: `cohesion ${mean.toFixed(2)}`,
      long: `On average a proof lies ${mean.toFixed(2)} from the middle of its set: 0 is one and the same look, about 1 as far as unlike looks are.`,
    };
  });
  /** How far several reviewers are of one mind. */
  readonly agreement = computed(() => {
    const { judged, agreed } = agreementOf(this.items().map(i => i.proof));
    if (judged === 0) return null;
    const long = `${judged === 1 ? 'One proof has' : `${judged} proofs have`} a verdict of two people or more; on ${agreed} of them all say the same.`;
    return { short: `agreed on ${agreed} of ${judged}`, long };
  });
  /** Subjects of which nothing is kept. */
  readonly bare = computed(() => {
    const kept = new Set(
      this.items()
        .filter(i => i.proof.decision?.verdict === 'keep')
        .map(i => i.cell.subject.id),
    );
    return this.feed.rows().flatMap(r => (kept.has(r.subject.id) ? [] : [r.subject]));
  });
  /** Decisions made since the set was grouped by them. */
  readonly isStale = computed(
    () =>
      this.grouping() === 'decision' &&
      this.items().some(i => (this.stood().get(i.proof.id) ?? null) !== (i.proof.decision?.verdict ?? null)),
  );
  readonly summary = computed(() => {
    const items = this.items();
    const kept = items.filter(i => i.proof.decision?.verdict === 'keep').length;
    const open = items.filter(i => !i.proof.decision?.verdict).length;
    return `${items.length} proofs, ${kept} kept, ${open} without a decision`;
  });

  constructor() {
    this.feed.follow(this.id);
    // What could not be sent before the page was left goes now.
    effect(() => {
      const person = this.person();
      if (person) untracked(() => void this.queue.send(person.id));
    });
    inject(Keys).declare([
      { key: 'ArrowRight', does: 'Next proof', run: () => this.step(1) },
      { key: 'ArrowLeft', does: 'Proof before', run: () => this.step(-1) },
      { key: 'ArrowDown', does: 'Next row', run: () => this.stepRow(1) },
      { key: 'ArrowUp', does: 'Row before', run: () => this.stepRow(-1) },
      { key: 'Space', does: 'Look closer', run: () => this.closer.update(v => !v) },
      ...VERDICTS.map(v => ({
        key: v.key,
        does: v.verdict === 'keepOnceMended' ? 'Keep once mended' : v.name,
        run: () => void this.decide(v.verdict),
      })),
      { key: 'A', does: 'Again: order another take of this cell', run: () => void this.again() },
      { key: '0 or 1 or 2 or 3 or 4 or 5 or 6 or 7 or 8 or 9', does: 'Grade', run: e => void this.grade(Number(e.key)) },
      { key: 'N', does: 'Next subject with nothing kept', run: () => this.nextBare() },
      { key: 'G', does: 'Into the galley, or out', run: () => this.carry() },
      { key: 'L', does: 'Lay together: the proofs in the galley, or the takes of this cell', run: () => this.layTogether() },
      { key: 'M', does: 'The one most unlike the rest', run: () => this.mostUnlike() },
      { key: 'E', does: 'Mend it: ask, retouch, offshoots', run: () => this.mend() },
      { key: 'R', does: 'Rows by something else: subject, look, tag, decision, drift', run: () => this.nextGrouping() },
      { key: 'Z', does: 'Next size of the pictures', run: () => this.nextSize() },
      { key: 'X', does: 'Next surround', run: () => this.surround.update(nextSurround) },
      { key: 'Enter', does: 'Open the ticket', run: () => this.openTicket() },
      { key: 'Escape', does: 'Back from looking closer', run: () => this.closer.set(false) },
      { key: 'Ctrl Z', does: 'Take the last decision back', run: () => void this.undo() },
    ]);
    effect(() => {
      const id = this.inHand()?.proof.id;
      if (!id) return;
      untracked(() => {
        if (this.handId() !== id) this.handId.set(id);
      });
      const row = this.inHand()!.row;
      untracked(() => this.fetchBeside(id));
      queueMicrotask(() => this.bringInSight(id, row));
    });
    const watched = new ResizeObserver(() => this.scrolled());
    effect(() => {
      const grid = this.grid()?.nativeElement;
      if (!grid) return;
      watched.observe(grid);
      untracked(() => this.scrolled());
    });
    inject(DestroyRef).onDestroy(() => watched.disconnect());
    effect(() => {
      const id = this.id();
      if (this.steady() && (untracked(this.feed.detail)?.run.made ?? 0) > 1) untracked(() => void this.readCohesion(id));
    });
  }

  /** Only the rows in sight are laid out. */
  scrolled(): void {
    const grid = this.grid()?.nativeElement;
    if (!grid) return;
    const { scrollTop: top, clientWidth: width, clientHeight: height } = grid;
    this.place.update(p => (p.top === top && p.width === width && p.height === height ? p : { top, width, height }));
  }

  /** The pictures that the arrows lead to next are fetched while this one is looked at. */
  private fetchBeside(id: string): void {
    const list = this.items();
    const at = list.findIndex(i => i.proof.id === id);
    const below = list.find(i => i.row === list[at].row + 1);
    for (const item of [list[at + 1], list[at + 2], below, list[at - 1]])
      if (item) new Image().src = thumbUrl(item.proof.pictureSha, 640);
  }

  private bringInSight(id: string, row: number): void {
    const grid = this.grid()?.nativeElement;
    if (!grid) return;
    const top = scrollToRow(row, this.rowHeight(), grid.scrollTop, grid.clientHeight, HEAD);
    if (top !== grid.scrollTop) {
      grid.scrollTop = top;
      this.scrolled();
    }
    // Across, a row may be wider than the page; it is laid out by now or with the next frame.
    requestAnimationFrame(() =>
      this.host.querySelector(`[data-proof="${id}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
    );
  }

  private async readCohesion(id: string): Promise<void> {
    const found = await this.api.get<Cohesion>(`/runs/${id}/cohesion`).catch(() => null);
    if (id === this.id()) this.cohesion.set(found);
  }

  nextSize(): void {
    const at = SIZES.findIndex(s => s.name === this.size());
    this.size.set(SIZES[(at + 1) % SIZES.length].name);
  }

  /** Lays the set out by something else; what is in hand stays so. */
  group(by: Grouping): void {
    if (by === 'decision') this.stood.set(new Map(this.items().map(i => [i.proof.id, i.proof.decision?.verdict ?? null])));
    if (by === 'tag') void this.readTags();
    this.grouping.set(by);
  }

  nextGrouping(): void {
    this.group(GROUPINGS[(GROUPINGS.indexOf(this.grouping()) + 1) % GROUPINGS.length]);
  }

  private async readTags(): Promise<void> {
    try {
      const { items } = await this.api.get<{ items: Subject[] }>('/subjects');
      this.tags.set(new Map(items.flatMap(s => (s.tags?.[0] ? [[s.id, s.tags[0]] as const] : []))));
    } catch (error) {
      this.messages.failed(error);
    }
  }

  mend(): void {
    const item = this.inHand();
    if (item && this.mayMake()) void this.router.navigate(['/review/proof', item.proof.id], { queryParams: { mend: 1 } });
  }

  figureOf(t: TakeView): string {
    return this.figure(t)?.toFixed(2) ?? '';
  }

  isOver(t: TakeView): boolean {
    const d = this.figure(t);
    return d !== null && d > (this.feed.detail()?.allowedDrift ?? 1);
  }

  /** What everyone says of a proof, in one line. */
  voicesLine(voices: readonly Voice[]): string {
    return voices.map(v => `${v.verdict ? this.saidOf(v.verdict) : `graded ${v.grade}`} by ${v.person}`).join('; ');
  }

  saidOf(verdict: string | null | undefined): string {
    return VERDICTS.find(v => v.verdict === verdict)?.said ?? '';
  }

  take(id: string): void {
    this.handId.set(id);
  }

  step(by: number): void {
    const list = this.items().filter(i => this.shown().has(i.proof.id));
    const at = list.findIndex(i => i.proof.id === this.inHand()?.proof.id);
    const next = list[Math.max(0, Math.min(list.length - 1, at + by))];
    if (next) this.handId.set(next.proof.id);
  }

  stepRow(by: number): void {
    const hand = this.inHand();
    if (!hand) return;
    const list = this.items().filter(i => this.shown().has(i.proof.id));
    const rows = [...new Set(list.map(i => i.row))];
    const row = rows[Math.max(0, Math.min(rows.length - 1, rows.indexOf(hand.row) + by))];
    const inRow = list.filter(i => i.row === row);
    const next = inRow.reduce<Item | null>(
      (best, i) => (!best || Math.abs(i.at - hand.at) < Math.abs(best.at - hand.at) ? i : best),
      null,
    );
    if (next) this.handId.set(next.proof.id);
  }

  nextBare(): void {
    const hand = this.inHand();
    const bare = new Set(this.bare().map(r => r.id));
    const items = this.items();
    const at = items.findIndex(i => i.proof.id === hand?.proof.id);
    const next =
      items.slice(at + 1).find(i => bare.has(i.cell.subject.id) && i.cell.subject.id !== hand?.cell.subject.id) ??
      items.find(i => bare.has(i.cell.subject.id));
    if (next) this.handId.set(next.proof.id);
  }

  async decide(verdict: Verdict): Promise<void> {
    const item = this.inHand();
    if (item) await this.judging.decide(item.proof, verdict);
  }

  async grade(grade: number): Promise<void> {
    const item = this.inHand();
    if (item) await this.judging.grade(item.proof, grade);
  }

  async undo(): Promise<void> {
    const proof = await this.judging.undo(id => this.items().find(i => i.proof.id === id)?.proof);
    if (proof) this.handId.set(proof.id);
  }

  async again(): Promise<void> {
    const item = this.inHand();
    if (!item || !this.mayMake()) return;
    try {
      await this.api.send('POST', `/takes/${item.take.id}/again`);
      this.messages.done(`Another take of ${item.cell.subject.label} is ordered.`);
      this.feed.refresh();
    } catch (error) {
      this.messages.failed(error);
    }
  }

  carry(): void {
    const item = this.inHand();
    if (item)
      this.store.dispatch(
        galleyActions.put({
          thing: {
            kind: 'proof',
            id: item.proof.id,
            name: `${item.cell.subject.label}, take ${item.take.take}`,
            pictureSha: item.proof.pictureSha,
          },
        }),
      );
  }

  /** Lays two to six together: what is carried, or else the takes of the cell in hand. */
  layTogether(): void {
    const carried = this.things().filter(t => t.kind === 'proof');
    const takes = this.inHand()?.cell.takes ?? [];
    const ids = carried.length > 1 ? carried.map(t => t.id) : takes.flatMap(t => t.proof?.id ?? []);
    if (ids.length < 2) return this.messages.done('Carry two proofs in the galley first, or order another take of this cell.');
    void this.router.navigate(['/review/together'], { queryParams: { proofs: ids.slice(0, 6).join(',') } });
  }

  /** Goes to what drifts most; again, to what drifts next to it. */
  mostUnlike(): void {
    const by = this.items()
      .filter(i => this.figure(i.take) !== null)
      .sort((p, q) => this.figure(q.take)! - this.figure(p.take)!);
    const at = by.findIndex(i => i.proof.id === this.inHand()?.proof.id);
    const next = by[at >= 0 && at === this.unlike ? at + 1 : 0];
    if (!next) return;
    this.unlike = by.indexOf(next);
    this.handId.set(next.proof.id);
  }

  openTicket(): void {
    const item = this.inHand();
    if (item) void this.router.navigate(['/review/proof', item.proof.id]);
  }
}
