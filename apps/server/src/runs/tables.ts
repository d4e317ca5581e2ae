import { boolean, double, index, int, mysqlEnum, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { PlanInput } from '@zinc/contract';
import type { BindingSheet, CellValue, Drift, Facet, Fingerprint, Kin, PlanKind, Ticket } from '@zinc/core';
import { json, moment, sha, uuid } from '../db/columns.ts';
import { campaigns } from '../house/tables.ts';
import { people } from '../people/tables.ts';
import { presses } from '../presses/tables.ts';
import { pictures } from '../shelf/tables.ts';

/** What ties a cell to others: whole per cent, an anchor of its own, and the key of the sheet it shares. */
export interface CellBind {
  amount: number;
  anchor: string | null;
  group: string;
}

export const runs = mysqlTable('runs', {
  id: uuid('id').primaryKey(),
  name: varchar('name', { length: 120 }).notNull(),
  kind: varchar('kind', { length: 20 }).$type<PlanKind>().notNull().default('set'),
  campaignId: uuid('campaign_id').references(() => campaigns.id),
  startedBy: uuid('started_by')
    .notNull()
    .references(() => people.id),
  startedAt: moment('started_at').notNull(),
});

/** A frozen order: its plan is never changed once it has started. */
export const batches = mysqlTable(
  'batches',
  {
    id: uuid('id').primaryKey(),
    runId: uuid('run_id')
      .notNull()
      .references(() => runs.id),
    number: int('number').notNull(),
    state: mysqlEnum('state', ['waiting', 'running', 'paused', 'done', 'stopped']).notNull(),
    plan: json<PlanInput>('plan').notNull(),
    /** What each group of its cells shares, once decided; null while it is not, and for batches that are not bound. */
    sheets: json<Record<string, BindingSheet> | null>('sheets'),
    pressId: uuid('press_id')
      .notNull()
      .references(() => presses.id),
    /** Why the batch waits, in words for people; null when it does not. */
    waitingFor: varchar('waiting_for', { length: 300 }),
    /** When a take of it was last claimed: whoever waited longest comes first. */
    claimedAt: moment('claimed_at'),
    frozenAt: moment('frozen_at').notNull(),
  },
  t => [uniqueIndex('batches_number').on(t.runId, t.number), index('batches_state').on(t.state)],
);

export const cells = mysqlTable(
  'cells',
  {
    id: uuid('id').primaryKey(),
    batchId: uuid('batch_id')
      .notNull()
      .references(() => batches.id),
    cellKey: varchar('cell_key', { length: 200 }).notNull(),
    row: int('row_number').notNull(),
    col: int('column_number').notNull(),
    subjectId: uuid('subject_id').notNull(),
    subjectLabel: varchar('subject_label', { length: 120 }).notNull(),
    lookId: uuid('look_id').notNull(),
    lookName: varchar('look_name', { length: 120 }).notNull(),
    lookVersion: int('look_version').notNull(),
    formatId: uuid('format_id'),
    values: json<CellValue[]>('cell_values').notNull().default([]),
    /** How strongly it is bound, to which proof when its row names one, and which cells share its sheet. */
    bind: json<CellBind | null>('bind'),
    text: varchar('final_text', { length: 4000 }).notNull(),
    struckOut: boolean('struck_out').notNull(),
  },
  t => [uniqueIndex('cells_key').on(t.batchId, t.cellKey)],
);

/** One of several tries at a cell, and at the same time the job that makes it: one row, so the two can never disagree. */
export const takes = mysqlTable(
  'takes',
  {
    id: uuid('id').primaryKey(),
    cellId: uuid('cell_id')
      .notNull()
      .references(() => cells.id),
    batchId: uuid('batch_id')
      .notNull()
      .references(() => batches.id),
    take: int('take').notNull(),
    /** The press that it is ordered from; another of the same make may take it over. */
    pressId: uuid('press_id').references(() => presses.id),
    /** The press that failed at it last: others try first. */
    notAt: uuid('not_at'),
    seed: double('seed').notNull(),
    ticket: json<Ticket>('ticket').notNull(),
    ticketHash: sha('ticket_hash').notNull(),
    /** The proof that it is made from, and how; null for those that a plan ordered. */
    parentProof: uuid('parent_proof'),
    kin: varchar('kin', { length: 20 }).$type<Kin>(),
    state: mysqlEnum('state', ['waiting', 'painting', 'made', 'failed', 'cancelled']).notNull(),
    /** Raised when a person asks again; retries after a fault reuse it, so the press gives the same render. */
    generation: int('generation').notNull().default(0),
    attempts: int('attempts').notNull().default(0),
    leaseOwner: varchar('lease_owner', { length: 60 }),
    leaseEnds: moment('lease_ends'),
    notBefore: moment('not_before').notNull(),
    problem: varchar('problem', { length: 500 }),
    startedAt: moment('started_at'),
    finishedAt: moment('finished_at'),
  },
  t => [
    uniqueIndex('takes_number').on(t.cellId, t.take),
    index('takes_claim').on(t.state, t.notBefore),
    index('takes_batch').on(t.batchId, t.state),
    index('takes_parent').on(t.parentProof),
  ],
);

/** One image made by a run. A take has at most one standing proof. */
export const proofs = mysqlTable(
  'proofs',
  {
    id: uuid('id').primaryKey(),
    takeId: uuid('take_id')
      .notNull()
      .references(() => takes.id),
    generation: int('generation').notNull(),
    sha256: sha('sha256')
      .notNull()
      .references(() => pictures.sha256),
    pixelHash: sha('pixel_hash').notNull(),
    ticketHash: sha('ticket_hash').notNull(),
    drift: json<Drift | null>('drift'),
    /** How much of its content it keeps, 0–1; null when there is nothing to compare it with. */
    likeness: double('likeness'),
    madeAt: moment('made_at').notNull(),
  },
  // Pictures that come back are known by their pixels or by the recipe inside them.
  t => [
    uniqueIndex('proofs_take').on(t.takeId, t.generation),
    index('proofs_pixels').on(t.pixelHash),
    index('proofs_ticket').on(t.ticketHash),
  ],
);

/** What a run's proofs are measured against, per look, kept with the run. */
export const runLooks = mysqlTable(
  'run_looks',
  {
    runId: uuid('run_id')
      .notNull()
      .references(() => runs.id),
    lookId: uuid('look_id').notNull(),
    version: int('version').notNull(),
    target: json<Fingerprint | null>('target'),
    facets: json<Facet[]>('facets').notNull(),
  },
  t => [uniqueIndex('run_looks_key').on(t.runId, t.lookId)],
);
