import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** The address of a picture at about the size it is shown. */
export function thumbUrl(sha: string, side: number): string {
  return `/api/pictures/${sha}/thumb?side=${side}`;
}

/** A picture of the house in a box that never shifts. */
@Component({
  selector: 'zs-thumb',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<img
    [src]="src()"
    [alt]="alt()"
    [width]="width()"
    [height]="height()"
    loading="lazy"
    decoding="async"
    draggable="false"
  />`,
  styles: `
    :host {
      display: block;
      overflow: hidden;
      background: var(--well);
    }
    img {
      width: 100%;
      height: 100%;
      object-fit: contain;
    }
  `,
})
export class Thumb {
  readonly sha = input.required<string>();
  readonly alt = input.required<string>();
  readonly side = input(320);
  readonly width = input(320);
  readonly height = input(320);
  readonly src = computed(() => thumbUrl(this.sha(), this.side()));
}
