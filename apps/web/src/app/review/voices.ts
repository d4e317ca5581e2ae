import type { ProofView, RoundView, Verdict, Voice } from '@zinc/contract';

const KEPT = new Set<Verdict | null>(['keep', 'keepOnceMended']);

/** Whether people contradict each other: one keeps what another drops. */
export function isDisputed(voices: readonly Pick<Voice, 'verdict'>[]): boolean {
  return voices.some(v => KEPT.has(v.verdict)) && voices.some(v => v.verdict === 'drop');
}

/** Of the proofs that two people or more gave a verdict on: how many there are, and on how many all say the same. */
export function agreementOf(proofs: readonly Pick<ProofView, 'voices'>[]): { judged: number; agreed: number } {
  const shared = proofs.map(p => p.voices.flatMap(v => v.verdict ?? [])).filter(verdicts => verdicts.length > 1);
  return { judged: shared.length, agreed: shared.filter(verdicts => new Set(verdicts).size === 1).length };
}

/** The round that was signed off last; null before the first. */
export function lastSigned(rounds: readonly RoundView[]): RoundView | null {
  return rounds.filter(r => r.signedAt !== null).at(-1) ?? null;
}

/** Whether a proof is new since a round was signed off, or stands otherwise than it did then. */
export function hasChanged(proof: Pick<ProofView, 'id' | 'decision'>, round: Pick<RoundView, 'stood'>): boolean {
  const { stood } = round;
  if (!stood || !(proof.id in stood)) return true;
  return stood[proof.id] !== (proof.decision?.verdict ?? null);
}

/** What of a set is shown. */
export type Showing = 'all' | 'open' | 'disputed' | 'said' | 'changed';

export function isShown(proof: ProofView, showing: Showing, round: RoundView | null): boolean {
  if (showing === 'open') return !proof.decision?.verdict;
  if (showing === 'disputed') return isDisputed(proof.voices);
  if (showing === 'said') return proof.openComments > 0;
  if (showing === 'changed') return round === null || hasChanged(proof, round);
  return true;
}
