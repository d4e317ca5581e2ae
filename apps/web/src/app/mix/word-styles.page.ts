import { ChangeDetectionStrategy, Component, computed, effect, inject, input, linkedSignal, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  ValidationError,
  wordStyleInputSchema,
  type WordStyle,
  type WordStyleInput,
  type WordStylesImported,
} from '@zinc/contract';
import { applyWords, neutralStyle } from '@zinc/core';
import { Api, messageOf, problemOf } from '../shared/api';
import { GradeRow } from '../shared/grade-row';
import { Meanwhile } from '../shared/meanwhile';
import { Messages } from '../shared/messages';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { WordIndex } from '../shared/word-index';
import { YardstickStrip } from '../shelf/yardstick-strip';
import { brandPaletteOf, splitWords, styleOfWords } from './draft';
import { wordStyles } from './word-styles.store';

const EMPTY: WordStyleInput = { name: '', purpose: '', before: [], after: [], avoid: [], byDefault: false, grade: null };

/** Word styles: short phrases around the subject, found by their purpose, each shown on the yardstick beside no style at all. */
@Component({
  selector: 'zs-word-styles',
  imports: [RouterLink, GradeRow, Meanwhile, StateView, YardstickStrip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './word-styles.page.html',
  styleUrl: './word-styles.page.css',
})
export class WordStylesPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  /** The word style in hand, by its id. */
  readonly style = input<string>();
  readonly all = this.store.selectSignal(wordStyles.all);
  readonly status = this.store.selectSignal(wordStyles.status);
  readonly problem = this.store.selectSignal(wordStyles.problem);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayEdit = computed(() => this.person()?.role !== 'reviewer');
  private readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly brand = computed(() => brandPaletteOf(this.house()));
  readonly nothing = neutralStyle();

  readonly words = signal('');
  readonly refused = signal<WordStylesImported | null>(null);
  private readonly index = new WordIndex();
  readonly found = computed(() => {
    this.index.changes();
    const fitting = this.index.find(this.words());
    return this.all()
      .filter(w => !fitting || fitting.has(w.id))
      .map(w => ({ ...w, painted: styleOfWords(w, this.brand()), said: [...w.before, '…', ...w.after].join(', ') }));
  });
  readonly kept = computed(() => this.all().find(w => w.id === this.style()) ?? null);
  /** The word style as it was when it was opened or saved. */
  readonly opened = linkedSignal<string | undefined, WordStyle | null>({
    source: computed(() => this.kept()?.id),
    computation: () => this.kept(),
  });
  readonly changedMeanwhile = computed(() => (this.kept()?.revision ?? 0) > (this.opened()?.revision ?? 0));
  /** What is written into the form. */
  readonly form = linkedSignal<WordStyleInput>(() => this.opened() ?? EMPTY);
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly painted = computed(() => styleOfWords(this.form(), this.brand()));
  readonly stamp = computed(() => JSON.stringify([this.form().before, this.form().after]));
  /** Phrases for which the painter knows no marks: they stand in the text only. */
  readonly unknown = computed(() => applyWords(this.nothing, [...this.form().before, ...this.form().after]).unknown);

  constructor() {
    effect(
      () =>
        void this.index.keep(
          this.all().map(w => ({ id: w.id, text: `${w.name} ${w.purpose} ${w.before.join(' ')} ${w.after.join(' ')}` })),
        ),
    );
  }

  open(id: string | null): void {
    this.fault.set(null);
    void this.router.navigate([], { queryParams: { style: id }, replaceUrl: true });
    if (id === null) this.form.set(EMPTY);
  }

  random(): void {
    const list = this.found().filter(w => w.id !== this.style());
    if (list.length > 0) this.open(list[Math.floor(Math.random() * list.length)].id);
  }

  write(part: Partial<WordStyleInput>): void {
    this.form.update(f => ({ ...f, ...part }));
  }

  phrases(event: Event): string[] {
    return splitWords((event.target as HTMLInputElement).value);
  }

  retry(): void {
    this.store.dispatch(wordStyles.actions.load());
  }

  async save(): Promise<void> {
    this.fault.set(null);
    const now = this.opened();
    try {
      const body = await wordStyleInputSchema.validate(this.form(), { stripUnknown: true });
      const saved = now
        ? await this.api.send<WordStyle>('PATCH', `/word-styles/${now.id}`, body, now.revision)
        : await this.api.send<WordStyle>('POST', '/word-styles', body);
      this.store.dispatch(wordStyles.actions.saved({ items: [saved] }));
      this.opened.set(saved);
      this.messages.done(`“${saved.name}” is kept.`);
      if (!now) this.open(saved.id);
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else {
        const p = problemOf(error);
        this.fault.set({ field: p.field, message: p.detail });
        if (p.code === 'changedMeanwhile') this.retry();
      }
    }
  }

  async putAway(w: WordStyle): Promise<void> {
    try {
      await this.api.send('DELETE', `/word-styles/${w.id}`);
      this.store.dispatch(wordStyles.actions.removed({ id: w.id }));
      this.messages.done(`“${w.name}” is put away. Looks keep the phrases they took in.`);
      this.open(null);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  async bring(event: Event): Promise<void> {
    const chooser = event.target as HTMLInputElement;
    const file = chooser.files?.[0];
    chooser.value = '';
    if (!file) return;
    this.refused.set(null);
    try {
      const result = await this.api.upload<WordStylesImported>('/word-styles/import', file);
      this.retry();
      this.messages.done(
        `${result.added} brought in, ${result.left} were there already${result.refused.length > 0 ? `, ${result.refused.length} refused` : ''}.`,
      );
      if (result.refused.length > 0) this.refused.set(result);
    } catch (error) {
      this.refused.set({ added: 0, left: 0, refused: [{ line: 0, what: file.name, reason: messageOf(error) }] });
    }
  }
}
