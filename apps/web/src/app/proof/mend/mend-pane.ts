import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { Router } from '@angular/router';
import type { Proof } from '@zinc/contract';
import { Setting } from '../../shared/setting';
import { Asks } from './asks';
import { FamilyTree } from './family-tree';
import { Mending } from './mending';
import { RetouchTools } from './retouch-tools';

/** Everything that can be made of a proof that is nearly right. */
@Component({
  selector: 'zs-mend-pane',
  imports: [Asks, FamilyTree, RetouchTools, Setting],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (mending.fault()) {
      <p class="wrong" role="alert">{{ mending.fault() }}</p>
    }
    <section>
      <h2 class="ledge">Ask for a change</h2>
      <zs-asks [proof]="proof()" (ordered)="ordered.emit()" />
    </section>
    <section>
      <h2 class="ledge">Retouch a region</h2>
      <zs-retouch-tools [proof]="proof()" (ordered)="ordered.emit()" (original)="toFirst()" />
    </section>
    <section>
      <h2 class="ledge">Offshoots</h2>
      <zs-setting label="How far from this one" [from]="1" [to]="100" [value]="distance()" (set)="distance.set($event)" />
      <p class="dim">{{ farness() }}</p>
      <div class="row">
        <label for="count">How many</label>
        <select class="t few" id="count" (change)="count.set(+$any($event.target).value)">
          @for (n of [1, 2, 3, 4, 6, 8]; track n) {
            <option [value]="n" [selected]="n === count()">{{ n }}</option>
          }
        </select>
        <button class="b" type="button" [disabled]="mending.busy()" (click)="grow()">Make them</button>
      </div>
    </section>
    <section>
      <h2 class="ledge">Match to its set</h2>
      <p class="dim">Made again from its ticket, pulled to what the other proofs of its run and look have in common.</p>
      <zs-setting label="How strongly" unit="%" [from]="1" [to]="100" [value]="amount()" (set)="amount.set($event)" />
      <button class="b" type="button" [disabled]="mending.busy()" (click)="match()">Match it</button>
    </section>
    <section>
      <h2 class="ledge">Family</h2>
      <zs-family-tree [family]="proof().family" [here]="proof().id" />
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 8px;
      margin-top: 16px;
    }
    h2 {
      padding-top: 8px;
    }
    section > .b {
      justify-self: start;
    }
    zs-setting {
      padding-bottom: 16px;
    }
    .few {
      width: 70px;
    }
  `,
})
export class MendPane {
  readonly proof = input.required<Proof>();
  readonly ordered = output<void>();
  private readonly router = inject(Router);
  readonly mending = inject(Mending);
  readonly distance = signal(35);
  readonly count = signal(4);
  readonly amount = signal(80);

  farness(): string {
    const d = this.distance();
    if (d <= 5) return 'As near as can be: only the marks fall otherwise.';
    if (d <= 30) return 'Near: it stands a little otherwise.';
    if (d <= 60) return 'Between: it stands otherwise, and differs a little in itself.';
    return 'Far: another of its kind, in a freer manner of the same look.';
  }

  async grow(): Promise<void> {
    if (await this.mending.offshoots(this.proof(), this.distance(), this.count())) this.ordered.emit();
  }

  async match(): Promise<void> {
    if (await this.mending.match(this.proof(), this.amount())) this.ordered.emit();
  }

  toFirst(): void {
    const first = this.proof().family[0]?.proofId;
    if (first) void this.router.navigate(['/review/proof', first]);
  }
}
