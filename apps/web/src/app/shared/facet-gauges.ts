import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { FACETS, type Drift, type Facet } from '@zinc/core';
import { FacetIcon } from './facet-icon';

/** Drift by facet as four gauges with the allowed drift marked. */
@Component({
  selector: 'zs-facet-gauges',
  imports: [FacetIcon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (g of gauges(); track g.facet) {
        <li [class.off]="!g.on">
          <zs-facet-icon [facet]="g.facet" />
          <span class="name">{{ g.facet }}</span>
          <span class="track">
            <span class="fill" [class.over]="g.over" [style.width.%]="g.width"></span>
            @if (allowed() !== null) {
              <span class="mark" [style.left.%]="markAt()"></span>
            }
          </span>
          <b [class.wrong]="g.over">{{ g.text }}</b>
        </li>
      }
    </ul>
  `,
  styles: `
    li {
      display: grid;
      grid-template-columns: 20px 58px 1fr 34px;
      align-items: center;
      gap: 4px;
      height: 26px;
    }
    .track {
      position: relative;
      height: 8px;
      background: var(--well);
    }
    .fill {
      position: absolute;
      inset: 0 auto 0 0;
      background: var(--ink);
    }
    .fill.over {
      background: var(--vermilion);
    }
    .mark {
      position: absolute;
      top: -4px;
      bottom: -4px;
      width: 2px;
      background: var(--vermilion);
    }
    b {
      text-align: right;
      font-weight: 680;
    }
    .off .fill,
    .off .mark {
      visibility: hidden;
    }
    .off b {
      color: var(--dim);
      font-weight: 500;
    }
  `,
})
export class FacetGauges {
  readonly drift = input.required<Drift | null>();
  /** Drift that is allowed; null where no one asks. */
  readonly allowed = input<number | null>(0.4);
  /** Facets that count; the others are shown as not aimed at. */
  readonly facets = input<readonly Facet[]>(FACETS);
  readonly markAt = computed(() => Math.min(100, (this.allowed() ?? 0) * 100));
  readonly gauges = computed(() =>
    FACETS.map(facet => {
      const on = this.facets().includes(facet);
      const value = this.drift()?.[facet];
      return {
        facet,
        on,
        over: on && value !== undefined && value > (this.allowed() ?? Infinity),
        width: Math.min(100, (value ?? 0) * 100),
        text: !on ? 'free' : value === undefined ? '–' : value.toFixed(2),
      };
    }),
  );
}
