import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { looks } from './looks.store';
import { Usage, usageLine, usageOf, usageOfSource } from './usage';

/** The looks that mix a source, how each did, and what they were good and bad for together. */
@Component({
  selector: 'zs-used-in',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (used().usage; as u) {
      <p>
        All together: {{ line(u) }}.
        @if (u.goodFor.length) {
          <b class="good">Good for</b> {{ u.goodFor.join(', ').toLowerCase() }}.
        }
        @if (u.badFor.length) {
          <b class="wrong">Bad for</b> {{ u.badFor.join(', ').toLowerCase() }}.
        }
      </p>
    }
    <ul>
      @for (l of used().looks; track l.id) {
        <li>
          <a [routerLink]="['/mix', l.id]">{{ l.name }}</a> <span class="dim">{{ lineOf(l.id) }}</span>
        </li>
      } @empty {
        <li class="dim">No look yet.</li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    .good {
      color: var(--brine);
    }
  `,
})
export class UsedIn {
  private readonly usage = inject(Usage);
  private readonly looks = inject(Store).selectSignal(looks.all);
  /** The hash of a picture, or the text of an own code. */
  readonly source = input.required<string>();
  readonly used = computed(() => usageOfSource(this.usage.all(), this.looks(), s => (s.sha256 ?? s.id) === this.source()));
  readonly line = usageLine;

  constructor() {
    void this.usage.refresh();
  }

  lineOf(lookId: string): string {
    return usageLine(usageOf(this.usage.all(), lookId));
  }
}
