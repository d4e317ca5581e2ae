import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { budgetInputSchema, ValidationError, type Budget } from '@zinc/contract';
import { Api, problemOf } from '../shared/api';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Presses } from './presses';

/** People, brand, presses, and how many images may be made. */
@Component({
  selector: 'zs-house',
  imports: [RouterLink, StateView, Presses],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <!-- Who may change nothing has nothing else in it to move to, and must reach what lies further down. -->
    <div class="page" tabindex="0" role="region" aria-label="House">
      <div class="row">
        <h1 class="grow">House</h1>
        <a class="b small" routerLink="/reports/kept">What gets kept</a>
      </div>
      @if (house(); as h) {
        <div class="cols">
          <section>
            <h2 class="ledge">Brand palette</h2>
            @if (h.brand; as brand) {
              <ul class="colours">
                @for (c of brand.colours; track c.hex) {
                  <li [class.never]="c.never">
                    <span class="chip" [style.background]="c.hex"></span>
                    <span
                      ><b>{{ c.name }}</b
                      ><br /><span class="dim">{{ c.never ? 'never to be seen' : c.role }}</span></span
                    >
                    <code>{{ c.hex }}</code>
                  </li>
                }
              </ul>
              <p class="dim">
                Allowed drift {{ brand.allowedDrift.toFixed(2) }}. Always avoided: {{ brand.avoid.join(', ') || 'nothing' }}.
              </p>
            } @else {
              <p class="dim">This house has no brand yet.</p>
            }
          </section>
          <section>
            <h2 class="ledge">People</h2>
            <ul class="people">
              @for (p of h.people; track p.id) {
                <li>
                  <b class="clip">{{ p.name }}</b><span class="clip dim">{{ p.email }}</span
                  ><span>{{ p.role }}</span>
                </li>
              }
            </ul>
          </section>
          <section>
            <h2 class="ledge">Budgets</h2>
            <p class="dim">Images that may be made. Who has no figure has no limit.</p>
            <ul class="budgets">
              @for (b of budgets(); track b.about) {
                <li>
                  <label class="clip" [for]="b.about">{{ b.name }}</label>
                  <span class="dim">{{ b.images === null ? '' : b.used + ' used' }}</span>
                  <input
                    class="t"
                    inputmode="numeric"
                    placeholder="no limit"
                    [id]="b.about"
                    [value]="b.images ?? ''"
                    [readOnly]="!isLead()"
                    [attr.aria-invalid]="fault()?.about === b.about"
                    (change)="set(b.about, $any($event.target).value)"
                  />
                  @if (fault()?.about === b.about) {
                    <span class="wrong" role="alert">{{ fault()!.message }}</span>
                  }
                </li>
              }
            </ul>
          </section>
          <section class="whole">
            <h2 class="ledge">Presses</h2>
            <zs-presses [presses]="h.presses" [mayEdit]="isLead()" />
          </section>
        </div>
      } @else {
        <zs-state kind="loading" />
      }
    </div>
  `,
  styles: `
    .cols {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
      gap: 28px;
      margin-top: 18px;
    }
    h2 {
      padding: 8px 0;
    }
    .whole {
      grid-column: 1 / -1;
    }
    .colours li {
      display: grid;
      grid-template-columns: 44px 1fr auto;
      align-items: center;
      gap: 12px;
      margin-bottom: 8px;
    }
    .chip {
      height: 44px;
    }
    .never .chip {
      clip-path: polygon(0 0, 100% 0, 100% 78%, 78% 100%, 0 100%);
      box-shadow: inset 0 0 0 3px var(--white);
    }
    .people li {
      display: grid;
      grid-template-columns: 1fr 1.2fr 66px;
      gap: 10px;
      padding: 7px 0;
      border-bottom: 1px solid var(--hair);
    }
    .budgets li {
      display: grid;
      grid-template-columns: 1fr auto 96px;
      align-items: center;
      gap: 4px 12px;
      padding: 5px 0;
      border-bottom: 1px solid var(--hair);
    }
    .budgets .wrong {
      grid-column: 1 / -1;
    }
  `,
})
export class HousePage {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly isLead = computed(() => this.person()?.role === 'lead');
  readonly fault = signal<{ about: string; message: string } | null>(null);
  private readonly kept = resource({ loader: async () => (await this.api.get<{ items: Budget[] }>('/budgets')).items });
  /** Every campaign and person, with the budget it has. */
  readonly budgets = computed(() => {
    const kept = this.kept.hasValue() ? this.kept.value() : [];
    const h = this.house();
    return [...(h?.campaigns ?? []), ...(h?.people ?? []).filter(p => p.role !== 'reviewer')].map(({ id, name }) => {
      const found = kept.find(b => b.about === id);
      return { about: id, name, images: found?.images ?? null, used: found?.used ?? 0 };
    });
  });

  async set(about: string, text: string): Promise<void> {
    this.fault.set(null);
    try {
      const body = await budgetInputSchema.validate({ images: text.trim() === '' ? null : Number(text) });
      this.kept.set((await this.api.send<{ items: Budget[] }>('PUT', `/budgets/${about}`, body)).items);
    } catch (error) {
      this.fault.set({ about, message: error instanceof ValidationError ? error.message : problemOf(error).detail });
    }
  }
}
