import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  model,
  signal,
} from '@angular/core';
import { moved, placed, zoomedAt, type Size, type View } from './view';

/** A picture that is laid down. */
export interface Layer extends Size {
  sha: string;
  alt: string;
}

/** How the second of two layers lies over the first. */
export type Over = 'wipe' | 'difference' | null;

/** One pane: one picture, or two over each other, at a view that all panes share. Wheel and drag change the view. */
@Component({
  selector: 'zs-pane',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (l of layers(); track $index; let i = $index) {
      <img
        [src]="'/api/pictures/' + l.sha + '/working'"
        [alt]="l.alt"
        draggable="false"
        [class.pixels]="place(l).width > l.width * 1.5"
        [style.left.px]="place(l).left"
        [style.top.px]="place(l).top"
        [style.width.px]="place(l).width"
        [style.height.px]="place(l).height"
        [style.mix-blend-mode]="i > 0 && over() === 'difference' ? 'difference' : null"
        [style.clip-path]="i > 0 && over() === 'wipe' ? clip(l) : null"
      />
    }
    @if (over() === 'wipe') {
      <span class="edge" [style.left.%]="wipe()"></span>
    }
  `,
  styles: `
    :host {
      position: relative;
      display: block;
      overflow: hidden;
      min-width: 0;
      min-height: 0;
      cursor: grab;
      touch-action: none;
    }
    :host(:active) {
      cursor: grabbing;
    }
    img {
      position: absolute;
      max-width: none;
      user-select: none;
    }
    .pixels {
      image-rendering: pixelated;
    }
    .edge {
      position: absolute;
      top: 0;
      bottom: 0;
      width: 2px;
      background: var(--vermilion);
      pointer-events: none;
    }
  `,
  host: {
    '(wheel)': 'onWheel($event)',
    '(pointerdown)': 'onDown($event)',
    '(pointermove)': 'onMove($event)',
    '(pointerup)': 'drag = null',
    '(pointercancel)': 'drag = null',
  },
})
export class Pane {
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly layers = input.required<readonly Layer[]>();
  readonly over = input<Over>(null);
  readonly view = model.required<View>();
  /** Where the wipe stands, per cent of the pane from the left. */
  readonly wipe = input(50);
  readonly size = signal<Size>({ width: 1, height: 1 });
  drag: { x: number; y: number } | null = null;
  private readonly first = computed(() => this.layers()[0]);

  constructor() {
    const watch = new ResizeObserver(() => this.measure());
    watch.observe(this.element);
    inject(DestroyRef).onDestroy(() => watch.disconnect());
  }

  private measure(): void {
    const { width, height } = this.element.getBoundingClientRect();
    if (width > 0 && height > 0) this.size.set({ width, height });
  }

  place(l: Size): ReturnType<typeof placed> {
    return placed(l, this.size(), this.view());
  }

  /** The part of the upper picture right of the wipe's edge. */
  clip(l: Size): string {
    const { left, width } = this.place(l);
    const edge = (this.wipe() / 100) * this.size().width;
    return `inset(0 0 0 ${Math.min(width, Math.max(0, edge - left))}px)`;
  }

  onWheel(event: WheelEvent): void {
    event.preventDefault();
    const box = this.element.getBoundingClientRect();
    const at = { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height };
    this.view.set(zoomedAt(this.view(), Math.exp(-event.deltaY / 400), at, this.first(), this.size()));
  }

  onDown(event: PointerEvent): void {
    this.element.setPointerCapture(event.pointerId);
    this.drag = { x: event.clientX, y: event.clientY };
  }

  onMove(event: PointerEvent): void {
    if (!this.drag) return;
    this.view.set(moved(this.view(), event.clientX - this.drag.x, event.clientY - this.drag.y, this.first(), this.size()));
    this.drag = { x: event.clientX, y: event.clientY };
  }
}
