import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  lookInputSchema,
  lookVersionInputSchema,
  ValidationError,
  type Look,
  type LookSource,
  type LookVersion,
} from '@zinc/contract';
import {
  decodeStyle,
  FACETS,
  labOfHex,
  mixLook,
  paletteFromColours,
  proposeLook,
  styleOfCode,
  type Drift,
  type Facet,
  type Fingerprint,
  type MixedLook,
  type MixSource,
} from '@zinc/core';
import { Slider } from 'primeng/slider';
import { Api, ApiError, problemOf } from '../shared/api';
import { FacetGauges } from '../shared/facet-gauges';
import { FacetIcon } from '../shared/facet-icon';
import { galleyActions } from '../shared/galley.store';
import { Keys } from '../shared/keys';
import { Messages } from '../shared/messages';
import { PaletteBar } from '../shared/palette-bar';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';
import { CodePicture } from '../shelf/codes/code-picture';
import { codes, references } from '../shelf/shelf.store';
import {
  BRAND_SOURCE,
  codeSourceOf,
  draftOf,
  EMPTY_DRAFT,
  FIRST_PARTS,
  sourceOf,
  splitWords,
  withoutColours,
  type Draft,
} from './draft';
import { InkBar } from './ink-bar';
import { looks } from './looks.store';
import { SourcePicker } from './source-picker';
import { ToneCurve } from './tone-curve';
import { Usage, usageLine, usageOf } from './usage';
import { Yardstick } from './yardstick';

function isCode(text: string): boolean {
  try {
    decodeStyle(text);
    return true;
  } catch {
    return false;
  }
}

