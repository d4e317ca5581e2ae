import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  type ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import type { Subject } from '@zinc/contract';
import { neutralStyle } from '@zinc/core';
import { findSubject, findWishes } from '@zinc/scenes';
import { PaintPool } from '../mix/paint-pool';
import type { Content } from '../mix/painting';

const SIZE = 160;
const STYLE = neutralStyle();
const SEED = 1907;

/** What a template does, on one subject: as the press draws it alone, and with the template's words around it. */
@Component({
  selector: 'zs-sample-pair',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <figure>
      <canvas #alone width="160" height="160" role="img" [attr.aria-label]="sample().label + ' alone'"></canvas>
      <figcaption>{{ sample().label }} alone</figcaption>
    </figure>
    <figure>
      <canvas #worded width="160" height="160" role="img" [attr.aria-label]="sample().label + ' in this template'"></canvas>
      <figcaption>in this template</figcaption>
    </figure>
    @if (ignored().length > 0) {
      <p class="dim">The house press does not draw: {{ ignored().join(', ') }}.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 6px 8px;
    }
    canvas {
      display: block;
      width: 100%;
      background: var(--well);
    }
    figcaption {
      margin-top: 2px;
      font-size: var(--s1);
    }
    p {
      grid-column: 1 / -1;
    }
  `,
})
export class SamplePair {
  /** Words beside the subject. */
  readonly around = input.required<string>();
  readonly subjects = input.required<readonly Subject[]>();
  /** The first subject that the press draws, so that there is something to see. */
  readonly sample = computed(
    () => this.subjects().find(s => !s.picture && findSubject(s.wording).subject) ?? { label: 'Radish', wording: 'radish' },
  );
  readonly ignored = computed(() => findWishes(this.around()).ignored);
  private readonly alone = viewChild.required<ElementRef<HTMLCanvasElement>>('alone');
  private readonly worded = viewChild.required<ElementRef<HTMLCanvasElement>>('worded');
  private readonly pool = new PaintPool(({ slot, size, pixels }) => {
    const canvas = slot === 'alone' ? this.alone() : this.worded();
    canvas.nativeElement.getContext('2d')!.putImageData(new ImageData(pixels, size, size), 0, 0);
  }, 1);

  constructor() {
    afterRenderEffect(() => {
      const { label, wording } = this.sample();
      for (const [slot, around] of [
        ['alone', ''],
        ['worded', this.around()],
      ]) {
        const content: Content = { kind: 'subject', label, wording, identity: SEED, seed: SEED, around };
        this.pool.order(slot, {
          content,
          size: SIZE,
          style: STYLE,
          mixture: 'plain',
          strength: 0,
          never: [],
          measureAgainst: null,
        });
      }
    });
    inject(DestroyRef).onDestroy(() => this.pool.close());
  }
}
