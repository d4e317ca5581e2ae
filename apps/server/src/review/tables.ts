import { bigint, index, int, mysqlEnum, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import type { Drift } from '@zinc/core';
import { json, moment, uuid } from '../db/columns.ts';
import { people } from '../people/tables.ts';
import { proofs } from '../runs/tables.ts';

/** Decisions are added, never changed; the newest of a person stands. A row without a verdict takes the one before it back. */
export const decisions = mysqlTable(
  'decisions',
  {
    id: uuid('id').primaryKey(),
    seq: bigint('seq', { mode: 'number' }).autoincrement().notNull().unique(),
    proofId: uuid('proof_id')
      .notNull()
      .references(() => proofs.id),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id),
    verdict: mysqlEnum('verdict', ['keep', 'keepOnceMended', 'hold', 'drop']),
    grade: int('grade'),
    reasons: json<string[]>('reasons').notNull(),
    note: varchar('note', { length: 1000 }).notNull(),
    figures: json<Drift | null>('figures'),
    at: moment('at').notNull(),
  },
  t => [index('decisions_proof').on(t.proofId, t.seq)],
);
