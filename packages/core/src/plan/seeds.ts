import { hashText, mix32, unmix32 } from '../number/random.ts';

export const SEED_POLICIES = ['one', 'subject', 'fresh'] as const;
/** One seed for all, one per subject, or a fresh one for every cell. */
export type SeedPolicy = (typeof SEED_POLICIES)[number];

/**
 * The 32-bit seed of a take: `mix32(root + take · 0x9e3779b1)`, where the root is the batch's own number (one for all), the hash of the
 * subject's id (one per subject), or the hash of the cell's key mixed with the batch's number (fresh). The number stands on the ticket.
 */
export function seedFor(policy: SeedPolicy, batchSeed: number, subjectId: string, cellKey: string, take: number): number {
  const root =
    policy === 'one' ? mix32(batchSeed) : policy === 'subject' ? hashText(subjectId) : mix32(hashText(cellKey) ^ batchSeed);
  return mix32((root + Math.imul(take, 0x9e3779b1)) >>> 0);
}

/** The batch number that, as one seed for all, gives a first take this very seed: what {@link seedFor} does, backwards. */
export function batchSeedFor(seed: number): number {
  return unmix32((unmix32(seed) - 0x9e3779b1) >>> 0);
}
