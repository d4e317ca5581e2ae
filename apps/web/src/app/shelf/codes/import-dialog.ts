import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  CODE_COLUMNS,
  GRADE_SCALES,
  guardCell,
  type CodeColumn,
  type ImportPlan,
  type ImportPreview,
  type ImportResult,
  type UndoResult,
} from '@zinc/contract';
import { Dialog } from 'primeng/dialog';
import { Api, messageOf } from '../../shared/api';
import { Messages } from '../../shared/messages';
import { codes } from '../shelf.store';

const MEANINGS: Record<CodeColumn, string> = {
  text: 'the code',
  press: 'its press',
  name: 'name',
  grade: 'grade',
  note: 'note',
  tags: 'tags',
  shelf: 'shelf',
};

/** Brings in a spreadsheet of codes: what each column means, what will happen, what came in, what was refused and why, and the way back. */
@Component({
  selector: 'zs-import-dialog',
  imports: [Dialog],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      closeAriaLabel="Close"
      header="Bring in a spreadsheet of codes"
      [visible]="true"
      (visibleChange)="closed.emit()"
      [modal]="true"
      [draggable]="false"
      [style]="{ width: '860px' }"
    >
      @if (result(); as r) {
        <p class="sum">
          <b>{{ r.added }}</b> came in, <b>{{ r.merged }}</b> were merged, <b>{{ r.left }}</b> were on the shelf already,
          <b [class.wrong]="r.refused.length > 0">{{ r.refused.length }}</b> were refused.
        </p>
        @if (r.refused.length > 0) {
          <div class="sheet" tabindex="0" aria-label="Refused rows">
            <table>
              <thead>
                <tr>
                  <th>Line</th>
                  <th>Code</th>
                  <th>Why</th>
                </tr>
              </thead>
              <tbody>
                @for (x of r.refused.slice(0, shown); track x.line) {
                  <tr>
                    <td>{{ x.line }}</td>
                    <td class="mono">{{ x.what }}</td>
                    <td>{{ x.reason }}</td>
                  </tr>
                }
              </tbody>
            </table>
          </div>
        }
        <div class="row">
          @if (r.refused.length > 0) {
            <button class="b" type="button" (click)="saveReport()">Save the report</button>
          }
          <span class="grow"></span>
          @if (r.mayUndo) {
            <button class="b" type="button" [disabled]="busy()" (click)="undo(r.id!)">Take it back</button>
          }
          <button class="b main" type="button" (click)="closed.emit()">Done</button>
        </div>
      } @else {
        @if (preview(); as p) {
          <p>
            <b>{{ file()!.name }}</b>, {{ p.count }} rows, read as {{ p.encoding }}. Say what each column means.
          </p>
          <div class="sheet" tabindex="0" aria-label="First rows">
            <table>
              <thead>
                <tr>
                  @for (h of p.header; track place; let place = $index) {
                    <th>
                      {{ h || 'no heading' }}
                      <select
                        class="t"
                        [attr.aria-label]="'Column ' + h + ' is'"
                        (change)="setColumn(place, $any($event.target).value)"
                      >
                        <option value="" [selected]="!meaningOf(place)">leave out</option>
                        @for (c of columns; track c) {
                          <option [value]="c" [selected]="meaningOf(place) === c">{{ meanings[c] }}</option>
                        }
                      </select>
                    </th>
                  }
                </tr>
              </thead>
              <tbody>
                @for (row of p.rows; track $index) {
                  <tr>
                    @for (h of p.header; track place; let place = $index) {
                      <td class="clip">{{ row[place] }}</td>
                    }
                  </tr>
                }
              </tbody>
            </table>
          </div>
          <div class="row choices">
            <label for="i-scale">Grades go</label>
            <select class="t" id="i-scale" (change)="set({ scale: $any($event.target).value })">
              @for (s of scales; track s) {
                <option [value]="s" [selected]="plan()!.scale === s">{{ s }}</option>
              }
            </select>
            <label for="i-same">Codes that are on the shelf already</label>
            <select class="t" id="i-same" (change)="set({ duplicates: $any($event.target).value })">
              <option value="leave" [selected]="plan()!.duplicates === 'leave'">stay as they are</option>
              <option value="merge" [selected]="plan()!.duplicates === 'merge'">take in what is new</option>
            </select>
          </div>
        } @else {
          <p>
            Save the spreadsheet as CSV. Its first line names the columns; one of them holds the codes. Nothing is brought in
            before you have seen it.
          </p>
        }
        @if (fault()) {
          <p class="wrong" role="alert">{{ fault() }}</p>
        }
        <div class="row">
          <label class="b" [class.main]="!preview()">
            {{ preview() ? 'Another file' : 'Choose a file' }}
            <input class="sr" type="file" accept=".csv,.tsv,.txt,text/csv" (change)="choose($event)" />
          </label>
          @if (busy()) {
            <span class="dim" role="status">{{ preview() ? 'bringing in …' : 'reading …' }}</span>
          }
          <span class="grow"></span>
          <button class="b" type="button" (click)="closed.emit()">Leave it</button>
          @if (preview(); as p) {
            <button class="b main" type="button" [disabled]="busy() || plan()!.columns.text === undefined" (click)="bring()">
              Bring in {{ p.count }} rows
            </button>
          }
        </div>
      }
    </p-dialog>
  `,
  styles: `
    .sheet {
      max-height: 42vh;
      margin: 12px 0;
      overflow: auto;
      border: 1px solid var(--hair);
    }
    table {
      border-collapse: collapse;
      width: 100%;
    }
    th,
    td {
      max-width: 260px;
      padding: 5px 9px;
      text-align: left;
      vertical-align: top;
      border-bottom: 1px solid var(--hair);
    }
    td.clip {
      max-width: 180px;
    }
    th {
      position: sticky;
      top: 0;
      background: var(--sheet);
    }
    th select {
      display: block;
      min-width: 96px;
      margin-top: 4px;
    }
    .choices {
      flex-wrap: wrap;
      margin-bottom: 14px;
    }
    .choices select {
      width: auto;
    }
    .sum {
      font-size: var(--s3);
      margin-bottom: 12px;
    }
    label.b:focus-within {
      outline: 2px solid var(--ink);
      outline-offset: 2px;
    }
  `,
})
export class ImportDialog {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly messages = inject(Messages);
  readonly closed = output<void>();
  readonly columns = CODE_COLUMNS;
  readonly scales = GRADE_SCALES;
  readonly meanings = MEANINGS;
  readonly shown = 500;
  readonly file = signal<File | null>(null);
  readonly preview = signal<ImportPreview | null>(null);
  readonly plan = signal<ImportPlan | null>(null);
  readonly result = signal<ImportResult | null>(null);
  readonly fault = signal('');
  readonly busy = signal(false);
  private readonly byPlace = computed(
    () => new Map(Object.entries(this.plan()?.columns ?? {}).map(([column, at]) => [at, column as CodeColumn])),
  );

  meaningOf(place: number): CodeColumn | null {
    return this.byPlace().get(place) ?? null;
  }

  set(part: Partial<ImportPlan>): void {
    this.plan.update(p => p && { ...p, ...part });
  }

  /** Gives a column its meaning; a meaning stands for one column only. */
  setColumn(place: number, meaning: CodeColumn | ''): void {
    const columns = Object.fromEntries(
      Object.entries(this.plan()?.columns ?? {}).filter(([column, at]) => at !== place && column !== meaning),
    );
    this.set({ columns: meaning ? { ...columns, [meaning]: place } : columns });
  }

  async choose(event: Event): Promise<void> {
    const chooser = event.target as HTMLInputElement;
    const file = chooser.files?.[0];
    chooser.value = '';
    if (!file) return;
    await this.work(async () => {
      const preview = await this.api.upload<ImportPreview>('/codes/imports/preview', file);
      this.file.set(file);
      this.preview.set(preview);
      this.plan.set(preview.plan);
    });
  }

  bring(): Promise<void> {
    return this.work(async () => {
      const plan = JSON.stringify(this.plan());
      this.result.set(await this.api.upload<ImportResult>('/codes/imports', this.file()!, undefined, { plan }));
      this.store.dispatch(codes.actions.load());
    });
  }

  undo(id: string): Promise<void> {
    return this.work(async () => {
      const { removed, restored, kept } = await this.api.send<UndoResult>('DELETE', `/codes/imports/${id}`);
      const stay = kept > 0 ? ` ${kept} were changed since and stay.` : '';
      this.messages.done(`Taken back: ${removed} removed, ${restored} as they were.${stay}`);
      this.store.dispatch(codes.actions.load());
      this.closed.emit();
    });
  }

  /** The refused rows as a file, to be mended in the spreadsheet. */
  saveReport(): void {
    const cell = (v: string | number): string => `"${guardCell(String(v)).replaceAll('"', '""')}"`;
    const lines = this.result()!.refused.map(r => [r.line, r.what, r.reason].map(cell).join(','));
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob(['\ufeffline,code,why\r\n', lines.join('\r\n')], { type: 'text/csv' }));
    link.download = 'refused-codes.csv';
    link.click();
    URL.revokeObjectURL(link.href);
  }

  private async work(job: () => Promise<void>): Promise<void> {
    this.fault.set('');
    this.busy.set(true);
    try {
      await job();
    } catch (error) {
      this.fault.set(messageOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
