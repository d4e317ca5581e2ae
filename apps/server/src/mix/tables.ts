import { boolean, int, mysqlEnum, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { BegunFrom, LookSource, RangeProof } from '@zinc/contract';
import type { Facet, Fingerprint, Style } from '@zinc/core';
import { json, moment, uuid } from '../db/columns.ts';
import { people } from '../people/tables.ts';

export const looks = mysqlTable(
  'looks',
  {
    id: uuid('id').primaryKey(),
    name: varchar('name', { length: 120 }).notNull(),
    state: mysqlEnum('state', ['in use', 'rests', 'put away']).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  t => [uniqueIndex('looks_name').on(t.name)],
);

/** Versions are never changed: what a run was made with stays readable for ever. */
export const lookVersions = mysqlTable(
  'look_versions',
  {
    lookId: uuid('look_id')
      .notNull()
      .references(() => looks.id),
    version: int('version').notNull(),
    sources: json<LookSource[]>('sources').notNull(),
    strength: int('strength').notNull(),
    words: json<string[]>('words').notNull(),
    avoid: json<string[]>('avoid').notNull(),
    note: varchar('note', { length: 500 }).notNull(),
    style: json<Style>('style').notNull(),
    target: json<Fingerprint | null>('target'),
    facets: json<Facet[]>('facets').notNull(),
    /** The earlier version, of this or another look, that this one was begun from. */
    begunFrom: json<BegunFrom | null>('begun_from'),
    author: uuid('author')
      .notNull()
      .references(() => people.id),
    madeAt: moment('made_at').notNull(),
  },
  t => [primaryKey({ columns: [t.lookId, t.version] })],
);

/** Reusable phrases put around a subject. A look keeps its own copy, so changing one changes no look. */
export const wordStyles = mysqlTable(
  'word_styles',
  {
    id: uuid('id').primaryKey(),
    name: varchar('name', { length: 120 }).notNull(),
    purpose: varchar('purpose', { length: 300 }).notNull(),
    before: json<string[]>('before_words').notNull(),
    after: json<string[]>('after_words').notNull(),
    avoid: json<string[]>('avoid').notNull(),
    /** New looks start with it. */
    byDefault: boolean('by_default').notNull(),
    grade: int('grade'),
    revision: int('revision').notNull().default(1),
    addedBy: uuid('added_by')
      .notNull()
      .references(() => people.id),
    addedAt: moment('added_at').notNull(),
  },
  t => [uniqueIndex('word_styles_name').on(t.name)],
);

/** Ranges that people recommend for a look, with the proofs that speak for them. What was written is never changed; it can be withdrawn. */
export const lookRanges = mysqlTable('look_ranges', {
  id: uuid('id').primaryKey(),
  lookId: uuid('look_id')
    .notNull()
    .references(() => looks.id),
  version: int('version').notNull(),
  /** As plans name what can be stepped. */
  setting: varchar('setting', { length: 120 }).notNull().default('strength'),
  /** Whole percentages; the columns are older than other settings. */
  from: int('strength_from').notNull(),
  to: int('strength_to').notNull(),
  goodFor: varchar('good_for', { length: 200 }).notNull(),
  note: varchar('note', { length: 500 }).notNull(),
  proofs: json<RangeProof[]>('proofs').notNull(),
  withdrawn: boolean('withdrawn').notNull().default(false),
  author: uuid('author')
    .notNull()
    .references(() => people.id),
  at: moment('at').notNull(),
});
