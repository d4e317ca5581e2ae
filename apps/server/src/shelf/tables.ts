import { int, mysqlEnum, mysqlTable, primaryKey, uniqueIndex, varchar, index, date, check } from 'drizzle-orm/mysql-core';
import { sql } from 'drizzle-orm';
import type { ReferenceOrigin } from '@zinc/contract';
import type { Fingerprint } from '@zinc/core';
import { floats, json, moment, sha, uuid } from '../db/columns.ts';
import { people } from '../people/tables.ts';

/** The only table that knows files; each is named by its SHA-256. `working` is the lossless copy every painter starts from. */
export const pictures = mysqlTable('pictures', {
  sha256: sha('sha256').primaryKey(),
  type: varchar('type', { length: 20 }).notNull(),
  width: int('width').notNull(),
  height: int('height').notNull(),
  bytes: int('bytes').notNull(),
  working: sha('working').notNull(),
  createdAt: moment('created_at').notNull(),
});

export const fingerprints = mysqlTable(
  'fingerprints',
  {
    sha256: sha('sha256')
      .notNull()
      .references(() => pictures.sha256),
    measure: int('measure').notNull(),
    summary: json<Fingerprint>('summary').notNull(),
    vector: floats('vector').notNull(),
  },
  t => [primaryKey({ columns: [t.sha256, t.measure] })],
);

/** Pictures kept for how they look. */
export const styleReferences = mysqlTable(
  'style_references',
  {
    id: uuid('id').primaryKey(),
    sha256: sha('sha256')
      .notNull()
      .references(() => pictures.sha256),
    name: varchar('name', { length: 120 }).notNull(),
    shelf: varchar('shelf', { length: 80 }).notNull(),
    credit: varchar('credit', { length: 200 }).notNull(),
    licence: varchar('licence', { length: 200 }).notNull(),
    licenceEnds: date('licence_ends', { mode: 'string' }),
    state: mysqlEnum('state', ['in use', 'rests', 'put away']).notNull(),
    grade: int('grade'),
    origin: json<ReferenceOrigin>('origin'),
    revision: int('revision').notNull().default(1),
    addedBy: uuid('added_by')
      .notNull()
      .references(() => people.id),
    addedAt: moment('added_at').notNull(),
  },
  t => [
    index('style_references_shelf').on(t.state, t.shelf, t.id),
    uniqueIndex('style_references_picture').on(t.sha256),
    check('style_references_grade', sql`${t.grade} between 0 and 9`),
  ],
);
