import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** Ten grades in a row; the one that stands, pressed again, is taken back. */
@Component({
  selector: 'zs-grade-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div role="group" aria-label="Grade">
      @for (g of grades; track g) {
        <button
          type="button"
          [attr.aria-pressed]="grade() === g"
          [disabled]="!mayEdit()"
          (click)="set.emit(grade() === g ? null : g)"
        >
          {{ g }}
        </button>
      }
    </div>
  `,
  styles: `
    div {
      display: grid;
      grid-template-columns: repeat(10, 1fr);
    }
    button {
      min-height: 28px;
      padding: 0;
      font-weight: 650;
      background: var(--white);
      border: 1px solid var(--hair);
      border-left-width: 0;
      cursor: pointer;
    }
    button:first-child {
      border-left-width: 1px;
    }
    button[aria-pressed='true'] {
      color: var(--white);
      background: var(--ink);
    }
  `,
})
export class GradeRow {
  readonly grade = input.required<number | null | undefined>();
  readonly mayEdit = input(true);
  readonly set = output<number | null>();
  readonly grades = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9];
}
