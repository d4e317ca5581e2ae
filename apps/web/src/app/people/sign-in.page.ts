import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { firstLeadSchema, signInSchema, ValidationError, type Person, type Session } from '@zinc/contract';
import { Api, problemOf } from '../shared/api';
import { sessionActions, sessionFeature } from '../shared/session.store';

/** Sign in, or, in an empty house, make its first lead. */
@Component({
  selector: 'zs-sign-in',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <p class="mark">
        <svg viewBox="0 0 20 20" width="34" height="34" aria-hidden="true">
          <path fill="#a9abad" d="M2 6h4v10H2z" />
          <path fill="#161718" d="M8 3h4v13H8z" />
          <path fill="#c8371b" d="M14 8h4v8h-4z" />
          <path fill="#161718" d="M1 17h18v2H1z" />
        </svg>
        Zinc Shelf
      </p>
      <h1 class="ledge">{{ houseEmpty() ? 'Open the house' : (houseName() ?? 'Sign in') }}</h1>
      @if (houseEmpty()) {
        <p class="dim">This house is empty. Name it and make its first lead; everyone else is asked in later.</p>
      }
      <form novalidate (submit)="submit($event)">
        @for (f of fields(); track f.key) {
          <div class="field">
            <label [for]="f.key">{{ f.label }}</label>
            <input
              class="t"
              [id]="f.key"
              [name]="f.key"
              [type]="f.type"
              [autocomplete]="f.complete"
              [attr.aria-invalid]="fault()?.field === f.key"
              [attr.aria-describedby]="fault()?.field === f.key ? 'fault' : null"
            />
            @if (fault()?.field === f.key) {
              <span class="wrong" id="fault" role="alert">{{ fault()!.message }}</span>
            }
          </div>
        }
        @if (fault() && !fault()!.field) {
          <p class="wrong" role="alert">{{ fault()!.message }}</p>
        }
        <button class="b main" type="submit" [disabled]="busy()">{{ houseEmpty() ? 'Open the house' : 'Sign in' }}</button>
      </form>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      place-items: center;
      min-height: 100vh;
      background: var(--bench);
    }
    .sheet {
      width: min(380px, 92vw);
      padding: 28px;
      background: var(--sheet);
    }
    .mark {
      display: flex;
      align-items: center;
      gap: 12px;
      margin-bottom: 18px;
      font-size: var(--s5);
      font-weight: 780;
      font-stretch: 118%;
    }
    h1 {
      padding-top: 12px;
    }
    form {
      display: grid;
      gap: 14px;
      margin-top: 16px;
    }
  `,
})
export class SignInPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  /** Where to go after signing in. */
  readonly to = input<string>();
  readonly houseEmpty = this.store.selectSignal(sessionFeature.selectHouseEmpty);
  readonly houseName = this.store.selectSignal(sessionFeature.selectHouseName);
  readonly busy = signal(false);
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly fields = computed(() => [
    ...(this.houseEmpty()
      ? [
          { key: 'house', label: 'Name of the house', type: 'text', complete: 'organization' as const },
          { key: 'name', label: 'Your name', type: 'text', complete: 'name' as const },
        ]
      : []),
    { key: 'email', label: 'Address', type: 'email', complete: 'username' as const },
    {
      key: 'password',
      label: 'Password',
      type: 'password',
      complete: this.houseEmpty() ? ('new-password' as const) : ('current-password' as const),
    },
  ]);

  async submit(event: Event): Promise<void> {
    event.preventDefault();
    const given = Object.fromEntries(new FormData(event.target as HTMLFormElement)) as Record<string, string>;
    this.fault.set(null);
    this.busy.set(true);
    try {
      if (this.houseEmpty()) {
        const person = await this.api.send<Person>('POST', '/first-lead', await firstLeadSchema.validate(given));
        this.opened({ person, houseEmpty: false, houseName: given['house'] });
      } else this.opened(await this.api.send<Session>('POST', '/session', await signInSchema.validate(given)));
    } catch (error) {
      if (error instanceof ValidationError) this.fault.set({ field: error.path, message: error.message });
      else this.fault.set({ field: problemOf(error).field, message: problemOf(error).detail });
    } finally {
      this.busy.set(false);
    }
  }

  private opened(session: Session): void {
    this.store.dispatch(sessionActions.opened({ session }));
    const to = this.to();
    void this.router.navigateByUrl(to?.startsWith('/') ? to : '/shelf');
  }
}
