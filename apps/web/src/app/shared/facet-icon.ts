import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Facet } from '@zinc/core';

/** The shape of a facet: two discs for colour, a half square for light, a curve for line, dots for texture; a sheet for framing, which is no facet. */
@Component({
  selector: 'zs-facet-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true">
      @switch (facet()) {
        @case ('colour') {
          <circle cx="6" cy="8" r="4.5" fill="#b83016" />
          <circle cx="10" cy="8" r="4.5" fill="#2a6450" fill-opacity=".75" />
        }
        @case ('light') {
          <path d="M2 14 14 2v12z" fill="currentColor" />
          <path d="M2.5 13.5v-11h11" fill="none" stroke="currentColor" />
        }
        @case ('line') {
          <path d="M1.5 11c3-9 5-3 7-2.5s3 3 6-4" fill="none" stroke="currentColor" stroke-width="1.8" />
        }
        @case ('texture') {
          <g fill="currentColor">
            <circle cx="4" cy="4" r="1.6" />
            <circle cx="9" cy="3" r="1.1" />
            <circle cx="13" cy="6" r="1.6" />
            <circle cx="6.5" cy="8" r="1.6" />
            <circle cx="3" cy="12" r="1.1" />
            <circle cx="10.5" cy="10.5" r="1.6" />
            <circle cx="7" cy="13" r="1.1" />
            <circle cx="14" cy="13" r="1.1" />
          </g>
        }
        @case ('framing') {
          <path d="M1.5 1.5h13v13h-13z" fill="none" stroke="currentColor" />
          <rect x="4" y="4" width="8" height="7" rx="1.5" fill="currentColor" />
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-flex;
    }
  `,
})
export class FacetIcon {
  readonly facet = input.required<Facet | 'framing'>();
}
