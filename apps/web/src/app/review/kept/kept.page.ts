import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  KEPT_BY,
  type KeptBy,
  type KeptReport,
  type KeptShare,
  type LearntRange,
  type LookRange,
  type Problem,
} from '@zinc/contract';
import { Api, problemOf } from '../../shared/api';
import { Messages } from '../../shared/messages';
import { sessionFeature } from '../../shared/session.store';
import { StateView } from '../../shared/state';
import { Thumb } from '../../shared/thumb';

const HEADS: Record<KeptBy, string> = {
  look: 'By look',
  strength: 'By strength',
  source: 'By source',
  template: 'By template',
  press: 'By press',
  reviewer: 'By reviewer',
  subject: 'By subject',
};
/** From so many decisions on a share is more than an impression. */
const ENOUGH = 12;

/** What gets kept, told as shares with the range they may lie in; and what it teaches. */
@Component({
  selector: 'zs-kept',
  imports: [RouterLink, StateView, Thumb],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './kept.page.html',
  styleUrl: './kept.page.css',
})
export class KeptPage {
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  readonly campaign = input<string>();
  readonly report = signal<KeptReport | null>(null);
  readonly problem = signal<Problem | null>(null);
  readonly by = signal<KeptBy>('look');
  /** The share whose proofs are shown. */
  readonly opened = signal<string | null>(null);
  readonly heads = HEADS;
  readonly ways = KEPT_BY;
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayMake = computed(() => this.person()?.role !== 'reviewer');
  readonly shares = computed(() => this.report()?.by[this.by()] ?? []);
  readonly most = computed(() => Math.max(1, ...(this.report()?.tries ?? []).map(t => t.cells)));
  readonly kept = computed(() => (this.report()?.tries ?? []).reduce((sum, t) => sum + t.cells, 0));

  constructor() {
    effect(() => {
      const campaign = this.campaign();
      untracked(() => void this.load(campaign));
    });
  }

  private async load(campaign: string | undefined): Promise<void> {
    try {
      this.report.set(await this.api.get<KeptReport>(`/reports/kept${campaign ? `?campaign=${campaign}` : ''}`));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  choose(by: KeptBy): void {
    this.by.set(by);
    this.opened.set(null);
  }

  limit(campaign: string): void {
    void this.router.navigate(['/reports/kept'], { queryParams: campaign ? { campaign } : {} });
  }

  percent(share: number): string {
    return `${Math.round(share * 100)} %`;
  }

  /** Small numbers are told as what they are. */
  says(s: KeptShare): string {
    return s.decided < ENOUGH ? `${s.kept} of ${s.decided}` : `${this.percent(s.kept / s.decided)} of ${s.decided}`;
  }

  likely(s: KeptShare): string {
    return `likely ${Math.round(s.from * 100)} to ${Math.round(s.to * 100)} %`;
  }

  /** A person takes over what the figures suggest; it stands at the look from then on. */
  async accept(learnt: LearntRange): Promise<void> {
    const { lookId, lookName, version, from, to, goodFor, proofIds, kept, decided } = learnt;
    const note = `${kept} of ${decided} kept at these strengths.`;
    try {
      await this.api.send<LookRange>('POST', `/looks/${lookId}/ranges`, {
        ...{ version, setting: 'strength', from, to, goodFor, note, proofIds },
      });
      this.report.update(r => r && { ...r, learnt: r.learnt.filter(l => l !== learnt) });
      this.messages.done(`${lookName} is recommended at ${from} to ${to} % for ${goodFor}.`);
    } catch (error) {
      this.messages.failed(error);
    }
  }
}
