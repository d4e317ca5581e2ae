import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Look, Reference } from '@zinc/contract';
import { FACETS, type Facet } from '@zinc/core';
import { looks } from '../mix/looks.store';
import { Usage } from '../mix/usage';
import { Api } from '../shared/api';
import { writtenDay } from '../shared/dates';
import { FacetIcon } from '../shared/facet-icon';
import { galleyActions, galleyFeature } from '../shared/galley.store';
import { Keys } from '../shared/keys';
import { Messages } from '../shared/messages';
import { PaletteBar } from '../shared/palette-bar';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';
import { WordIndex } from '../shared/word-index';
import { Arrivals, type Arriving } from './arrivals';
import { ANY, findReferences, isAboutReferences, rightsOf, textOf, usedPictures, type ShelfSlip } from './find-references';
import { layOut, ledgesByShelf, movedTo, placeBetween, rowsWithin, type Ledge } from './ledges';
import { distancesTo, type Like } from './like';
import { LikePicker } from './like-picker';
import { LookCard } from './look-card';
import { references } from './shelf.store';
import { Shelves } from './shelves';

/** Pixels above and below the window that are laid out too, so that scrolling meets no gaps. */
const AHEAD = 700;
/** Pixels of scrolling after which other rows are laid out. */
const STEP = 300;
const PAUSE_MS = 120;