/** The mixing bench: sources as a recipe beside the ink bar, the yardstick repainted while you drag, what it aims at. */
@Component({
  selector: 'zs-mix',
  imports: [
    FormsModule,
    RouterLink,
    Slider,
    InkBar,
    FacetIcon,
    FacetGauges,
    PaletteBar,
    Thumb,
    Yardstick,
    ToneCurve,
    SourcePicker,
    CodePicture,
    StateView,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './mix.page.html',
  styleUrl: './mix.page.css',
})
export class MixPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  readonly facetNames = FACETS;

  /** The look to mix on; nothing for a new one. */
  readonly id = input<string>();
  /** References, by id, and style codes, by text, to start a new look from; commas between. */
  readonly from = input<string>();

  readonly allReferences = this.store.selectSignal(references.all);
  readonly allCodes = this.store.selectSignal(codes.all);
  readonly referencesStatus = this.store.selectSignal(references.status);
  readonly allLooks = this.store.selectSignal(looks.all);
  readonly looksStatus = this.store.selectSignal(looks.status);
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayEdit = computed(() => this.person()?.role !== 'reviewer');

  readonly draft = signal<Draft>(EMPTY_DRAFT);
  readonly name = signal('');
  readonly note = signal('');
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly saving = signal(false);
  readonly picking = signal(false);
  /** Why the sources are mixed as was proposed; empty when nothing was, or when it was changed since. */
  readonly reasons = signal<string[]>([]);
  /** A saved version shown beside the draft. */
  readonly beside = signal<LookVersion | null>(null);
  readonly drift = signal<Drift | null>(null);
  readonly holds = signal<number | null>(null);
  private readonly past = signal<Draft[]>([]);
  private readonly future = signal<Draft[]>([]);
  private kept: Draft = EMPTY_DRAFT;
  private opened = '';
  /** The version that the draft started from; what others save meanwhile is told, never passed over. */
  readonly basedOn = signal(0);

  readonly look = computed(() => this.allLooks().find(l => l.id === this.id()) ?? null);
  readonly canUndo = computed(() => this.past().length > 0);
  readonly canRedo = computed(() => this.future().length > 0);
  readonly totalParts = computed(() => this.draft().sources.reduce((sum, s) => sum + s.parts, 0));
  readonly brandPalette = computed(() => {
    const wanted = this.house()?.brand?.colours.filter(c => !c.never) ?? [];
    return wanted.length > 0 ? paletteFromColours(wanted.map(c => ({ ...labOfHex(c.hex), role: c.role }))) : null;
  });
  readonly never = computed(() =>
    (this.house()?.brand?.colours ?? []).filter(c => c.never).map(c => ({ ...labOfHex(c.hex), radius: c.tolerance / 100 })),
  );
  readonly mixture = computed((): MixedLook | null => this.mixOf(this.draft()));
  /** What the style codes of this bench measure, by their text. */
  private readonly measuredCodes = signal<Record<string, Fingerprint>>({});
  readonly sameAsSaved = computed(() => {
    const latest = this.look()?.latest;
    return latest !== undefined && JSON.stringify(draftOf(latest)) === JSON.stringify(this.draft());
  });
  readonly inks = computed(() =>
    this.draft().sources.map(s => {
      const palette = this.paletteOf(s);
      const main = palette.filter(c => c.L < 0.85).sort((p, q) => q.share - p.share)[0] ?? palette[0];
      return {
        name: s.name,
        parts: s.parts,
        colour: main ? `oklab(${main.L} ${main.a} ${main.b})` : '#8f9193',
      };
    }),
  );
  readonly warnings = computed(() => this.findWarnings());
  readonly pressDefault = computed(() => {
    const setting = this.house()?.presses[0]?.capabilities?.settings.find(s => s.key === 'strength');
    return typeof setting?.default === 'number' ? setting.default : null;
  });
  readonly allowed = computed(() => this.house()?.brand?.allowedDrift ?? 0.4);

  private readonly usage = inject(Usage);
  /** How the look did over all its versions. */
  readonly did = computed(() => (this.look() ? usageOf(this.usage.all(), this.look()!.id) : null));
  readonly usageLine = usageLine;

  didIn(version: number): string {
    return usageLine(usageOf(this.usage.all(), this.look()!.id, version));
  }

  constructor() {
    void this.usage.refresh();
    const keys = inject(Keys);
    keys.declare([
      { key: 'Ctrl Z', does: 'Undo', run: () => this.undo() },
      { key: 'Ctrl Y', does: 'Redo', run: () => this.redo() },
      { key: 'C', does: 'The manner without the colours', run: () => this.dropColours() },
      { key: 'G', does: 'This look into the galley', run: () => this.carry() },
    ]);
    effect(() => {
      const id = this.id();
      const from = this.from();
      const look = this.look();
      const known = this.allReferences();
      const key = id ?? `new:${from ?? ''}`;
      if (this.opened === key || (id ? !look : from && known.length === 0 && this.referencesStatus() !== 'ready')) return;
      this.opened = key;
      untracked(() => (look ? this.openLook(look) : this.openNew(from)));
    });
    effect(() => {
      const measured = this.measuredCodes();
      const missing = this.draft().sources.filter(s => s.kind === 'ownCode' && !measured[s.id]);
      if (missing.length > 0) void this.measureCodes(missing.map(s => s.id));
    });
    inject(DestroyRef).onDestroy(() => this.past.set([]));
  }

  private openLook(look: Look): void {
    this.reset(draftOf(look.latest));
    this.basedOn.set(look.latest.version);
    this.name.set(look.name);
  }

  private openNew(from: string | undefined): void {
    const ids = from?.split(',') ?? [];
    const sources = ids.flatMap(i => {
      const reference = this.allReferences().find(r => r.id === i);
      return reference ? [sourceOf(reference)] : isCode(i) ? [codeSourceOf(i, this.nameOfCode(i))] : [];
    });
    this.reset({ ...EMPTY_DRAFT, sources });
    this.basedOn.set(0);
    this.name.set('');
  }

  private reset(draft: Draft): void {
    this.kept = draft;
    this.past.set([]);
    this.future.set([]);
    this.beside.set(null);
    this.fault.set(null);
    this.reasons.set([]);
    this.note.set('');
    this.draft.set(draft);
  }

  private nameOfCode(text: string): string {
    return this.allCodes().find(c => c.text === text)?.name ?? '';
  }

  private readonly asked = new Set<string>();

  /** Fetches what codes measure; each is asked for once. */
  private async measureCodes(texts: string[]): Promise<void> {
    const fresh = texts.filter(t => !this.asked.has(t));
    if (fresh.length === 0) return;
    fresh.forEach(t => this.asked.add(t));
    try {
      const { items } = await this.api.send<{ items: Record<string, Fingerprint> }>('POST', '/codes/fingerprints', {
        texts: fresh,
      });
      this.measuredCodes.update(now => ({ ...now, ...items }));
    } catch (error) {
      fresh.forEach(t => this.asked.delete(t));
      this.messages.failed(error);
    }
  }

  private paletteOf(s: LookSource) {
    if (s.kind === 'palette') return this.brandPalette() ?? [];
    if (s.kind === 'ownCode') return styleOfCode(s.id).palette;
    return this.referenceOf(s)?.fingerprint.colour.palette ?? [];
  }

  referenceOf(s: LookSource) {
    return this.allReferences().find(r => r.picture.sha256 === s.sha256) ?? null;
  }

  private mixOf({ sources, words }: Draft): MixedLook | null {
    const list: MixSource[] = [];
    for (const s of sources) {
      const { parts, facets } = s;
      if (s.kind === 'palette') {
        list.push({ parts, facets, palette: this.brandPalette() ?? undefined });
        continue;
      }
      const fingerprint = s.kind === 'ownCode' ? this.measuredCodes()[s.id] : this.referenceOf(s)?.fingerprint;
      if (!fingerprint) return null;
      list.push({ parts, facets, fingerprint, style: s.kind === 'ownCode' ? styleOfCode(s.id) : undefined });
    }
    return list.some(s => s.parts > 0) ? mixLook(list, words) : null;
  }

  private findWarnings(): { text: string; mend?: string; run?: () => void }[] {
    const { sources, words } = this.draft();
    const out: { text: string; mend?: string; run?: () => void }[] = [];
    const latest = this.look()?.latest;
    if (latest && latest.version > this.basedOn())
      out.push({
        text: `${latest.author} saved version ${latest.version} meanwhile. Yours is still in hand here.`,
        mend: 'Lay it beside',
        run: () => void this.compare(String(latest.version)),
      });
    const today = new Date().toISOString().slice(0, 10);
    for (const s of sources) {
      const r = this.referenceOf(s);
      if (r?.licenceEnds && r.licenceEnds < today)
        out.push({ text: `The licence of ${s.name} has ended. A run with this look will be stopped by preflight.` });
      if (s.facets.length === 0 && s.parts > 0)
        out.push({
          text: `${s.name} gives no facet, so its parts change nothing.`,
          mend: 'Take it out',
          run: () => this.remove(sources.indexOf(s)),
        });
      for (const word of words)
        if (s.name.toLowerCase().includes(word.toLowerCase()))
          out.push({
            text: `“${word}” says what ${s.name} already gives.`,
            mend: 'Drop the word',
            run: () => this.change({ words: words.filter(w => w !== word) }),
          });
    }
    for (const facet of this.facetNames)
      if (sources.length > 0 && !sources.some(s => s.parts > 0 && s.facets.includes(facet)))
        out.push({ text: `No source gives ${facet}, so subjects keep their own.` });
    return out;
  }

  // --- changes, each undoable

  /** Changes the draft for good: one step of undo. */
  change(part: Partial<Draft>): void {
    this.draft.update(d => ({ ...d, ...part }));
    this.reasons.set([]);
    this.keep();
  }

  /** Keeps what a drag came to as one step of undo. */
  keep(): void {
    const now = this.draft();
    if (JSON.stringify(now) === JSON.stringify(this.kept)) return;
    this.past.update(p => [...p.slice(-99), this.kept]);
    this.future.set([]);
    this.kept = now;
  }

  undo(): void {
    const before = this.past().at(-1);
    if (!before) return;
    this.past.update(p => p.slice(0, -1));
    this.future.update(f => [...f, this.draft()]);
    this.kept = before;
    this.draft.set(before);
  }

  redo(): void {
    const after = this.future().at(-1);
    if (!after) return;
    this.future.update(f => f.slice(0, -1));
    this.past.update(p => [...p, this.draft()]);
    this.kept = after;
    this.draft.set(after);
  }

  setParts(parts: number[]): void {
    this.draft.update(d => ({ ...d, sources: d.sources.map((s, i) => ({ ...s, parts: parts[i] })) }));
  }

  setPart(i: number, event: Event): void {
    const value = Number((event.target as HTMLInputElement).value);
    const valid = Number.isInteger(value) && value >= 0 && value <= 99;
    this.fault.set(valid ? null : { field: `parts${i}`, message: 'Parts are whole numbers from 0 to 99.' });
    if (valid) this.change({ sources: this.draft().sources.map((s, k) => (k === i ? { ...s, parts: value } : s)) });
  }

  toggle(i: number, facet: Facet): void {
    this.change({
      sources: this.draft().sources.map((s, k) =>
        k === i
          ? {
              ...s,
              facets: s.facets.includes(facet)
                ? s.facets.filter(f => f !== facet)
                : FACETS.filter(f => f === facet || s.facets.includes(f)),
            }
          : s,
      ),
    });
  }

  remove(i: number): void {
    this.change({ sources: this.draft().sources.filter((_, k) => k !== i) });
  }

  add(ids: string[]): void {
    const have = new Set(this.draft().sources.map(s => s.id));
    const more = this.allReferences()
      .filter(r => ids.includes(r.id) && !have.has(r.id))
      .map(sourceOf);
    for (const c of this.allCodes())
      if (c.kind === 'own' && ids.includes(c.text) && !have.has(c.text)) more.push(codeSourceOf(c.text, c.name));
    if (ids.includes('brand') && !have.has('brand')) more.push({ ...BRAND_SOURCE, parts: FIRST_PARTS });
    if (more.length > 0) this.change({ sources: [...this.draft().sources, ...more] });
    this.picking.set(false);
  }

  /** References and codes that could be proposed about: those whose fingerprints are known. */
  private measuredSources(): { source: LookSource; fingerprint: Fingerprint }[] {
    return this.draft().sources.flatMap(source => {
      const fingerprint = source.kind === 'ownCode' ? this.measuredCodes()[source.id] : this.referenceOf(source)?.fingerprint;
      return fingerprint ? [{ source, fingerprint }] : [];
    });
  }

  readonly mayPropose = computed(() => this.measuredSources().length > 1);

  /** Parts, facets and strength from how well the sources agree; one step of undo. Where the brand gives colour it goes on giving it. */
  propose(): void {
    const measured = this.measuredSources();
    const byBrand = this.draft().sources.some(s => s.kind === 'palette' && s.parts > 0);
    const { sources, strength, reasons } = proposeLook(
      measured.map(m => ({ name: m.source.name, fingerprint: m.fingerprint })),
      byBrand ? FACETS.filter(f => f !== 'colour') : FACETS,
    );
    this.change({
      strength,
      sources: this.draft().sources.map(s => {
        const k = measured.findIndex(m => m.source === s);
        return k < 0 ? s : { ...s, ...sources[k] };
      }),
    });
    this.reasons.set(reasons);
  }

  dropColours(): void {
    this.change(withoutColours(this.draft(), this.brandPalette() !== null));
  }

  slide(strength: number | undefined): void {
    if (strength !== undefined) this.draft.update(d => ({ ...d, strength }));
  }

  setWords(key: 'words' | 'avoid', event: Event): void {
    this.change({ [key]: splitWords((event.target as HTMLInputElement).value) });
  }

  carry(): void {
    const look = this.look();
    if (!look) return this.messages.done('Save the look first; then it can be carried.');
    const sha = look.latest.sources.find(s => s.sha256)?.sha256 ?? null;
    this.store.dispatch(galleyActions.put({ thing: { kind: 'look', id: look.id, name: look.name, pictureSha: sha } }));
  }

  async compare(version: string): Promise<void> {
    const look = this.look();
    if (!look || version === '') return this.beside.set(null);
    try {
      this.beside.set(await this.api.get<LookVersion>(`/looks/${look.id}/versions/${version}`));
    } catch (error) {
      this.messages.failed(error);
    }
  }

  /** Goes back to the version shown beside; the draft before is one undo away. */
  takeBeside(): void {
    const v = this.beside();
    if (v) this.change(draftOf(v));
    this.beside.set(null);
  }

  /** Someone saved meanwhile: theirs can be seen beside, ours stays in hand and may be saved after it. */
  private async seeTheirs(id: string): Promise<void> {
    try {
      const theirs = await this.api.get<Look>(`/looks/${id}`);
      this.store.dispatch(looks.actions.saved({ items: [theirs] }));
      this.basedOn.set(theirs.latest.version);
    } catch {
      // The next save asks again.
    }
  }

  async save(): Promise<void> {
    this.fault.set(null);
    this.saving.set(true);
    const look = this.look();
    try {
      const body = { ...this.draft(), note: this.note() };
      const saved = look
        ? await this.api.send<Look>(
            'POST',
            `/looks/${look.id}/versions`,
            await lookVersionInputSchema.validate(body),
            this.basedOn(),
          )
        : await this.api.send<Look>('POST', '/looks', await lookInputSchema.validate({ ...body, name: this.name() }));
      this.store.dispatch(looks.actions.saved({ items: [saved] }));
      this.note.set('');
      this.messages.done(`“${saved.name}” is saved as version ${saved.latest.version}.`);
      this.opened = saved.id;
      this.basedOn.set(saved.latest.version);
      if (!look) void this.router.navigate(['/mix', saved.id]);
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else {
        const p = problemOf(error);
        this.fault.set({ field: p.field, message: p.detail });
        if (look && error instanceof ApiError && p.code === 'changedMeanwhile') await this.seeTheirs(look.id);
      }
    } finally {
      this.saving.set(false);
    }
  }
}
