import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  inject,
  input,
  viewChildren,
} from '@angular/core';
import type { Style } from '@zinc/core';
import { YARDSTICK } from '@zinc/scenes';
import { LookPainter } from './look-painter';

/** The five yardstick subjects in a style, side by side: what a picture, a code or words lead to. */
@Component({
  selector: 'zs-yardstick-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (s of subjects; track s.name) {
      <canvas #pic role="img" [attr.aria-label]="s.label + ' in ' + name()" [title]="s.label"></canvas>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(5, minmax(0, 1fr));
      gap: 3px;
    }
    canvas {
      display: block;
      width: 100%;
      aspect-ratio: 1;
      background: var(--well);
    }
  `,
})
export class YardstickStrip {
  /** Names the style for good: what was painted under it once is not painted again. */
  readonly of = input.required<string>();
  readonly style = input.required<Style>();
  readonly strength = input(0.85);
  /** What it is painted in, for those who cannot see it. */
  readonly name = input('this');
  readonly size = input(96);
  readonly subjects = YARDSTICK;
  private readonly pics = viewChildren<ElementRef<HTMLCanvasElement>>('pic');

  constructor() {
    const painter = inject(LookPainter);
    afterRenderEffect(onCleanup => {
      const abort = new AbortController();
      onCleanup(() => abort.abort());
      const [of, style, strength, size] = [this.of(), this.style(), this.strength(), this.size()];
      this.pics().forEach(({ nativeElement: canvas }, subject) => {
        if (canvas.width !== size) canvas.width = canvas.height = size;
        painter.paint({ of: `${of}/${strength}`, style, strength, subject, size }, canvas, abort.signal);
      });
    });
  }
}
