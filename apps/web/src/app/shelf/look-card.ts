import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChildren,
} from '@angular/core';
import type { Look } from '@zinc/contract';
import { YARDSTICK } from '@zinc/scenes';
import { PaletteBar } from '../shared/palette-bar';
import { Usage, usageLine, usageOf } from '../mix/usage';
import { LookPainter } from './look-painter';

/** A look as its five yardstick pictures, one large and four small, with its palette and name. */
@Component({
  selector: 'zs-look-card',
  imports: [PaletteBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" (click)="open.emit()">
      <canvas class="one" #pic width="216" height="216" role="img" [attr.aria-label]="look().name + ', the radish'"></canvas>
      <span class="four">
        @for (s of rest; track s.name) {
          <canvas #pic width="72" height="72" aria-hidden="true"></canvas>
        }
      </span>
      <zs-palette-bar class="palette" [palette]="look().latest.style.palette" />
      <b class="clip">{{ look().name }}</b>
      <span class="dim clip"
        >version {{ look().latest.version }}, {{ look().latest.strength }} %, {{ look().latest.sources.length }} sources</span
      >
      <span class="dim clip">{{ used() }}</span>
    </button>
  `,
  styles: `
    button {
      display: block;
      width: 216px;
      padding: 0;
      text-align: left;
      background: none;
      border: 0;
      cursor: pointer;
    }
    canvas {
      display: block;
      background: var(--well);
    }
    .one {
      width: 216px;
      height: 216px;
    }
    .four {
      display: grid;
      grid-template-columns: repeat(4, 1fr);
      gap: 3px;
      padding-top: 3px;
      border-bottom: 3px solid var(--ink);
    }
    .four canvas {
      width: 100%;
      aspect-ratio: 1;
    }
    .palette {
      display: block;
      height: 9px;
    }
    b,
    span.dim {
      display: block;
    }
    b {
      margin-top: 5px;
      font-size: var(--s3);
    }
    button:hover b {
      text-decoration: underline;
    }
  `,
})
export class LookCard {
  readonly look = input.required<Look>();
  readonly open = output<void>();
  readonly rest = YARDSTICK.slice(1);
  private readonly usage = inject(Usage);
  readonly used = computed(() => usageLine(usageOf(this.usage.all(), this.look().id)));
  private readonly pics = viewChildren<ElementRef<HTMLCanvasElement>>('pic');

  constructor() {
    const painter = inject(LookPainter);
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const inSight = signal(false);
    // A look out of sight is not painted: of dozens only a few are seen at once.
    const watch = new IntersectionObserver(([entry]) => inSight.set(entry.isIntersecting), { rootMargin: '120px' });
    afterNextRender(() => watch.observe(host));
    inject(DestroyRef).onDestroy(() => watch.disconnect());
    effect(onCleanup => {
      const { id, latest } = this.look();
      const pics = this.pics();
      if (!inSight() || pics.length === 0) return;
      const abort = new AbortController();
      onCleanup(() => abort.abort());
      const { style, strength, version } = latest;
      pics.forEach(({ nativeElement: canvas }, subject) =>
        painter.paint(
          { of: `${id}/${version}`, style, strength: strength / 100, subject, size: canvas.width },
          canvas,
          abort.signal,
        ),
      );
    });
  }
}
