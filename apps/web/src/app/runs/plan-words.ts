import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { fillTemplate } from '@zinc/core';
import { Sentence } from '../wording/sentence';
import { PlanDraft } from './plan-draft';

type OpenSlot = ReturnType<PlanDraft['openSlots']>[number];

/** What is said: a template or none, its slots with one value or several, and a note at the time of use. */
@Component({
  selector: 'zs-plan-words',
  imports: [Sentence],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <select class="t" id="p-words" (change)="draft.templateId.set($any($event.target).value || null)">
      @for (t of draft.allTemplates(); track t.id) {
        <option [value]="t.id" [selected]="t.id === draft.templateId()">{{ t.name }}</option>
      }
      <option value="" [selected]="draft.templateId() === null">no template: the subject alone</option>
    </select>
    @if (sentence(); as parts) {
      <zs-sentence [parts]="parts" />
    }
    @for (s of draft.openSlots(); track s.name) {
      <div class="fill" [title]="s.help ?? ''">
        <label [for]="'fill-' + s.name">{{ s.name }}</label>
        @if (draft.alternatives()[s.name]; as values) {
          <input
            class="t"
            [id]="'fill-' + s.name"
            [value]="values.join(' | ')"
            (change)="setSeveral(s, $any($event.target).value)"
            [attr.aria-describedby]="'many-' + s.name"
          />
          <button class="b small" type="button" (click)="single(s)">One value</button>
          <span class="hint" [id]="'many-' + s.name">{{ values.length }} values, every one is made; write | between them</span>
        } @else {
          @if (s.kind === 'choice') {
            <select class="t" [id]="'fill-' + s.name" (change)="setFill(s, $any($event.target).value)">
              @for (c of s.choices; track c) {
                <option [value]="c" [selected]="c === fillOf(s)">{{ c }}</option>
              }
            </select>
          } @else {
            <input
              class="t"
              [id]="'fill-' + s.name"
              [value]="fillOf(s)"
              [attr.inputmode]="s.kind === 'number' ? 'decimal' : null"
              (change)="setFill(s, $any($event.target).value)"
            />
          }
          <button class="b small" type="button" (click)="several(s)" [attr.aria-label]="'Several values of ' + s.name">
            Several
          </button>
          @if (s.help) {
            <span class="hint">{{ s.help }}</span>
          }
        }
      </div>
    }
    <div class="note">
      <label for="p-note">Note</label>
      <input
        class="t"
        id="p-note"
        placeholder="said last, with every image"
        [value]="draft.note()"
        (change)="draft.note.set($any($event.target).value)"
      />
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    .fill {
      display: grid;
      grid-template-columns: 60px minmax(0, 1fr) auto;
      align-items: center;
      gap: 4px 6px;
    }
    .fill .hint {
      grid-column: 2 / -1;
    }
    .note {
      display: grid;
      grid-template-columns: 60px minmax(0, 1fr);
      align-items: center;
      gap: 6px;
    }
  `,
})
export class PlanWords {
  readonly draft = inject(PlanDraft);
  /** What is said, with what stands in each slot; of several values all of them. */
  readonly sentence = computed(() => {
    const t = this.draft.template();
    if (!t) return null;
    const several = this.draft.alternatives();
    const words = this.draft.openSlots().map(s => [s.name, several[s.name]?.join(' | ') || this.fillOf(s) || s.name] as const);
    return fillTemplate(t.text, t.slots, { ...Object.fromEntries(words), subject: 'subject' });
  });

  fillOf(slot: OpenSlot): string {
    return this.draft.fills()[slot.name] ?? slot.default ?? '';
  }

  setFill(slot: OpenSlot, value: string): void {
    this.draft.fills.update(f => ({ ...f, [slot.name]: value }));
  }

  /** Begins several values with the list's own, or with the one there is. */
  several(slot: OpenSlot): void {
    const values = slot.kind === 'choice' && slot.choices?.length ? slot.choices : [this.fillOf(slot)].filter(Boolean);
    this.draft.alternatives.update(a => ({ ...a, [slot.name]: [...values] }));
  }

  setSeveral(slot: OpenSlot, text: string): void {
    const values = text
      .split('|')
      .map(v => v.trim())
      .filter(Boolean);
    this.draft.alternatives.update(a => ({ ...a, [slot.name]: values }));
  }

  single(slot: OpenSlot): void {
    this.draft.alternatives.update(all => Object.fromEntries(Object.entries(all).filter(([name]) => name !== slot.name)));
  }
}
