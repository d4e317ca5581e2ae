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
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { treatmentInputSchema, ValidationError, variantInputSchema, type KeptTreatment, type Reference } from '@zinc/contract';
import {
  FACETS,
  isIdle,
  isUntreated,
  mixLook,
  NO_TREATMENT,
  type Box,
  type Fingerprint,
  type Preparation,
  type Recolouring,
  type Stroke,
  type Style,
  type Treatment,
} from '@zinc/core';
import { Api, messageOf, problemOf } from '../../shared/api';
import { FacetGauges } from '../../shared/facet-gauges';
import { History } from '../../shared/history';
import { Keys } from '../../shared/keys';
import { Messages } from '../../shared/messages';
import { PaletteBar } from '../../shared/palette-bar';
import { Pixels } from '../../shared/pixels';
import { sessionFeature } from '../../shared/session.store';
import { Setting } from '../../shared/setting';
import { StateView } from '../../shared/state';
import { references } from '../shelf.store';
import { YardstickStrip } from '../yardstick-strip';
import { PictureStage, type Tool } from './picture-stage';
import { Preparer } from './preparer';
import type { Shown } from './preparing';

interface Trial {
  key: string;
  /** Told apart from what was painted under the same key before. */
  stamp: string;
  name: string;
  small: Shown;
  style: Style;
  preparation: Preparation;
}

const WHOLE: Box = { x: 0, y: 0, width: 1, height: 1 };
const PAUSE_MS = 350;

/** The look that a picture leads to by itself. */
function styleOf(fingerprint: Fingerprint): Style {
  return mixLook([{ parts: 1, facets: FACETS, fingerprint }], []).style;
}

