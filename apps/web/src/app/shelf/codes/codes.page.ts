import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { afterNextRender } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { StyleCode } from '@zinc/contract';
import { FACETS, randomCode } from '@zinc/core';
import { YARDSTICK } from '@zinc/scenes';
import { Scroller } from 'primeng/scroller';
import { looks } from '../../mix/looks.store';
import { Api, problemOf } from '../../shared/api';
import { galleyActions } from '../../shared/galley.store';
import { Keys } from '../../shared/keys';
import { Messages } from '../../shared/messages';
import { sessionFeature } from '../../shared/session.store';
import { StateView } from '../../shared/state';
import { WordIndex } from '../../shared/word-index';
import { distancesTo, type Like } from '../like';
import { LikePicker } from '../like-picker';
import { codes, references } from '../shelf.store';
import { CodePane } from './code-pane';
import { CodePicture } from './code-picture';
import { findCodes, rowsOf, textOfCode, type CodeSlip } from './find-codes';
import { ImportDialog } from './import-dialog';

const CELL = 132;
const GAP = 14;
const UNSEEN = 12;

/** Years of style codes: found in seconds, every own one shown on the same yardstick subject. */
@Component({
  selector: 'zs-codes',
  imports: [RouterLink, Scroller, StateView, CodePicture, CodePane, ImportDialog, LikePicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './codes.page.html',
  styleUrl: './codes.page.css',
})
export class CodesPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  /** The code in hand, by its text. */
  readonly code = input<string>();
  readonly all = this.store.selectSignal(codes.all);
  readonly status = this.store.selectSignal(codes.status);
  readonly problem = this.store.selectSignal(codes.problem);
  readonly references = this.store.selectSignal(references.all);
  readonly looks = this.store.selectSignal(looks.all);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayEdit = computed(() => this.person()?.role !== 'reviewer');
  readonly subjects = YARDSTICK;
  readonly rowHeight = CELL + 54;

  readonly slip = signal<CodeSlip>({ words: '', grade: null, shelf: '', order: 'newest' });
  readonly alike = signal<Like | null>(null);
  readonly distances = signal<ReadonlyMap<string, number> | null>(null);
  readonly subject = signal(0);
  readonly unseen = signal<string[]>([]);
  readonly importing = signal(false);
  readonly written = signal('');
  readonly press = signal('');
  readonly fault = signal<{ message: string; meant: string[] } | null>(null);
  private readonly columns = signal(5);
  private readonly pane = viewChild(CodePane);
  private readonly shelfArea = viewChild<ElementRef<HTMLElement>>('area');

  readonly shelves = computed(() => [...new Set(this.all().map(c => c.shelf))].sort());
  private readonly index = new WordIndex();
  readonly found = computed(() => {
    this.index.changes();
    return findCodes(this.all(), this.slip(), this.index.find(this.slip().words), this.distances());
  });
  readonly rows = computed(() => rowsOf(this.found(), this.columns()));
  readonly inHand = computed(() => this.code() ?? null);
  readonly kept = computed(() => this.all().find(c => c.text === this.inHand()) ?? null);

  constructor() {
    inject(Keys).declare([
      { key: 'G', does: 'The code in hand into the galley, or out', run: () => this.carry() },
      {
        key: '0 or 1 or 2 or 3 or 4 or 5 or 6 or 7 or 8 or 9',
        does: 'Grade the code in hand',
        run: e => void this.pane()?.setGrade(Number(e.key)),
      },
    ]);
    effect(() => void this.index.keep(this.all().map(c => ({ id: c.id, text: textOfCode(c) }))));
    const watch = new ResizeObserver(([entry]) =>
      this.columns.set(Math.max(1, Math.floor((entry.contentRect.width + GAP) / (CELL + GAP)))),
    );
    afterNextRender(() => this.shelfArea() && watch.observe(this.shelfArea()!.nativeElement));
    inject(DestroyRef).onDestroy(() => watch.disconnect());
  }

  retry(): void {
    this.store.dispatch(codes.actions.load());
  }

  ask(part: Partial<CodeSlip>): void {
    this.slip.update(s => ({ ...s, ...part }));
  }

  clear(): void {
    this.slip.set({ words: '', grade: null, shelf: '', order: 'newest' });
    void this.lookLike(null);
  }

  /** Sorts by nearness; the server compares every measured code. */
  async lookLike(like: Like | null): Promise<void> {
    this.alike.set(like);
    this.distances.set(null);
    if (!like) return;
    try {
      const found = await distancesTo(this.api, like, 'code', FACETS);
      if (this.alike() === like) this.distances.set(found);
    } catch (error) {
      this.alike.set(null);
      this.messages.failed(error);
    }
  }

  take(text: string): void {
    void this.router.navigate([], { queryParams: { code: text === this.inHand() ? null : text }, replaceUrl: true });
  }

  carry(): void {
    const text = this.inHand();
    if (!text || this.kept()?.kind === 'foreign') return;
    const name = this.kept()?.name || text;
    this.store.dispatch(galleyActions.put({ thing: { kind: 'code', id: text, name, pictureSha: null } }));
  }

  explore(): void {
    this.unseen.set(Array.from({ length: UNSEEN }, () => randomCode(Math.random)));
  }

  /** Keeps what was written into the slip’s foot, or says at once which word looks wrong. */
  async keep(text: string, press = ''): Promise<void> {
    this.fault.set(null);
    try {
      const saved = await this.api.send<StyleCode>('POST', '/codes', { text, press });
      this.store.dispatch(codes.actions.saved({ items: [saved] }));
      this.written.set('');
      this.press.set('');
      if (saved.text !== this.inHand()) this.take(saved.text);
      this.messages.done(`“${saved.text}” is on the shelf.`);
    } catch (error) {
      const p = problemOf(error);
      this.fault.set({ message: p.detail, meant: (p.findings ?? []) as string[] });
    }
  }
}
