import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { Proof } from '@zinc/contract';
import { Setting } from '../../shared/setting';
import { Mending, type Brush } from './mending';

const TOOLS: { tool: Brush; name: string }[] = [
  { tool: 'brush', name: 'Brush' },
  { tool: 'outline', name: 'Outline' },
  { tool: 'rub', name: 'Rub out' },
];
const DEEP = 2;

/** The tools of a retouch: what marks the region, and what becomes of it. */
@Component({
  selector: 'zs-retouch-tools',
  imports: [Setting],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row" role="group" aria-label="Mark a region">
      @for (t of tools; track t.tool) {
        <button class="b small" type="button" [attr.aria-pressed]="mending.tool() === t.tool" (click)="toggle(t.tool)">
          {{ t.name }}
        </button>
      }
      @if (mending.strokes().length > 0) {
        <button class="b small quiet" type="button" (click)="mending.back()">One back</button>
        <button class="b small quiet" type="button" (click)="mending.clear()">Clear</button>
      }
    </div>
    @if (mending.tool() && mending.tool() !== 'outline') {
      <zs-setting
        label="Width of the brush"
        unit="%"
        [from]="1"
        [to]="40"
        [value]="width()"
        (set)="mending.size.set($event / 100)"
      />
    }
    @if (mending.strokes().length === 0) {
      <p class="dim">
        {{
          mending.tool() ? 'Draw on the picture over what is to be changed.' : 'Choose a tool, then mark what is to be changed.'
        }}
      </p>
    } @else {
      <input
        class="t"
        aria-label="A note for what is painted again"
        placeholder="A note, such as: dark red"
        maxlength="200"
        [value]="note()"
        (input)="note.set($any($event.target).value)"
      />
      <div class="row">
        <button class="b" type="button" [disabled]="mending.busy()" (click)="order('remove')">Remove it</button>
        <button class="b" type="button" [disabled]="mending.busy()" (click)="order('again')">Paint it again</button>
      </div>
      <p class="dim">What lies beyond the region and its soft rim stays as it is, pixel for pixel.</p>
    }
    @if (next() > deep) {
      <p class="wrong">
        This would be the picture worked over {{ next() }} times; damage piles up. Better begin from
        <button class="link" type="button" (click)="original.emit()">the first proof</button> again.
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    zs-setting {
      padding-bottom: 16px;
    }
    .row {
      flex-wrap: wrap;
      gap: 5px;
    }
    button[aria-pressed='true'] {
      color: var(--white);
      background: var(--ink);
    }
    .link {
      padding: 0;
      font-weight: 620;
      text-decoration: underline;
      background: none;
      border: 0;
      cursor: pointer;
    }
  `,
})
export class RetouchTools {
  readonly proof = input.required<Proof>();
  readonly ordered = output<void>();
  readonly original = output<void>();
  readonly mending = inject(Mending);
  readonly tools = TOOLS;
  readonly deep = DEEP;
  readonly note = signal('');
  readonly width = computed(() => Math.round(this.mending.size() * 100));
  readonly next = computed(() => this.proof().depth + 1);

  toggle(tool: Brush): void {
    this.mending.tool.update(now => (now === tool ? null : tool));
  }

  async order(how: 'remove' | 'again'): Promise<void> {
    if (!(await this.mending.retouch(this.proof(), how, how === 'again' ? this.note().trim() : ''))) return;
    this.note.set('');
    this.ordered.emit();
  }
}
