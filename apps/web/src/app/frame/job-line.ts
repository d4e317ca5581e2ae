import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { looks } from '../mix/looks.store';
import { runs } from '../runs/runs.store';
import { Api } from '../shared/api';
import { Messages } from '../shared/messages';
import { sessionActions, sessionFeature } from '../shared/session.store';
import { codes, references } from '../shelf/shelf.store';
import { subjects, templates } from '../wording/wording.store';

interface Hit {
  kind: string;
  name: string;
  path: string;
}

/** Across the top: the mark, the house, a search that jumps to anything, what the presses do, the person. */
@Component({
  selector: 'zs-job-line',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <a class="mark" routerLink="/shelf" aria-label="Zinc Shelf, to the shelf">
      <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
        <path fill="#a9abad" d="M2 6h4v10H2z" />
        <path fill="#161718" d="M8 3h4v13H8z" />
        <path fill="#c8371b" d="M14 8h4v8h-4z" />
        <path fill="#161718" d="M1 17h18v2H1z" />
      </svg>
      Zinc Shelf
    </a>
    <span class="clip"
      ><b>{{ house()?.brand?.name ?? houseName() }}</b></span
    >
    <span class="grow"></span>
    <div class="search" role="search">
      <input
        id="find"
        class="t"
        type="text"
        placeholder="Find anything"
        autocomplete="off"
        role="combobox"
        aria-label="Find anything"
        aria-controls="find-hits"
        aria-autocomplete="list"
        [attr.aria-expanded]="hits().length > 0"
        [attr.aria-activedescendant]="hits().length > 0 ? 'hit-' + at() : null"
        [value]="words()"
        (input)="type($event)"
        (keydown)="steer($event)"
        (blur)="close()"
      />
      <kbd>/</kbd>
      @if (words()) {
        <ul id="find-hits" role="listbox" aria-label="Found">
          @for (h of hits(); track h.path; let i = $index) {
            <li [id]="'hit-' + i" role="option" [attr.aria-selected]="i === at()" (mousedown)="go(h)">
              <span class="clip">{{ h.name }}</span> <span class="dim">{{ h.kind }}</span>
            </li>
          } @empty {
            <li class="none" role="option" aria-selected="false" aria-disabled="true">Nothing is called that.</li>
          }
        </ul>
      }
    </div>
    <span class="press" [class.gone]="presses().gone" [class.busy]="presses().busy" role="status"
      ><i aria-hidden="true"></i>{{ presses().text }}</span
    >
    <span class="person" [title]="person()?.name + ', ' + person()?.role">{{ initials() }}</span>
    <button class="b small quiet" type="button" (click)="signOut()">Sign out</button>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 18px;
      padding: 0 14px;
      background: var(--sheet);
      border-bottom: 1px solid var(--hair);
    }
    .mark {
      display: flex;
      align-items: center;
      gap: 8px;
      font-size: var(--s3);
      font-weight: 780;
      font-stretch: 118%;
      text-decoration: none;
      white-space: nowrap;
    }
    .search {
      position: relative;
      flex: 0 1 230px;
    }
    .search input {
      min-height: 28px;
      padding-right: 34px;
    }
    .search kbd {
      position: absolute;
      right: 6px;
      top: 5px;
    }
    ul {
      position: absolute;
      z-index: 20;
      top: 33px;
      right: 0;
      width: 340px;
      background: var(--white);
      border: 1px solid var(--ink);
    }
    li {
      display: flex;
      justify-content: space-between;
      gap: 10px;
      padding: 7px 10px;
      cursor: pointer;
    }
    li[aria-selected='true'] {
      background: var(--bench);
      box-shadow: inset 3px 0 0 var(--vermilion);
    }
    .none {
      cursor: default;
    }
    .press {
      display: flex;
      align-items: center;
      gap: 7px;
      white-space: nowrap;
    }
    .press i {
      width: 8px;
      height: 8px;
      background: var(--brine);
    }
    .press.busy i {
      animation: pulse 0.8s infinite alternate;
    }
    .press.gone i {
      background: var(--vermilion);
    }
    @keyframes pulse {
      to {
        opacity: 0.25;
      }
    }
    .person {
      display: grid;
      place-items: center;
      min-width: 28px;
      height: 28px;
      padding: 0 5px;
      font-size: var(--s1);
      font-weight: 720;
      color: var(--white);
      background: var(--ink);
    }
  `,
})
export class JobLine {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  readonly houseName = this.store.selectSignal(sessionFeature.selectHouseName);
  readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  private readonly references = this.store.selectSignal(references.all);
  private readonly codes = this.store.selectSignal(codes.all);
  private readonly looks = this.store.selectSignal(looks.all);
  private readonly templates = this.store.selectSignal(templates.all);
  private readonly subjects = this.store.selectSignal(subjects.all);
  private readonly runs = this.store.selectSignal(runs.all);
  readonly words = signal('');
  readonly at = signal(0);
  /** What the presses do together: who is away is told first. */
  readonly presses = computed(() => {
    const all = (this.house()?.presses ?? []).filter(p => p.state !== 'unused');
    const away = all.filter(p => p.state === 'gone' || p.state === 'rests');
    const waiting = all.reduce((sum, p) => sum + p.waiting, 0);
    const one = all.length === 1;
    const told = [
      ...(away.length > 0 ? [one ? 'Press gone' : `${away.length} of ${all.length} presses away`] : []),
      ...(waiting > 0 ? [`${away.length > 0 ? '' : one ? 'Press busy, ' : 'Presses busy, '}${waiting} to go`] : []),
    ];
    return {
      gone: away.length > 0,
      busy: waiting > 0 && away.length < all.length,
      text: all.length === 0 ? '' : told.join(', ') || (one ? 'Press idle' : 'Presses idle'),
    };
  });
  readonly initials = computed(() =>
    (this.person()?.name ?? '')
      .split(/\s+/)
      .map(w => w[0])
      .slice(0, 2)
      .join(''),
  );
  readonly hits = computed((): Hit[] => {
    const words = this.words().trim().toLowerCase();
    if (!words) return [];
    const all: Hit[] = [
      ...this.looks().map(l => ({ kind: 'look', name: l.name, path: `/mix/${l.id}` })),
      ...this.references().map(r => ({ kind: 'reference', name: r.name, path: `/shelf/${r.id}` })),
      ...this.codes().map(c => ({
        kind: 'code',
        name: c.name ? `${c.name}, ${c.text}` : c.text,
        path: `/shelf/codes?code=${c.text}`,
      })),
      ...(this.house()?.campaigns ?? []).map(c => ({ kind: 'campaign', name: c.name, path: `/campaigns/${c.id}` })),
      ...this.runs().map(r => ({ kind: 'run', name: r.name, path: `/runs/${r.id}` })),
      ...this.templates().map(t => ({ kind: 'template', name: t.name, path: `/wording?template=${t.id}` })),
      ...this.subjects().map(s => ({ kind: 'subject', name: s.label, path: `/wording?subject=${s.id}` })),
    ];
    return all
      .filter(h => h.name.toLowerCase().includes(words))
      .sort((p, q) => Number(q.name.toLowerCase().startsWith(words)) - Number(p.name.toLowerCase().startsWith(words)))
      .slice(0, 8);
  });

  type(event: Event): void {
    this.words.set((event.target as HTMLInputElement).value);
    this.at.set(0);
  }

  steer(event: KeyboardEvent): void {
    const n = this.hits().length;
    if (event.key === 'ArrowDown' && n > 0) this.at.update(i => (i + 1) % n);
    else if (event.key === 'ArrowUp' && n > 0) this.at.update(i => (i + n - 1) % n);
    else if (event.key === 'Enter' && n > 0) this.go(this.hits()[this.at()]);
    else if (event.key === 'Escape') (event.target as HTMLInputElement).blur();
    else return;
    event.preventDefault();
  }

  go(hit: Hit): void {
    void this.router.navigateByUrl(hit.path);
    (document.activeElement as HTMLElement | null)?.blur();
    this.close();
  }

  close(): void {
    this.words.set('');
  }

  async signOut(): Promise<void> {
    try {
      await this.api.send('DELETE', '/session');
      this.store.dispatch(sessionActions.signedOut());
      await this.router.navigateByUrl('/sign-in');
    } catch (error) {
      this.messages.failed(error);
    }
  }
}
