import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { subjectInputSchema, ValidationError, type Subject, type UnclearWord, type WordSense } from '@zinc/contract';
import type { MarkedPart } from '@zinc/core';
import { splitWords } from '../mix/draft';
import { Api, ApiError, problemOf } from '../shared/api';
import { Messages } from '../shared/messages';
import { Thumb } from '../shared/thumb';
import { subjects } from './wording.store';

/** One subject: its picture if it has one, its label, and its final text; opens for changing. */
@Component({
  selector: 'zs-subject-row',
  imports: [Thumb],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = subject();
    <div class="line" [class.marked]="marked()">
      <div class="pic">
        @if (s.picture) {
          <zs-thumb [sha]="s.picture.sha256" [alt]="'Picture of ' + s.label" [side]="96" [width]="48" [height]="48" />
        } @else {
          <span class="words">in words</span>
        }
      </div>
      <div class="grow">
        <b>{{ s.label }}</b>
        <p>
          @if (parts(); as list) {
            @for (p of list; track $index) {
              <span [class.own]="p.from === 'subject'" [class.marked]="p.why" [title]="p.why ?? ''">{{ p.words }}</span>
            }
          } @else {
            <span class="wrong">The sentence cannot be read yet.</span>
          }
        </p>
        @if (s.avoid.length > 0 || s.tags?.length) {
          <p class="dim">
            {{ s.avoid.length > 0 ? 'avoid ' + s.avoid.join(', ') : '' }}
            @for (t of s.tags; track t) {
              <span class="tag">{{ t }}</span>
            }
          </p>
        }
        @if (s.meaning) {
          <p class="dim">meant: {{ s.meaning }}</p>
        }
        @if (unclear(); as u) {
          <div class="meanings">
            <p>“{{ u.word }}” means several things. Which is meant?</p>
            @for (m of u.senses; track m.gloss) {
              <button class="b small" type="button" [disabled]="!mayEdit()" (click)="choose(m)">
                <b>{{ m.hint }}</b> <span>{{ m.gloss }}</span>
              </button>
            }
          </div>
        }
        @if (problem()) {
          <p class="wrong" role="alert">{{ problem() }}</p>
        }
      </div>
      @for (c of s.colours; track c) {
        <span class="own-colour" [style.background]="c" [title]="'Its own colour ' + c"></span>
      }
      @if (mayEdit()) {
        <label class="b small">
          {{ s.picture ? 'Other picture' : 'Give it a picture' }}
          <input class="sr" type="file" accept=".jpg,.jpeg,.png,.webp,.avif,.tif,.tiff,.svg" (change)="bring($event)" />
        </label>
        <button class="b small" type="button" [attr.aria-expanded]="editing()" (click)="editing.set(!editing())">Change</button>
      }
    </div>
    @if (editing()) {
      <form (submit)="$event.preventDefault(); save($event)">
        <div class="field">
          <label [for]="s.id + 'l'">Label</label>
          <input class="t" [id]="s.id + 'l'" name="label" [value]="s.label" [attr.aria-invalid]="fault()?.field === 'label'" />
        </div>
        <div class="field">
          <label [for]="s.id + 'w'">Wording</label>
          <input
            class="t"
            [id]="s.id + 'w'"
            name="wording"
            [value]="s.wording"
            [attr.aria-invalid]="fault()?.field === 'wording'"
          />
        </div>
        <div class="field">
          <label [for]="s.id + 'a'">Avoid</label>
          <input class="t" [id]="s.id + 'a'" name="avoid" [value]="s.avoid.join(', ')" />
        </div>
        <div class="field">
          <label [for]="s.id + 'c'">Own colours</label>
          <input
            class="t mono"
            [id]="s.id + 'c'"
            name="colours"
            placeholder="#8e2a4b"
            [value]="(s.colours ?? []).join(', ')"
            [attr.aria-invalid]="fault()?.field?.startsWith('colours')"
          />
        </div>
        <div class="field">
          <label [for]="s.id + 't'">Tags</label>
          <input class="t" [id]="s.id + 't'" name="tags" placeholder="roots, winter" [value]="(s.tags ?? []).join(', ')" />
        </div>
        @if (fault()) {
          <p class="wrong" role="alert">{{ fault()!.message }}</p>
        }
        <div class="row">
          <button class="b main small" type="submit">Keep</button>
          @if (s.picture) {
            <button class="b small" type="button" (click)="takePictureAway()">Take the picture away</button>
          }
          <button class="b small" type="button" (click)="putAway()">Put away</button>
        </div>
      </form>
    }
  `,
  styles: `
    .line {
      display: flex;
      align-items: center;
      gap: 12px;
      padding: 8px 6px;
      border-bottom: 1px solid var(--hair);
    }
    .marked {
      box-shadow: inset 4px 0 0 var(--vermilion);
    }
    .pic {
      flex: 0 0 48px;
      height: 48px;
      background: var(--sheet);
    }
    .words {
      display: grid;
      height: 100%;
      place-items: center;
      font-size: 11px;
      text-align: center;
      line-height: 1.1;
      color: var(--dim);
    }
    .own {
      font-weight: 680;
    }
    .b {
      flex: none;
    }
    label:focus-within {
      outline: 2px solid var(--ink);
    }
    form {
      display: grid;
      grid-template-columns: 1fr 2fr 1fr;
      gap: 8px 12px;
      padding: 10px 6px 16px 66px;
      background: var(--sheet);
    }
    .tag {
      margin-right: 4px;
      padding: 0 5px;
      background: var(--well);
    }
    .own-colour {
      flex: none;
      width: 18px;
      height: 32px;
      border: 1px solid var(--ink);
    }
    .meanings {
      display: grid;
      gap: 4px;
      margin-top: 6px;
      padding: 7px 9px;
      background: var(--white);
      border-left: 4px solid var(--vermilion);
    }
    .meanings .b {
      justify-content: flex-start;
      white-space: normal;
      text-align: left;
      font-weight: 500;
    }
    form .row,
    form > .wrong {
      grid-column: 1 / -1;
    }
  `,
})
export class SubjectRow {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  readonly subject = input.required<Subject>();
  readonly parts = input<MarkedPart[] | null>(null);
  /** The word it hangs on, when that has several meanings and none was chosen. */
  readonly unclear = input<UnclearWord | null>(null);
  readonly mayEdit = input(false);
  readonly marked = input(false);
  readonly editing = signal(false);
  readonly problem = signal('');
  readonly fault = signal<{ field?: string; message: string } | null>(null);

  private keep(saved: Subject): void {
    this.store.dispatch(subjects.actions.saved({ items: [saved] }));
  }

  async bring(event: Event): Promise<void> {
    const chooser = event.target as HTMLInputElement;
    const file = chooser.files?.[0];
    chooser.value = '';
    if (!file) return;
    this.problem.set('');
    try {
      this.keep(await this.api.upload<Subject>(`/subjects/${this.subject().id}/picture`, file, () => undefined));
    } catch (error) {
      this.problem.set(problemOf(error).detail);
    }
  }

  async takePictureAway(): Promise<void> {
    try {
      this.keep(await this.api.send<Subject>('DELETE', `/subjects/${this.subject().id}/picture`));
    } catch (error) {
      this.problem.set(problemOf(error).detail);
    }
  }

  async putAway(): Promise<void> {
    try {
      await this.api.send('DELETE', `/subjects/${this.subject().id}`);
      this.store.dispatch(subjects.actions.removed({ id: this.subject().id }));
      this.messages.done(`“${this.subject().label}” is put away.`);
    } catch (error) {
      this.problem.set(problemOf(error).detail);
    }
  }

  private async send(input: object): Promise<void> {
    const body = await subjectInputSchema.validate(input);
    this.keep(await this.api.send<Subject>('PATCH', `/subjects/${this.subject().id}`, body, this.subject().revision));
  }

  /** Writes the meaning that is meant into the wording. */
  async choose({ hint, gloss }: WordSense): Promise<void> {
    const { label, wording, avoid, colours, tags } = this.subject();
    try {
      await this.send({ label, wording: `${wording} (${hint})`, avoid, colours, tags, meaning: gloss.slice(0, 300) });
    } catch (error) {
      this.problem.set(error instanceof ValidationError ? error.message : problemOf(error).detail);
    }
  }

  async save(event: Event): Promise<void> {
    this.fault.set(null);
    const given = Object.fromEntries(new FormData(event.target as HTMLFormElement)) as Record<string, string>;
    try {
      const list = (key: string): string[] => splitWords(given[key] ?? '');
      const { wording, meaning } = this.subject();
      await this.send({
        ...given,
        avoid: list('avoid'),
        colours: list('colours'),
        tags: list('tags'),
        // Other words may mean something else.
        meaning: given['wording'] === wording ? meaning : '',
      });
      this.editing.set(false);
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else {
        this.fault.set({ field: problemOf(error).field, message: problemOf(error).detail });
        if (error instanceof ApiError && error.document.code === 'changedMeanwhile') this.store.dispatch(subjects.actions.load());
      }
    }
  }
}
