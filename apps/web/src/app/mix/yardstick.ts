import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChildren,
} from '@angular/core';
import { type LookVersion } from '@zinc/contract';
import type { Drift, Fingerprint, Lab, Style } from '@zinc/core';
import { YARDSTICK } from '@zinc/scenes';
import { PaintPool } from './paint-pool';
import type { Content, PaintAnswer } from './painting';

const LARGE = { preview: 208, settled: 448 };
const SMALL = { preview: 96, settled: 160 };
const SETTLE_MS = 180;

/** The five yardstick subjects, one large and four small, painted in workers: coarse at once, settled when the hand rests. */
@Component({
  selector: 'zs-yardstick',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="surround" role="group" aria-label="Surround">
      <span class="dim" role="status">{{ painted() }}</span>
      @for (s of surrounds; track s.name) {
        <button
          type="button"
          [style.background]="s.colour"
          [attr.aria-pressed]="surround() === s.colour"
          [attr.aria-label]="s.name + ' surround'"
          [title]="s.name"
          (click)="surround.set(s.colour)"
        ></button>
      }
    </div>
    <div class="pictures" [style.background]="surround()" [class.two]="beside()">
      <figure class="large">
        <canvas #large role="img" [attr.aria-label]="label() + (plain() ? ', no style' : ' in this look')"></canvas>
      </figure>
      @if (beside()) {
        <figure class="large">
          <canvas
            #other
            width="448"
            height="448"
            role="img"
            [attr.aria-label]="label() + ' in version ' + beside()!.version"
          ></canvas>
          <figcaption>version {{ beside()!.version }}</figcaption>
        </figure>
      }
      <div class="small">
        @for (s of subjects; track s.name; let i = $index) {
          <button
            type="button"
            [attr.aria-pressed]="!laidOn() && inHand() === i"
            [attr.aria-label]="s.label + ', lay in the middle'"
            (click)="layIn(i)"
          >
            <canvas #small width="160" height="160" aria-hidden="true"></canvas>
          </button>
        }
      </div>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
      min-height: 0;
    }
    .surround {
      display: flex;
      justify-content: flex-end;
      align-items: center;
      gap: 5px;
    }
    .surround span {
      margin-right: auto;
    }
    .surround button {
      width: 24px;
      height: 24px;
      border: 1px solid var(--ink);
      cursor: pointer;
    }
    .surround button[aria-pressed='true'] {
      outline: 2px solid var(--ink);
      outline-offset: 1px;
    }
    .pictures {
      display: grid;
      grid-template-columns: minmax(0, 1fr) clamp(58px, 16%, 104px);
      gap: 10px;
      padding: 10px;
    }
    .pictures.two {
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) clamp(50px, 12%, 84px);
    }
    .large {
      position: relative;
      max-height: calc(100vh - 240px);
      aspect-ratio: 1;
      justify-self: center;
      max-width: 100%;
    }
    .large canvas {
      width: 100%;
      height: 100%;
      object-fit: contain;
    }
    figcaption {
      position: absolute;
      left: 0;
      bottom: 0;
      padding: 2px 7px;
      color: var(--white);
      background: var(--ink);
    }
    .small {
      display: flex;
      flex-direction: column;
      gap: 7px;
    }
    .small button {
      padding: 0;
      background: none;
      border: 0;
      cursor: pointer;
    }
    .small button[aria-pressed='true'] {
      outline: 3px solid var(--vermilion);
    }
    canvas {
      display: block;
      width: 100%;
    }
  `,
})
export class Yardstick {
  readonly style = input.required<Style>();
  /** Whole percentage. */
  readonly strength = input.required<number>();
  readonly target = input<Fingerprint | null>(null);
  readonly never = input<{ L: number; a: number; b: number; radius: number }[]>([]);
  readonly beside = input<LookVersion | null>(null);
  /** Shows the subjects as they are, for comparison. */
  readonly plain = input(false);
  /** Another subject or a picture of one's own in the middle. */
  readonly laidOn = input<Content | null>(null);
  /** Palettes of sources that give no colour. */
  readonly withheld = input<{ id: string; palette: Lab[] }[]>([]);
  readonly drift = output<Drift | null>();
  readonly holds = output<number | null>();
  readonly leaks = output<{ id: string; share: number }[]>();
  /** A subject of the yardstick was taken back into the middle. */
  readonly takenBack = output<void>();

  readonly subjects = YARDSTICK;
  readonly surrounds = [
    { name: 'Paper', colour: '#ffffff' },
    { name: 'Mid grey', colour: '#8a8a8a' },
    { name: 'Black', colour: '#111111' },
  ];
  readonly surround = signal('#ffffff');
  readonly inHand = signal(2);
  readonly middle = computed((): Content => this.laidOn() ?? { kind: 'yardstick', subject: this.inHand() });
  readonly label = computed(() => {
    const c = this.middle();
    return c.kind === 'yardstick' ? this.subjects[c.subject].label : c.label;
  });
  private readonly milliseconds = signal<number | null>(null);
  private readonly settled = signal(false);
  readonly painted = computed(() => {
    const ms = this.milliseconds();
    if (ms === null) return 'Painting …';
    return this.settled() ? `painted in ${(ms / 1000).toFixed(1)} s` : 'painting …';
  });

  private readonly large = viewChildren<ElementRef<HTMLCanvasElement>>('large');
  private readonly other = viewChildren<ElementRef<HTMLCanvasElement>>('other');
  private readonly small = viewChildren<ElementRef<HTMLCanvasElement>>('small');
  private readonly pool = new PaintPool(answer => this.show(answer));
  private timer: ReturnType<typeof setTimeout> | undefined;
  private startedAt = 0;
  /** Pictures whose fine painting is still awaited. */
  private readonly open = new Set<string>();
  private readonly newest = new Map<string, number>();

  private styleNow: Style | null = null;
  private styles = 0;

  constructor() {
    effect(() => {
      const style = this.style();
      const strength = this.plain() ? 0 : this.strength() / 100;
      const target = this.target();
      const middle = this.middle();
      untracked(() => this.repaint(style, strength, target, middle));
    });
    effect(() => {
      const version = this.beside();
      const content = this.middle();
      if (!version || this.other().length === 0) return;
      const never = untracked(() => this.never());
      this.pool.order('beside', {
        content,
        size: LARGE.settled,
        style: version.style,
        mixture: `beside/${version.version}/${version.madeAt}`,
        strength: version.strength / 100,
        never,
        measureAgainst: null,
      });
    });
    inject(DestroyRef).onDestroy(() => {
      clearTimeout(this.timer);
      this.pool.close();
    });
  }

  layIn(i: number): void {
    this.inHand.set(i);
    this.takenBack.emit();
  }

  /** Makes a picture known under a key, to be laid on. */
  tell(key: string, picture: { width: number; height: number; pixels: Uint8ClampedArray<ArrayBuffer> }): void {
    this.pool.tell(key, picture);
  }

  private repaint(style: Style, strength: number, target: Fingerprint | null, middle: Content): void {
    // Another strength of the same mix is a matter of moments: it needs no coarse painting first.
    const sameMix = style === this.styleNow && this.settled();
    if (style !== this.styleNow) this.styles++;
    this.styleNow = style;
    const rest = { style, strength, never: this.never(), mixture: String(this.styles), measureAgainst: null };
    this.startedAt = performance.now();
    this.settled.set(false);
    for (const slot of ['large', ...YARDSTICK.keys()]) this.open.add(String(slot));
    clearTimeout(this.timer);
    const small = (size: number, rough = false): void =>
      YARDSTICK.forEach((_, subject) =>
        this.pool.order(String(subject), { ...rest, content: { kind: 'yardstick', subject }, size, rough }),
      );
    const settle = (): void => {
      const withheld = this.plain() ? [] : this.withheld();
      this.pool.order('large', { ...rest, content: middle, size: LARGE.settled, measureAgainst: target, withheld });
      small(SMALL.settled);
    };
    if (sameMix) return settle();
    this.pool.order('large', { ...rest, content: middle, size: LARGE.preview, rough: true });
    small(SMALL.preview, true);
    this.timer = setTimeout(settle, SETTLE_MS);
  }

  private show(answer: PaintAnswer): void {
    const { slot, size, id } = answer;
    // Two workers may finish out of turn: an older painting never replaces a newer one.
    if (id < (this.newest.get(slot) ?? 0)) return;
    this.newest.set(slot, id);
    const canvas = slot === 'large' ? this.large()[0] : slot === 'beside' ? this.other()[0] : this.small()[Number(slot)];
    if (!canvas) return;
    this.draw(canvas.nativeElement, answer);
    if (slot === 'large' && size === LARGE.settled) {
      this.drift.emit(answer.drift);
      this.holds.emit(answer.holds);
      this.leaks.emit(answer.leaks);
    }
    if (slot === 'beside') return;
    if (size === (slot === 'large' ? LARGE : SMALL).settled) this.open.delete(slot);
    this.milliseconds.update(before => before ?? 0);
    if (this.open.size > 0 || this.settled()) return;
    this.settled.set(true);
    this.milliseconds.set(performance.now() - this.startedAt);
  }

  private draw(canvas: HTMLCanvasElement, { size, pixels }: PaintAnswer): void {
    canvas.width = size;
    canvas.height = size;
    canvas.getContext('2d')!.putImageData(new ImageData(pixels, size, size), 0, 0);
  }
}
