import type { Drift } from './drift.ts';

/** What two pictures are to each other by their looks. */
export type Kinship = 'same' | 'close' | 'other';

/** Total drift up to which two pictures pass as one look, and as near relations; read off pairs labelled by how they were made. */
export const THRESHOLDS = { same: 0.37, close: 0.69 } as const;

export function kinship(drift: Pick<Drift, 'total'>): Kinship {
  return drift.total <= THRESHOLDS.same ? 'same' : drift.total <= THRESHOLDS.close ? 'close' : 'other';
}
