import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import type { Stroke } from '@zinc/core';
import { Mending } from './mending';

const COLOUR = '#b83016';
/** A hand that draws by keys moves so far at a time. */
const STEP = 0.02;
const MOST_POINTS = 2000;

/** Lies over a picture and takes the region that a hand brushes, outlines or rubs out again; the arrows and the space bar do the same. */
@Component({
  selector: 'zs-region',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas
      #canvas
      tabindex="0"
      role="application"
      aria-label="Region to mend. The arrows move the brush, the space bar puts it down."
      (pointerdown)="down($event)"
      (pointermove)="move($event)"
      (pointerup)="up()"
      (pointercancel)="up()"
      (pointerleave)="at.set(null)"
      (keydown)="steer($event)"
    ></canvas>
    @if (at(); as p) {
      @if (mending.tool() !== 'outline') {
        <span class="brush" [style.left.%]="p[0] * 100" [style.top.%]="p[1] * 100" [style.width.%]="brushWidth()"></span>
      }
    }
  `,
  styles: `
    :host {
      position: absolute;
      inset: 0;
      touch-action: none;
      cursor: crosshair;
    }
    canvas {
      width: 100%;
      height: 100%;
      opacity: 0.55;
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
export class Region {
  readonly width = input.required<number>();
  readonly height = input.required<number>();
  readonly mending = inject(Mending);
  readonly at = signal<[number, number] | null>(null);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly points = signal<readonly number[]>([]);

  constructor() {
    afterRenderEffect(() => {
      const canvas = this.canvas().nativeElement;
      const [width, height] = [this.width(), this.height()];
      if (canvas.width !== width) canvas.width = width;
      if (canvas.height !== height) canvas.height = height;
      const context = canvas.getContext('2d')!;
      context.clearRect(0, 0, width, height);
      for (const stroke of this.mending.strokes()) draw(context, stroke, width, height);
      const points = this.points();
      if (points.length > 0) draw(context, this.strokeOf(points, false), width, height);
    });
  }

  brushWidth(): number {
    return (this.mending.size() * 100 * Math.max(this.width(), this.height())) / this.width();
  }

  private placeOf(event: PointerEvent): [number, number] {
    const { left, top, width, height } = this.canvas().nativeElement.getBoundingClientRect();
    return [(event.clientX - left) / width, (event.clientY - top) / height];
  }

  down(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.preventDefault();
    this.canvas().nativeElement.focus();
    this.canvas().nativeElement.setPointerCapture(event.pointerId);
    this.points.set(this.placeOf(event));
  }

  move(event: PointerEvent): void {
    const at = this.placeOf(event);
    this.at.set(at);
    if (this.points().length > 0 && this.points().length < 2 * MOST_POINTS) this.points.update(p => [...p, ...at]);
  }

  up(): void {
    const points = this.points();
    this.points.set([]);
    if (points.length === 0) return;
    // A click with the outline encloses nothing.
    if (this.mending.tool() === 'outline' && points.length < 6) return;
    this.mending.add(this.strokeOf(points, true));
  }

  steer(event: KeyboardEvent): void {
    const step: Record<string, [number, number]> = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, -STEP],
      ArrowDown: [0, STEP],
    };
    const [x, y] = this.at() ?? [0.5, 0.5];
    const clamp = (v: number): number => Math.min(1, Math.max(0, v));
    if (step[event.key]) this.at.set([clamp(x + step[event.key][0]), clamp(y + step[event.key][1])]);
    else if (event.key === ' ') this.mending.add(this.strokeOf([x, y], true));
    else if (event.key === 'Escape') this.mending.tool.set(null);
    else return;
    event.preventDefault();
  }

  private strokeOf(points: readonly number[], rounded: boolean): Stroke {
    const tool = this.mending.tool();
    const filled = tool === 'outline' && points.length >= 6;
    return {
      points: rounded ? points.map(v => Math.round(v * 1e4) / 1e4) : [...points],
      size: tool === 'outline' ? 0.004 : this.mending.size(),
      ...(tool === 'rub' ? { stays: true } : {}),
      ...(filled ? { filled: true } : {}),
    };
  }
}

function draw(context: CanvasRenderingContext2D, stroke: Stroke, width: number, height: number): void {
  const { points } = stroke;
  context.globalCompositeOperation = stroke.stays ? 'destination-out' : 'source-over';
  context.strokeStyle = context.fillStyle = COLOUR;
  context.lineCap = context.lineJoin = 'round';
  context.lineWidth = Math.max(1, stroke.size * Math.max(width, height));
  context.beginPath();
  context.moveTo(points[0] * width, points[1] * height);
  for (let k = 2; k < points.length; k += 2) context.lineTo(points[k] * width, points[k + 1] * height);
  if (points.length === 2) context.lineTo(points[0] * width + 0.01, points[1] * height);
  if (stroke.filled) context.fill('evenodd');
  context.stroke();
}
