import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Reference, StyleCode } from '@zinc/contract';
import type { PaletteColour } from '@zinc/core';
import { Dialog } from 'primeng/dialog';
import { PaletteBar } from '../shared/palette-bar';
import { Thumb } from '../shared/thumb';
import { CodePicture } from '../shelf/codes/code-picture';

/** Of many codes the best graded are offered; words find the others. */
const MOST_CODES = 48;

/** Chooses references, style codes and the brand palette to mix in. */
@Component({
  selector: 'zs-source-picker',
  imports: [Dialog, Thumb, PaletteBar, CodePicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      closeAriaLabel="Close"
      header="From the shelf"
      [visible]="true"
      (visibleChange)="closed.emit()"
      [modal]="true"
      [draggable]="false"
      [style]="{ width: '760px' }"
    >
      <input
        class="t"
        type="search"
        placeholder="Words in the name, shelf, credit or code"
        aria-label="Search the shelf"
        [value]="words()"
        (input)="words.set($any($event.target).value)"
      />
      <ul>
        @if (brandPalette(); as palette) {
          <li>
            <button type="button" [attr.aria-pressed]="chosenIds().has('brand')" (click)="toggle('brand')">
              <zs-palette-bar class="pic" [palette]="palette" />
              <span class="clip">Brand palette</span>
            </button>
          </li>
        }
        @for (r of found(); track r.id) {
          <li>
            <button type="button" [attr.aria-pressed]="chosenIds().has(r.id)" (click)="toggle(r.id)">
              <zs-thumb class="pic" [sha]="r.picture.sha256" [alt]="r.name" [side]="160" [width]="128" [height]="112" />
              <span class="clip">{{ r.name }}</span>
            </button>
          </li>
        }
        @for (c of foundCodes(); track c.id) {
          <li>
            <button type="button" [attr.aria-pressed]="chosenIds().has(c.text)" (click)="toggle(c.text)">
              <zs-code-picture class="pic code" [code]="c.text" [size]="128" />
              <span class="clip">{{ c.name || c.text.replaceAll('-', ' ') }}</span>
            </button>
          </li>
        }
        @if (found().length + foundCodes().length === 0) {
          <li class="dim">Nothing on the shelf is called that.</li>
        }
      </ul>
      <div class="row">
        <span class="grow dim">{{ chosenIds().size }} chosen</span>
        <button class="b" type="button" (click)="closed.emit()">Leave it</button>
        <button class="b main" type="button" [disabled]="chosenIds().size === 0" (click)="chosen.emit([...chosenIds()])">
          Mix in
        </button>
      </div>
    </p-dialog>
  `,
  styles: `
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(124px, 1fr));
      gap: 10px;
      max-height: 46vh;
      margin: 12px 0;
      padding: 3px;
      overflow: auto;
    }
    button[aria-pressed] {
      display: block;
      width: 100%;
      padding: 0 0 5px;
      text-align: left;
      background: none;
      border: 0;
      border-top: 3px solid transparent;
      cursor: pointer;
    }
    button[aria-pressed='true'] {
      outline: 3px solid var(--vermilion);
    }
    .pic {
      display: block;
      height: 112px;
    }
    .pic.code {
      overflow: hidden;
    }
    button span {
      display: block;
      padding: 4px 4px 0;
    }
  `,
})
export class SourcePicker {
  readonly references = input.required<readonly Reference[]>();
  readonly codes = input<readonly StyleCode[]>([]);
  readonly brandPalette = input<PaletteColour[] | null>(null);
  readonly chosen = output<string[]>();
  readonly closed = output<void>();
  readonly words = signal('');
  readonly chosenIds = signal<ReadonlySet<string>>(new Set());
  readonly found = computed(() => {
    const words = this.words().trim().toLowerCase();
    return this.references().filter(
      r => r.state === 'in use' && `${r.name} ${r.shelf} ${r.credit}`.toLowerCase().includes(words),
    );
  });

  readonly foundCodes = computed(() => {
    const words = this.words().trim().toLowerCase();
    return this.codes()
      .filter(
        c =>
          c.kind === 'own' &&
          c.state === 'in use' &&
          `${c.name} ${c.text} ${c.note} ${c.tags.join(' ')}`.toLowerCase().includes(words),
      )
      .sort((p, q) => (q.grade ?? -1) - (p.grade ?? -1))
      .slice(0, MOST_CODES);
  });

  toggle(id: string): void {
    this.chosenIds.update(now => {
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }
}
