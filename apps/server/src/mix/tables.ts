import { int, mysqlEnum, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { LookSource } from '@zinc/contract';
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
    target: json<Fingerprint | null>('target').notNull(),
    facets: json<Facet[]>('facets').notNull(),
    author: uuid('author')
      .notNull()
      .references(() => people.id),
    madeAt: moment('made_at').notNull(),
  },
  t => [primaryKey({ columns: [t.lookId, t.version] })],
);
