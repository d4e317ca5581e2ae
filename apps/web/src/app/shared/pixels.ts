import { Directive, effect, ElementRef, inject, input } from '@angular/core';

/** Shows pixels on a canvas, at their own size. */
@Directive({ selector: 'canvas[zsPixels]' })
export class Pixels {
  readonly zsPixels = input.required<{ width: number; height: number; pixels: Uint8ClampedArray<ArrayBuffer> }>();

  constructor() {
    const canvas = inject<ElementRef<HTMLCanvasElement>>(ElementRef).nativeElement;
    effect(() => {
      const { width, height, pixels } = this.zsPixels();
      canvas.width = width;
      canvas.height = height;
      canvas.getContext('2d')!.putImageData(new ImageData(pixels, width, height), 0, 0);
    });
  }
}
