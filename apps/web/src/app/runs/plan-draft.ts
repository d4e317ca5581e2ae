import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { PlanInput } from '@zinc/contract';
import {
  batchSeedFor,
  cellKey,
  choicesOf,
  NO_LOOK,
  SHARES,
  slotsOf,
  valueLabel,
  type Axis,
  type Box,
  type Choice,
  type PlanKind,
  type RowFill,
  type SettingValue,
  type Share,
  type Ticket,
} from '@zinc/core';
import { looks } from '../mix/looks.store';
import { sessionFeature } from '../shared/session.store';
import { subjects, templates } from '../wording/wording.store';

type Read = 'areas' | 'tone' | 'outline';

/** One way in which every subject is made: a look, at the values of what is stepped, in a format. */
export interface Column {
  lookId: string;
  formatId: string;
  choice: Choice;
  name: string;
  detail: string;
}

const number = (text: string): number => (text.trim() === '' ? NaN : Number(text));

/** A plan being written: what the ticket shows and changes, and the plan that comes of it. */
@Injectable()
export class PlanDraft {
  private readonly store = inject(Store);
  readonly allSubjects = this.store.selectSignal(subjects.all);
  readonly allLooks = this.store.selectSignal(looks.all);
  readonly allTemplates = this.store.selectSignal(templates.all);
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);

  readonly kind = signal<PlanKind>('set');
  readonly name = signal('');
  readonly campaignId = signal<string | null>(null);
  readonly subjectIds = signal<readonly string[]>([]);
  readonly lookIds = signal<readonly string[]>([]);
  readonly templateId = signal<string | null>(null);
  readonly fills = signal<Readonly<Record<string, string>>>({});
  readonly alternatives = signal<Readonly<Record<string, string[]>>>({});
  readonly note = signal('');
  readonly rows = signal<Readonly<Record<string, RowFill>>>({});
  readonly formatIds = signal<readonly string[]>([]);
  readonly takes = signal('3');
  readonly seedPolicy = signal<PlanInput['seedPolicy']>('subject');
  readonly seed = signal(String(1 + Math.floor(Math.random() * 9999)));
  readonly strength = signal('');
  readonly bind = signal('0');
  readonly share = signal<readonly Share[]>(SHARES);
  readonly anchor = signal<string | null>(null);
  readonly anchorName = signal('the image chosen before');
  /** What is said of the anchor. */
  readonly anchorWords = signal('');
  /** Empty: left to the look. */
  readonly fidelity = signal<{ subject: string; ground: string }>({ subject: '', ground: '' });
  readonly content = signal<{ strength: string; read: Read }>({ strength: '100', read: 'areas' });
  readonly clear = signal<readonly Box[]>([]);
  readonly marks = signal<readonly { sha256: string; box: Box }[]>([]);
  readonly pressId = signal<string | null>(null);
  readonly model = signal<string | null>(null);
  readonly settings = signal<Readonly<Record<string, SettingValue>>>({});
  readonly axes = signal<readonly Axis[]>([]);
  readonly pilot = signal('');
  readonly struckOut = signal<ReadonlySet<string>>(new Set());
  /** Licences that ended and are used all the same. */
  readonly overrides = signal<readonly { referenceId: string; reason: string }[]>([]);

  /** Presses that are in use. */
  readonly presses = computed(() => (this.house()?.presses ?? []).filter(p => p.state !== 'unused'));
  readonly press = computed(() => this.presses().find(p => p.id === this.pressId()) ?? this.presses()[0] ?? null);
  readonly template = computed(() => this.allTemplates().find(t => t.id === this.templateId()) ?? null);
  readonly chosenSubjects = computed(() => this.subjectIds().flatMap(id => this.allSubjects().find(s => s.id === id) ?? []));
  readonly chosenLooks = computed(() => this.lookIds().flatMap(id => this.allLooks().find(l => l.id === id) ?? []));
  readonly withPictures = computed(() => this.chosenSubjects().some(s => s.picture));
  /** Slots of the template that are filled at use. */
  readonly openSlots = computed(() => {
    const t = this.template();
    if (!t) return [];
    return slotsOf(t.text)
      .filter(n => n !== 'subject')
      .map(n => t.slots.find(s => s.name === n) ?? { name: n, kind: 'text' as const, choices: [], default: '' });
  });
  /** Settings of the press beside strength, which has a line of its own. */
  readonly pressSettings = computed(() => (this.press()?.capabilities?.settings ?? []).filter(s => s.key !== 'strength'));
  readonly sourceNames = computed(() =>
    Object.fromEntries(this.chosenLooks().flatMap(l => l.latest.sources.map(s => [s.id, s.name] as const))),
  );
  /** Every axis, slots with several values first. */
  readonly allAxes = computed((): Axis[] => [
    ...Object.entries(this.alternatives()).map(([slot, values]) => ({ setting: `slot:${slot}`, values })),
    ...this.axes(),
  ]);
  readonly columns = computed((): Column[] => {
    const formats = this.house()?.formats ?? [];
    const known = { pressSettings: this.press()?.capabilities?.settings as never, presses: this.presses() as never };
    const choices = choicesOf(this.allAxes());
    return this.lookIds().flatMap(lookId => {
      const look = this.allLooks().find(l => l.id === lookId);
      return choices.flatMap(choice =>
        this.formatIds().map(formatId => {
          const said = [...choice].map(([setting, value]) => valueLabel(setting, value, known));
          if (this.formatIds().length > 1) said.push(formats.find(f => f.id === formatId)?.name ?? '');
          const stepped = this.axes().some(a => a.setting === 'strength');
          if (look && !stepped) said.unshift(`${this.strength() || look.latest.strength} %`);
          return { lookId, formatId, choice, name: look?.name ?? 'No look', detail: said.join(', ') };
        }),
      );
    });
  });
  /** Raised when something that the plan names was changed elsewhere, so that it is read again. */
  readonly touched = signal(0);
  readonly plan = computed((): PlanInput => {
    const { subject, ground } = this.fidelity();
    const content = this.content();
    const bind = number(this.bind());
    return {
      kind: this.kind(),
      name: this.name(),
      campaignId: this.campaignId(),
      subjectIds: [...this.subjectIds()],
      lookIds: [...this.lookIds()],
      templateId: this.templateId(),
      fills: { ...this.fills() },
      alternatives: { ...this.alternatives() },
      note: this.note(),
      rows: { ...this.rows() },
      formatIds: [...this.formatIds()],
      takes: number(this.takes()),
      seedPolicy: this.seedPolicy(),
      seed: number(this.seed()),
      strength: this.strength().trim() === '' ? null : Number(this.strength()),
      binding:
        bind !== 0 || this.axes().some(a => a.setting === 'bind')
          ? { amount: bind, share: [...this.share()], anchor: this.anchor(), words: this.anchorWords() }
          : undefined,
      fidelity: subject === '' && ground === '' ? undefined : { subject: number(subject || '0'), ground: number(ground || '0') },
      content:
        this.withPictures() && (content.strength !== '100' || content.read !== 'areas')
          ? { strength: number(content.strength), read: content.read }
          : undefined,
      clear: [...this.clear()],
      marks: this.marks().map(m => ({ ...m })),
      settings: { ...this.settings() },
      axes: this.axes().map(a => ({ ...a, values: [...a.values] })),
      pressId: this.press()?.id ?? '',
      ...(this.model() && this.press()?.capabilities?.models.includes(this.model()!) ? { model: this.model() } : {}),
      struckOut: [...this.struckOut()],
      pilot: this.pilot().trim() === '' ? null : number(this.pilot()),
      licenceOverrides: [...this.overrides()],
    };
  });

  /** The key of a subject's cell in a column; its row may have a format of its own. */
  keyOf(subjectId: string, column: Column): string {
    return cellKey(subjectId, column.lookId, this.rows()[subjectId]?.formatId ?? column.formatId, column.choice);
  }

  /** Whether a subject has a cell in a column: a row with a format of its own is made once, in that. */
  isMade(subjectId: string, column: Column): boolean {
    return !this.rows()[subjectId]?.formatId || column.formatId === this.formatIds()[0];
  }

  /** Takes up a plan that ran before; what is gone from the house is left out. */
  takeUp(p: PlanInput): void {
    const here = (list: readonly { id: string }[], id: string): boolean => list.some(x => x.id === id);
    this.kind.set(p.kind ?? 'set');
    this.campaignId.set(p.campaignId ?? null);
    this.subjectIds.set(p.subjectIds.filter(id => here(this.allSubjects(), id)));
    this.lookIds.set(p.lookIds.filter(id => id === NO_LOOK || here(this.allLooks(), id)));
    this.templateId.set(p.templateId);
    this.fills.set(p.fills);
    this.alternatives.set(p.alternatives ?? {});
    this.note.set(p.note ?? '');
    this.rows.set(p.rows ?? {});
    this.formatIds.set(p.formatIds);
    this.takes.set(String(p.takes));
    this.seedPolicy.set(p.seedPolicy);
    this.seed.set(String(p.seed));
    this.strength.set(p.strength === null ? '' : String(p.strength));
    this.bind.set(String(p.binding?.amount ?? 0));
    this.share.set((p.binding?.share as Share[] | undefined) ?? SHARES);
    this.anchor.set(p.binding?.anchor ?? null);
    this.anchorWords.set(p.binding?.words ?? '');
    this.fidelity.set(
      p.fidelity ? { subject: String(p.fidelity.subject), ground: String(p.fidelity.ground) } : { subject: '', ground: '' },
    );
    this.content.set({ strength: String(p.content?.strength ?? 100), read: p.content?.read ?? 'areas' });
    this.clear.set(p.clear ?? []);
    this.marks.set(p.marks ?? []);
    this.pressId.set(p.pressId);
    this.model.set(p.model ?? null);
    this.settings.set(p.settings ?? {});
    this.axes.set((p.axes ?? []).map(a => ({ setting: a.setting, values: a.values as SettingValue[] })));
    this.struckOut.set(new Set(p.struckOut));
    this.pilot.set('');
  }

  /** Takes up the recipe of a picture that another house made, as far as this one has what it names. Returns what is missing, in words. */
  takeRecipe(t: Ticket): string[] {
    const missing: string[] = [];
    const subject =
      this.allSubjects().find(s => s.wording === t.subject.wording) ?? this.allSubjects().find(s => s.label === t.subject.label);
    if (!subject) missing.push(`the subject “${t.subject.wording}”`);
    const look = this.allLooks().find(l => l.id === t.look.id) ?? this.allLooks().find(l => l.name === t.look.name);
    if (!look) missing.push(`the look “${t.look.name}”`);
    const format = this.house()?.formats.find(f => f.width === t.format.width && f.height === t.format.height);
    if (!format) missing.push(`a format of ${t.format.width} × ${t.format.height}`);
    if (t.contents.length > 0) missing.push('its content picture');
    const known = new Set(this.pressSettings().map(s => s.key));
    this.name.set(`${t.subject.label}, from a recipe`.slice(0, 120));
    // Nothing else that lies in the plan belongs to the recipe.
    this.takeUp({
      kind: 'set',
      name: this.name(),
      campaignId: this.campaignId(),
      subjectIds: subject ? [subject.id] : [...this.subjectIds()],
      lookIds: look ? [look.id] : [...this.lookIds()],
      templateId: null,
      fills: {},
      formatIds: format ? [format.id] : [...this.formatIds()],
      takes: 1,
      seedPolicy: 'one',
      seed: batchSeedFor(t.seed),
      strength: t.settings.strength,
      fidelity: t.fidelity,
      pressId: this.press()?.id ?? '',
      settings: Object.fromEntries(Object.entries(t.settings).filter(([key]) => known.has(key))),
      struckOut: [],
    });
    return missing;
  }

  touch(): void {
    this.touched.update(n => n + 1);
  }

  changeRow(subjectId: string, change: Partial<RowFill>): void {
    this.rows.update(all => {
      const merged = Object.entries({ ...all[subjectId], ...change }).filter(([, v]) => v !== undefined && v !== '');
      const rest = Object.fromEntries(Object.entries(all).filter(([id]) => id !== subjectId));
      return merged.length > 0 ? { ...rest, [subjectId]: Object.fromEntries(merged) as RowFill } : rest;
    });
  }

  /** Sets what a plan can step to one value for all. */
  setValue(setting: string, value: number): void {
    const text = String(value);
    if (setting === 'strength') this.strength.set(text);
    else if (setting === 'bind') this.bind.set(text);
    else if (setting === 'fidelity') this.fidelity.set({ subject: text, ground: text });
    else this.settings.update(all => ({ ...all, [setting.replace(/^press:/, '')]: value }));
  }

  strike(key: string): void {
    this.struckOut.update(now => {
      const next = new Set(now);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }
}
