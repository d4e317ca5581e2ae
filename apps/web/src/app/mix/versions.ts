import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Look, LookRange, LookVersion } from '@zinc/contract';
import { drift, type Fingerprint } from '@zinc/core';
import { FacetGauges } from '../shared/facet-gauges';
import { differencesOf } from './differences';
import { draftOf, type Draft } from './draft';
import { Ranges } from './ranges';
import { Usage, usageLine, usageOf } from './usage';

/** The versions of a look: any two laid side by side with what differs, a new look begun from an old one, ranges recommended by hand. */
@Component({
  selector: 'zs-versions',
  imports: [RouterLink, FacetGauges, Ranges],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Versions</h2>
    <ol class="versions">
      @for (v of look().versions; track v.version) {
        <li>
          <b>{{ v.version }}</b>
          <span class="grow"
            >{{ v.note || 'No note' }}<br /><span class="dim"
              >{{ v.author }}
              @if (look().versions.length > 1) {
                <br />{{ didIn(v.version) }}
              }
              <br /><a routerLink="/mix" [queryParams]="{ begin: look().id + ':' + v.version }">Begin a new look from it</a></span
            ></span
          >
          <button
            class="b small"
            type="button"
            [attr.aria-pressed]="beside()?.version === v.version"
            (click)="show.emit({ where: 'beside', version: beside()?.version === v.version ? null : v.version })"
          >
            {{ beside()?.version === v.version ? 'Put away' : 'Lay beside' }}
          </button>
        </li>
      }
    </ol>
    @if (look().latest.begunFrom; as b) {
      <p class="dim">
        Begun from <a [routerLink]="['/mix', b.lookId]">{{ b.name }}</a>, version {{ b.version }}.
      </p>
    }
    @if (beside(); as v) {
      <div class="row">
        <label for="facing">Version {{ v.version }} beside</label>
        <select id="facing" class="t" (change)="face($any($event.target).value)">
          <option value="" [selected]="!facing()">what is in hand</option>
          @for (o of look().versions; track o.version) {
            @if (o.version !== v.version) {
              <option [value]="o.version" [selected]="facing()?.version === o.version">version {{ o.version }}</option>
            }
          }
        </select>
      </div>
      <dl>
        @for (d of differences(); track d.what) {
          <dt>{{ d.what }}</dt>
          <dd>
            <span class="dim">{{ facing() ? 'version ' + facing()!.version : 'in hand' }}</span> {{ d.one }}
          </dd>
          <dd>
            <span class="dim">version {{ v.version }}</span> {{ d.other }}
          </dd>
        } @empty {
          <dt class="dim">No setting differs.</dt>
        }
      </dl>
      @if (distance(); as d) {
        <p class="dim">How far apart their aims are, by facet</p>
        <zs-facet-gauges [drift]="d" [allowed]="null" />
      }
      <button class="b" type="button" (click)="goOn.emit()">Go on from version {{ v.version }}</button>
    }
    <zs-ranges [look]="look()" [mayEdit]="mayEdit()" (known)="ranges.emit($event)" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    li {
      display: flex;
      align-items: flex-start;
      gap: 10px;
      padding: 6px 0;
      border-top: 1px solid var(--hair);
    }
    label {
      font-weight: 500;
    }
    select.t {
      width: auto;
      flex: 1;
      min-height: 28px;
      padding: 2px 6px;
    }
    dt {
      padding-top: 6px;
      font-weight: 620;
      border-top: 1px solid var(--hair);
    }
    dd {
      display: grid;
      grid-template-columns: 62px 1fr;
      gap: 6px;
      margin: 0 0 4px;
    }
  `,
})
export class Versions {
  private readonly usage = inject(Usage);
  readonly look = input.required<Look>();
  readonly draft = input.required<Draft>();
  /** What the draft aims at. */
  readonly target = input<Fingerprint | null>(null);
  readonly beside = input<LookVersion | null>(null);
  readonly facing = input<LookVersion | null>(null);
  readonly mayEdit = input(false);
  readonly show = output<{ where: 'beside' | 'facing'; version: number | null }>();
  readonly goOn = output<void>();
  readonly ranges = output<LookRange[]>();

  readonly differences = computed(() => {
    const [one, other] = [this.facing(), this.beside()];
    return other ? differencesOf(one ? draftOf(one) : this.draft(), draftOf(other)) : [];
  });
  readonly distance = computed(() => {
    const one = this.facing() ? this.facing()!.target : this.target();
    const other = this.beside()?.target;
    return one && other ? drift(one, other) : null;
  });

  didIn(version: number): string {
    return usageLine(usageOf(this.usage.all(), this.look().id, version));
  }

  face(version: string): void {
    this.show.emit({ where: 'facing', version: version === '' ? null : Number(version) });
  }
}
