import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { FACETS, type Facet } from '@zinc/core';
import type { AskAnswer, AskInput, Proof } from '@zinc/contract';
import { writtenMoment } from '../../shared/dates';
import { galleyFeature } from '../../shared/galley.store';
import { Thumb } from '../../shared/thumb';
import { Mending } from './mending';

/** The thread of what was asked of a proof, and the next ask: read back before anything is made. */
@Component({
  selector: 'zs-asks',
  imports: [Thumb, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (proof().asks.length > 0) {
      <ol aria-label="What was asked">
        @for (a of proof().asks; track a.id) {
          <li [class.here]="a.madeId === proof().id">
            <a [routerLink]="a.madeId ? ['/review/proof', a.madeId] : null">
              @if (a.pictureSha; as sha) {
                <zs-thumb [sha]="sha" [alt]="'Take ' + a.take" [side]="160" [width]="56" [height]="56" />
              } @else {
                <span class="box dim">{{ a.state }}</span>
              }
            </a>
            <span class="grow">
              “{{ a.words }}”
              @if (a.left.length > 0) {
                <span class="wrong">not understood: {{ a.left.join(', ') }}</span>
              }
              <span class="dim">{{ a.person }}, {{ moment(a.at) }}, take {{ a.take }}</span>
            </span>
            @if (!onTop()) {
              <label class="keep"><input type="checkbox" [checked]="kept().has(a.id)" (change)="toggle(a.id)" /> keep</label>
            }
          </li>
        }
      </ol>
    }
    <form (submit)="$event.preventDefault(); read()">
      <textarea
        class="t"
        rows="2"
        maxlength="500"
        aria-label="What is to change"
        placeholder="What is to change, such as: ground lighter, no outlines"
        [value]="words()"
        [attr.aria-invalid]="mending.fault() !== ''"
        (input)="write($any($event.target).value)"
      ></textarea>
      @if (pictures().length > 0) {
        <div class="row">
          <select class="t" aria-label="Towards a picture from the galley" (change)="choose($any($event.target).value)">
            <option value="" [selected]="!picture()">towards no picture</option>
            @for (p of pictures(); track p.id) {
              <option [value]="p.id" [selected]="picture()?.id === p.id">towards {{ p.name }}</option>
            }
          </select>
          @if (picture()) {
            @for (f of facets; track f) {
              <label class="keep"><input type="checkbox" [checked]="taken().has(f)" (change)="takeFacet(f)" /> {{ f }}</label>
            }
          }
        </div>
      }
      <div class="row">
        <button class="b" type="submit" [disabled]="!asks() || mending.busy()">Read it back</button>
        @if (proof().asks.length > 0) {
          <label class="keep"
            ><input type="checkbox" [checked]="onTop()" (change)="onTop.set(!onTop()); answer.set(null)" /> on top of this try,
            not from the first proof</label
          >
        }
      </div>
    </form>
    <div aria-live="polite">
      @if (answer(); as a) {
        <ul class="reading">
          @for (s of a.says; track $index) {
            <li [class.dim]="!s.done">{{ s.says }}</li>
          }
          @for (l of a.left; track l) {
            <li class="wrong">“{{ l }}” is not understood.</li>
          }
        </ul>
        <button class="b main" type="button" [disabled]="mending.busy() || !changes()" (click)="order()">Make this try</button>
      }
    </div>
  `,
  styles: `
    :host,
    form {
      display: grid;
      gap: 8px;
    }
    ol {
      display: grid;
      gap: 6px;
    }
    li {
      display: flex;
      gap: 9px;
      align-items: start;
    }
    .here {
      box-shadow: inset 3px 0 0 var(--vermilion);
      padding-left: 8px;
    }
    li .grow > span {
      display: block;
    }
    .box {
      display: grid;
      width: 56px;
      height: 56px;
      place-items: center;
      font-size: var(--s1);
      background: var(--well);
    }
    zs-thumb {
      width: 56px;
      height: 56px;
    }
    .keep {
      font-weight: 500;
      white-space: nowrap;
    }
    .row {
      flex-wrap: wrap;
      gap: 4px 12px;
    }
    .row select {
      flex: 1 1 160px;
      width: auto;
    }
    .reading {
      display: grid;
      gap: 4px;
      padding: 8px 10px;
      margin-bottom: 8px;
      background: var(--white);
    }
  `,
})
export class Asks {
  readonly proof = input.required<Proof>();
  readonly ordered = output<void>();
  readonly mending = inject(Mending);
  readonly moment = writtenMoment;
  readonly facets = FACETS;
  private readonly things = inject(Store).selectSignal(galleyFeature.selectThings);
  readonly pictures = computed(() => this.things().filter(t => t.pictureSha && (t.kind === 'reference' || t.kind === 'proof')));
  readonly words = signal('');
  readonly picture = signal<{ id: string; name: string; pictureSha: string | null } | null>(null);
  readonly taken = signal<ReadonlySet<Facet>>(new Set<Facet>(['colour']));
  readonly onTop = signal(false);
  readonly answer = signal<AskAnswer | null>(null);
  /** Asks that go on being heeded: all of the thread until someone unticks them. */
  readonly kept = linkedSignal(() => new Set(this.proof().asks.map(a => a.id)) as ReadonlySet<string>);
  readonly asks = computed(() => this.words().trim() !== '' || (this.picture() !== null && this.taken().size > 0));
  readonly changes = computed(() => this.answer()?.says.some(s => s.done) ?? false);

  write(words: string): void {
    this.words.set(words);
    this.answer.set(null);
  }

  toggle(id: string): void {
    this.kept.update(now => flipped(now, id));
    this.answer.set(null);
  }

  choose(id: string): void {
    this.picture.set(this.pictures().find(p => p.id === id) ?? null);
    this.answer.set(null);
  }

  takeFacet(facet: Facet): void {
    this.taken.update(now => flipped(now, facet));
    this.answer.set(null);
  }

  private input(): AskInput {
    const p = this.picture();
    return {
      words: this.words().trim(),
      picture: p?.pictureSha && this.taken().size > 0 ? { sha256: p.pictureSha, name: p.name, facets: [...this.taken()] } : null,
      keep: this.onTop() ? [] : [...this.kept()],
      onTop: this.onTop(),
    };
  }

  async read(): Promise<void> {
    if (this.asks()) this.answer.set(await this.mending.read(this.proof(), this.input()));
  }

  async order(): Promise<void> {
    if (!(await this.mending.ask(this.proof(), this.input()))) return;
    this.words.set('');
    this.answer.set(null);
    this.ordered.emit();
  }
}

function flipped<T>(set: ReadonlySet<T>, value: T): ReadonlySet<T> {
  const next = new Set(set);
  if (!next.delete(value)) next.add(value);
  return next;
}
