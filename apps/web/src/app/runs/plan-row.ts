import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Subject } from '@zinc/contract';
import { galleyFeature } from '../shared/galley.store';
import { PlanDraft } from './plan-draft';

/** What belongs to one row of a plan alone: its own words, format and anchor. */
@Component({
  selector: 'zs-plan-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="head">
      <b>Only for {{ subject().label }}</b>
      <button class="b small" type="button" (click)="closed.emit()">Done</button>
    </div>
    <div class="fields">
      <div class="field">
        <label for="row-note">Its own note</label>
        <input class="t" id="row-note" [value]="row().note ?? ''" (change)="change('note', $any($event.target).value)" />
      </div>
      @for (s of draft.openSlots(); track s.name) {
        <div class="field">
          <label [for]="'row-' + s.name">{{ s.name }}</label>
          <input
            class="t"
            [id]="'row-' + s.name"
            [value]="row().fills?.[s.name] ?? ''"
            [placeholder]="draft.fills()[s.name] ?? s.default ?? ''"
            (change)="fill(s.name, $any($event.target).value)"
          />
        </div>
      }
      <div class="field">
        <label for="row-format">Format</label>
        <select class="t" id="row-format" (change)="change('formatId', $any($event.target).value)">
          <option value="" [selected]="!row().formatId">as the others</option>
          @for (f of draft.house()!.formats; track f.id) {
            <option [value]="f.id" [selected]="f.id === row().formatId">{{ f.name }}</option>
          }
        </select>
      </div>
      <div class="field">
        <label for="row-anchor">Follows</label>
        <select class="t" id="row-anchor" (change)="change('anchor', $any($event.target).value)">
          <option value="" [selected]="!row().anchor">what the others follow</option>
          @for (p of proofs(); track p.id) {
            <option [value]="p.id" [selected]="p.id === row().anchor">{{ p.name }}</option>
          }
        </select>
      </div>
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 10px 12px;
      background: var(--white);
      border-left: 4px solid var(--ink);
    }
    .head {
      display: flex;
      justify-content: space-between;
      align-items: center;
      margin-bottom: 8px;
    }
    .fields {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
      gap: 8px 12px;
    }
  `,
})
export class PlanRow {
  readonly draft = inject(PlanDraft);
  readonly subject = input.required<Subject>();
  readonly closed = output<void>();
  readonly row = computed(() => this.draft.rows()[this.subject().id] ?? {});
  private readonly things = inject(Store).selectSignal(galleyFeature.selectThings);
  readonly proofs = computed(() => this.things().filter(t => t.kind === 'proof'));

  change(key: 'note' | 'formatId' | 'anchor', value: string): void {
    this.draft.changeRow(this.subject().id, { [key]: value.trim() });
  }

  fill(slot: string, value: string): void {
    const fills = Object.fromEntries(Object.entries({ ...this.row().fills, [slot]: value.trim() }).filter(([, v]) => v !== ''));
    this.draft.changeRow(this.subject().id, { fills: Object.keys(fills).length > 0 ? fills : undefined });
  }
}