/** Prepares a reference without harming it: crop, cut out, paint out, recolour, treat; trials are compared by the yardstick they lead to. */
@Component({
  selector: 'zs-prepare',
  imports: [RouterLink, PictureStage, Pixels, Setting, FacetGauges, PaletteBar, StateView, YardstickStrip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './prepare.page.html',
  styleUrl: './prepare.page.css',
})
export class PreparePage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  readonly id = input.required<string>();

  private readonly all = this.store.selectSignal(references.all);
  readonly status = this.store.selectSignal(references.status);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  private readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  readonly mayEdit = computed(() => this.person()?.role !== 'reviewer');
  readonly brandColours = computed(() => (this.house()?.brand?.colours ?? []).filter(c => !c.never));
  readonly reference = computed(() => this.all().find(r => r.id === this.id()) ?? null);
  private readonly sha = computed(() => this.reference()?.picture.sha256);

  readonly tools: { tool: Tool; name: string }[] = [
    { tool: 'crop', name: 'Crop' },
    { tool: 'cutOut', name: 'Cut out' },
    { tool: 'paintOut', name: 'Paint out' },
    { tool: 'recolour', name: 'Recolour' },
    { tool: 'treat', name: 'Treat' },
  ];
  readonly treatmentFields: { key: keyof Treatment; label: string; from: number; to: number; unit: string }[] = [
    { key: 'roller', label: 'Dry roller', from: 0, to: 100, unit: '%' },
    { key: 'plate', label: 'Worn plate', from: 0, to: 100, unit: '%' },
    { key: 'dots', label: 'Coarse dots', from: 0, to: 100, unit: '%' },
    { key: 'dotGap', label: 'Dots apart', from: 3, to: 24, unit: '' },
    { key: 'soften', label: 'Soften', from: 0, to: 100, unit: '%' },
    { key: 'hue', label: 'Shift of hue', from: -180, to: 180, unit: '°' },
    { key: 'grain', label: 'Turn of the grain', from: -90, to: 90, unit: '°' },
  ];
  readonly tool = signal<Tool>('crop');
  readonly history = new History<Preparation>({});
  readonly preparation = this.history.now;
  readonly brush = signal(5);
  readonly stays = signal(false);
  readonly colour = signal('#8e2a4b');
  readonly name = signal('');
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly saving = signal(false);
  readonly problem = signal('');
  readonly treatments = signal<KeptTreatment[]>([]);
  private readonly aside = signal<Trial[]>([]);

  private readonly preparer = new Preparer();
  readonly made = this.preparer.made;
  readonly refused = this.preparer.refused;
  readonly idle = computed(() => isIdle(this.preparation()));
  readonly treatment = computed(() => this.preparation().treatment ?? NO_TREATMENT);
  readonly untreated = computed(() => isUntreated(this.treatment()));
  readonly shown = computed(() => {
    const original = this.preparer.original()?.original;
    return this.idle() ? original : (this.made()?.shown ?? original);
  });
  readonly cropFields = computed(() => {
    const { x, y, width, height } = this.preparation().crop ?? WHOLE;
    const per = (v: number): number => Math.round(v * 100);
    return [
      { key: 'x' as const, label: 'Left', value: per(x) },
      { key: 'y' as const, label: 'Top', value: per(y) },
      { key: 'width' as const, label: 'Width', value: per(width) },
      { key: 'height' as const, label: 'Height', value: per(height) },
    ];
  });
  readonly trials = computed((): Trial[] => {
    const original = this.preparer.original();
    if (!original) return [];
    const style = styleOf(original.fingerprint);
    const first = { key: 'original', stamp: this.sha()!, name: 'Original', small: original.original, style, preparation: {} };
    const made = this.made();
    const now = made && !this.idle() ? [this.trialOf('now', 'In hand')] : [];
    return [first, ...now, ...this.aside().toReversed()];
  });
  private slid: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    inject(Keys).declare([
      { key: 'Ctrl Z', does: 'Undo', run: () => this.history.undo() },
      { key: 'Ctrl Y', does: 'Redo', run: () => this.history.redo() },
    ]);
    effect(() => {
      if (this.sha()) untracked(() => this.open(this.reference()!));
    });
    effect(() => {
      const preparation = this.preparation();
      const whole = this.tool() !== 'treat';
      if (this.preparer.original() && !isIdle(preparation)) this.preparer.ask(preparation, whole);
    });
    void this.fetchTreatments();
    inject(DestroyRef).onDestroy(() => {
      clearTimeout(this.slid);
      this.preparer.close();
    });
  }

  open(r: Reference): void {
    this.problem.set('');
    this.preparer.open(r.picture.sha256).catch((error: unknown) => this.problem.set(messageOf(error)));
  }

  has(tool: Tool): boolean {
    const p = this.preparation();
    switch (tool) {
      case 'treat':
        return !this.untreated();
      case 'paintOut':
      case 'recolour':
        return (p[tool]?.length ?? 0) > 0;
      default:
        return p[tool] !== undefined;
    }
  }

  // --- changes, each undoable

  change(next: Preparation): void {
    this.history.change(next);
  }

  /** A slider on its way: what it passes through is no step of undo. */
  private glide(next: Preparation): void {
    this.history.glide(next);
    clearTimeout(this.slid);
    this.slid = setTimeout(() => this.history.keep(), PAUSE_MS);
  }

  setCrop(key: keyof Box, event: Event): void {
    const value = Number((event.target as HTMLInputElement).value) / 100;
    if (!Number.isFinite(value)) return;
    const box = { ...(this.preparation().crop ?? WHOLE), [key]: Math.min(1, Math.max(0, value)) };
    box.width = Math.min(box.width, 1 - box.x);
    box.height = Math.min(box.height, 1 - box.y);
    this.change({ ...this.preparation(), crop: box });
  }

  toggleCut(): void {
    const { cutOut, ...rest } = this.preparation();
    this.change(cutOut ? rest : { ...rest, cutOut: { reach: 30, pockets: true, strokes: [] } });
  }

  setCut(part: { reach?: number; pockets?: boolean }): void {
    const p = this.preparation();
    const next = { ...p, cutOut: { ...p.cutOut!, ...part } };
    if (part.reach === undefined) this.change(next);
    else this.glide(next);
  }

  stroke(stroke: Stroke): void {
    const p = this.preparation();
    if (this.tool() === 'paintOut') return this.change({ ...p, paintOut: [...(p.paintOut ?? []), stroke] });
    const cut = p.cutOut ?? { reach: 30, pockets: true, strokes: [] };
    this.change({ ...p, cutOut: { ...cut, strokes: [...cut.strokes, { ...stroke, stays: this.stays() }] } });
  }

  point(at: { x: number; y: number }): void {
    const p = this.preparation();
    this.change({ ...p, recolour: [...(p.recolour ?? []), { ...at, to: this.colour(), reach: 30, joined: true }] });
  }

  setRecolour(i: number, part: Partial<Recolouring>): void {
    const p = this.preparation();
    const next = { ...p, recolour: p.recolour!.map((one, k) => (k === i ? { ...one, ...part } : one)) };
    if (part.reach === undefined) this.change(next);
    else this.glide(next);
  }

  dropRecolour(i: number): void {
    const p = this.preparation();
    this.change({ ...p, recolour: p.recolour!.filter((_, k) => k !== i) });
  }

  setTreatment(key: keyof Treatment, value: number): void {
    this.glide({ ...this.preparation(), treatment: { ...this.treatment(), [key]: value } });
  }

  // --- trials

  private trialOf(key: string, name: string): Trial {
    const { id, small, fingerprint, preparation } = this.made()!;
    return { key, stamp: `${this.sha()}/${id}`, name, small, style: styleOf(fingerprint), preparation };
  }

  private setAsideSoFar = 0;

  setAside(): void {
    const count = ++this.setAsideSoFar;
    this.aside.update(list => [...list, this.trialOf(`aside${count}`, `Trial ${count}`)].slice(-6));
  }

  takeUp(t: Trial): void {
    this.change(t.preparation);
  }

  drop(t: Trial): void {
    this.aside.update(list => list.filter(x => x !== t));
  }

  // --- keeping

  private async fetchTreatments(): Promise<void> {
    try {
      this.treatments.set((await this.api.get<{ items: KeptTreatment[] }>('/treatments')).items);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  useTreatment(t: KeptTreatment): void {
    this.change({ ...this.preparation(), treatment: t.settings });
  }

  async keepTreatment(field: HTMLInputElement): Promise<void> {
    try {
      const body = await treatmentInputSchema.validate({ name: field.value, settings: this.treatment() });
      await this.api.send('POST', '/treatments', body);
      field.value = '';
      this.messages.done(`The treatment “${body.name}” is kept.`);
      await this.fetchTreatments();
    } catch (error) {
      this.messages.failed(error);
    }
  }

  async putAway(t: KeptTreatment): Promise<void> {
    try {
      await this.api.send('DELETE', `/treatments/${t.id}`);
    } catch (error) {
      this.messages.failed(error);
    }
    await this.fetchTreatments();
  }

  /** The server makes the variant from the whole picture with the same settings. */
  async keep(r: Reference): Promise<void> {
    this.fault.set(null);
    this.saving.set(true);
    try {
      const body = await variantInputSchema.validate({ name: this.name(), preparation: this.preparation() });
      const saved = await this.api.send<Reference>('POST', `/references/${r.id}/variants`, body);
      this.store.dispatch(references.actions.saved({ items: [saved] }));
      this.messages.done(`“${saved.name}” stands beside ${r.name} now.`);
      await this.router.navigate(['/shelf', r.id]);
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else this.fault.set({ field: problemOf(error).field, message: problemOf(error).detail });
    } finally {
      this.saving.set(false);
    }
  }
}
