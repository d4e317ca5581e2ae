import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output } from '@angular/core';

export interface InkPart {
  name: string;
  parts: number;
  colour: string;
}

/** The tall bar of inks: one field a source, as tall as its parts; the dividers between them are dragged or moved by arrow keys. */
@Component({
  selector: 'zs-ink-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (f of fields(); track $index; let i = $index; let last = $last) {
      <div class="field" [style.flex-grow]="f.parts" [style.background]="f.colour">
        @if (f.percent >= 5) {
          <span>{{ f.percent }}</span>
        }
      </div>
      @if (!last) {
        <div
          class="divider"
          role="slider"
          tabindex="0"
          aria-orientation="vertical"
          [attr.aria-label]="'Parts of ' + f.name + ' against ' + fields()[i + 1].name"
          [attr.aria-valuemin]="0"
          [attr.aria-valuemax]="f.parts + fields()[i + 1].parts"
          [attr.aria-valuenow]="f.parts"
          [attr.aria-valuetext]="f.parts + ' parts to ' + fields()[i + 1].parts"
          (pointerdown)="grab($event, i)"
          (keydown)="nudge($event, i)"
        ></div>
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      width: 38px;
      min-height: 0;
      border-right: 1px solid var(--ink);
      background: var(--well);
      touch-action: none;
    }
    .field {
      display: block;
      flex-basis: 4px;
      min-height: 2px;
      overflow: hidden;
      text-align: center;
      font-weight: 720;
    }
    /* The figure stands on its own chip: no ink is too middling to read it on. */
    .field span {
      display: inline-block;
      min-width: 24px;
      margin-top: 8px;
      color: var(--white);
      background: var(--ink);
    }
    .divider {
      position: relative;
      z-index: 1;
      flex: 0 0 4px;
      background: var(--ink);
      cursor: ns-resize;
    }
    .divider::after {
      content: '';
      position: absolute;
      left: 8px;
      right: 8px;
      top: -6px;
      height: 14px;
      background: var(--white);
      border: 2px solid var(--ink);
    }
    .divider::before {
      content: '';
      position: absolute;
      inset: -12px 0;
    }
    .divider:focus-visible::after {
      background: var(--vermilion);
    }
  `,
})
export class InkBar {
  readonly inks = input.required<readonly InkPart[]>();
  /** Parts of all sources, whenever a divider moves. */
  readonly moved = output<number[]>();
  /** A move came to its end: the moment worth keeping for undo. */
  readonly settled = output<void>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly fields = computed(() => {
    const total = this.inks().reduce((sum, i) => sum + i.parts, 0) || 1;
    return this.inks().map(i => ({ ...i, percent: Math.round((100 * i.parts) / total) }));
  });

  /** Moves parts across a divider. Whole parts; the two neighbours keep their sum. */
  private shift(i: number, upper: number): void {
    const parts = this.inks().map(k => k.parts);
    const sum = parts[i] + parts[i + 1];
    const next = Math.max(0, Math.min(sum, Math.round(upper)));
    if (next === parts[i]) return;
    parts[i] = next;
    parts[i + 1] = sum - next;
    this.moved.emit(parts);
  }

  grab(event: PointerEvent, i: number): void {
    const divider = event.currentTarget as HTMLElement;
    divider.focus();
    divider.setPointerCapture(event.pointerId);
    const start = event.clientY;
    const before = this.inks()[i].parts;
    const total = this.inks().reduce((sum, k) => sum + k.parts, 0);
    const pixelsPerPart = this.host.clientHeight / Math.max(1, total);
    const move = (e: PointerEvent): void => this.shift(i, before + (e.clientY - start) / pixelsPerPart);
    const end = (): void => {
      divider.removeEventListener('pointermove', move);
      divider.removeEventListener('pointerup', end);
      divider.removeEventListener('pointercancel', end);
      this.settled.emit();
    };
    divider.addEventListener('pointermove', move);
    divider.addEventListener('pointerup', end);
    divider.addEventListener('pointercancel', end);
    event.preventDefault();
  }

  nudge(event: KeyboardEvent, i: number): void {
    const by =
      event.key === 'ArrowDown' || event.key === 'ArrowRight' ? 1 : event.key === 'ArrowUp' || event.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    this.shift(i, this.inks()[i].parts + by);
    this.settled.emit();
  }
}
