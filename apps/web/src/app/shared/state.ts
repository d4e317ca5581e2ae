import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** What a page shows instead of its content: that it loads, that it failed and what to do, that there is nothing yet. */
@Component({
  selector: 'zs-state',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="state" [attr.role]="kind() === 'failed' ? 'alert' : 'status'">
      @if (kind() === 'loading') {
        <span class="bars" aria-hidden="true"><i></i><i></i><i></i></span>
        <p>{{ title() || 'Fetching …' }}</p>
      } @else {
        <h2>{{ title() }}</h2>
        <p class="dim"><ng-content /></p>
        @if (action()) {
          <button class="b" type="button" (click)="act.emit()">{{ action() }}</button>
        }
      }
    </div>
  `,
  styles: `
    .state {
      display: grid;
      justify-items: start;
      align-content: center;
      gap: 8px;
      max-width: 460px;
      margin: 10vh auto;
      padding: 0 16px;
    }
    h2 {
      font-size: var(--s3);
    }
    .bars {
      display: flex;
      gap: 4px;
    }
    i {
      width: 14px;
      height: 3px;
      background: var(--ink);
      animation: beat 0.9s infinite alternate;
    }
    i:nth-child(2) {
      animation-delay: 0.2s;
    }
    i:nth-child(3) {
      animation-delay: 0.4s;
    }
    @keyframes beat {
      to {
        opacity: 0.2;
      }
    }
  `,
})
export class StateView {
  readonly kind = input.required<'loading' | 'failed' | 'empty'>();
  readonly title = input('');
  readonly action = input('');
  readonly act = output<void>();
}
