import { ChangeDetectionStrategy, Component, model } from '@angular/core';

/** What pictures are judged on: colours look otherwise on each. */
const SURROUNDS = [
  { colour: '#ffffff', name: 'paper' },
  { colour: '#8a8a8a', name: 'mid grey' },
  { colour: '#111111', name: 'black' },
] as const;

export const MID_GREY = SURROUNDS[1].colour as string;

export function nextSurround(colour: string): string {
  const at = SURROUNDS.findIndex(s => s.colour === colour);
  return SURROUNDS[(at + 1) % SURROUNDS.length].colour;
}

/** Chooses the surround of pictures. */
@Component({
  selector: 'zs-surround',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (s of surrounds; track s.colour) {
      <button
        type="button"
        [style.background]="s.colour"
        [attr.aria-pressed]="colour() === s.colour"
        [attr.aria-label]="'surround ' + s.name"
        (click)="colour.set(s.colour)"
      ></button>
    }
  `,
  styles: `
    :host {
      display: flex;
      gap: 5px;
    }
    button {
      width: 24px;
      height: 24px;
      border: 1px solid var(--ink);
      cursor: pointer;
    }
    button[aria-pressed='true'] {
      outline: 2px solid var(--ink);
      outline-offset: 1px;
    }
  `,
})
export class Surround {
  readonly surrounds = SURROUNDS;
  readonly colour = model.required<string>();
}
