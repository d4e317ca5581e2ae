import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  resource,
  signal,
  viewChildren,
} from '@angular/core';
import { Location } from '@angular/common';
import { RouterLink } from '@angular/router';
import type { Proof } from '@zinc/contract';
import { ticketDifferences } from '@zinc/core';
import { Api, problemOf } from '../../shared/api';
import { Keys } from '../../shared/keys';
import { StateView } from '../../shared/state';
import { MID_GREY, nextSurround, Surround } from '../../shared/surround';
import { Pane, type Layer, type Over } from './pane';
import { moved, trueZoom, WHOLE, zoomedAt, type View } from './view';

export const MOST_TOGETHER = 6;
const BLINK_MS = 700;
/** Widths at which small uses are judged, in pixels of the screen. */
const USES = [32, 64, 128, 256] as const;

type Way = 'beside' | 'wipe' | 'blink' | 'difference' | 'use';
const WAYS: { way: Way; name: string; key: string; two: boolean }[] = [
  { way: 'beside', name: 'Side by side', key: 'S', two: false },
  { way: 'wipe', name: 'Wipe', key: 'W', two: true },
  { way: 'blink', name: 'Blink', key: 'B', two: true },
  { way: 'difference', name: 'Difference', key: 'D', two: true },
  { way: 'use', name: 'Size of use', key: 'U', two: false },
];

/** Two to six proofs laid together: one zoom and place for all, wiped, blinked, subtracted, at true pixels, at the size of use; what their tickets differ in. */
@Component({
  selector: 'zs-together',
  imports: [Pane, StateView, Surround, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './together.page.html',
  styleUrl: './together.page.css',
})
export class TogetherPage {
  private readonly api = inject(Api);
  private readonly location = inject(Location);
  /** Ids of proofs with commas between. */
  readonly proofs = input('');
  readonly ways = WAYS;
  readonly uses = USES;

  private readonly loaded = resource({
    params: () => this.proofs().split(',').filter(Boolean).slice(0, MOST_TOGETHER),
    loader: ({ params }) => Promise.all(params.map(id => this.api.get<Proof>(`/proofs/${id}`))),
  });
  readonly items = computed(() => (this.loaded.hasValue() ? this.loaded.value() : []));
  readonly loading = this.loaded.isLoading;
  readonly problem = computed(() => {
    const error = this.loaded.error();
    return error ? problemOf(error) : null;
  });

  readonly way = signal<Way>('beside');
  readonly view = signal<View>(WHOLE);
  readonly wipe = signal(50);
  /** Which two are laid over each other. */
  readonly pair = signal<readonly [number, number]>([0, 1]);
  readonly originals = signal(false);
  readonly surround = signal(MID_GREY);
  readonly blinked = signal(false);
  private readonly panes = viewChildren(Pane);

  readonly layers = computed((): Layer[] =>
    this.items().map(p => {
      const shown = this.originals() && p.original ? p.original : { sha256: p.pictureSha, width: p.width, height: p.height };
      return { sha: shown.sha256, width: shown.width, height: shown.height, alt: this.nameOf(p) };
    }),
  );
  readonly hasOriginals = computed(() => this.items().some(p => p.original));
  readonly over = computed((): Over => {
    const way = this.way();
    return way === 'wipe' || way === 'difference' ? way : null;
  });
  /** What lies in each pane: one proof each, or the two that are laid over each other. */
  readonly laid = computed((): { layers: Layer[]; name: string }[] => {
    const all = this.layers();
    const way = this.way();
    if (way === 'beside' || way === 'use') return all.map(l => ({ layers: [l], name: l.alt }));
    const [p, q] = this.pair().map(i => all[i]);
    if (!p || !q) return [];
    if (way === 'blink') return [{ layers: [this.blinked() ? q : p], name: (this.blinked() ? q : p).alt }];
    return [{ layers: [p, q], name: way === 'wipe' ? `${p.alt} | ${q.alt}` : `${p.alt} − ${q.alt}` }];
  });
  readonly columns = computed(() => {
    const n = this.laid().length;
    return n <= 3 ? n : n === 4 ? 2 : 3;
  });
  readonly differences = computed(() => ticketDifferences(this.items().map(p => p.ticket)));

  constructor() {
    const timer = setInterval(() => this.way() === 'blink' && this.blinked.update(v => !v), BLINK_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
    inject(Keys).declare([
      ...WAYS.map(w => ({ key: w.key, does: w.name, run: () => this.choose(w.way) })),
      { key: 'T', does: 'True pixels, and back to the whole', run: () => this.truePixels() },
      { key: '+ or =', does: 'Nearer', run: () => this.zoom(1.25) },
      { key: '-', does: 'Farther', run: () => this.zoom(0.8) },
      { key: 'ArrowLeft', does: 'Look further left; the wipe, when there is one', run: () => this.go(-1, 0) },
      { key: 'ArrowRight', does: 'Look further right', run: () => this.go(1, 0) },
      { key: 'ArrowUp', does: 'Look further up', run: () => this.go(0, -1) },
      { key: 'ArrowDown', does: 'Look further down', run: () => this.go(0, 1) },
      { key: 'N', does: 'The next two over each other', run: () => this.nextPair() },
      { key: 'O', does: 'The originals, and back', run: () => this.hasOriginals() && this.originals.update(v => !v) },
      { key: 'X', does: 'Next surround', run: () => this.surround.update(nextSurround) },
      { key: 'Escape', does: 'Back', run: () => this.location.back() },
    ]);
  }

  nameOf(p: Proof): string {
    return `${p.subjectLabel}, ${p.ticket.look.name}, take ${p.take}`;
  }

  choose(way: Way): void {
    this.way.set(way);
    this.blinked.set(false);
  }

  truePixels(): void {
    const pane = this.panes()[0];
    const [layer] = this.layers();
    if (!pane || !layer) return;
    const zoom = trueZoom(layer, pane.size(), devicePixelRatio);
    const there = Math.abs(this.view().zoom - zoom) < 0.01;
    this.view.set(there ? WHOLE : { ...this.view(), zoom });
  }

  zoom(by: number): void {
    const pane = this.panes()[0];
    const [layer] = this.layers();
    if (pane && layer) this.view.set(zoomedAt(this.view(), by, { x: 0.5, y: 0.5 }, layer, pane.size()));
  }

  go(dx: number, dy: number): void {
    if (this.way() === 'wipe' && dx !== 0) return this.wipe.update(w => Math.min(100, Math.max(0, w + dx * 4)));
    const pane = this.panes()[0];
    const [layer] = this.layers();
    if (pane && layer) this.view.set(moved(this.view(), -dx * 60, -dy * 60, layer, pane.size()));
  }

  /** Every two in turn. */
  nextPair(): void {
    const n = this.items().length;
    const pairs = Array.from({ length: n }, (_, i) => i).flatMap(i =>
      Array.from({ length: n - i - 1 }, (_, k) => [i, i + 1 + k] as const),
    );
    const at = pairs.findIndex(([p, q]) => p === this.pair()[0] && q === this.pair()[1]);
    if (pairs.length > 0) this.pair.set(pairs[(at + 1) % pairs.length]);
  }
}
