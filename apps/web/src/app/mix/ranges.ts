import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { rangeInputSchema, ValidationError, type Look, type LookRange } from '@zinc/contract';
import { labelOf } from '@zinc/core';
import { Api, problemOf } from '../shared/api';
import { galleyFeature } from '../shared/galley.store';
import { Messages } from '../shared/messages';
import { sessionFeature } from '../shared/session.store';
import { Thumb } from '../shared/thumb';

/** Ranges of strength that people recommend for a look, each with the proofs that speak for it. */
@Component({
  selector: 'zs-ranges',
  imports: [RouterLink, Thumb],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Recommended ranges</h2>
    @for (r of all(); track r.id) {
      <div class="range">
        <p>
          <b>{{ nameOf(r.setting) }} {{ r.from }} to {{ r.to }} %</b> for {{ r.goodFor }}
          @if (r.note) {
            . {{ r.note }}
          }
          <br /><span class="dim">{{ r.author }}, on version {{ r.version }}</span>
          @if (mayEdit()) {
            <button class="b small quiet" type="button" (click)="withdraw(r)">Withdraw</button>
          }
        </p>
        <div class="proofs">
          @for (p of r.proofs; track p.id) {
            <a [routerLink]="['/review/proof', p.id]" [title]="p.label">
              <zs-thumb [sha]="p.sha256" [alt]="p.label" [side]="96" [width]="52" [height]="52" />
            </a>
          }
        </div>
      </div>
    } @empty {
      <p class="dim">None yet. Write down the strength that worked, so that the next person starts there.</p>
    }
    @if (mayEdit()) {
      @if (writing()) {
        <form (submit)="$event.preventDefault(); keep($event)">
          <div class="row">
            <label for="range-from">From</label><input class="t" id="range-from" name="from" inputmode="numeric" />
            <label for="range-to">to</label><input class="t" id="range-to" name="to" inputmode="numeric" /> %
          </div>
          <div class="field">
            <label for="range-good">Good for</label>
            <input class="t" id="range-good" name="goodFor" placeholder="round subjects on plain ground" />
          </div>
          <div class="field">
            <label for="range-note">Note</label>
            <input class="t" id="range-note" name="note" />
          </div>
          <p class="dim">
            @if (carried().length > 0) {
              Speaking for it, from the galley: {{ carriedNames() }}.
            } @else {
              Carry proofs of this look in the galley, and they speak for it here.
            }
          </p>
          @if (fault()) {
            <p class="wrong" role="alert">{{ fault() }}</p>
          }
          <div class="row">
            <button class="b main" type="submit">Keep it</button>
            <button class="b" type="button" (click)="writing.set(false)">Leave it</button>
          </div>
        </form>
      } @else {
        <button class="b" type="button" (click)="writing.set(true)">Recommend a range</button>
      }
    }
  `,
  styles: `
    :host,
    form {
      display: grid;
      gap: 8px;
    }
    .range {
      padding-top: 6px;
      border-top: 1px solid var(--hair);
    }
    .proofs {
      display: flex;
      gap: 4px;
    }
    .proofs zs-thumb {
      width: 52px;
      height: 52px;
    }
    .row input.t {
      width: 56px;
    }
    .row label {
      font-weight: 500;
    }
  `,
})
export class Ranges {
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  private readonly house = inject(Store).selectSignal(sessionFeature.selectHouse);
  readonly look = input.required<Look>();
  readonly mayEdit = input(false);
  readonly known = output<LookRange[]>();
  readonly all = signal<LookRange[]>([]);
  readonly writing = signal(false);
  readonly fault = signal('');
  private readonly things = inject(Store).selectSignal(galleyFeature.selectThings);
  readonly carried = computed(() => this.things().filter(t => t.kind === 'proof'));
  readonly carriedNames = computed(() =>
    this.carried()
      .map(t => t.name)
      .join(', '),
  );

  /** What people call a setting. */
  nameOf(setting: string): string {
    const pressSettings = this.house()?.presses.flatMap(p => p.capabilities?.settings ?? []) as never;
    return labelOf(setting, { pressSettings });
  }

  constructor() {
    effect(() => {
      const { id } = this.look();
      untracked(() => void this.fetch(id));
    });
  }

  private async fetch(id: string): Promise<void> {
    try {
      this.took((await this.api.get<{ items: LookRange[] }>(`/looks/${id}/ranges`)).items);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  private took(items: LookRange[]): void {
    this.all.set(items);
    this.known.emit(items);
  }

  async keep(event: Event): Promise<void> {
    this.fault.set('');
    const given = Object.fromEntries(new FormData(event.target as HTMLFormElement)) as Record<string, string>;
    const number = (text: string): number | undefined => (text.trim() === '' ? undefined : Number(text));
    try {
      const body = await rangeInputSchema.validate({
        version: this.look().latest.version,
        goodFor: given['goodFor'],
        note: given['note'],
        from: number(given['from']),
        to: number(given['to']),
        proofIds: this.carried().map(t => t.id),
      });
      this.took((await this.api.send<{ items: LookRange[] }>('POST', `/looks/${this.look().id}/ranges`, body)).items);
      this.writing.set(false);
    } catch (error) {
      this.fault.set(error instanceof ValidationError ? error.message : problemOf(error).detail);
    }
  }

  async withdraw(r: LookRange): Promise<void> {
    try {
      await this.api.send('DELETE', `/looks/${r.lookId}/ranges/${r.id}`);
    } catch (error) {
      this.messages.failed(error);
    }
    await this.fetch(r.lookId);
  }
}
