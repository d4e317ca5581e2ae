import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, signal } from '@angular/core';
import type { Look, Reference } from '@zinc/contract';
import type { Fingerprint } from '@zinc/core';
import { Api, messageOf } from '../shared/api';
import { Thumb } from '../shared/thumb';
import type { Like } from './like';

const MOST = 7;

/** Answers “that look like …”: a reference or look by its name, or any picture dropped or chosen, which is measured and not kept. */
@Component({
  selector: 'zs-like-picker',
  imports: [Thumb],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:pointerdown)': 'outside($event)', '(keydown.escape)': 'open.set(false)' },
  template: `
    <button
      type="button"
      class="answer"
      [attr.aria-expanded]="open()"
      [class.over]="over()"
      (click)="open.set(!open())"
      (dragover)="hover($event)"
      (dragleave)="over.set(false)"
      (drop)="drop($event)"
    >
      {{ like()?.name ?? 'anything' }}
    </button>
    @if (like()) {
      <button type="button" class="clear" aria-label="Like anything" (click)="chosen.emit(null)">×</button>
    }
    @if (open()) {
      <div class="sheet" role="dialog" aria-label="What should they look like?">
        <input
          class="t"
          type="search"
          placeholder="A reference or look, by its name"
          aria-label="A reference or look, by its name"
          [value]="words()"
          (input)="words.set($any($event.target).value)"
        />
        <ul>
          @for (h of hits(); track h.name + h.kind) {
            <li>
              <button type="button" (click)="choose(h)">
                @if (h.kind === 'picture') {
                  <zs-thumb [sha]="h.sha256" alt="" [side]="96" [width]="34" [height]="34" />
                } @else {
                  <span class="look" aria-hidden="true"></span>
                }
                <span class="grow clip">{{ h.name }}</span><span class="dim">{{
                  h.kind === 'picture' ? 'reference' : 'look'
                }}</span>
              </button>
            </li>
          } @empty {
            <li class="dim">Nothing is called that.</li>
          }
        </ul>
        <label class="b">
          {{ measuring() ? 'Measuring …' : 'Any picture, dropped here or chosen' }}
          <input class="sr" type="file" accept=".jpg,.jpeg,.png,.webp,.avif,.tif,.tiff,.svg" (change)="pick($event)" />
        </label>
        <p class="hint">It is only measured, not kept.</p>
        @if (problem()) {
          <p class="wrong" role="alert">{{ problem() }}</p>
        }
      </div>
    }
  `,
  styles: `
    :host {
      position: relative;
      display: inline-flex;
      align-items: center;
    }
    .answer {
      min-height: 30px;
      max-width: 200px;
      overflow: hidden;
      padding: 2px 4px;
      font: 650 var(--s3) 'Archivo Variable';
      text-align: left;
      text-overflow: ellipsis;
      background: none;
      border: 0;
      border-bottom: 2px solid var(--ink);
      cursor: pointer;
    }
    .answer.over {
      color: var(--white);
      background: var(--vermilion);
    }
    .clear {
      width: 26px;
      height: 28px;
      font-size: 18px;
      background: none;
      border: 0;
      cursor: pointer;
    }
    .sheet {
      position: absolute;
      z-index: 12;
      top: 36px;
      left: 0;
      display: grid;
      gap: 8px;
      width: 320px;
      padding: 12px;
      font-size: var(--s2);
      white-space: normal;
      background: var(--white);
      border: 1px solid var(--ink);
    }
    .sheet input.t {
      max-width: none;
      font: inherit;
      border: 1px solid #8f9193;
    }
    li button {
      display: flex;
      align-items: center;
      gap: 10px;
      width: 100%;
      padding: 3px 4px;
      text-align: left;
      background: none;
      border: 0;
      cursor: pointer;
    }
    li button:hover,
    li button:focus-visible {
      background: var(--bench);
    }
    zs-thumb,
    .look {
      flex: 0 0 34px;
      height: 34px;
    }
    .look {
      background: repeating-linear-gradient(90deg, var(--ink) 0 3px, var(--well) 3px 7px);
    }
  `,
})
export class LikePicker {
  private readonly api = inject(Api);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly like = input<Like | null>(null);
  readonly references = input.required<readonly Reference[]>();
  readonly looks = input.required<readonly Look[]>();
  readonly chosen = output<Like | null>();
  readonly open = signal(false);
  readonly over = signal(false);
  readonly words = signal('');
  readonly measuring = signal(false);
  readonly problem = signal('');

  readonly hits = computed((): Like[] => {
    const words = this.words().trim().toLowerCase();
    const out: Like[] = [];
    for (const l of this.looks())
      if (out.length < 3 && l.latest.target && l.name.toLowerCase().includes(words))
        out.push({ kind: 'look', lookId: l.id, name: l.name });
    for (const r of this.references()) {
      if (out.length >= MOST) break;
      if (r.name.toLowerCase().includes(words)) out.push({ kind: 'picture', sha256: r.picture.sha256, name: r.name });
    }
    return out;
  });

  choose(like: Like): void {
    this.open.set(false);
    this.words.set('');
    this.chosen.emit(like);
  }

  outside(event: Event): void {
    if (this.open() && !this.host.nativeElement.contains(event.target as Node)) this.open.set(false);
  }

  hover(event: DragEvent): void {
    event.preventDefault();
    event.stopPropagation();
    this.over.set(true);
  }

  drop(event: DragEvent): void {
    event.preventDefault();
    event.stopPropagation();
    this.over.set(false);
    const file = event.dataTransfer?.files[0];
    if (file) void this.measure(file);
  }

  pick(event: Event): void {
    const chooser = event.target as HTMLInputElement;
    const file = chooser.files?.[0];
    if (file) void this.measure(file);
    chooser.value = '';
  }

  private async measure(file: File): Promise<void> {
    this.problem.set('');
    this.measuring.set(true);
    this.open.set(true);
    try {
      const { name, fingerprint } = await this.api.upload<{ name: string; fingerprint: Fingerprint }>('/pictures/measure', file);
      this.choose({ kind: 'dropped', name, fingerprint });
    } catch (error) {
      this.problem.set(messageOf(error));
    } finally {
      this.measuring.set(false);
    }
  }
}
