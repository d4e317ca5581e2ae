import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { reopenSchema, ValidationError, type RoundView } from '@zinc/contract';
import { Api, problemOf } from '../shared/api';
import { writtenMoment } from '../shared/dates';
import { Messages } from '../shared/messages';

/** The pass of review that a set is in: open, or signed off; a lead signs it off, and opens the next one with a reason. */
@Component({
  selector: 'zs-round-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (newest(); as r) {
      <span
        [class.signed]="r.signedAt"
        role="status"
        [title]="r.signedAt ? 'Signed off by ' + r.signedBy + ', ' + moment(r.signedAt) : ''"
      >
        @if (r.signedAt) {
          Round {{ r.number }}, signed off by {{ r.signedBy }}
        } @else {
          Round {{ r.number }}, open{{ r.reason ? ': ' + r.reason : '' }}
        }
      </span>
      @if (isLead()) {
        @if (!r.signedAt) {
          <button class="b small" type="button" [disabled]="busy()" (click)="signOff()">Sign off</button>
        } @else if (asking()) {
          <form (submit)="$event.preventDefault(); reopen(why.value)">
            <input #why class="t" aria-label="Why it is opened again" placeholder="why?" [attr.aria-invalid]="fault() !== ''" />
            <button class="b small main" type="submit" [disabled]="busy()">Open round {{ r.number + 1 }}</button>
            <button class="b small" type="button" (click)="asking.set(false)">Leave it</button>
            @if (fault()) {
              <span class="wrong" role="alert">{{ fault() }}</span>
            }
          </form>
        } @else {
          <button class="b small" type="button" (click)="asking.set(true)">Open again</button>
        }
      }
    } @else {
      <span class="dim">Round 1 opens with the next decision.</span>
    }
  `,
  styles: `
    :host,
    form {
      display: flex;
      gap: 8px;
      align-items: center;
      white-space: nowrap;
    }
    input.t {
      width: 180px;
    }
    .signed {
      font-weight: 660;
      color: var(--brine);
    }
  `,
})
export class RoundLine {
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  readonly runId = input.required<string>();
  readonly rounds = input.required<readonly RoundView[]>();
  readonly isLead = input(false);
  readonly changed = output<void>();
  readonly newest = computed(() => this.rounds().at(-1) ?? null);
  readonly asking = signal(false);
  readonly busy = signal(false);
  readonly fault = signal('');
  readonly moment = writtenMoment;

  async signOff(): Promise<void> {
    this.busy.set(true);
    try {
      const { message } = await this.api.send<{ message: string }>('POST', `/runs/${this.runId()}/sign-off`);
      this.messages.done(message);
    } catch (error) {
      this.messages.failed(error);
    } finally {
      this.busy.set(false);
      this.changed.emit();
    }
  }

  async reopen(reason: string): Promise<void> {
    this.busy.set(true);
    this.fault.set('');
    try {
      const body = await reopenSchema.validate({ reason });
      const { message } = await this.api.send<{ message: string }>('POST', `/runs/${this.runId()}/reopen`, body);
      this.messages.done(message);
      this.asking.set(false);
      this.changed.emit();
    } catch (error) {
      this.fault.set(error instanceof ValidationError ? error.message : problemOf(error).detail);
    } finally {
      this.busy.set(false);
    }
  }
}
