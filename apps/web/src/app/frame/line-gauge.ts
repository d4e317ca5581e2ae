import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';

const STEPS = [
  { path: '/shelf', name: 'Shelf' },
  { path: '/mix', name: 'Mix' },
  { path: '/wording', name: 'Wording' },
  { path: '/runs', name: 'Runs' },
  { path: '/review', name: 'Review' },
  { path: '/deliver', name: 'Deliver' },
] as const;

/** The printer's ruler at the left edge: the steps in the order of the work, the present one marked. */
@Component({
  selector: 'zs-line-gauge',
  imports: [RouterLink, RouterLinkActive],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="Steps of the work">
      @for (s of steps; track s.path) {
        <a [routerLink]="s.path" routerLinkActive="here" ariaCurrentWhenActive="page">{{ s.name }}</a>
      }
      <a class="foot" routerLink="/house" routerLinkActive="here" ariaCurrentWhenActive="page">House</a>
    </nav>
  `,
  styles: `
    :host {
      position: relative;
      background: linear-gradient(90deg, #d9dadb, #c6c8c9);
      border-right: 1px solid var(--ink);
    }
    nav {
      position: absolute;
      inset: 0;
      display: flex;
      flex-direction: column;
      padding: 10px 0;
      background:
        repeating-linear-gradient(#161718 0 1px, transparent 1px 40px) right / 13px 100% no-repeat,
        repeating-linear-gradient(#4a4c4e 0 1px, transparent 1px 8px) right / 6px 100% no-repeat;
    }
    a {
      position: relative;
      display: flex;
      align-items: center;
      height: 40px;
      padding-left: 14px;
      margin-right: 13px;
      text-decoration: none;
    }
    a:hover {
      background: rgb(255 255 255 / 0.45);
    }
    a.here {
      font-weight: 720;
      background: var(--sheet);
      box-shadow: inset 5px 0 0 var(--vermilion);
      margin-right: 0;
    }
    .foot {
      margin-top: auto;
    }
  `,
})
export class LineGauge {
  readonly steps = STEPS;
}
