import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { pressInputSchema, ValidationError, type Press } from '@zinc/contract';
import { Api, problemOf } from '../shared/api';
import { writtenMoment } from '../shared/dates';
import { Messages } from '../shared/messages';
import { imagesAtOnce, pressDoing, sharesWith } from '../shared/presses';
import { sessionActions } from '../shared/session.store';

/** The presses of the house: what each does, how it behaves, what it costs; a lead adds and changes them. */
@Component({
  selector: 'zs-presses',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (p of presses(); track p.id) {
      <article [class.unused]="p.state === 'unused'">
        <header class="row">
          <h3 class="grow clip">{{ p.name }}</h3>
          <span class="state" [class.bad]="p.state === 'gone' || p.state === 'rests'">{{ doing(p) }}</span>
        </header>
        @if (p.fault) {
          <p class="fault">
            Last went wrong: {{ p.fault }}
            @if (p.restsUntil) {
              It is asked again {{ moment(p.restsUntil) }}.
            }
          </p>
        }
        <dl>
          @if (p.url) {
            <dt>Address</dt>
            <dd class="clip" [title]="p.url">{{ p.url }}</dd>
          }
          @if (p.capabilities; as c) {
            <dt>Makes</dt>
            <dd>{{ c.name }} {{ c.version }}, {{ c.models.join(', ') }}</dd>
            <dt>Repeatable</dt>
            <dd>{{ c.repeatable ? 'yes: the same ticket gives the same pixels' : 'no' }}</dd>
            <dt>At once</dt>
            <dd>{{ atOnce(p) }} {{ atOnce(p) === 1 ? 'image' : 'images' }}</dd>
          }
          <dt>Price</dt>
          <dd>{{ p.price.toFixed(2) }} an image{{ p.ownPrice ? ', as the house has it' : '' }}</dd>
          @if (p.secondsPerImage) {
            <dt>Pace</dt>
            <dd>{{ p.secondsPerImage.toFixed(1) }} s an image of 768 × 768</dd>
          }
          @for (s of mates(p); track s) {
            <dt>Mates</dt>
            <dd>{{ s }}: they would paint the very same pictures</dd>
          }
          @if (p.capabilities; as c) {
            <dt>Draws</dt>
            <dd>
              {{
                c.draws.length > 12
                  ? c.draws.slice(0, 12).join(', ') + ' and ' + (c.draws.length - 12) + ' more'
                  : c.draws.join(', ')
              }}
            </dd>
          }
        </dl>
        @if (mayEdit() && open() !== p.id) {
          <button class="b small" type="button" (click)="edit(p.id)">Change</button>
        }
      </article>
      @if (open() === p.id) {
        <ng-container [ngTemplateOutlet]="form" [ngTemplateOutletContext]="{ $implicit: p }" />
      }
    }
    @if (mayEdit()) {
      @if (open() === 'new') {
        <ng-container [ngTemplateOutlet]="form" [ngTemplateOutletContext]="{ $implicit: null }" />
      } @else {
        <button class="b" type="button" (click)="edit('new')">Add a press</button>
      }
    }
    <ng-template #form let-p>
      <form (submit)="$event.preventDefault(); save(p, $event)" [attr.aria-label]="p ? 'Change ' + p.name : 'Add a press'">
        <div class="field">
          <label for="press-name">Name</label>
          <input class="t" id="press-name" name="name" [value]="p?.name ?? ''" [attr.aria-invalid]="at('name') !== ''" />
          <span class="wrong" role="alert">{{ at('name') }}</span>
        </div>
        @if (!p || p.url) {
          <div class="field">
            <label for="press-url">Address</label>
            <input
              class="t"
              id="press-url"
              name="url"
              placeholder="http://127.0.0.1:4400"
              [value]="p?.url ?? ''"
              [attr.aria-invalid]="at('url') !== ''"
            />
            <span class="wrong" role="alert">{{ at('url') }}</span>
          </div>
          <div class="field">
            <label for="press-token">Token</label>
            <input
              class="t"
              id="press-token"
              name="token"
              type="password"
              autocomplete="off"
              [placeholder]="p ? 'stays as it is' : ''"
              [attr.aria-invalid]="at('token') !== ''"
            />
            <span class="wrong" role="alert">{{ at('token') }}</span>
          </div>
        }
        <div class="pair">
          <div class="field">
            <label for="press-once">At once</label>
            <input
              class="t"
              id="press-once"
              name="atOnce"
              inputmode="numeric"
              placeholder="as it says"
              [value]="p?.atOnce ?? ''"
              [attr.aria-invalid]="at('atOnce') !== ''"
            />
          </div>
          <div class="field">
            <label for="press-price">Price an image</label>
            <input
              class="t"
              id="press-price"
              name="price"
              inputmode="decimal"
              placeholder="as it says"
              [value]="p?.ownPrice ? p.price : ''"
              [attr.aria-invalid]="at('price') !== ''"
            />
          </div>
          <span class="wrong" role="alert">{{ at('atOnce') || at('price') }}</span>
        </div>
        <label class="check">
          <input type="checkbox" name="shares" [checked]="p?.shares ?? true" /> Shares work with presses of the same make
        </label>
        <label class="check"><input type="checkbox" name="inUse" [checked]="p?.state !== 'unused'" /> In use</label>
        @if (above()) {
          <p class="wrong" role="alert">{{ above() }}</p>
        }
        <div class="row">
          <button class="b main" type="submit" [disabled]="busy()">
            {{ busy() ? 'Asking the press …' : p ? 'Save' : 'Add it' }}
          </button>
          <button class="b" type="button" (click)="open.set(null)">Leave it</button>
        </div>
      </form>
    </ng-template>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
      gap: 20px 28px;
      align-items: start;
    }
    :host > button {
      justify-self: start;
    }
    article {
      min-width: 0;
    }
    .unused {
      opacity: 0.75;
    }
    h3 {
      font-size: var(--s2);
      font-weight: 680;
    }
    .state.bad,
    .fault {
      color: var(--vermilion);
    }
    .fault {
      margin-top: 4px;
    }
    dl {
      display: grid;
      grid-template-columns: 90px minmax(0, 1fr);
      gap: 5px 12px;
      margin: 8px 0;
    }
    dt {
      font-weight: 650;
    }
    form {
      display: grid;
      gap: 10px;
      padding: 14px;
      background: var(--white);
      border-left: 4px solid var(--vermilion);
    }
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 4px 12px;
    }
    .pair .wrong {
      grid-column: 1 / -1;
    }
    input[type='checkbox'] {
      accent-color: var(--ink);
    }
    .check {
      display: flex;
      gap: 8px;
      align-items: center;
    }
  `,
  imports: [NgTemplateOutlet],
})
export class Presses {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly messages = inject(Messages);
  readonly presses = input.required<readonly Press[]>();
  readonly mayEdit = input(false);
  /** The press whose form is open; `new` for one that comes. */
  readonly open = signal<string | null>(null);
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly busy = signal(false);
  readonly doing = pressDoing;
  readonly atOnce = imagesAtOnce;
  readonly mates = sharesWith;
  readonly moment = writtenMoment;

  edit(id: string): void {
    this.fault.set(null);
    this.open.set(id);
  }

  at(field: string): string {
    const f = this.fault();
    return f?.field === field ? f.message : '';
  }

  above(): string {
    const f = this.fault();
    return f && !['name', 'url', 'token', 'atOnce', 'price'].includes(f.field ?? '') ? f.message : '';
  }

  async save(press: Press | null, event: Event): Promise<void> {
    const given = Object.fromEntries(new FormData(event.target as HTMLFormElement)) as Record<string, string>;
    const number = (text: string): number | null => (text.trim() === '' ? null : Number(text.replace(',', '.')));
    this.fault.set(null);
    this.busy.set(true);
    try {
      const body = await pressInputSchema.validate({
        name: given['name'],
        url: given['url'] === undefined ? null : given['url'],
        token: given['token'] || undefined,
        atOnce: number(given['atOnce']),
        price: number(given['price']),
        shares: 'shares' in given,
        inUse: 'inUse' in given,
      });
      const { items } = press
        ? await this.api.send<{ items: Press[] }>('PUT', `/presses/${press.id}`, body)
        : await this.api.send<{ items: Press[] }>('POST', '/presses', body);
      this.store.dispatch(sessionActions.pressesChanged({ presses: items }));
      this.open.set(null);
      this.messages.done(press ? `${body.name} is changed.` : `${body.name} answers, and belongs to the house.`);
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else this.fault.set({ field: problemOf(error).field, message: problemOf(error).detail });
    } finally {
      this.busy.set(false);
    }
  }
}
