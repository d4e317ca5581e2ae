import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { referencePatchSchema, ValidationError, type NearCode, type Proof, type Reference } from '@zinc/contract';
import { describeFingerprint, describeFraming, draftWords, FACETS, mixLook, type Facet, type WordDraft } from '@zinc/core';
import { splitWords } from '../mix/draft';
import { ToneCurve } from '../mix/tone-curve';
import { UsedIn } from '../mix/used-in';
import { Api, ApiError, problemOf } from '../shared/api';
import { writtenMoment } from '../shared/dates';
import { FacetIcon } from '../shared/facet-icon';
import { galleyActions } from '../shared/galley.store';
import { Fingerprints } from '../shared/fingerprints';
import { GradeRow } from '../shared/grade-row';
import { Keys } from '../shared/keys';
import { Meanwhile } from '../shared/meanwhile';
import { Messages } from '../shared/messages';
import { PaletteBar } from '../shared/palette-bar';
import { Pixels } from '../shared/pixels';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';
import { CodePicture } from './codes/code-picture';
import { gaugesOf, howMade, veilOf } from './describe';
import { Preparer } from './prepare/preparer';
import { references } from './shelf.store';
import { YardstickStrip } from './yardstick-strip';

/** One reference: the picture, its fingerprint drawn, its rights, where it is used. */
@Component({
  selector: 'zs-reference',
  imports: [
    Thumb,
    PaletteBar,
    ToneCurve,
    FacetIcon,
    RouterLink,
    StateView,
    CodePicture,
    GradeRow,
    Meanwhile,
    Pixels,
    YardstickStrip,
    UsedIn,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './reference.page.html',
  styleUrl: './reference.page.css',
})
export class ReferencePage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  readonly id = input.required<string>();
  readonly facets = FACETS;
  readonly moment = writtenMoment;
  private readonly all = this.store.selectSignal(references.all);
  readonly status = this.store.selectSignal(references.status);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayEdit = computed(() => this.person()?.role !== 'reviewer');
  readonly reference = computed(() => this.all().find(r => r.id === this.id()) ?? null);
  private readonly foundId = computed(() => this.reference()?.id);
  /** The reference as it was when the form was opened or saved: what others change meanwhile never replaces what is being written. */
  readonly opened = linkedSignal<string | undefined, Reference | null>({
    source: this.foundId,
    computation: () => untracked(this.reference),
  });
  readonly changedMeanwhile = computed(() => (this.reference()?.revision ?? 0) > (this.opened()?.revision ?? 0));
  private readonly prints = inject(Fingerprints);
  readonly print = computed(() => this.prints.all()[this.reference()?.picture.sha256 ?? ''] ?? null);
  readonly framing = computed(() => (this.print()?.framing ? describeFraming(this.print()!.framing!) : ''));
  readonly words = computed(() => (this.print() ? describeFingerprint(this.print()!) : null));
  readonly gauges = computed(() => (this.print() ? gaugesOf(this.print()!) : []));
  /** The picture this one belongs to with its variants, each with what it leads to. */
  readonly family = computed(() => {
    const here = this.reference();
    if (!here) return [];
    const first = here.origin?.kind === 'variant' ? here.origin.of : here.id;
    const known = this.all();
    const variants = known.filter(r => r.state !== 'put away' && r.origin?.kind === 'variant' && r.origin.of === first);
    const original = known.find(r => r.id === first);
    return [...(original ? [original] : []), ...variants.sort((p, q) => (p.id < q.id ? -1 : 1))].map(r => {
      const print = this.prints.all()[r.picture.sha256];
      return {
        id: r.id,
        name: r.name,
        picture: r.picture,
        made: r.origin?.kind === 'variant' ? howMade(r.origin.preparation) : 'as it came',
        style: print ? mixLook([{ parts: 1, facets: FACETS, fingerprint: print }], []).style : null,
      };
    });
  });
  readonly howMade = howMade;
  /** The facet whose places are shown over the picture. */
  readonly mapped = linkedSignal<string, Facet | null>({ source: this.id, computation: () => null });
  private readonly mapper = signal<{ sha256: string; preparer: Preparer } | null>(null);
  readonly map = computed(() => {
    const mapper = this.mapper();
    const facet = this.mapped();
    const maps = mapper?.sha256 === this.reference()?.picture.sha256 ? mapper?.preparer.original()?.maps : null;
    return maps && facet ? veilOf(maps[facet]) : null;
  });
  readonly drafted = linkedSignal<string, WordDraft | null>({ source: this.id, computation: () => null });
  /** Words of style in the form: what is kept, until it is changed here. */
  readonly subjectWords = linkedSignal(() => this.opened()?.subjectWords ?? '');
  readonly styleWords = linkedSignal<readonly string[]>(() => this.opened()?.styleWords ?? []);
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly fields = computed(() => {
    const r = this.opened()!;
    return [
      { key: 'name', label: 'Name', type: 'text', value: r.name },
      { key: 'shelf', label: 'Shelf', type: 'text', value: r.shelf },
      { key: 'subjectWords', label: 'What it shows', type: 'text', value: this.subjectWords() },
      { key: 'styleWords', label: 'How it looks', type: 'text', value: this.styleWords().join(', ') },
      { key: 'tags', label: 'Tags', type: 'text', value: r.tags.join(', ') },
      { key: 'credit', label: 'Credit', type: 'text', value: r.credit },
      { key: 'licence', label: 'Licence', type: 'text', value: r.licence },
      { key: 'licenceEnds', label: 'The licence ends', type: 'date', value: r.licenceEnds ?? '' },
    ];
  });

  readonly nearest = linkedSignal<string, NearCode | null>({ source: this.id, computation: () => null });
  readonly seeking = signal(false);

  percent(v: number): number {
    return Math.round(v * 100);
  }

  /**
   * Words from the measurement, all of them taken up; the person crosses out what is wrong. What it shows is drafted only of a proof, for there
   * the ticket tells it.
   */
  async draft(): Promise<void> {
    const draft = draftWords(this.print()!);
    this.drafted.set(draft);
    this.styleWords.update(now => [...new Set([...now, ...draft.words.map(w => w.word)])]);
    const origin = this.reference()?.origin;
    if (origin?.kind !== 'proof' || this.subjectWords()) return;
    try {
      const proof = await this.api.get<Proof>(`/proofs/${origin.proofId}`);
      this.subjectWords.set(proof.ticket.subject.wording);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  toggleWord(word: string): void {
    this.styleWords.update(now => (now.includes(word) ? now.filter(w => w !== word) : [...now, word]));
  }

  /** Shows or hides where a facet comes from; the maps are made in a worker from the working copy. */
  async showMap(r: Reference, facet: Facet): Promise<void> {
    this.mapped.update(now => (now === facet ? null : facet));
    if (this.mapper()?.sha256 === r.picture.sha256) return;
    this.mapper()?.preparer.close();
    const preparer = new Preparer();
    this.mapper.set({ sha256: r.picture.sha256, preparer });
    try {
      await preparer.open(r.picture.sha256);
    } catch (error) {
      this.mapper.set(null);
      this.messages.failed(error);
    }
  }

  constructor() {
    effect(() => this.prints.want(this.family().map(v => v.picture.sha256)));
    inject(DestroyRef).onDestroy(() => this.mapper()?.preparer.close());
    inject(Keys).declare([{ key: 'G', does: 'Into the galley, or out', run: () => this.carry() }]);
  }

  private took(saved: Reference): void {
    this.store.dispatch(references.actions.saved({ items: [saved] }));
    this.opened.set(saved);
  }

  async setGrade(r: Reference, grade: number | null): Promise<void> {
    try {
      const saved = await this.api.send<Reference>('PATCH', `/references/${r.id}`, { grade }, r.revision);
      this.took(saved);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  /** The one code that comes closest; it is painted and measured on the server, which takes a second or two. */
  async seekCode(r: Reference): Promise<void> {
    this.seeking.set(true);
    try {
      this.nearest.set(await this.api.send<NearCode>('POST', '/codes/nearest', { sha256: r.picture.sha256 }));
    } catch (error) {
      this.messages.failed(error);
    } finally {
      this.seeking.set(false);
    }
  }

  carry(): void {
    const r = this.reference();
    if (r)
      this.store.dispatch(
        galleyActions.put({ thing: { kind: 'reference', id: r.id, name: r.name, pictureSha: r.picture.sha256 } }),
      );
  }

  mixIt(): void {
    void this.router.navigate(['/mix'], { queryParams: { from: this.id() } });
  }

  async putAway(r: Reference): Promise<void> {
    try {
      await this.api.send('PATCH', `/references/${r.id}`, { state: 'put away' }, r.revision);
      this.store.dispatch(references.actions.removed({ id: r.id }));
      this.messages.done(`“${r.name}” is put away. Looks that use it stay as they are.`);
      await this.router.navigateByUrl('/shelf');
    } catch (error) {
      this.messages.failed(error);
    }
  }

  async save(event: Event): Promise<void> {
    this.fault.set(null);
    const written = Object.fromEntries(new FormData(event.target as HTMLFormElement)) as Record<string, string>;
    const given = { ...written, styleWords: splitWords(written['styleWords']), tags: splitWords(written['tags']) };
    try {
      const saved = await this.api.send<Reference>(
        'PATCH',
        `/references/${this.id()}`,
        await referencePatchSchema.validate(given),
        this.opened()!.revision,
      );
      this.took(saved);
      this.messages.done('Kept.');
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else {
        this.fault.set({ field: problemOf(error).field, message: problemOf(error).detail });
        if (error instanceof ApiError && error.document.code === 'changedMeanwhile')
          this.store.dispatch(references.actions.load());
      }
    }
  }
}
