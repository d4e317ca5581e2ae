import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { codePatchSchema, ValidationError, type StyleCode } from '@zinc/contract';
import { nearCodes } from '@zinc/core';
import { YARDSTICK } from '@zinc/scenes';
import { Api, problemOf } from '../../shared/api';
import { UsedIn } from '../../mix/used-in';
import { GradeRow } from '../../shared/grade-row';
import { Meanwhile } from '../../shared/meanwhile';
import { Messages } from '../../shared/messages';
import { codes } from '../shelf.store';
import { CodePicture } from './code-picture';

/** One style code in hand: the yardstick it paints, what people wrote about it, and its near relatives. */
@Component({
  selector: 'zs-code-pane',
  imports: [CodePicture, GradeRow, Meanwhile, UsedIn],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (own()) {
      <zs-code-picture class="one" [code]="text()" [subject]="large()" [size]="284" />
      <div class="four">
        @for (s of subjects; track s.name; let i = $index) {
          <button
            type="button"
            [attr.aria-pressed]="large() === i"
            [attr.aria-label]="s.label + ', show large'"
            (click)="large.set(i)"
          >
            <zs-code-picture [code]="text()" [subject]="i" [size]="96" />
          </button>
        }
      </div>
    }
    <p class="code mono">{{ text() }}</p>
    <div class="row acts">
      @if (own()) {
        <button class="b main" type="button" (click)="mixIt()">Mix a look</button>
        <button class="b" type="button" (click)="carry.emit()">Galley <kbd>G</kbd></button>
      }
      <button class="b" type="button" (click)="copy()">Copy</button>
    </div>
    @if (!kept() && mayEdit()) {
      <p class="dim">Not on the shelf yet.</p>
      <button class="b go" type="button" (click)="keep.emit(text())">Keep this code</button>
    }
    @if (kept(); as k) {
      @if (!own()) {
        <p class="dim">A code of {{ k.press }}. Only that press knows what it looks like.</p>
      }
      <div class="label">Grade</div>
      <zs-grade-row [grade]="k.grade" [mayEdit]="mayEdit()" (set)="setGrade($event)" />
      <form (submit)="$event.preventDefault(); save($event)">
        @for (f of fields(); track f.key) {
          <div class="field">
            <label [for]="'code-' + f.key">{{ f.label }}</label>
            @if (f.key === 'note') {
              <textarea class="t" rows="3" [id]="'code-' + f.key" [name]="f.key" [value]="f.value"></textarea>
            } @else {
              <input
                class="t"
                [id]="'code-' + f.key"
                [name]="f.key"
                [value]="f.value"
                [attr.aria-invalid]="fault()?.field === f.key"
              />
            }
            @if (fault()?.field === f.key) {
              <span class="wrong" role="alert">{{ fault()!.message }}</span>
            }
          </div>
        }
        @if (changedMeanwhile()) {
          <zs-meanwhile (theirs)="opened.set(k); fault.set(null)" (mine)="opened.set({ ...opened()!, revision: k.revision })" />
        }
        @if (fault() && !fault()!.field) {
          <p class="wrong" role="alert">{{ fault()!.message }}</p>
        }
        @if (mayEdit()) {
          <div class="row">
            <button class="b" type="submit">Keep changes</button>
            <button class="b quiet" type="button" (click)="putAway()">Put away</button>
          </div>
        }
      </form>
      <p class="dim">Added by {{ k.addedBy }}.</p>
    }
    @if (own()) {
      <h2>Used in</h2>
      <zs-used-in [source]="text()" />
      <h2>Near codes <span class="dim">one step away in one setting</span></h2>
      <ul>
        @for (n of near(); track n) {
          <li>
            <button type="button" [attr.aria-label]="n" [title]="n" (click)="take.emit(n)">
              <zs-code-picture [code]="n" [subject]="large()" [size]="96" />
            </button>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
      padding: 14px 16px 24px;
    }
    .four {
      display: grid;
      grid-template-columns: repeat(5, 1fr);
      gap: 4px;
      margin-top: -6px;
      padding-bottom: 4px;
      border-bottom: 3px solid var(--ink);
    }
    .four button,
    li button {
      display: block;
      width: 100%;
      padding: 0;
      background: none;
      border: 0;
      cursor: pointer;
    }
    .four button[aria-pressed='true'] {
      outline: 2px solid var(--vermilion);
    }
    .code {
      font-size: var(--s2);
      overflow-wrap: anywhere;
    }
    .acts {
      gap: 6px;
    }
    form {
      display: grid;
      gap: 9px;
    }
    h2 {
      padding-top: 10px;
      border-top: 1px solid var(--hair);
    }
    h2 .dim {
      font-weight: 500;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(4, 1fr);
      gap: 6px;
    }
  `,
})
export class CodePane {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  readonly text = input.required<string>();
  readonly kept = input.required<StyleCode | null>();
  readonly mayEdit = input.required<boolean>();
  readonly take = output<string>();
  readonly keep = output<string>();
  readonly carry = output<void>();
  readonly subjects = YARDSTICK;
  readonly large = signal(0);
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  /** The code can be painted here: it is an own one that reads right. */
  readonly own = computed(() => this.kept()?.kind !== 'foreign' && this.near().length > 0);
  readonly near = computed(() => {
    try {
      return nearCodes(this.text());
    } catch {
      return [];
    }
  });
  private readonly keptId = computed(() => this.kept()?.id);
  /** The code as it was when it was taken in hand or saved: what others change meanwhile never replaces what is being written. */
  readonly opened = linkedSignal<string | undefined, StyleCode | null>({
    source: this.keptId,
    computation: () => untracked(this.kept),
  });
  readonly changedMeanwhile = computed(() => (this.kept()?.revision ?? 0) > (this.opened()?.revision ?? 0));
  readonly fields = computed(() => {
    const k = this.opened()!;
    return [
      { key: 'name', label: 'Name', value: k.name },
      { key: 'tags', label: 'Tags', value: k.tags.join(', ') },
      { key: 'shelf', label: 'Shelf', value: k.shelf },
      { key: 'note', label: 'Good for, bad for', value: k.note },
    ];
  });

  constructor() {
    effect(() => {
      this.text();
      this.fault.set(null);
    });
  }

  mixIt(): void {
    void this.router.navigate(['/mix'], { queryParams: { from: this.text() } });
  }

  async copy(): Promise<void> {
    try {
      await navigator.clipboard.writeText(this.text());
      this.messages.done('The code is copied.');
    } catch (error) {
      this.messages.failed(error);
    }
  }

  async setGrade(grade: number | null): Promise<void> {
    if (this.mayEdit()) await this.change({ grade }, this.kept()?.revision);
  }

  async save(event: Event): Promise<void> {
    const given = Object.fromEntries(new FormData(event.target as HTMLFormElement)) as Record<string, string>;
    const tags = given['tags']
      .split(/[,;|]/)
      .map(t => t.trim())
      .filter(Boolean);
    await this.change({ ...given, tags }, this.opened()?.revision);
  }

  async putAway(): Promise<void> {
    const k = this.kept();
    if (!k) return;
    try {
      await this.api.send('PATCH', `/codes/${k.id}`, { state: 'put away' }, k.revision);
      this.store.dispatch(codes.actions.removed({ id: k.id }));
      this.messages.done(`“${k.name || k.text}” is put away. Looks that use it stay as they are.`);
      this.take.emit(k.text);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  private async change(part: object, revision: number | undefined): Promise<void> {
    const k = this.kept();
    if (!k || revision === undefined) return;
    this.fault.set(null);
    try {
      const body = await codePatchSchema.validate(part);
      const saved = await this.api.send<StyleCode>('PATCH', `/codes/${k.id}`, body, revision);
      this.store.dispatch(codes.actions.saved({ items: [saved] }));
      this.opened.set(saved);
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path?.replace(/\[.*/, ''), message: error.message });
      else {
        const p = problemOf(error);
        this.fault.set({ field: p.field, message: p.detail });
        if (p.code === 'changedMeanwhile') this.store.dispatch(codes.actions.load());
      }
    }
  }
}
