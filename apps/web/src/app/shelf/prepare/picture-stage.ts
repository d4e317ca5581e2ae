import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { Box, Stroke } from '@zinc/core';
import type { Shown } from './preparing';

export type Tool = 'crop' | 'cutOut' | 'paintOut' | 'recolour' | 'treat';
type Grip = 'move' | 'draw' | 'nw' | 'ne' | 'sw' | 'se';

const WHOLE: Box = { x: 0, y: 0, width: 1, height: 1 };
const clamp = (v: number): number => Math.min(1, Math.max(0, v));

/** The picture that is being prepared, with what the hand does on it: a crop, strokes of a brush, a place pointed at. */
@Component({
  selector: 'zs-picture-stage',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="frame"
      #frame
      [style.aspect-ratio]="shown().width + ' / ' + shown().height"
      [style.width]="'min(100%, calc((100vh - 300px) * ' + shown().width / shown().height + '))'"
      [class.pointing]="tool() !== 'treat'"
      (pointerdown)="down($event)"
      (pointermove)="move($event)"
      (pointerup)="up($event)"
      (pointercancel)="up($event)"
    >
      <canvas #picture role="img" [attr.aria-label]="name()"></canvas>
      @if (tool() === 'crop') {
        <svg viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
          <path [attr.d]="shade()" fill="rgb(22 23 24 / 0.55)" fill-rule="evenodd" />
        </svg>
        <div
          class="box"
          [style.left.%]="box().x * 100"
          [style.top.%]="box().y * 100"
          [style.width.%]="box().width * 100"
          [style.height.%]="box().height * 100"
        >
          @for (g of grips; track g) {
            <i [class]="g" [attr.data-grip]="g"></i>
          }
        </div>
      }
      <canvas class="strokes" #drawing aria-hidden="true"></canvas>
      @if (brush() && pointer(); as at) {
        <span class="brush" [style.left.%]="at[0] * 100" [style.top.%]="at[1] * 100" [style.width.%]="brushWidth()"></span>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      min-height: 0;
      place-items: center;
    }
    .frame {
      position: relative;
      touch-action: none;
      background: repeating-conic-gradient(#d8d9da 0 25%, #eeefef 0 50%) 0 0 / 18px 18px;
    }
    .pointing {
      cursor: crosshair;
    }
    canvas,
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
    }
    .strokes,
    svg {
      pointer-events: none;
    }
    .box {
      position: absolute;
      border: 2px solid var(--vermilion);
      pointer-events: none;
    }
    i {
      position: absolute;
      width: 14px;
      height: 14px;
      background: var(--vermilion);
      pointer-events: auto;
    }
    .nw {
      top: -7px;
      left: -7px;
      cursor: nwse-resize;
    }
    .ne {
      top: -7px;
      right: -7px;
      cursor: nesw-resize;
    }
    .sw {
      bottom: -7px;
      left: -7px;
      cursor: nesw-resize;
    }
    .se {
      right: -7px;
      bottom: -7px;
      cursor: nwse-resize;
    }
    .brush {
      position: absolute;
      aspect-ratio: 1;
      border: 1.5px solid var(--white);
      border-radius: 50%;
      outline: 1px solid var(--ink);
      transform: translate(-50%, -50%);
      pointer-events: none;
    }
  `,
})
export class PictureStage {
  readonly shown = input.required<Shown>();
  readonly name = input('');
  readonly tool = input.required<Tool>();
  readonly crop = input<Box | null>(null);
  /** Width of the brush in parts of the long side; 0 for none. */
  readonly brush = input(0);
  readonly brushColour = input('#c8371b');
  readonly cropped = output<Box>();
  readonly stroked = output<Stroke>();
  readonly pointed = output<{ x: number; y: number }>();

  readonly grips = ['nw', 'ne', 'sw', 'se'] as const;
  readonly pointer = signal<[number, number] | null>(null);
  private readonly drawn = signal<Box | null>(null);
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly picture = viewChild.required<ElementRef<HTMLCanvasElement>>('picture');
  private readonly drawing = viewChild.required<ElementRef<HTMLCanvasElement>>('drawing');
  private grip: Grip | null = null;
  private from: [number, number] = [0, 0];
  private start: Box = WHOLE;
  private points: number[] = [];

  constructor() {
    afterRenderEffect(() => {
      const { width, height, pixels } = this.shown();
      const canvas = this.picture().nativeElement;
      canvas.width = width;
      canvas.height = height;
      canvas.getContext('2d')!.putImageData(new ImageData(pixels, width, height), 0, 0);
      const over = this.drawing().nativeElement;
      over.width = width;
      over.height = height;
    });
  }

  box(): Box {
    return this.drawn() ?? this.crop() ?? WHOLE;
  }

  shade(): string {
    const { x, y, width, height } = this.box();
    const [l, t, r, b] = [x * 100, y * 100, (x + width) * 100, (y + height) * 100];
    return `M0 0H100V100H0Z M${l} ${t}H${r}V${b}H${l}Z`;
  }

  /** The brush is given in parts of the long side; it is drawn in parts of the width. */
  brushWidth(): number {
    const { width, height } = this.shown();
    return (this.brush() * 100 * Math.max(width, height)) / width;
  }

  private placeOf(event: PointerEvent): [number, number] {
    const { left, top, width, height } = this.frame().nativeElement.getBoundingClientRect();
    return [(event.clientX - left) / width, (event.clientY - top) / height];
  }

  down(event: PointerEvent): void {
    const tool = this.tool();
    if (tool === 'treat' || event.button !== 0) return;
    const at = this.placeOf(event);
    event.preventDefault();
    if (tool === 'recolour') return this.pointed.emit({ x: clamp(at[0]), y: clamp(at[1]) });
    this.frame().nativeElement.setPointerCapture(event.pointerId);
    if (tool === 'crop') {
      const { x, y, width, height } = (this.start = this.box());
      const inside = at[0] > x && at[0] < x + width && at[1] > y && at[1] < y + height && width * height < 0.98;
      this.grip = ((event.target as HTMLElement).dataset['grip'] as Grip | undefined) ?? (inside ? 'move' : 'draw');
      this.from = at;
      return;
    }
    this.points = [...at];
    this.drawLine(at, at);
  }

  move(event: PointerEvent): void {
    const at = this.placeOf(event);
    this.pointer.set(at);
    if (this.grip) return this.drawn.set(this.boxTo(at));
    if (this.points.length === 0) return;
    this.drawLine(this.points.slice(-2) as [number, number], at);
    this.points.push(...at);
  }

  up(event: PointerEvent): void {
    if (this.grip) {
      const box = this.boxTo(this.placeOf(event));
      this.grip = null;
      this.drawn.set(null);
      // A click is no crop.
      if (box.width > 0.005 && box.height > 0.005) this.cropped.emit(box);
    }
    if (this.points.length > 0) {
      this.stroked.emit({ points: this.points.map(v => Math.round(v * 1e4) / 1e4), size: this.brush() });
      this.points = [];
      const canvas = this.drawing().nativeElement;
      setTimeout(() => canvas.getContext('2d')!.clearRect(0, 0, canvas.width, canvas.height), 150);
    }
  }

  private boxTo(at: [number, number]): Box {
    const { x, y, width, height } = this.start;
    const between = (x1: number, y1: number, x2: number, y2: number): Box => {
      const [l, r] = [clamp(Math.min(x1, x2)), clamp(Math.max(x1, x2))];
      const [t, b] = [clamp(Math.min(y1, y2)), clamp(Math.max(y1, y2))];
      return { x: l, y: t, width: r - l, height: b - t };
    };
    switch (this.grip) {
      case 'move':
        return {
          width,
          height,
          x: Math.min(1 - width, Math.max(0, x + at[0] - this.from[0])),
          y: Math.min(1 - height, Math.max(0, y + at[1] - this.from[1])),
        };
      case 'nw':
        return between(at[0], at[1], x + width, y + height);
      case 'ne':
        return between(x, at[1], at[0], y + height);
      case 'sw':
        return between(at[0], y, x + width, at[1]);
      case 'se':
        return between(x, y, at[0], at[1]);
      default:
        return between(this.from[0], this.from[1], at[0], at[1]);
    }
  }

  private drawLine(from: [number, number], to: [number, number]): void {
    const canvas = this.drawing().nativeElement;
    const context = canvas.getContext('2d')!;
    context.globalAlpha = 0.7;
    context.strokeStyle = this.brushColour();
    context.lineCap = 'round';
    context.lineWidth = this.brush() * Math.max(canvas.width, canvas.height);
    context.beginPath();
    context.moveTo(from[0] * canvas.width, from[1] * canvas.height);
    context.lineTo(to[0] * canvas.width + 0.01, to[1] * canvas.height);
    context.stroke();
  }
}
