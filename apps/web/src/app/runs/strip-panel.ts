import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { rangeInputSchema, ValidationError, type RunDetail } from '@zinc/contract';
import { NO_LOOK } from '@zinc/core';
import { Api, problemOf } from '../shared/api';
import { Messages } from '../shared/messages';
import { subjects } from '../wording/wording.store';
import { StripCurve, type StripPoint } from './strip-curve';

const mean = (list: number[]): number | null => (list.length > 0 ? list.reduce((s, v) => s + v, 0) / list.length : null);

/** What a test strip shows: figures over the values of the first setting, and the range found good by eye, written back to the look. */
@Component({
  selector: 'zs-strip-panel',
  imports: [StripCurve],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (axis(); as a) {
      <div class="strip">
        <div class="curve">
          <h2>{{ a.what }}, all else equal</h2>
          <zs-strip-curve [what]="a.what" [points]="points()" [good]="good()" />
        </div>
        @if (look() && ranged() && mayMake()) {
          <form (submit)="$event.preventDefault(); keep(goodFor.value)">
            <h2>Good by eye</h2>
            <div class="row">
              <label for="good-from">From</label>
              <select class="t" id="good-from" (change)="from.set(+$any($event.target).value)">
                @for (p of points(); track p.value; let i = $index) {
                  <option [value]="i" [selected]="i === from()">{{ p.value }}</option>
                }
              </select>
              <label for="good-to">to</label>
              <select class="t" id="good-to" (change)="to.set(+$any($event.target).value)">
                @for (p of points(); track p.value; let i = $index) {
                  <option [value]="i" [selected]="i === upper()">{{ p.value }}</option>
                }
              </select>
            </div>
            <div class="row">
              <label for="good-for">for</label>
              <input #goodFor class="t" id="good-for" list="kinds" value="all subjects" />
              <datalist id="kinds">
                @for (k of kinds(); track k) {
                  <option [value]="k"></option>
                }
              </datalist>
            </div>
            @if (fault()) {
              <p class="wrong" role="alert">{{ fault() }}</p>
            }
            <button class="b main" type="submit" [disabled]="busy()">Write it back to {{ look()!.name }}</button>
          </form>
        }
      </div>
    }
  `,
  styles: `
    .strip {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 260px;
      gap: 18px;
      margin-bottom: 16px;
    }
    h2 {
      margin-bottom: 6px;
    }
    form {
      display: grid;
      align-content: start;
      gap: 8px;
    }
    form label {
      flex: none;
      min-width: 34px;
    }
  `,
})
export class StripPanel {
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  private readonly allSubjects = inject(Store).selectSignal(subjects.all);
  readonly detail = input.required<RunDetail>();
  readonly mayMake = input(false);
  readonly from = signal(0);
  readonly to = signal<number | null>(null);
  readonly fault = signal('');
  readonly busy = signal(false);

  /** The setting that was stepped first, with its values in their order. */
  readonly axis = computed(() => {
    const first = this.detail().cells.find(c => c.values.length > 0)?.values[0];
    if (!first) return null;
    const values = new Set(this.detail().cells.flatMap(c => c.values.filter(v => v.setting === first.setting).map(v => v.value)));
    return { setting: first.setting, what: first.what, values: [...values] };
  });
  readonly points = computed((): StripPoint[] => {
    const a = this.axis();
    return (a?.values ?? []).map(value => {
      const proofs = this.at(value).flatMap(c => c.takes.flatMap(t => t.proof ?? []));
      return {
        value,
        drift: mean(proofs.flatMap(p => p.drift?.total ?? [])),
        likeness: mean(proofs.flatMap(p => p.likeness ?? [])),
      };
    });
  });
  /** Whether the setting is one that a range can be kept of: its values are per cent. */
  readonly ranged = computed(() => {
    const a = this.axis();
    return a !== null && /^(strength|bind|fidelity|press:)/.test(a.setting) && a.values.every(v => /^\d+ %$/.test(v));
  });
  readonly upper = computed(() => this.to() ?? Math.max(0, this.points().length - 1));
  readonly good = computed((): [number, number] | null => {
    const [p, q] = [this.from(), this.upper()];
    return this.ranged() && p <= q && (p > 0 || this.to() !== null) ? [p, q] : null;
  });
  readonly look = computed(() => this.detail().cells.find(c => c.look.id !== NO_LOOK)?.look ?? null);
  /** Kinds of subject that the range may be good for. */
  readonly kinds = computed(() => {
    const here = new Set(this.detail().cells.map(c => c.subject.id));
    const tags = this.allSubjects()
      .filter(s => here.has(s.id))
      .flatMap(s => s.tags ?? []);
    return ['all subjects', ...new Set(tags)];
  });

  private at(value: string): RunDetail['cells'] {
    const setting = this.axis()?.setting;
    return this.detail().cells.filter(c => c.values.some(v => v.setting === setting && v.value === value));
  }

  async keep(goodFor: string): Promise<void> {
    this.fault.set('');
    this.busy.set(true);
    const look = this.look()!;
    const points = this.points();
    const [low, high] = [points[this.from()], points[this.upper()]].map(p => parseInt(p.value, 10));
    const inside = points.slice(this.from(), this.upper() + 1).flatMap(p => this.at(p.value));
    const proofIds = inside.flatMap(c => c.takes.flatMap(t => t.proof?.id ?? [])).slice(0, 12);
    try {
      const body = await rangeInputSchema.validate({
        version: look.version,
        setting: this.axis()!.setting,
        from: low,
        to: high,
        goodFor,
        note: `Chosen by eye on the strip “${this.detail().run.name}”.`,
        proofIds,
      });
      await this.api.send('POST', `/looks/${look.id}/ranges`, body);
      this.messages.done(`${this.axis()!.what} ${low} to ${high} % is written to ${look.name}, good for ${body.goodFor}.`);
    } catch (error) {
      this.fault.set(error instanceof ValidationError ? error.message : problemOf(error).detail);
    } finally {
      this.busy.set(false);
    }
  }
}
