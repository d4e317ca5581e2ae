import type { Verdict } from '@zinc/contract';
import { bigint, double, index, int, mysqlEnum, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { AskChange, Drift } from '@zinc/core';
import { json, moment, uuid } from '../db/columns.ts';
import { people } from '../people/tables.ts';
import { proofs, runs, takes } from '../runs/tables.ts';

/** One pass of review over a run. It is opened by the first decision, or again with a reason; a lead's sign-off closes it. */
export const rounds = mysqlTable(
  'rounds',
  {
    id: uuid('id').primaryKey(),
    runId: uuid('run_id')
      .notNull()
      .references(() => runs.id),
    number: int('number').notNull(),
    openedBy: uuid('opened_by')
      .notNull()
      .references(() => people.id),
    openedAt: moment('opened_at').notNull(),
    /** Why it was opened again; empty for the first. */
    reason: varchar('reason', { length: 500 }).notNull().default(''),
    signedBy: uuid('signed_by').references(() => people.id),
    signedAt: moment('signed_at'),
    /** What stood when it was signed off, by proof. */
    stood: json<Record<string, Verdict | null> | null>('stood'),
  },
  t => [uniqueIndex('rounds_number').on(t.runId, t.number)],
);

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
    /** Those made before there were rounds have none. */
    roundId: uuid('round_id').references(() => rounds.id),
    verdict: mysqlEnum('verdict', ['keep', 'keepOnceMended', 'hold', 'drop']),
    grade: int('grade'),
    reasons: json<string[]>('reasons').notNull(),
    note: varchar('note', { length: 1000 }).notNull(),
    figures: json<Drift | null>('figures'),
    at: moment('at').notNull(),
  },
  t => [index('decisions_proof').on(t.proofId, t.seq)],
);

/** What is said of a proof, perhaps of a place in it; answers follow what they answer. */
export const comments = mysqlTable(
  'comments',
  {
    id: uuid('id').primaryKey(),
    proofId: uuid('proof_id')
      .notNull()
      .references(() => proofs.id),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id),
    /** The comment that this one answers. */
    answers: uuid('answers'),
    /** The place, parts of the frame; null for the whole. */
    x: double('x'),
    y: double('y'),
    words: text('words').notNull(),
    at: moment('at').notNull(),
    closedBy: uuid('closed_by').references(() => people.id),
    closedAt: moment('closed_at'),
  },
  t => [index('comments_proof').on(t.proofId, t.at)],
);

/** What was asked to be changed of a proof, how it was read, and the take that came of it. */
export const asks = mysqlTable(
  'asks',
  {
    id: uuid('id').primaryKey(),
    /** The first proof of its thread. */
    rootId: uuid('root_id')
      .notNull()
      .references(() => proofs.id),
    /** The proof that it was said of. */
    proofId: uuid('proof_id')
      .notNull()
      .references(() => proofs.id),
    takeId: uuid('take_id')
      .notNull()
      .references(() => takes.id),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id),
    words: varchar('words', { length: 500 }).notNull(),
    changes: json<AskChange[]>('changes').notNull(),
    left: json<string[]>('left_over').notNull(),
    at: moment('at').notNull(),
  },
  t => [index('asks_root').on(t.rootId, t.at)],
);
