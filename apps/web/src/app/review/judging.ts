import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Decision, DecisionInput, ProofView, REASONS, Verdict } from '@zinc/contract';
import { uuidv7 } from 'uuidv7';
import { RunFeed } from '../runs/run-feed';
import { sessionFeature } from '../shared/session.store';
import { DecisionQueue } from './decision-queue';

type Reasons = DecisionInput['reasons'];
type Part = Pick<DecisionInput, 'verdict' | 'grade'> & { reasons?: readonly string[]; note?: string };

/** Verdicts, grades, reasons and notes of this person on the proofs of one run, shown at once and sent in order; the last can be taken back. */
@Injectable()
export class Judging {
  private readonly queue = inject(DecisionQueue);
  private readonly feed = inject(RunFeed);
  private readonly person = inject(Store).selectSignal(sessionFeature.selectPerson);
  private readonly mine: { proofId: string; before: Decision | null }[] = [];

  constructor() {
    // What an earlier page left on its way is shown as decided.
    for (const body of this.queue.unsent(this.person()?.id ?? '')) this.show(body, null);
  }

  /** Shows a decision until the server has it, or what stood before when it will not. */
  private show(body: DecisionInput, before: Decision | null): void {
    const standing = body.verdict || body.grade !== null;
    const decision = standing ? { ...body, person: this.person()?.name ?? '', at: new Date().toISOString() } : null;
    this.feed.decide(body.proofId, decision);
    this.queue.whenGone(body.id, taken =>
      taken ? this.feed.settle(body.proofId, decision) : this.feed.withdraw(body.proofId, before),
    );
  }

  private async send(proof: ProofView, part: Part, remember = true): Promise<void> {
    const before = proof.decision;
    const body: DecisionInput = {
      id: uuidv7(),
      proofId: proof.id,
      verdict: part.verdict,
      grade: part.grade,
      reasons: [...(part.reasons ?? [])] as Reasons,
      note: part.note ?? '',
    };
    if (remember) this.mine.push({ proofId: proof.id, before });
    this.show(body, before);
    await this.queue.add(this.person()!.id, body);
  }

  /** The same verdict twice takes it back. */
  async decide(proof: ProofView, verdict: Verdict): Promise<void> {
    const now = proof.decision;
    await this.send(proof, { verdict: now?.verdict === verdict ? null : verdict, grade: now?.grade ?? null });
  }

  /** The same grade twice takes it back. */
  async grade(proof: ProofView, grade: number): Promise<void> {
    const now = proof.decision;
    await this.send(proof, {
      verdict: now?.verdict ?? null,
      grade: now?.grade === grade ? null : grade,
      reasons: now?.reasons,
      note: now?.note,
    });
  }

  /** Adds a reason to the verdict that stands, or takes it out. */
  async reason(proof: ProofView, reason: (typeof REASONS)[number]): Promise<void> {
    const now = proof.decision;
    if (!now?.verdict) return;
    const reasons = now.reasons.includes(reason) ? now.reasons.filter(r => r !== reason) : [...now.reasons, reason];
    await this.send(proof, { verdict: now.verdict, grade: now.grade ?? null, reasons, note: now.note });
  }

  /** Says why in words, beside the reasons. */
  async note(proof: ProofView, text: string): Promise<void> {
    const now = proof.decision;
    if (!now?.verdict || text.trim() === now.note) return;
    await this.send(proof, { verdict: now.verdict, grade: now.grade ?? null, reasons: now.reasons, note: text.trim() });
  }

  /** Takes the last back, by a decision that puts what stood before; returns the proof it is of, null when there is nothing to take back. */
  async undo(find: (proofId: string) => ProofView | undefined): Promise<ProofView | null> {
    const last = this.mine.pop();
    const proof = last && find(last.proofId);
    if (!proof) return null;
    const { before } = last;
    await this.send(
      proof,
      { verdict: before?.verdict ?? null, grade: before?.grade ?? null, reasons: before?.reasons, note: before?.note },
      false,
    );
    return proof;
  }
}
