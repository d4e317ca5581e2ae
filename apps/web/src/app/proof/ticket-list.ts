import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Proof } from '@zinc/contract';
import { KIN } from '../shared/kin';
import { sessionFeature } from '../shared/session.store';

/** A ticket in plain words: the final text with where each word came from, then everything else that made the image. */
@Component({
  selector: 'zs-ticket',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="text">
      @for (part of proof().ticket.text.parts; track $index) {
        <span [class.own]="part.from === 'subject'" [class.look]="part.from === 'look'" [title]="'from the ' + part.from">{{
          part.words
        }}</span>
      }
    </p>
    <dl>
      @if (proof().ticket.parents[0]; as from) {
        <dt>Made from</dt>
        <dd><a [routerLink]="['/review/proof', from.proof]">another proof</a>, {{ kin[from.how].long }}{{ distance() }}</dd>
      }
      @if (proof().depth > 0) {
        <dt>Worked over</dt>
        <dd>{{ proof().depth === 1 ? 'once' : proof().depth + ' times, each on the picture before' }}</dd>
      }
      <dt>Avoid</dt>
      <dd>{{ proof().ticket.text.avoid.join(', ') || 'nothing' }}</dd>
      <dt>Subject</dt>
      <dd>{{ proof().ticket.subject.wording }}{{ proof().ticket.contents.length > 0 ? ', from its own picture' : '' }}</dd>
      <dt>Look</dt>
      <dd>
        @if (proof().ticket.look.version > 0) {
          <a [routerLink]="['/mix', proof().ticket.look.id]">{{ proof().ticket.look.name }}</a> version
          {{ proof().ticket.look.version }}
        } @else {
          {{ proof().ticket.look.name }}
        }
      </dd>
      @for (s of proof().sources; track s.id) {
        <dt class="sub">{{ s.parts }} {{ s.parts === 1 ? 'part' : 'parts' }}</dt>
        <dd>{{ s.name }} gives {{ s.facets.join(', ') || 'nothing' }}{{ s.framing ? ', and its framing' : '' }}</dd>
      }
      @for (s of settings(); track s.key) {
        <dt>{{ s.key }}</dt>
        <dd>{{ s.value }}</dd>
      }
      @if (proof().ticket.binding; as b) {
        <dt>Bound</dt>
        <dd>
          {{ b.amount }} % in {{ b.sheet.share.join(', ') }}, to
          {{ b.sheet.from === 'anchor' ? 'one image' : 'the middle of its set' }}
        </dd>
      }
      @if (proof().ticket.fidelity; as f) {
        <dt>Keep</dt>
        <dd>{{ f.subject }} % of the subject’s form, {{ f.ground }} % of the ground’s</dd>
      }
      @if (proof().likeness !== null) {
        <dt>Likeness</dt>
        <dd>{{ proof().likeness!.toFixed(2) }} of 1: how much of its content’s structure it keeps</dd>
      }
      @if (proof().ticket.subject.colours?.length) {
        <dt>Own colours</dt>
        <dd>
          @for (c of proof().ticket.subject.colours; track c) {
            <code class="colour">{{ c }}</code>
          }
        </dd>
      }
      @if (proof().ticket.format.clear?.length) {
        <dt>Left clear</dt>
        <dd>{{ proof().ticket.format.clear!.length === 1 ? 'one area' : proof().ticket.format.clear!.length + ' areas' }}</dd>
      }
      <dt>Format</dt>
      <dd>{{ proof().ticket.format.name }}, {{ proof().ticket.format.width }} × {{ proof().ticket.format.height }}</dd>
      <dt>Seed</dt>
      <dd>
        <code>{{ proof().ticket.seed }}</code>
      </dd>
      @if (proof().ticket.never.length > 0) {
        <dt>Never</dt>
        <dd>
          @for (hex of neverSeen(); track hex) {
            <code class="colour">{{ hex }}</code>
          }
        </dd>
      }
      <dt>Press</dt>
      <dd>
        {{ proof().ticket.press.name }} {{ proof().ticket.press.version }}, {{ proof().ticket.press.model }}, painter
        {{ proof().ticket.press.painterVersion ?? 'not said' }}
      </dd>
      <dt>Measured by</dt>
      <dd>measure {{ proof().ticket.look.measure }}, mixer {{ proof().ticket.look.mixer }}</dd>
      <dt>Pixels</dt>
      <dd>
        <code class="hash">{{ proof().pixelHash }}</code>
      </dd>
      <dt>Ticket</dt>
      <dd>
        <code class="hash">{{ proof().ticketHash }}</code>
      </dd>
    </dl>
  `,
  styles: `
    :host {
      display: block;
    }
    .text {
      padding: 10px 12px;
      margin-bottom: 8px;
      font-size: var(--s3);
      background: var(--white);
      white-space: pre-wrap;
    }
    .own {
      font-weight: 700;
    }
    .look {
      text-decoration: underline;
      text-decoration-color: var(--zinc);
    }
    dl {
      display: grid;
      grid-template-columns: 92px minmax(0, 1fr);
      gap: 5px 10px;
      margin-bottom: 12px;
    }
    dt {
      color: var(--dim);
    }
    dt::first-letter {
      text-transform: uppercase;
    }
    .sub {
      padding-left: 12px;
    }
    .colour {
      display: inline-block;
      margin-right: 8px;
    }
    .hash {
      font-size: 11px;
      overflow-wrap: anywhere;
    }
  `,
})
export class TicketList {
  readonly proof = input.required<Proof>();
  readonly kin = KIN;
  /** How far away the last step of an offshoot went. */
  readonly distance = computed(() => {
    const last = this.proof().ticket.offshoots?.at(-1);
    return this.proof().ticket.parents[0]?.how === 'offshoot' && last ? ` ${last.distance} away` : '';
  });
  private readonly house = inject(Store).selectSignal(sessionFeature.selectHouse);
  /** Settings in per cent: strength, and what presses declare to be so. */
  private readonly percents = computed(() => {
    const declared = (this.house()?.presses ?? []).flatMap(p => p.capabilities?.settings ?? []);
    return new Set(['strength', ...declared.filter(s => s.type === 'percent').map(s => s.key)]);
  });
  readonly settings = computed(() =>
    Object.entries(this.proof().ticket.settings).map(([key, value]) => ({
      key,
      value: this.percents().has(key) ? `${value} %` : String(value),
    })),
  );
  /** Colours that must not appear, each once: the brand's own may be among those that an avoid word names. */
  readonly neverSeen = computed(() => [...new Set(this.proof().ticket.never.map(n => n.hex))]);
}
