import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { referencePatchSchema, ValidationError, type NearCode, type Reference } from '@zinc/contract';
import { describeFingerprint, FACETS } from '@zinc/core';
import { looks } from '../mix/looks.store';
import { ToneCurve } from '../mix/tone-curve';
import { Usage, usageLine, usageOf } from '../mix/usage';
import { Api, ApiError, problemOf } from '../shared/api';
import { writtenMoment } from '../shared/dates';
import { FacetIcon } from '../shared/facet-icon';
import { galleyActions } from '../shared/galley.store';
import { GradeRow } from '../shared/grade-row';
import { Keys } from '../shared/keys';
import { Meanwhile } from '../shared/meanwhile';
import { Messages } from '../shared/messages';
import { PaletteBar } from '../shared/palette-bar';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';
import { CodePicture } from './codes/code-picture';
import { references } from './shelf.store';

/** One reference: the picture, its fingerprint drawn, its rights, where it is used. */
@Component({
  selector: 'zs-reference',
  imports: [Thumb, PaletteBar, ToneCurve, FacetIcon, RouterLink, StateView, CodePicture, GradeRow, Meanwhile],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (reference(); as r) {
      <div class="two">
        <section class="picture">
          <zs-thumb [sha]="r.picture.sha256" [alt]="r.name" [side]="1280" [width]="r.picture.width" [height]="r.picture.height" />
        </section>
        <section class="pane">
          <h1>{{ r.name }}</h1>
          <p class="dim">
            {{ r.picture.width }} × {{ r.picture.height }} pixels, added by {{ r.addedBy }} on {{ moment(r.addedAt) }}
          </p>
          @if (r.origin; as o) {
            <p class="dim clip">
              @if (o.kind === 'proof') {
                Was a <a [routerLink]="['/review/proof', o.proofId]">proof of {{ o.run }}</a
                >, in {{ o.look }}.
              } @else {
                Fetched from <a [href]="o.url" rel="noopener noreferrer" target="_blank">{{ o.url }}</a>
              }
            </p>
          }
          <div class="row acts">
            <button class="b main" type="button" (click)="mixIt()">Mix a look from it</button>
            <button class="b" type="button" (click)="carry()">Into the galley <kbd>G</kbd></button>
          </div>
          <h2 class="ledge">Fingerprint</h2>
          <zs-palette-bar class="palette" [palette]="r.fingerprint.colour.palette" [figures]="true" />
          <zs-tone-curve [tone]="r.fingerprint.light.tone" />
          <dl class="words">
            @for (f of facets; track f) {
              <dt><zs-facet-icon [facet]="f" /> {{ f }}</dt>
              <dd>{{ words()![f] }}</dd>
            }
          </dl>
          <div class="label grade">Grade</div>
          <zs-grade-row [grade]="r.grade" [mayEdit]="mayEdit()" (set)="setGrade(r, $event)" />
          <h2 class="ledge">As a style code</h2>
          @if (nearest(); as n) {
            <div class="row nearest">
              <zs-code-picture [code]="n.text" [size]="96" />
              <span class="grow"
                ><a class="mono" routerLink="/shelf/codes" [queryParams]="{ code: n.text }">{{ n.text }}</a
                ><br /><span class="dim"
                  >distance {{ n.distance.toFixed(2) }}, {{ n.id ? 'on the shelf' : 'not on the shelf yet' }}</span
                ></span
              >
            </div>
          } @else {
            <button class="b" type="button" [disabled]="seeking()" (click)="seekCode(r)">
              {{ seeking() ? 'Looking …' : 'Find the nearest code' }}
            </button>
          }
          <h2 class="ledge">Rights and place</h2>
          <form (submit)="$event.preventDefault(); save($event)">
            @for (f of fields(); track f.key) {
              <div class="field">
                <label [for]="'r-' + f.key">{{ f.label }}</label>
                <input
                  class="t"
                  [id]="'r-' + f.key"
                  [name]="f.key"
                  [type]="f.type"
                  [value]="f.value"
                  [attr.aria-invalid]="fault()?.field === f.key"
                />
                @if (fault()?.field === f.key) {
                  <span class="wrong" role="alert">{{ fault()!.message }}</span>
                }
              </div>
            }
            @if (changedMeanwhile()) {
              <zs-meanwhile
                (theirs)="opened.set(r); fault.set(null)"
                (mine)="opened.set({ ...opened()!, revision: r.revision })"
              />
            }
            @if (fault() && !fault()!.field) {
              <p class="wrong" role="alert">{{ fault()!.message }}</p>
            }
            <div class="row">
              <button class="b main" type="submit">Keep</button>
              <button class="b" type="button" (click)="putAway(r)">Put away</button>
            </div>
          </form>
          <h2 class="ledge">Used in</h2>
          <ul>
            @for (l of usedIn(); track l.id) {
              <li>
                <a [routerLink]="['/mix', l.id]">{{ l.name }}</a> <span class="dim">{{ usedLine(l.id) }}</span>
              </li>
            } @empty {
              <li class="dim">No look yet.</li>
            }
          </ul>
        </section>
      </div>
    } @else if (status() === 'ready') {
      <zs-state kind="empty" title="This reference is not on the shelf"
        >It may have been put away. <a routerLink="/shelf">Go to the shelf</a></zs-state
      >
    } @else {
      <zs-state kind="loading" />
    }
  `,
  styles: `
    .two {
      grid-template-columns: minmax(0, 1fr) 360px;
    }
    .picture {
      display: grid;
      min-height: 0;
      padding: 20px;
      place-items: center;
    }
    zs-thumb {
      width: 100%;
      height: calc(100vh - 84px);
      background: none;
    }
    .pane {
      border-left: 1px solid var(--hair);
    }
    h2 {
      margin: 18px 0 8px;
      padding-top: 8px;
    }
    .acts {
      margin-top: 12px;
    }
    .palette {
      display: block;
      height: 48px;
      margin-bottom: 8px;
    }
    .words {
      display: grid;
      grid-template-columns: 92px 1fr;
      gap: 6px 8px;
      margin-top: 10px;
    }
    dt {
      display: flex;
      gap: 7px;
      font-weight: 650;
    }
    .grade {
      margin: 14px 0 6px;
    }
    .nearest zs-code-picture {
      flex: 0 0 72px;
    }
    form {
      display: grid;
      gap: 10px;
    }
  `,
})
export class ReferencePage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  readonly id = input.required<string>();
  private readonly usage = inject(Usage);
  readonly facets = FACETS;
  readonly moment = writtenMoment;
  private readonly all = this.store.selectSignal(references.all);
  private readonly looks = this.store.selectSignal(looks.all);
  readonly status = this.store.selectSignal(references.status);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayEdit = computed(() => this.person()?.role !== 'reviewer');
  readonly reference = computed(() => this.all().find(r => r.id === this.id()) ?? null);
  private readonly foundId = computed(() => this.reference()?.id);
  /** The reference as it was when the form was opened or saved: what others change meanwhile never replaces what is being written. */
  readonly opened = linkedSignal<string | undefined, Reference | null>({
    source: this.foundId,
    computation: () => untracked(this.reference),
  });
  readonly changedMeanwhile = computed(() => (this.reference()?.revision ?? 0) > (this.opened()?.revision ?? 0));
  readonly words = computed(() => (this.reference() ? describeFingerprint(this.reference()!.fingerprint) : null));
  readonly usedIn = computed(() =>
    this.looks().filter(l => l.latest.sources.some(s => s.sha256 === this.reference()?.picture.sha256)),
  );
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly fields = computed(() => {
    const r = this.opened()!;
    return [
      { key: 'name', label: 'Name', type: 'text', value: r.name },
      { key: 'shelf', label: 'Shelf', type: 'text', value: r.shelf },
      { key: 'credit', label: 'Credit', type: 'text', value: r.credit },
      { key: 'licence', label: 'Licence', type: 'text', value: r.licence },
      { key: 'licenceEnds', label: 'The licence ends', type: 'date', value: r.licenceEnds ?? '' },
    ];
  });

  readonly nearest = linkedSignal<string, NearCode | null>({ source: this.id, computation: () => null });
  readonly seeking = signal(false);

  usedLine(lookId: string): string {
    return usageLine(usageOf(this.usage.all(), lookId));
  }

  constructor() {
    void this.usage.refresh();
    inject(Keys).declare([{ key: 'G', does: 'Into the galley, or out', run: () => this.carry() }]);
  }

  private took(saved: Reference): void {
    this.store.dispatch(references.actions.saved({ items: [saved] }));
    this.opened.set(saved);
  }

  async setGrade(r: Reference, grade: number | null): Promise<void> {
    try {
      const saved = await this.api.send<Reference>('PATCH', `/references/${r.id}`, { grade }, r.revision);
      this.took(saved);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  /** The one code that comes closest; it is painted and measured on the server, which takes a second or two. */
  async seekCode(r: Reference): Promise<void> {
    this.seeking.set(true);
    try {
      this.nearest.set(await this.api.send<NearCode>('POST', '/codes/nearest', { sha256: r.picture.sha256 }));
    } catch (error) {
      this.messages.failed(error);
    } finally {
      this.seeking.set(false);
    }
  }

  carry(): void {
    const r = this.reference();
    if (r)
      this.store.dispatch(
        galleyActions.put({ thing: { kind: 'reference', id: r.id, name: r.name, pictureSha: r.picture.sha256 } }),
      );
  }

  mixIt(): void {
    void this.router.navigate(['/mix'], { queryParams: { from: this.id() } });
  }

  async putAway(r: Reference): Promise<void> {
    try {
      await this.api.send('PATCH', `/references/${r.id}`, { state: 'put away' }, r.revision);
      this.store.dispatch(references.actions.removed({ id: r.id }));
      this.messages.done(`“${r.name}” is put away. Looks that use it stay as they are.`);
      await this.router.navigateByUrl('/shelf');
    } catch (error) {
      this.messages.failed(error);
    }
  }

  async save(event: Event): Promise<void> {
    this.fault.set(null);
    const given = Object.fromEntries(new FormData(event.target as HTMLFormElement)) as Record<string, string>;
    try {
      const saved = await this.api.send<Reference>(
        'PATCH',
        `/references/${this.id()}`,
        await referencePatchSchema.validate(given),
        this.opened()!.revision,
      );
      this.took(saved);
      this.messages.done('Kept.');
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else {
        this.fault.set({ field: problemOf(error).field, message: problemOf(error).detail });
        if (error instanceof ApiError && error.document.code === 'changedMeanwhile')
          this.store.dispatch(references.actions.load());
      }
    }
  }
}
