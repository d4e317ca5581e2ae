import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  lookInputSchema,
  lookVersionInputSchema,
  ValidationError,
  type Look,
  type LookRange,
  type LookSource,
  type LookVersion,
} from '@zinc/contract';
import {
  avoidedColours,
  decodeStyle,
  describeFraming,
  describeFingerprint,
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
  type PaletteColour,
  type WordSource,
} from '@zinc/core';
import { Slider } from 'primeng/slider';
import { Api, ApiError, problemOf } from '../shared/api';
import type { Status } from '../shared/collection';
import { FacetGauges } from '../shared/facet-gauges';
import { FacetIcon } from '../shared/facet-icon';
import { Fingerprints } from '../shared/fingerprints';
import { galleyActions } from '../shared/galley.store';
import { History } from '../shared/history';
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
  brandPaletteOf,
  codeSourceOf,
  coloursSource,
  draftOf,
  EMPTY_DRAFT,
  sourceOf,
  splitWords,
  withoutColours,
  wordSourceOf,
  type Draft,
} from './draft';
import { InkBar } from './ink-bar';
import { LayOn, type Laid } from './lay-on';
import { looks } from './looks.store';
import type { Content } from './painting';
import { SourcePicker } from './source-picker';
import { ToneCurve } from './tone-curve';
import { Usage, usageLine, usageOf } from './usage';
import { Versions } from './versions';
import { warningsOf, type Warning } from './warnings';
import { wordStyles } from './word-styles.store';
import { Yardstick } from './yardstick';

function isCode(text: string): boolean {
  try {
    decodeStyle(text);
    return true;
  } catch {
    return false;
  }
}

/** Avoid words of the word styles that have a part. */
function avoidedBy(sources: LookSource[]): string[] {
  return sources.flatMap(s => (s.parts > 0 ? (s.phrases?.avoid ?? []) : []));
}