/** The shared library: looks as their yardstick, references as themselves with their palette, on named ledges. */
@Component({
  selector: 'zs-shelf',
  imports: [RouterLink, Thumb, PaletteBar, FacetIcon, StateView, LookCard, LikePicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shelf.page.html',
  styleUrl: './shelf.page.css',
  host: {
    '(dragover)': 'over($event)',
    '(dragleave)': 'dropping.set(false)',
    '(drop)': 'drop($event)',
    '(document:paste)': 'paste($event)',
  },
})
export class ShelfPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  private readonly arrivals = inject(Arrivals);
  private readonly shelves = inject(Shelves);
  readonly facetNames = FACETS;
  /** A kept picture to look like from the start, by its hash; for links from other pages. */
  readonly like = input<string>();
  /** What that picture is called. */
  readonly named = input<string>();

  readonly references = this.store.selectSignal(references.all);
  readonly status = this.store.selectSignal(references.status);
  readonly problem = this.store.selectSignal(references.problem);
  readonly looks = this.store.selectSignal(looks.all);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  private readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly carried = this.store.selectSignal(galleyFeature.selectThings);
  private readonly carriedIds = computed(() => new Set(this.carried().map(t => t.id)));
  readonly mayAdd = computed(() => this.person()?.role !== 'reviewer');

  readonly slip = signal<ShelfSlip>(ANY);
  readonly alike = signal<Like | null>(null);
  private readonly distances = signal<ReadonlyMap<string, number> | null>(null);
  readonly facets = signal<readonly Facet[]>(FACETS);
  /** What is written into the line for a web address; null while it is not shown. */
  readonly address = signal<string | null>(null);
  readonly dropping = signal(false);
  /** Whether looks are spread out, or stand on one ledge that is pulled along. */
  readonly spread = signal(false);
  readonly arriving = this.arrivals.all;
  readonly under = signal<Reference | null>(null);
  /** The shelf whose name is being changed. */
  readonly renaming = signal<string | null>(null);
  /** What is being moved along the ledges, and before what it would come to stand. */
  readonly moved = signal<Reference | null>(null);
  readonly before = signal<string | null>(null);
  private readonly today = new Date().toISOString().slice(0, 10);

  private readonly index = new WordIndex();
  /** The words of the slip, once the hand pauses: over thousands of things not every letter is worth a search. */
  private readonly words = signal('');
  readonly searching = computed(() => this.words() !== this.slip().words);
  private readonly used = computed(() => usedPictures(this.looks()));
  readonly people = computed(() => [...new Set(this.references().map(r => r.addedBy))].sort());
  readonly found = computed(() => {
    this.index.changes();
    const slip = this.slip();
    return findReferences(this.references(), slip, this.index.find(this.words()), this.used(), this.today);
  });
  readonly isBrandColour = computed(() => this.brandColours().some(c => c.hex === this.slip().colour));
  readonly brandColours = computed(() => this.house()?.brand?.colours ?? []);
  readonly foundLooks = computed(() => {
    if (isAboutReferences(this.slip()) || this.alike()) return [];
    const words = this.slip().words.trim().toLowerCase();
    return this.looks().filter(l => `${l.name} ${l.latest.words.join(' ')}`.toLowerCase().includes(words));
  });
  /** Ledges by shelf, or one ledge sorted by nearness when something is looked for that looks like another. */
  readonly ledges = computed((): Ledge[] => {
    const alike = this.alike();
    const distances = this.distances();
    const found = this.found();
    if (!alike) return ledgesByShelf(found, this.shelves.order());
    if (!distances) return [];
    const near = found
      .filter(r => distances.has(r.id))
      .map(reference => ({ reference, distance: distances.get(reference.id)! }))
      .sort((p, q) => p.distance - q.distance);
    return near.length === 0 ? [] : [{ name: `Like ${alike.name}`, note: 'nearest first', items: near }];
  });
  /** Whether the shelf has been compared with what it should look like. */
  readonly near = computed(() => this.distances() !== null);
  readonly shelfNames = computed(() => (this.alike() ? [] : this.ledges().map(l => l.name)));
  private readonly width = signal(1000);
  private readonly scrolled = signal({ top: 0, height: 900 });
  readonly rows = computed(() => layOut(this.ledges(), this.width()));
  readonly total = computed(() => this.rows().at(-1) ?? null);
  readonly inSight = computed(() => {
    const { top, height } = this.scrolled();
    return rowsWithin(this.rows(), top - AHEAD, top + height + AHEAD);
  });

  private readonly page = viewChild.required<ElementRef<HTMLElement>>('page');
  private readonly area = viewChild<ElementRef<HTMLElement>>('area');

  constructor() {
    void inject(Usage).refresh();
    inject(Keys).declare([
      {
        key: 'G',
        does: 'The reference under the pointer or in focus into the galley, or out',
        run: () => this.under() && this.carry(this.under()!),
      },
      { key: 'N', does: 'Sort by nearness to it', run: () => this.under() && this.lookLikeIt(this.under()!) },
      { key: ',', does: 'Move it a place to the left', run: () => this.shift(-1) },
      { key: '.', does: 'Move it a place to the right', run: () => this.shift(1) },
    ]);
    effect(onCleanup => {
      const { words } = this.slip();
      const timer = setTimeout(() => this.words.set(words), PAUSE_MS);
      onCleanup(() => clearTimeout(timer));
    });
    effect(() => void this.index.keep(this.references().map(r => ({ id: r.id, text: textOf(r) }))));
    effect(() => {
      const sha256 = this.like();
      if (sha256) untracked(() => void this.lookLike({ kind: 'picture', sha256, name: this.named() || 'it' }));
    });
    // The area comes when there is something to lay out.
    effect(() => {
      const area = this.area();
      if (area) untracked(() => this.measure());
    });
    const watch = new ResizeObserver(() => this.measure());
    afterNextRender(() => watch.observe(this.page().nativeElement));
    inject(DestroyRef).onDestroy(() => watch.disconnect());
  }

  /** Takes down how wide the ledges are and which stretch of them is in the window. */
  measure(): void {
    const page = this.page().nativeElement;
    const area = this.area()?.nativeElement;
    if (!area) return;
    this.width.set(area.clientWidth);
    const top = page.scrollTop - (area.offsetTop - page.offsetTop);
    const before = this.scrolled();
    // Rows are laid out well ahead: a small move needs no others.
    if (Math.abs(top - before.top) < STEP && before.height === page.clientHeight) return;
    this.scrolled.set({ top, height: page.clientHeight });
  }

  ask(part: Partial<ShelfSlip>): void {
    this.slip.update(s => ({ ...s, ...part }));
  }

  clear(): void {
    this.slip.set(ANY);
    void this.lookLike(null);
  }

  /** Sorts by nearness; the server compares everything on the shelf. */
  async lookLike(like: Like | null): Promise<void> {
    this.alike.set(like);
    this.distances.set(null);
    if (!like) return;
    try {
      const found = await distancesTo(this.api, like, 'reference', this.facets());
      if (this.alike() === like) this.distances.set(found);
    } catch (error) {
      this.alike.set(null);
      this.messages.failed(error);
    }
  }

  lookLikeIt(r: Reference): void {
    void this.lookLike({ kind: 'picture', sha256: r.picture.sha256, name: r.name });
  }

  retry(): void {
    this.store.dispatch(references.actions.load());
  }

  isCarried(id: string): boolean {
    return this.carriedIds().has(id);
  }

  carry(r: Reference): void {
    this.store.dispatch(
      galleyActions.put({ thing: { kind: 'reference', id: r.id, name: r.name, pictureSha: r.picture.sha256 } }),
    );
  }

  openLook(l: Look): void {
    void this.router.navigate(['/mix', l.id]);
  }

  toggleFacet(f: Facet): void {
    const next = FACETS.filter(x => (x === f ? !this.facets().includes(f) : this.facets().includes(x)));
    if (next.length === 0) return;
    this.facets.set(next);
    void this.lookLike(this.alike());
  }

  rightsLine(r: Reference): { text: string; ended: boolean } {
    if (!r.licenceEnds) return { text: r.licence || 'licence not noted', ended: false };
    const rights = rightsOf(r, this.today);
    return {
      text: `${rights === 'ended' ? 'ended' : rights === 'soon' ? 'ends' : 'until'} ${writtenDay(r.licenceEnds)}`,
      ended: rights === 'ended' || rights === 'soon',
    };
  }

  // --- order by hand

  moveShelf(name: string, by: number): void {
    const seen = this.shelfNames();
    const neighbour = seen[seen.indexOf(name) + by];
    // Shelves that the slip hides keep their places.
    const every = ledgesByShelf(
      this.references().filter(r => r.state !== 'put away'),
      this.shelves.order(),
    ).map(l => l.name);
    if (neighbour) void this.shelves.reorder(movedTo(every, name, neighbour));
  }

  async rename(from: string, event: Event): Promise<void> {
    const to = (event.target as HTMLInputElement).value.trim();
    if (this.renaming() !== from) return;
    this.renaming.set(null);
    if (to && to !== from) await this.shelves.rename(from, to);
  }

  /** Moves what is under the pointer along its own ledge. */
  shift(by: number): void {
    const r = this.under();
    const items = this.ledges().find(l => l.name === r?.shelf)?.items ?? [];
    const at = items.findIndex(i => i.reference.id === r?.id);
    const to = at + by;
    if (!r || !this.mayAdd() || at < 0 || to < 0 || to >= items.length) return;
    const [left, right] = by < 0 ? [items[to - 1], items[to]] : [items[to], items[to + 1]];
    void this.shelves.put(r, r.shelf, placeBetween(left?.reference, right?.reference));
    this.under.set({ ...r, place: placeBetween(left?.reference, right?.reference), revision: r.revision + 1 });
  }

  lift(event: DragEvent, r: Reference): void {
    if (!this.mayAdd() || this.alike()) return event.preventDefault();
    event.dataTransfer!.effectAllowed = 'move';
    event.dataTransfer!.setData('text/plain', r.name);
    this.moved.set(r);
  }

  /** Shows before which thing of a ledge the moved one would stand. */
  hover(event: DragEvent, ledge: Ledge, r: Reference | null): void {
    if (!this.moved()) return;
    event.preventDefault();
    event.stopPropagation();
    this.before.set(`${ledge.name}/${r?.id ?? ''}`);
  }

  setDown(event: DragEvent, ledge: Ledge, r: Reference | null): void {
    const moved = this.moved();
    if (!moved) return;
    event.preventDefault();
    event.stopPropagation();
    this.letGo();
    const items = ledge.items.map(i => i.reference).filter(i => i.id !== moved.id);
    // Set down on a heading it stands first.
    const at = r ? items.findIndex(i => i.id === r.id) : 0;
    if (at < 0) return;
    void this.shelves.put(moved, ledge.name, placeBetween(items[at - 1], items[at]));
  }

  letGo(): void {
    this.moved.set(null);
    this.before.set(null);
  }

  // --- bringing pictures in

  over(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files') || !this.mayAdd()) return;
    event.preventDefault();
    this.dropping.set(true);
  }

  drop(event: DragEvent): void {
    event.preventDefault();
    this.dropping.set(false);
    if (this.mayAdd()) void this.arrivals.bring([...(event.dataTransfer?.files ?? [])]);
  }

  paste(event: ClipboardEvent): void {
    if (!this.mayAdd()) return;
    const files = [...(event.clipboardData?.files ?? [])];
    if (files.length > 0) return void this.arrivals.bring(files);
    if ((event.target as HTMLElement).closest('input, textarea')) return;
    const text = event.clipboardData?.getData('text/plain').trim() ?? '';
    if (/^https?:\/\/\S+$/i.test(text)) void this.fetchAddress(text);
  }

  async fetchAddress(url: string): Promise<void> {
    if (this.mayAdd() && url.trim() && (await this.arrivals.fetchAddress(url))) this.address.set(null);
  }

  choose(event: Event): void {
    const chooser = event.target as HTMLInputElement;
    void this.arrivals.bring([...(chooser.files ?? [])]);
    chooser.value = '';
  }

  dismiss(a: Arriving): void {
    this.arrivals.dismiss(a);
  }
}
