import { ChangeDetectionStrategy, Component, computed, effect, inject, input, resource, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  templateInputSchema,
  ValidationError,
  type Subject,
  type SubjectsImported,
  type Template,
  type TemplateInput,
  type UnclearWord,
} from '@zinc/contract';
import {
  checkTemplate,
  fillTemplate,
  joinParts,
  markWords,
  readSubjectList,
  repeatedWords,
  slotFault,
  slotsOf,
  stands,
  wordsAround,
  type MarkedPart,
  type Slot,
  type TextPart,
} from '@zinc/core';
import { splitWords } from '../mix/draft';
import { Api, ApiError, problemOf } from '../shared/api';
import { writtenDay } from '../shared/dates';
import { Keys } from '../shared/keys';
import { Messages } from '../shared/messages';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { SamplePair } from './sample-pair';
import { Sentence } from './sentence';
import { SubjectRow } from './subject-row';
import { subjects, templates } from './wording.store';

const NEW_TEXT = 'A {{subject}}, whole, on plain ground';

/** Templates with slots, and the subjects that fill them: every subject's final text is read beside the sentence that makes it. */
@Component({
  selector: 'zs-wording',
  imports: [RouterLink, StateView, SubjectRow, SamplePair, Sentence],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './wording.page.html',
  styleUrl: './wording.page.css',
})
export class WordingPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  /** The template to open, and the subject to show, from a search. */
  readonly template = input<string>();
  readonly subject = input<string>();
  readonly templates = this.store.selectSignal(templates.all);
  readonly subjects = this.store.selectSignal(subjects.all);
  readonly status = this.store.selectSignal(subjects.status);
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayEdit = computed(() => this.person()?.role !== 'reviewer');

  readonly openId = signal<string | null>(null);
  readonly name = signal('');
  readonly text = signal(NEW_TEXT);
  readonly avoid = signal('');
  readonly slots = signal<Slot[]>([]);
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly busy = signal(false);
  readonly pasting = signal(false);
  readonly pasted = signal('');
  readonly pasteFaults = signal<string[]>([]);
  readonly open = computed(() => this.templates().find(t => t.id === this.openId()) ?? null);
  readonly faults = computed(() => checkTemplate(this.text(), this.slots()));
  readonly changed = computed(() => {
    const t = this.open();
    return (
      !t ||
      t.text !== this.text() ||
      t.name !== this.name() ||
      t.avoid.join(', ') !== splitWords(this.avoid()).join(', ') ||
      JSON.stringify(t.slots) !== JSON.stringify(this.slots().map(s => ({ ...s, choices: s.choices ?? [] })))
    );
  });
  /** The sentence with its slots as chips; null while it cannot be read. */
  readonly sentence = computed((): TextPart[] | null => {
    try {
      slotsOf(this.text());
      const names = Object.fromEntries(this.slots().map(s => [s.name, s.default || s.name]));
      return fillTemplate(this.text(), this.slots(), { ...names, subject: 'subject' });
    } catch {
      return null;
    }
  });
  /** What the template says beside its subject, its slots at their defaults. */
  readonly around = computed(() => {
    if (this.sentence() === null) return '';
    return wordsAround(fillTemplate(this.text(), this.slots(), { subject: '' }));
  });
  private readonly words = resource({
    params: () =>
      this.subjects()
        .map(s => `${s.id}/${s.revision}`)
        .join(),
    loader: async () => (await this.api.get<{ items: UnclearWord[] }>('/subjects/unclear')).items,
  });
  /** Words with several meanings, by the subjects that hang on them. */
  readonly unclear = computed(() => new Map((this.words.hasValue() ? this.words.value() : []).map(u => [u.subjectId, u])));
  private readonly kept = resource({
    params: () => {
      const t = this.open();
      return t && t.version > 1 ? { id: t.id, version: t.version } : undefined;
    },
    loader: async ({ params }) => (await this.api.get<{ items: Template[] }>(`/templates/${params.id}/versions`)).items,
  });
  /** Every version of the open template, newest first; empty when there is only one. */
  readonly versions = computed(() => (this.kept.hasValue() ? this.kept.value() : []));
  /** The version that lies in the form. */
  readonly shown = signal(0);
  readonly day = writtenDay;
  readonly brought = signal<SubjectsImported | null>(null);
  readonly preview = computed(() =>
    readSubjectList(
      this.pasted(),
      this.subjects().map(s => s.label),
    ),
  );
  readonly faultsOfPreview = computed(() => this.preview().faults.map(f => f.message));

  constructor() {
    inject(Keys).declare([{ key: 'P', does: 'Paste subjects', run: () => this.pasting.set(true) }]);
    effect(() => {
      const all = this.templates();
      const wanted = this.template();
      if (all.length === 0 || (untracked(this.openId) !== null && !wanted)) return;
      const first = all.find(t => t.id === wanted) ?? all[0];
      untracked(() => this.openId() !== first.id && this.openTemplate(first));
    });
  }

  openTemplate(t: Template): void {
    this.openId.set(t.id);
    this.shown.set(t.version);
    this.name.set(t.name);
    this.text.set(t.text);
    this.avoid.set(t.avoid.join(', '));
    this.slots.set(t.slots.map(s => ({ ...s })));
    this.fault.set(null);
  }

  newTemplate(): void {
    this.openId.set('new');
    this.name.set('');
    this.text.set(NEW_TEXT);
    this.avoid.set('');
    this.slots.set([]);
    this.fault.set(null);
  }

  /** A subject's final text, with what it says twice, or says though it is to be avoided. */
  finalText(s: Subject): MarkedPart[] | null {
    if (this.sentence() === null) return null;
    const parts = fillTemplate(this.text(), this.slots(), { subject: s.wording });
    const text = joinParts(parts);
    const avoid = [...splitWords(this.avoid()), ...s.avoid, ...(this.house()?.brand?.avoid ?? [])];
    return markWords(parts, [
      ...avoid.filter(word => stands(word, text)).map(word => ({ word, why: 'to be avoided, and said all the same' })),
      ...repeatedWords(parts).map(({ word }) => ({ word, why: 'said twice' })),
    ]);
  }

  /** Lays an older version into the form; saving it makes the next one. */
  openVersion(version: number): void {
    const found = this.versions().find(v => v.version === version);
    if (!found) return;
    this.openTemplate(found);
  }

  addSlot(name: string): void {
    this.slots.update(s => [...s, { name, kind: 'text', choices: [], default: '' }]);
  }

  changeSlot(i: number, part: Partial<Slot>): void {
    this.slots.update(all => all.map((s, k) => (k === i ? { ...s, ...part } : s)));
  }

  removeSlot(i: number): void {
    this.slots.update(all => all.filter((_, k) => k !== i));
  }

  setChoices(i: number, event: Event): void {
    const choices = splitWords((event.target as HTMLInputElement).value);
    this.changeSlot(i, {
      choices,
      default: choices.includes(this.slots()[i].default ?? '') ? this.slots()[i].default : (choices[0] ?? ''),
    });
  }

  /** Everything that is written in the form, to tell whether it changed. */
  private form(): string {
    return JSON.stringify([this.openId(), this.name(), this.text(), this.avoid(), this.slots()]);
  }

  async save(): Promise<void> {
    this.fault.set(null);
    this.busy.set(true);
    const sent = this.form();
    try {
      const body: TemplateInput = await templateInputSchema.validate({
        name: this.name(),
        text: this.text(),
        avoid: splitWords(this.avoid()),
        slots: this.slots().map(s => ({ ...s, choices: s.choices ?? [] })),
      });
      const blocking = checkTemplate(body.text, this.slots()).find(f => f.code !== 'unusedSlot');
      if (blocking) return this.fault.set({ field: 'text', message: blocking.message });
      const before = this.open();
      const saved = before
        ? await this.api.send<Template>('POST', `/templates/${before.id}/versions`, body, before.version)
        : await this.api.send<Template>('POST', '/templates', body);
      this.store.dispatch(templates.actions.saved({ items: [saved] }));
      // What was written while it was being saved stays.
      if (this.form() === sent) this.openTemplate(saved);
      else {
        this.openId.set(saved.id);
        this.shown.set(saved.version);
      }
      this.messages.done(`“${saved.name}” is saved as version ${saved.version}.`);
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else {
        this.fault.set({ field: problemOf(error).field, message: problemOf(error).detail });
        if (error instanceof ApiError && error.document.code === 'changedMeanwhile')
          this.store.dispatch(templates.actions.load());
      }
    } finally {
      this.busy.set(false);
    }
  }

  /** What is wrong with a slot's default, or nothing. */
  slotWrong(s: Slot): string {
    return slotFault(s, s.default ?? '') ?? '';
  }

  async bringFile(event: Event): Promise<void> {
    const chooser = event.target as HTMLInputElement;
    const file = chooser.files?.[0];
    chooser.value = '';
    if (!file) return;
    try {
      this.brought.set(await this.api.upload<SubjectsImported>('/subjects/import', file, () => undefined));
      this.store.dispatch(subjects.actions.load());
    } catch (error) {
      this.messages.failed(error);
    }
  }

  async paste(): Promise<void> {
    this.pasteFaults.set([]);
    this.busy.set(true);
    try {
      const { items } = await this.api.send<{ items: Subject[] }>('POST', '/subjects/paste', { text: this.pasted() });
      this.store.dispatch(subjects.actions.saved({ items }));
      this.pasted.set('');
      this.pasting.set(false);
      this.messages.done(items.length === 1 ? 'One subject is added.' : `${items.length} subjects are added.`);
    } catch (error) {
      const p = problemOf(error);
      const lines = (p.findings ?? []) as { message: string }[];
      this.pasteFaults.set(lines.length > 0 ? lines.map(l => l.message) : [p.detail]);
    } finally {
      this.busy.set(false);
    }
  }
}
