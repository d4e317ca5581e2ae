import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { TextPart } from '@zinc/core';

/** A template as a sentence to read, its slots as chips with what stands in them; the subject's is marked. */
@Component({
  selector: 'zs-sentence',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p aria-label="The sentence with its slots">
    @for (p of parts(); track $index) {
      @if (p.from === 'template') {
        <span>{{ p.words }}</span>
      } @else {
        <span class="chip" [class.subject]="p.from === 'subject'">{{ p.words }}</span>
      }
    }
  </p>`,
  styles: `
    p {
      line-height: 1.9;
      white-space: pre-wrap;
    }
    .chip {
      padding: 2px 7px;
      font-weight: 680;
      border: 1px solid var(--ink);
      /* A chip that runs over a line stays closed at both ends. */
      box-decoration-break: clone;
      -webkit-box-decoration-break: clone;
    }
    .subject {
      box-shadow: inset 0 -3px 0 var(--vermilion);
    }
  `,
})
export class Sentence {
  readonly parts = input.required<readonly TextPart[]>();
}
