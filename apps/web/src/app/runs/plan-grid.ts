import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { PlannedCell, PlanPreview } from '@zinc/contract';
import { PlanDraft } from './plan-draft';
import { PlanRow } from './plan-row';

/** The run as a grid of empty cells, before it is made: a row a subject, a column a way to make it; a press on a cell leaves it out. */
@Component({
  selector: 'zs-plan-grid',
  imports: [PlanRow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="scroll">
      <table [style.min-width.px]="150 + 74 * draft.columns().length">
        <caption class="sr">
          Cells of the run; press a cell to leave it out or take it back in
        </caption>
        <thead>
          <tr>
            <td class="corner"></td>
            @for (c of draft.columns(); track $index) {
              <th scope="col">
                {{ c.name }} <span class="dim">{{ c.detail }}</span>
              </th>
            }
          </tr>
        </thead>
        <tbody>
          @for (s of draft.chosenSubjects(); track s.id) {
            <tr>
              <th scope="row">
                <button
                  type="button"
                  class="subject clip"
                  [title]="s.label + ': words, format and anchor of its own'"
                  [attr.aria-expanded]="open() === s.id"
                  (click)="open.set(open() === s.id ? null : s.id)"
                >
                  {{ s.label }}
                  @if (draft.rows()[s.id]) {
                    <span class="own">own</span>
                  }
                </button>
              </th>
              @for (c of draft.columns(); track $index) {
                <td>
                  @if (draft.isMade(s.id, c)) {
                    @let key = draft.keyOf(s.id, c);
                    @let out = struck(key);
                    <button
                      type="button"
                      class="cell"
                      [class.struck]="out"
                      [class.must]="flagged().get(key) === 'must' && !out"
                      [attr.aria-pressed]="out"
                      [attr.aria-label]="
                        s.label +
                        ' in ' +
                        c.name +
                        (draft.columns().length > draft.lookIds().length ? ', ' + c.detail : '') +
                        (out ? ', left out' : ', ' + draft.takes() + ' takes')
                      "
                      [title]="cells().get(key)?.text ?? ''"
                      (click)="draft.strike(key)"
                    >
                      @for (t of takes(); track t) {
                        <i></i>
                      }
                    </button>
                  }
                </td>
              }
            </tr>
            @if (open() === s.id) {
              <tr>
                <td [attr.colspan]="draft.columns().length + 1"><zs-plan-row [subject]="s" (closed)="open.set(null)" /></td>
              </tr>
            }
          }
        </tbody>
      </table>
    </div>
  `,
  styles: `
    .scroll {
      overflow: auto;
    }
    table {
      width: 100%;
      table-layout: fixed;
      border-collapse: separate;
      border-spacing: 4px;
    }
    th {
      text-align: left;
      font-weight: 620;
      vertical-align: bottom;
    }
    thead th {
      padding-bottom: 2px;
    }
    .corner {
      width: 150px;
    }
    .subject {
      width: 100%;
      padding: 6px 4px;
      text-align: left;
      font-weight: 620;
      background: none;
      border: 0;
      cursor: pointer;
    }
    .subject:hover {
      text-decoration: underline;
      text-underline-offset: 3px;
    }
    .own {
      padding: 0 5px;
      font-size: var(--s1);
      color: var(--white);
      background: var(--ink);
    }
    .cell {
      display: flex;
      gap: 3px;
      width: 100%;
      min-width: 60px;
      height: 36px;
      padding: 4px;
      background: #dfe0e1;
      border: 1px solid var(--zinc);
      cursor: pointer;
    }
    .cell i {
      flex: 1;
      background: var(--sheet);
    }
    .cell:hover {
      border-color: var(--ink);
    }
    .cell.must {
      border: 2px solid var(--vermilion);
    }
    .cell.struck {
      background: repeating-linear-gradient(135deg, #d5d6d7 0 7px, #f6f6f6 7px 14px);
    }
    .cell.struck i {
      visibility: hidden;
    }
  `,
})
export class PlanGrid {
  readonly draft = inject(PlanDraft);
  readonly preview = input<PlanPreview | null>(null);
  readonly open = signal<string | null>(null);
  readonly cells = computed(() => new Map<string, PlannedCell>((this.preview()?.cells ?? []).map(c => [c.key, c])));
  /** Cells that a finding is about. */
  readonly flagged = computed(() => {
    const out = new Map<string, 'must' | 'note'>();
    for (const f of this.preview()?.findings ?? [])
      for (const key of f.cells) if (f.severity === 'must' || !out.has(key)) out.set(key, f.severity);
    return out;
  });
  readonly takes = computed(() =>
    Array.from({ length: Math.min(12, Math.max(1, Number(this.draft.takes()) || 1)) }, (_, i) => i),
  );

  /** Struck out by hand, or not among the first of a pilot. */
  struck(key: string): boolean {
    return this.draft.struckOut().has(key) || (this.draft.pilot() !== '' && this.cells().get(key)?.struckOut === true);
  }
}
