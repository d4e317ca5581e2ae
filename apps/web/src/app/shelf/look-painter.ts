import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { avoidedColours, labOfHex, type Style } from '@zinc/core';
import { PaintPool } from '../mix/paint-pool';
import type { PaintAnswer } from '../mix/painting';
import { sessionFeature } from '../shared/session.store';

const MOST_KEPT = 400;

/** One yardstick picture to be painted. `of` names what it is painted in, for good: a version of a look, a style code. */
export interface Specimen {
  of: string;
  style: Style;
  /** 0–1. */
  strength: number;
  subject: number;
  size: number;
}

/** Paints looks and codes on the yardstick for the shelf, in workers, and keeps what it painted. */
@Injectable({ providedIn: 'root' })
export class LookPainter {
  private readonly house = inject(Store).selectSignal(sessionFeature.selectHouse);
  private pool: PaintPool | null = null;
  private readonly kept = new Map<string, ImageData>();
  private readonly waiting = new Map<string, Set<HTMLCanvasElement>>();

  /** Paints into a canvas as soon as a worker is free; what is aborted while it waits is not painted at all. */
  paint({ of, style, strength, subject, size }: Specimen, canvas: HTMLCanvasElement, signal: AbortSignal): void {
    const slot = `${of}/${subject}/${size}`;
    const known = this.kept.get(slot);
    if (known) return canvas.getContext('2d')!.putImageData(known, 0, 0);
    const canvases = this.waiting.get(slot) ?? new Set();
    this.waiting.set(slot, canvases.add(canvas));
    signal.addEventListener('abort', () => {
      canvases.delete(canvas);
      // Another set may wait under the same slot by now; its order stays.
      if (canvases.size > 0 || this.waiting.get(slot) !== canvases) return;
      if (this.pool?.withdraw(slot)) this.waiting.delete(slot);
    });
    this.pool ??= new PaintPool(answer => this.show(answer));
    const { brand } = this.house() ?? {};
    const never = [
      ...(brand?.colours ?? []).filter(c => c.never).map(c => ({ hex: c.hex, radius: c.tolerance / 100 })),
      ...avoidedColours(brand?.avoid ?? []),
    ].map(c => ({ ...labOfHex(c.hex), radius: c.radius }));
    this.pool.order(slot, {
      content: { kind: 'yardstick', subject },
      size,
      style,
      mixture: of,
      strength,
      never,
      measureAgainst: null,
    });
  }

  private show({ slot, size, pixels }: PaintAnswer): void {
    const image = new ImageData(pixels, size, size);
    if (this.kept.size >= MOST_KEPT) this.kept.delete(this.kept.keys().next().value!);
    this.kept.set(slot, image);
    for (const canvas of this.waiting.get(slot) ?? []) canvas.getContext('2d')!.putImageData(image, 0, 0);
    this.waiting.delete(slot);
  }
}
