import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Verdict } from '@zinc/contract';
import { fillName, NAME_TAGS, uniqueNames } from '@zinc/core';
import { RunFeed } from '../runs/run-feed';
import { Keys } from '../shared/keys';
import { StateView } from '../shared/state';
import { Thumb } from '../shared/thumb';

const CHOICES: { verdict: Verdict; name: string }[] = [
  { verdict: 'keep', name: 'Kept' },
  { verdict: 'keepOnceMended', name: 'Kept once mended' },
  { verdict: 'hold', name: 'Held' },
];

/** What is delivered: which decisions, under which names, and exactly which files will be written. */
@Component({
  selector: 'zs-deliver',
  imports: [StateView, Thumb, RouterLink],
  providers: [RunFeed],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (feed.detail(); as d) {
      <div class="two">
        <section class="pane" aria-label="Delivery">
          <p class="dim"><a [routerLink]="['/review', d.run.id]">Review</a></p>
          <h1>{{ d.run.name }}</h1>
          <fieldset>
            <legend>Which proofs</legend>
            @for (c of choices; track c.verdict) {
              <label class="row"
                ><input type="checkbox" [checked]="verdicts().includes(c.verdict)" (change)="toggle(c.verdict)" /> {{ c.name }}
                <span class="dim">{{ count(c.verdict) }}</span></label
              >
            }
          </fieldset>
          <div class="field">
            <label for="naming">Naming rule</label>
            <input
              class="t"
              id="naming"
              [value]="naming()"
              (input)="naming.set($any($event.target).value)"
              [attr.aria-invalid]="fault() !== ''"
              aria-describedby="naming-hint"
            />
            <span class="hint" id="naming-hint">It can use {{ tagWords }}.</span>
            @if (fault()) {
              <span class="wrong" role="alert">{{ fault() }}</span>
            }
          </div>
          <p>
            Every PNG carries its ticket, its rights and the IPTC digital source type inside. A <code>manifest.json</code> and a
            <code>manifest.csv</code> lie beside them.
          </p>
          @if (bare().length > 0) {
            <p class="wrong">Nothing is kept for {{ bare().join(', ') }}.</p>
          }
          @if (chosen().length > 0 && !fault()) {
            <a class="b main" [href]="href()" download
              >Download {{ chosen().length === 1 ? '1 image' : chosen().length + ' images' }} as ZIP</a
            >
          } @else {
            <button class="b main" type="button" disabled>Nothing to download</button>
          }
        </section>
        <section class="page" aria-label="What will be written">
          <h2>What will be written</h2>
          <ul>
            @for (f of files(); track f.id) {
              <li>
                <zs-thumb [sha]="f.sha" [alt]="f.name" [side]="160" [width]="120" [height]="120" />
                <code class="clip" [title]="f.name">{{ f.name }}</code>
                <span class="dim">{{ d.format.width }} × {{ d.format.height }}</span>
              </li>
            } @empty {
              <zs-state kind="empty" title="Nothing is chosen"
                >Keep proofs in review, or choose other decisions at the left.</zs-state
              >
            }
          </ul>
        </section>
      </div>
    } @else if (feed.problem()) {
      <zs-state kind="failed" title="This run cannot be shown"
        >{{ feed.problem()!.detail }} <a routerLink="/deliver">To the runs</a></zs-state
      >
    } @else {
      <zs-state kind="loading" />
    }
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    .two {
      grid-template-columns: 340px minmax(0, 1fr);
    }
    .pane {
      display: flex;
      flex-direction: column;
      gap: 14px;
    }
    fieldset {
      display: grid;
      gap: 6px;
      margin: 0;
      padding: 8px 12px 12px;
      border: 1px solid var(--hair);
    }
    legend {
      font-weight: 650;
    }
    fieldset label {
      font-weight: 500;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
      gap: 18px 14px;
      margin-top: 12px;
    }
    li zs-thumb {
      height: 150px;
      border-bottom: 3px solid var(--ink);
      margin-bottom: 5px;
    }
    li code,
    li span {
      display: block;
    }
  `,
})
export class DeliverPage {
  readonly feed = inject(RunFeed);
  readonly id = input.required<string>();
  readonly choices = CHOICES;
  readonly tagWords = NAME_TAGS.map(t => `{{${t}}}`).join(', ');
  readonly verdicts = signal<readonly Verdict[]>(['keep']);
  readonly naming = signal('{{subject}}-{{look}}-{{take}}');

  private readonly items = computed(() =>
    (this.feed.detail()?.cells ?? []).flatMap(cell =>
      cell.takes.flatMap(take => (take.proof ? [{ cell, take, proof: take.proof }] : [])),
    ),
  );
  readonly chosen = computed(() =>
    this.items().filter(i => i.proof.decision?.verdict && this.verdicts().includes(i.proof.decision.verdict)),
  );
  private readonly named = computed(() => {
    const d = this.feed.detail();
    return this.chosen().map(({ cell, take, proof }) =>
      fillName(this.naming(), {
        run: d!.run.name,
        subject: cell.subject.label,
        look: cell.look.name,
        take: take.take,
        seed: take.seed,
        format: d!.format.name,
        grade: proof.decision?.grade ?? null,
      }),
    );
  });
  readonly fault = computed(() => {
    if (this.naming().trim() === '') return 'Write a naming rule.';
    const wrong = this.named().find(n => 'fault' in n);
    return wrong && 'fault' in wrong ? wrong.fault : '';
  });
  readonly files = computed(() => {
    const names = uniqueNames(this.named().map(n => ('name' in n ? n.name : '')));
    return this.chosen().map(({ proof }, i) => ({ id: proof.id, sha: proof.pictureSha, name: `${names[i]}.png` }));
  });
  readonly bare = computed(() => {
    const all = new Map<string, boolean>();
    for (const i of this.items())
      all.set(i.cell.subject.label, (all.get(i.cell.subject.label) ?? false) || i.proof.decision?.verdict === 'keep');
    return [...all].filter(([, kept]) => !kept).map(([label]) => label);
  });
  readonly href = computed(
    () => `/api/runs/${this.id()}/export.zip?verdicts=${this.verdicts().join(',')}&naming=${encodeURIComponent(this.naming())}`,
  );

  constructor() {
    this.feed.follow(this.id);
    inject(Keys).declare([]);
  }

  toggle(v: Verdict): void {
    this.verdicts.update(now =>
      now.includes(v) ? now.filter(x => x !== v) : CHOICES.map(c => c.verdict).filter(x => x === v || now.includes(x)),
    );
  }

  count(v: Verdict): number {
    return this.items().filter(i => i.proof.decision?.verdict === v).length;
  }
}
