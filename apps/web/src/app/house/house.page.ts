import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';

/** People, brand, presses. */
@Component({
  selector: 'zs-house',
  imports: [StateView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="page">
      <h1>House</h1>
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
            <h2 class="ledge">Presses</h2>
            @for (p of h.presses; track p.id) {
              <dl>
                <dt>{{ p.name }}</dt>
                <dd>{{ p.state === 'gone' ? 'does not answer' : p.state }}</dd>
                @if (p.capabilities; as c) {
                  <dt>Version</dt>
                  <dd>{{ c.version }}, {{ c.models.join(', ') }}</dd>
                  <dt>Repeatable</dt>
                  <dd>{{ c.repeatable ? 'yes: the same ticket gives the same pixels' : 'no' }}</dd>
                  <dt>Draws</dt>
                  <dd>{{ c.draws.join(', ') }}</dd>
                  <dt>At once</dt>
                  <dd>{{ c.atOnce }} images</dd>
                }
                @if (p.secondsPerImage) {
                  <dt>Pace</dt>
                  <dd>{{ p.secondsPerImage.toFixed(1) }} s an image of 768 × 768</dd>
                }
              </dl>
            }
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
    dl {
      display: grid;
      grid-template-columns: 90px 1fr;
      gap: 6px 12px;
    }
    dt {
      font-weight: 650;
    }
  `,
})
export class HousePage {
  readonly house = inject(Store).selectSignal(sessionFeature.selectHouse);
}
