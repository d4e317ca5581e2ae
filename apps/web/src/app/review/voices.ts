import type { ProofView, RoundView, Verdict, Voice } from '@zinc/contract';

const KEPT = new Set<Verdict | null>(['keep', 'keepOnceMended']);

/** Whether people contradict each other: one keeps what another drops. */
export function isDisputed(voices: readonly Pick<Voice, 'verdict'>[]): boolean {
  return voices.some(v => KEPT.has(v.verdict)) && voices.some(v => v.verdict === 'drop');
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