/** Colours of one's own, each of them taking as much. */
function paletteOfColours(colours: string[]): PaletteColour[] {
  return paletteFromColours(colours.map(hex => ({ ...labOfHex(hex), role: '' })));
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
    LayOn,
    Versions,
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
  private readonly fingerprints = inject(Fingerprints);
  readonly facetNames = FACETS;

  /** The look to mix on; nothing for a new one. */
  readonly id = input<string>();
  /** References, by id, and style codes, by text, to start a new look from; commas between. */
  readonly from = input<string>();
  /** A version to begin a new look from: the id of its look, a colon, its number. */
  readonly begin = input<string>();

  readonly allReferences = this.store.selectSignal(references.all);
  readonly allCodes = this.store.selectSignal(codes.all);
  private readonly wordStylesStatus = this.store.selectSignal(wordStyles.status);
  readonly referencesStatus = this.store.selectSignal(references.status);
  readonly allWordStyles = this.store.selectSignal(wordStyles.all);
  readonly allLooks = this.store.selectSignal(looks.all);
  readonly looksStatus = this.store.selectSignal(looks.status);
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayEdit = computed(() => this.person()?.role !== 'reviewer');

  readonly history = new History<Draft>(EMPTY_DRAFT);
  readonly draft = this.history.now;
  readonly name = signal('');
  readonly note = signal('');
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly saving = signal(false);
  readonly picking = signal(false);
  /** Why the sources are mixed as was proposed; empty when nothing was, or when it was changed since. */
  readonly reasons = signal<string[]>([]);
  /** A saved version shown beside what is in hand, and one shown in place of it. */
  readonly beside = signal<LookVersion | null>(null);
  readonly facing = signal<LookVersion | null>(null);
  /** Subjects as they are, without any style. */
  readonly plain = signal(false);
  readonly laidOn = signal<Content | null>(null);
  readonly recommended = signal<LookRange[]>([]);
  readonly goodStrengths = computed(() => this.recommended().filter(r => r.setting === 'strength'));
  private readonly yardstick = viewChild(Yardstick);
  readonly leaks = signal<readonly { id: string; share: number }[]>([]);
  /** The version that this new look is begun from. */
  readonly begunFrom = signal<{ lookId: string; name: string; version: number } | null>(null);
  readonly drift = signal<Drift | null>(null);
  readonly holds = signal<number | null>(null);
  private opened = '';
  /** The version that the draft started from; what others save meanwhile is told, never passed over. */
  readonly basedOn = signal(0);

  readonly look = computed(() => this.allLooks().find(l => l.id === this.id()) ?? null);
  readonly totalParts = computed(() => this.draft().sources.reduce((sum, s) => sum + s.parts, 0));
  readonly brandPalette = computed(() => brandPaletteOf(this.house()));
  /** Colours that must not appear: the brand's, and those that avoid words name. */
  readonly never = computed(() => {
    const { brand } = this.house() ?? {};
    const named = avoidedColours([...this.draft().avoid, ...avoidedBy(this.draft().sources), ...(brand?.avoid ?? [])]);
    return [
      ...(brand?.colours ?? []).filter(c => c.never).map(c => ({ ...labOfHex(c.hex), radius: c.tolerance / 100 })),
      ...named.map(c => ({ ...labOfHex(c.hex), radius: c.radius })),
    ];
  });
  readonly mixture = computed((): MixedLook | null => this.mixOf(this.draft()));
  /** What the yardstick shows: what is in hand, or a version in place of it. */
  readonly painted = computed(() => {
    const v = this.facing();
    const m = this.mixture();
    if (v) return { style: v.style, strength: v.strength, target: v.target };
    return m && { style: m.style, strength: this.draft().strength, target: m.target };
  });
  /** Palettes of sources that bring a picture but give no colour. */
  readonly withheld = computed(() =>
    this.draft().sources.flatMap(s => {
      const f = s.parts > 0 && !s.facets.includes('colour') ? this.fingerprintOf(s) : undefined;
      return f ? [{ id: s.id, palette: f.colour.palette }] : [];
    }),
  );
  /** What each source gives, for the facets it gives, beside the target. */
  readonly giving = computed(() => {
    const target = this.mixture()?.target;
    const rows = this.draft().sources.flatMap(s => {
      const f = this.fingerprintOf(s);
      if (s.parts === 0 || (!f && s.kind !== 'palette')) return [];
      return [{ name: s.name, palette: s.facets.includes('colour') ? this.paletteOf(s) : [], facets: s.facets, print: f }];
    });
    return FACETS.map(facet => ({
      facet,
      target: target ? describeFingerprint(target)[facet] : '',
      from: rows
        .filter(r => r.facets.includes(facet))
        .map(r => ({
          name: r.name,
          palette: facet === 'colour' ? r.palette : [],
          words: r.print ? describeFingerprint(r.print)[facet] : '',
        })),
    }));
  });
  readonly framing = computed(() => {
    const framing = this.mixture()?.style.framing;
    return framing ? describeFraming(framing) : '';
  });
  readonly defaults = computed(() => this.allWordStyles().filter(w => w.byDefault));
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
  readonly warnings = computed((): Warning[] => {
    const names = new Map(this.draft().sources.map(s => [s.id, s.name]));
    const found = warningsOf({
      draft: this.draft(),
      mixture: this.mixture(),
      fingerprintOf: s => this.fingerprintOf(s),
      referenceOf: s => this.referenceOf(s),
      never: this.never(),
      holds: this.holds(),
      leaks: this.leaks().flatMap(l => (names.has(l.id) ? [{ ...l, name: names.get(l.id)! }] : [])),
      hasBrand: this.brandPalette() !== null,
      today: new Date().toISOString().slice(0, 10),
    });
    return found;
  });
  /** What someone else saved while this is in hand. */
  readonly meanwhile = computed(() => {
    const latest = this.look()?.latest;
    return latest && latest.version > this.basedOn() ? latest : null;
  });
  readonly pressDefault = computed(() => {
    const setting = this.house()?.presses[0]?.capabilities?.settings.find(s => s.key === 'strength');
    return typeof setting?.default === 'number' ? setting.default : null;
  });
  readonly allowed = computed(() => this.house()?.brand?.allowedDrift ?? 0.4);

  private readonly usage = inject(Usage);
  /** How the look did over all its versions. */
  readonly did = computed(() => (this.look() ? usageOf(this.usage.all(), this.look()!.id) : null));
  readonly usageLine = usageLine;

  constructor() {
    void this.usage.refresh();
    const keys = inject(Keys);
    keys.declare([
      { key: 'Ctrl Z', does: 'Undo', run: () => this.history.undo() },
      { key: 'Ctrl Y', does: 'Redo', run: () => this.history.redo() },
      { key: 'C', does: 'The manner without the colours', run: () => this.dropColours() },
      { key: 'B', does: 'Without any style, for comparison, and back', run: () => this.plain.update(p => !p) },
      { key: 'G', does: 'This look into the galley', run: () => this.carry() },
    ]);
    effect(() => {
      const id = this.id();
      const from = this.from();
      const look = this.look();
      const begin = this.begin();
      const key = id ?? `new:${from ?? ''}${begin ?? ''}`;
      const pending = (status: Status): boolean => status === 'idle' || status === 'loading';
      // A list that is still on its way may hold what was asked for.
      if (this.opened === key || (id ? !look : from && pending(this.referencesStatus()))) return;
      if (!id && pending(this.wordStylesStatus())) return;
      this.opened = key;
      untracked(() => (look ? this.openLook(look) : begin ? void this.openFrom(begin) : this.openNew(from)));
    });
    effect(() => {
      const measured = this.measuredCodes();
      const missing = this.draft().sources.filter(s => s.kind === 'ownCode' && !measured[s.id]);
      if (missing.length > 0) void this.measureCodes(missing.map(s => s.id));
    });
    effect(() => this.fingerprints.want(this.draft().sources.flatMap(s => (s.sha256 ? [s.sha256] : []))));
  }

  private openLook(look: Look): void {
    this.reset(draftOf(look.latest));
    this.basedOn.set(look.latest.version);
    this.name.set(look.name);
  }

  /** Begins a new look from a version of another; the first version of it says so. */
  private async openFrom(begin: string): Promise<void> {
    const [lookId, version] = begin.split(':');
    try {
      const [look, old] = await Promise.all([
        this.api.get<Look>(`/looks/${lookId}`),
        this.api.get<LookVersion>(`/looks/${lookId}/versions/${version}`),
      ]);
      this.reset(draftOf(old));
      this.basedOn.set(0);
      this.name.set('');
      this.begunFrom.set({ lookId, name: look.name, version: old.version });
    } catch (error) {
      this.messages.failed(error);
    }
  }

  private openNew(from: string | undefined): void {
    const ids = from?.split(',') ?? [];
    const sources = ids.flatMap(i => {
      const reference = this.allReferences().find(r => r.id === i);
      const words = this.allWordStyles().find(w => w.id === i);
      if (words) return [wordSourceOf(words)];
      return reference ? [sourceOf(reference)] : isCode(i) ? [codeSourceOf(i, this.nameOfCode(i))] : [];
    });
    // What is on by default stands among the sources from the start, to be seen and taken out.
    this.reset({
      ...EMPTY_DRAFT,
      sources: [
        ...sources,
        ...this.defaults()
          .filter(w => !ids.includes(w.id))
          .map(wordSourceOf),
      ],
    });
    this.basedOn.set(0);
    this.name.set('');
  }

  private reset(draft: Draft): void {
    this.history.reset(draft);
    this.beside.set(null);
    this.facing.set(null);
    this.begunFrom.set(null);
    this.fault.set(null);
    this.reasons.set([]);
    this.note.set('');
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

  paletteOf(s: LookSource): PaletteColour[] {
    if (s.kind === 'palette') return s.colours ? paletteOfColours(s.colours) : (this.brandPalette() ?? []);
    if (s.kind === 'wordStyle') return [];
    if (s.kind === 'ownCode') return styleOfCode(s.id).palette;
    return this.referenceOf(s)?.palette ?? this.fingerprints.all()[s.sha256 ?? '']?.colour.palette ?? [];
  }

  referenceOf(s: LookSource) {
    return this.allReferences().find(r => r.picture.sha256 === s.sha256) ?? null;
  }

  /** What a source measures, as soon as it is known. */
  private fingerprintOf(s: LookSource): Fingerprint | undefined {
    return s.kind === 'ownCode' ? this.measuredCodes()[s.id] : s.sha256 ? this.fingerprints.all()[s.sha256] : undefined;
  }

  private mixOf({ sources, words, avoid }: Draft): MixedLook | null {
    const list: MixSource[] = [];
    const said: WordSource[] = [];
    for (const s of sources) {
      const { parts, facets } = s;
      if (s.kind === 'wordStyle') {
        said.push({ parts, words: [...(s.phrases?.before ?? []), ...(s.phrases?.after ?? [])] });
        continue;
      }
      if (s.kind === 'palette') {
        list.push({ parts, facets, palette: this.paletteOf(s) });
        continue;
      }
      const fingerprint = this.fingerprintOf(s);
      if (!fingerprint) return null;
      if (s.kind === 'ownCode') list.push({ parts, facets, fingerprint, style: styleOfCode(s.id) });
      else list.push({ parts, facets, framing: s.framing, fingerprint });
    }
    return [...list, ...said].some(s => s.parts > 0) ? mixLook(list, words, said, [...avoid, ...avoidedBy(sources)]) : null;
  }

  // --- changes, each undoable

  /** Changes the draft for good: one step of undo. */
  change(part: Partial<Draft>): void {
    this.facing.set(null);
    this.history.change({ ...this.draft(), ...part });
    this.reasons.set([]);
  }

  /** Mends what a warning is about, in one step. */
  mend(w: Warning): void {
    if (w.mend?.to) this.change(w.mend.to);
    else if (w.mend?.link) void this.router.navigate(w.mend.link);
  }

  setParts(parts: number[]): void {
    this.facing.set(null);
    const d = this.draft();
    this.history.glide({ ...d, sources: d.sources.map((s, i) => ({ ...s, parts: parts[i] })) });
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

  /** How a reference sits on its sheet, in words; empty when there is nothing that a look could take. */
  framingOf(s: LookSource): string {
    const framing = s.kind === 'reference' ? this.fingerprintOf(s)?.framing : null;
    return framing ? describeFraming(framing) : '';
  }

  toggleFraming(i: number): void {
    this.change({
      sources: this.draft().sources.map((s, k) => (k === i ? { ...s, framing: s.framing ? undefined : true } : s)),
    });
  }

  remove(i: number): void {
    this.change({ sources: this.draft().sources.filter((_, k) => k !== i) });
  }

  add(ids: string[]): void {
    const have = new Set(this.draft().sources.map(s => s.id));
    const fresh = ids.filter(id => !have.has(id));
    const more = this.allReferences()
      .filter(r => fresh.includes(r.id))
      .map(sourceOf);
    for (const c of this.allCodes()) if (c.kind === 'own' && fresh.includes(c.text)) more.push(codeSourceOf(c.text, c.name));
    for (const w of this.allWordStyles()) if (fresh.includes(w.id)) more.push(wordSourceOf(w));
    if (fresh.includes('brand')) more.push(BRAND_SOURCE);
    if (fresh.includes('own colours')) more.push(coloursSource(['#f3eee2', '#23262b', '#8e2a4b']));
    if (more.length > 0) this.change({ sources: [...this.draft().sources, ...more] });
    this.picking.set(false);
  }

  phrasesOf({ phrases }: LookSource): string {
    return [...(phrases?.before ?? []), '…', ...(phrases?.after ?? [])].join(', ');
  }

  /** Lays a subject or a picture in the middle of the yardstick. */
  layOn(laid: Laid | null): void {
    if (laid?.picture) this.yardstick()?.tell(laid.picture.key, laid.picture);
    this.laidOn.set(laid?.content ?? null);
  }

  setColour(i: number, k: number, hex: string | null): void {
    const sources = this.draft().sources.map((s, n) => {
      if (n !== i) return s;
      const colours = [...(s.colours ?? [])];
      if (hex === null) colours.splice(k, 1);
      else colours[k] = hex;
      return { ...s, colours };
    });
    if ((sources[i].colours?.length ?? 0) > 0) this.change({ sources });
  }

  /** Moves a source up or down: word styles are said in their order. */
  reorder(i: number, by: number): void {
    const sources = [...this.draft().sources];
    if (i + by < 0 || i + by >= sources.length) return;
    sources.splice(i + by, 0, ...sources.splice(i, 1));
    this.change({ sources });
  }

  /** References and codes that could be proposed about: those whose fingerprints are known. */
  private measuredSources(): { source: LookSource; fingerprint: Fingerprint }[] {
    return this.draft().sources.flatMap(source => {
      const fingerprint = this.fingerprintOf(source);
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
    if (strength === undefined) return;
    this.facing.set(null);
    this.history.glide({ ...this.draft(), strength });
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

  /** Shows a version beside what is in hand, or in place of it; null puts it away. */
  async show(where: 'beside' | 'facing', version: number | null): Promise<void> {
    const look = this.look();
    if (!look || version === null) return this[where].set(null);
    try {
      this[where].set(await this.api.get<LookVersion>(`/looks/${look.id}/versions/${version}`));
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
        : await this.api.send<Look>(
            'POST',
            '/looks',
            await lookInputSchema.validate(
              { ...body, name: this.name(), begunFrom: this.begunFrom() ?? undefined },
              { stripUnknown: true },
            ),
          );
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
