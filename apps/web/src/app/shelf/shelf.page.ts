import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Look, Reference } from '@zinc/contract';
import { FACETS, drift, driftOver, type Facet } from '@zinc/core';
import { looks } from '../mix/looks.store';
import { Usage } from '../mix/usage';
import { Api, messageOf } from '../shared/api';
import { writtenDay } from '../shared/dates';
import { FacetIcon } from '../shared/facet-icon';
import { galleyActions, galleyFeature } from '../shared/galley.store';
import { Keys } from '../shared/keys';
import { PaletteBar } from '../shared/palette-bar';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';
import { ANY, findReferences, isAboutReferences, usedPictures, type ShelfSlip } from './find-references';
import { LookCard } from './look-card';
import { references } from './shelf.store';

interface Arriving {
  name: string;
  share: number;
  problem: string | null;
}

const AT_ONCE = 2;

/** The shared library: looks as their yardstick, references as themselves with their palette, on named ledges. */
@Component({
  selector: 'zs-shelf',
  imports: [RouterLink, Thumb, PaletteBar, FacetIcon, StateView, LookCard],
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
  readonly facetNames = FACETS;
  readonly references = this.store.selectSignal(references.all);
  readonly status = this.store.selectSignal(references.status);
  readonly problem = this.store.selectSignal(references.problem);
  readonly looks = this.store.selectSignal(looks.all);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  private readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly carried = this.store.selectSignal(galleyFeature.selectThings);
  readonly mayAdd = computed(() => this.person()?.role !== 'reviewer');

  readonly slip = signal<ShelfSlip>(ANY);
  readonly likeId = signal('');
  readonly facets = signal<readonly Facet[]>(FACETS);
  /** What is written into the line for a web address; null while it is not shown. */
  readonly address = signal<string | null>(null);
  readonly dropping = signal(false);
  readonly arriving = signal<Arriving[]>([]);
  readonly under = signal<Reference | null>(null);

  readonly like = computed(() => this.references().find(r => r.id === this.likeId()) ?? null);
  private readonly used = computed(() => usedPictures(this.looks()));
  readonly found = computed(() =>
    findReferences(this.references(), this.slip(), this.used(), new Date().toISOString().slice(0, 10)),
  );
  readonly isBrandColour = computed(() => this.brandColours().some(c => c.hex === this.slip().colour));
  readonly brandColours = computed(() => this.house()?.brand?.colours ?? []);
  readonly foundLooks = computed(() => {
    if (isAboutReferences(this.slip())) return [];
    const words = this.slip().words.trim().toLowerCase();
    return this.looks().filter(l => `${l.name} ${l.latest.words.join(' ')}`.toLowerCase().includes(words));
  });
  /** Ledges by shelf, or one ledge sorted by nearness when something is looked for that looks like another. */
  readonly ledges = computed(() => {
    const like = this.like();
    const found = this.found();
    if (like) {
      const near = found
        .map(r => ({ reference: r, distance: driftOver(drift(r.fingerprint, like.fingerprint), this.facets()) }))
        .sort((p, q) => p.distance - q.distance);
      if (near.length === 0) return [];
      return [{ name: `Like ${like.name}`, note: 'nearest first', items: near }];
    }
    const names = [...new Set(found.map(r => r.shelf))].sort((p, q) =>
      p === 'Just arrived' ? -1 : q === 'Just arrived' ? 1 : p < q ? -1 : 1,
    );
    return names.map(name => {
      const items = found.filter(r => r.shelf === name).map(reference => ({ reference, distance: null as number | null }));
      return { name, note: items.length === 1 ? '1 reference' : `${items.length} references`, items };
    });
  });

  constructor() {
    void inject(Usage).refresh();
    inject(Keys).declare([
      {
        key: 'G',
        does: 'The reference under the pointer or in focus into the galley, or out',
        run: () => this.under() && this.carry(this.under()!),
      },
      { key: 'N', does: 'Sort by nearness to it', run: () => this.under() && this.likeId.set(this.under()!.id) },
    ]);
  }

  ask(part: Partial<ShelfSlip>): void {
    this.slip.update(s => ({ ...s, ...part }));
  }

  clear(): void {
    this.slip.set(ANY);
    this.likeId.set('');
  }

  retry(): void {
    this.store.dispatch(references.actions.load());
  }

  isCarried(id: string): boolean {
    return this.carried().some(t => t.id === id);
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
    this.facets.update(now => {
      const next = FACETS.filter(x => (x === f ? !now.includes(f) : now.includes(x)));
      return next.length > 0 ? next : now;
    });
  }

  /** Pictures stand on the ledge at one height, each as wide as its own shape asks. */
  widthOf(r: Reference): number {
    return Math.max(96, Math.min(280, (150 * r.picture.width) / r.picture.height));
  }

  rightsLine(r: Reference): { text: string; ended: boolean } {
    const today = new Date().toISOString().slice(0, 10);
    if (!r.licenceEnds) return { text: r.licence || 'licence not noted', ended: false };
    const ended = r.licenceEnds < today;
    return { text: `${ended ? 'licence ended' : 'until'} ${writtenDay(r.licenceEnds)}`, ended };
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
    void this.bring([...(event.dataTransfer?.files ?? [])]);
  }

  paste(event: ClipboardEvent): void {
    const files = [...(event.clipboardData?.files ?? [])];
    if (files.length > 0) return void this.bring(files);
    if ((event.target as HTMLElement).closest('input, textarea')) return;
    const text = event.clipboardData?.getData('text/plain').trim() ?? '';
    if (/^https?:\/\/\S+$/i.test(text)) void this.fetchAddress(text);
  }

  /** Fetches a picture from a public web address; the server does it, so that no other site sees who looks. */
  async fetchAddress(url: string): Promise<void> {
    if (!this.mayAdd() || !url.trim()) return;
    const row: Arriving = { name: url, share: 1, problem: null };
    this.arriving.update(now => [...now.filter(a => a.problem && a.name !== url), row]);
    const gone = (): void => this.arriving.update(now => now.filter(a => a.name !== url));
    try {
      const saved = await this.api.send<Reference>('POST', '/references/from-address', { url });
      this.store.dispatch(references.actions.saved({ items: [saved] }));
      gone();
      this.address.set(null);
    } catch (error) {
      gone();
      this.arriving.update(now => [...now, { ...row, problem: messageOf(error) }]);
    }
  }

  choose(event: Event): void {
    const chooser = event.target as HTMLInputElement;
    void this.bring([...(chooser.files ?? [])]);
    chooser.value = '';
  }

  /** Sends files one by one, two at a time: one that is refused never keeps the others from arriving. */
  async bring(files: File[]): Promise<void> {
    if (!this.mayAdd() || files.length === 0) return;
    const rows: Arriving[] = files.map(f => ({ name: f.name, share: 0, problem: null }));
    this.arriving.update(now => [...now.filter(a => a.problem), ...rows]);
    const set = (row: Arriving, change: Partial<Arriving>): void => {
      this.arriving.update(now => now.map(a => (a === row || a.name === row.name ? { ...a, ...change } : a)));
    };
    const waiting = files.map((file, i) => ({ file, row: rows[i] }));
    const work = async (): Promise<void> => {
      for (let next = waiting.shift(); next; next = waiting.shift()) {
        const { file, row } = next;
        try {
          const saved = await this.api.upload<Reference>('/references', file, share => set(row, { share }));
          this.store.dispatch(references.actions.saved({ items: [saved] }));
          this.arriving.update(now => now.filter(a => a.name !== row.name));
        } catch (error) {
          set(row, { problem: messageOf(error) });
        }
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, work));
  }

  dismiss(a: Arriving): void {
    this.arriving.update(now => now.filter(x => x !== a));
  }
}
