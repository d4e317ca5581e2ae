import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { galleyActions, galleyFeature, type Carried } from '../shared/galley.store';
import { Thumb } from '../shared/thumb';

/** The tray at the right edge: what is carried from step to step, with the actions that fit it. */
@Component({
  selector: 'zs-galley',
  imports: [Thumb, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Galley</h2>
    <ul>
      @for (t of things(); track t.id) {
        <li>
          <a [routerLink]="pathOf(t)" [queryParams]="t.kind === 'code' ? { code: t.id } : null" [title]="t.name">
            @if (t.pictureSha) {
              <zs-thumb [sha]="t.pictureSha" [alt]="t.name" [side]="96" [width]="72" [height]="72" />
            } @else {
              <span class="name">{{ t.kind === 'code' ? t.name.replaceAll('-', ' ') : t.name }}</span>
            }
          </a>
          <button type="button" [attr.aria-label]="'Take ' + t.name + ' out of the galley'" (click)="take(t)">×</button>
        </li>
      }
    </ul>
    @if (things().length === 0) {
      <p>What you carry from step to step lies here. Press <kbd>G</kbd> on a thing.</p>
    }
    <div class="acts">
      @if (sources().length > 0) {
        <button class="b main" type="button" (click)="mixThese()">
          {{ sources().length === 1 ? 'Mix this' : 'Mix these ' + sources().length }}
        </button>
      }
      @if (looks().length > 0) {
        <button class="b" type="button" (click)="planThese()">Plan a run</button>
      }
      @if (proofs().length > 1) {
        <a class="b" routerLink="/review/together" [queryParams]="{ proofs: proofIds() }">Lay together</a>
      }
      @if (things().length > 0) {
        <button class="b small quiet" type="button" (click)="empty()">Empty it</button>
      }
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
      padding: 10px 9px;
      background: #cfd1d2;
      border-left: 1px solid var(--ink);
      box-shadow: inset 4px 0 0 #bbbdbf;
      overflow: hidden;
    }
    ul {
      display: grid;
      gap: 6px;
      overflow: auto;
    }
    li {
      position: relative;
    }
    li a {
      display: block;
      height: 72px;
      border: 1px solid var(--ink);
      background: var(--white);
    }
    li zs-thumb {
      height: 100%;
    }
    .name {
      display: block;
      padding: 5px;
      font-size: var(--s1);
      line-height: 1.25;
    }
    li button {
      position: absolute;
      top: 0;
      right: 0;
      width: 24px;
      height: 24px;
      padding: 0;
      font-weight: 700;
      color: var(--white);
      background: var(--ink);
      border: 0;
      opacity: 0;
      cursor: pointer;
    }
    li:hover button,
    li button:focus-visible {
      opacity: 1;
    }
    p {
      font-size: var(--s1);
    }
    .acts {
      display: grid;
      gap: 6px;
      margin-top: auto;
    }
    .b {
      padding: 5px 4px;
      line-height: 1.2;
      text-align: center;
    }
  `,
})
export class Galley {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  readonly things = this.store.selectSignal(galleyFeature.selectThings);
  readonly sources = computed(() => this.things().filter(t => t.kind === 'reference' || t.kind === 'code'));
  readonly looks = computed(() => this.things().filter(t => t.kind === 'look'));

  readonly proofs = computed(() => this.things().filter(t => t.kind === 'proof'));
  readonly proofIds = computed(() =>
    this.proofs()
      .slice(0, 6)
      .map(t => t.id)
      .join(','),
  );

  pathOf(t: Carried): string {
    if (t.kind === 'code') return '/shelf/codes';
    return t.kind === 'reference' ? `/shelf/${t.id}` : t.kind === 'look' ? `/mix/${t.id}` : `/review/proof/${t.id}`;
  }

  take(t: Carried): void {
    this.store.dispatch(galleyActions.taken({ id: t.id }));
  }

  empty(): void {
    this.store.dispatch(galleyActions.emptied());
  }

  mixThese(): void {
    const ids = this.sources().map(t => t.id);
    void this.router.navigate(['/mix'], { queryParams: { from: ids.join(',') } });
  }

  planThese(): void {
    const ids = this.looks().map(t => t.id);
    void this.router.navigate(['/runs/new'], { queryParams: { looks: ids.join(',') } });
  }
}
