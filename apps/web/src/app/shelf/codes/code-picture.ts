import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import { styleOfCode } from '@zinc/core';
import { YARDSTICK } from '@zinc/scenes';
import { LookPainter } from '../look-painter';

/** What an own style code paints: one subject of the yardstick, at full strength. */
@Component({
  selector: 'zs-code-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas #pic role="img" [attr.aria-label]="spoken()"></canvas>`,
  styles: `
    canvas {
      display: block;
      width: 100%;
      aspect-ratio: 1;
      background: var(--well);
    }
  `,
})
export class CodePicture {
  readonly code = input.required<string>();
  readonly subject = input(0);
  readonly size = input(128);
  readonly spoken = computed(() => `${YARDSTICK[this.subject()].label} painted by ${this.code()}`);
  private readonly pic = viewChild.required<ElementRef<HTMLCanvasElement>>('pic');

  constructor() {
    const painter = inject(LookPainter);
    let abort = new AbortController();
    effect(() => {
      const [code, subject, size] = [this.code(), this.subject(), this.size()];
      const canvas = this.pic().nativeElement;
      // Setting its size clears a canvas, so it is done here, before anything is painted.
      canvas.width = size;
      canvas.height = size;
      abort.abort();
      abort = new AbortController();
      painter.paint({ of: code, style: styleOfCode(code), strength: 1, subject, size }, canvas, abort.signal);
    });
    inject(DestroyRef).onDestroy(() => abort.abort());
  }
}
