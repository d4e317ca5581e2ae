import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Reference, StyleCode, WordStyle } from '@zinc/contract';
import type { PaletteColour, Style } from '@zinc/core';
import { Dialog } from 'primeng/dialog';
import { PaletteBar } from '../shared/palette-bar';
import { Thumb } from '../shared/thumb';
import { CodePicture } from '../shelf/codes/code-picture';
import { YardstickStrip } from '../shelf/yardstick-strip';
import { styleOfWords } from './draft';

/** Of many things so many are offered, the best graded codes and the newest references; words find the others. */
const MOST_CODES = 48;
const MOST_REFERENCES = 60;
const KINDS = ['everything', 'references', 'style codes', 'word styles', 'colours'] as const;

/** Chooses references, style codes, word styles and colours to mix in. */
@Component({
  selector: 'zs-source-picker',
  imports: [Dialog, Thumb, PaletteBar, CodePicture, YardstickStrip],
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
        placeholder="Words in the name, shelf, credit, purpose or code"
        aria-label="Search the shelf"
        [value]="words()"
        (input)="words.set($any($event.target).value)"
      />
      <div class="kinds" role="group" aria-label="What to choose from">
        @for (k of kinds; track k) {
          <button type="button" class="b small" [attr.aria-pressed]="kind() === k" (click)="kind.set(k)">{{ k }}</button>
        }
      </div>
      <ul>
        @if (shows('colours') ? brandPalette() : null; as palette) {
          <li>
            <button type="button" [attr.aria-pressed]="chosenIds().has('brand')" (click)="toggle('brand')">
              <zs-palette-bar class="pic" [palette]="palette" />
              <span class="clip">Brand palette</span>
            </button>
          </li>
        }
        @if (shows('colours') && wordless()) {
          <li>
            <button type="button" [attr.aria-pressed]="chosenIds().has('own colours')" (click)="toggle('own colours')">
              <span class="pic aa">#</span>
              <span class="clip">Own colours</span>
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
        @for (w of foundWords(); track w.id) {
          <li>
            <button
              type="button"
              [attr.aria-pressed]="chosenIds().has(w.id)"
              [title]="w.before.concat('…', w.after).join(', ')"
              (click)="toggle(w.id)"
            >
              <zs-yardstick-strip class="pic strip" [of]="'words/' + w.id + w.revision" [style]="styleOf(w)" [name]="w.name" />
              <span class="clip">{{ w.name }}</span>
              <span class="clip dim">{{ w.purpose || 'word style' }}</span>
            </button>
          </li>
        }
        @if (found().length + foundCodes().length + foundWords().length === 0) {
          <li class="dim">Nothing on the shelf is called that.</li>
        }
      </ul>
      <div class="row">
        <span class="grow dim">{{ chosenIds().size }} chosen</span>
        @if (wordStyles().length > 0) {
          <button class="b" type="button" (click)="random()">A word style at random</button>
        }
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
    li button[aria-pressed] {
      display: block;
      width: 100%;
      padding: 0 0 5px;
      text-align: left;
      background: none;
      border: 0;
      border-top: 3px solid transparent;
      cursor: pointer;
    }
    li button[aria-pressed='true'] {
      outline: 3px solid var(--vermilion);
    }
    .pic {
      display: block;
      height: 112px;
    }
    .pic.aa {
      display: grid;
      place-items: center;
      font-size: 40px;
      background: var(--white);
    }
    .pic.strip {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      height: 112px;
      align-content: center;
    }
    .kinds {
      display: flex;
      gap: 6px;
      margin-top: 10px;
    }
    .kinds [aria-pressed='true'] {
      color: var(--white);
      background: var(--ink);
    }
    .pic.code {
      overflow: hidden;
    }
    li button span {
      display: block;
      padding: 4px 4px 0;
    }
  `,
})
export class SourcePicker {
  readonly references = input.required<readonly Reference[]>();
  readonly codes = input<readonly StyleCode[]>([]);
  readonly wordStyles = input<readonly WordStyle[]>([]);
  readonly brandPalette = input<PaletteColour[] | null>(null);
  readonly chosen = output<string[]>();
  readonly closed = output<void>();
  readonly words = signal('');
  readonly chosenIds = signal<ReadonlySet<string>>(new Set());
  readonly kinds = KINDS;
  readonly kind = signal<(typeof KINDS)[number]>('everything');
  readonly found = computed(() => {
    if (!this.shows('references')) return [];
    const words = this.words().trim().toLowerCase();
    const out: Reference[] = [];
    for (const r of this.references()) {
      if (out.length >= MOST_REFERENCES) break;
      if (r.state === 'in use' && `${r.name} ${r.shelf} ${r.credit} ${r.tags.join(' ')}`.toLowerCase().includes(words))
        out.push(r);
    }
    return out;
  });
  readonly wordless = computed(() => this.words().trim() === '');
  readonly foundWords = computed(() => {
    if (!this.shows('word styles')) return [];
    const words = this.words().trim().toLowerCase();
    return this.wordStyles().filter(w =>
      `${w.name} ${w.purpose} ${w.before.join(' ')} ${w.after.join(' ')}`.toLowerCase().includes(words),
    );
  });

  styleOf(w: WordStyle): Style {
    return styleOfWords(w, this.brandPalette());
  }

  /** One to explore: it is chosen, and may be taken back. */
  random(): void {
    const open = this.wordStyles().filter(w => !this.chosenIds().has(w.id));
    if (open.length > 0) this.toggle(open[Math.floor(Math.random() * open.length)].id);
  }

  readonly foundCodes = computed(() => {
    if (!this.shows('style codes')) return [];
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

  shows(kind: (typeof KINDS)[number]): boolean {
    return this.kind() === 'everything' || this.kind() === kind;
  }

  toggle(id: string): void {
    this.chosenIds.update(now => {
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }
}
