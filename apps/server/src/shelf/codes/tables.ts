import { sql } from 'drizzle-orm';
import { check, index, int, mysqlEnum, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { ShelfState } from '@zinc/contract';
import type { Fingerprint } from '@zinc/core';
import { exact, floats, json, moment, uuid } from '../../db/columns.ts';
import { people } from '../../people/tables.ts';

/** What merging an import changed in a code, so that it can be undone. */
export interface MergedCode {
  id: string;
  /** Revision that the merge made; a code changed since then is left alone. */
  revision: number;
  before: { name: string; grade: number | null; note: string; tags: string[]; shelf: string; state: ShelfState };
}

export const codeImports = mysqlTable('code_imports', {
  id: uuid('id').primaryKey(),
  file: varchar('file', { length: 200 }).notNull(),
  merged: json<MergedCode[]>('merged').notNull(),
  who: uuid('who')
    .notNull()
    .references(() => people.id),
  at: moment('at').notNull(),
});

/** Short strings that stand for a look. `press` is empty for own codes; `summary` is what an own code measures, as soon as it is known. */
export const styleCodes = mysqlTable(
  'style_codes',
  {
    id: uuid('id').primaryKey(),
    kind: mysqlEnum('kind', ['own', 'foreign']).notNull(),
    text: exact('text', 200).notNull(),
    press: exact('press', 80).notNull(),
    name: varchar('name', { length: 120 }).notNull(),
    grade: int('grade'),
    note: varchar('note', { length: 1000 }).notNull(),
    tags: json<string[]>('tags').notNull(),
    shelf: varchar('shelf', { length: 80 }).notNull(),
    state: mysqlEnum('state', ['in use', 'rests', 'put away']).notNull(),
    revision: int('revision').notNull().default(1),
    importId: uuid('import_id').references(() => codeImports.id),
    measure: int('measure'),
    summary: json<Fingerprint>('summary'),
    vector: floats('vector'),
    vectorVersion: int('vector_version'),
    addedBy: uuid('added_by')
      .notNull()
      .references(() => people.id),
    addedAt: moment('added_at').notNull(),
  },
  t => [
    uniqueIndex('style_codes_text').on(t.press, t.text),
    index('style_codes_state').on(t.state, t.id),
    index('style_codes_measure').on(t.kind, t.measure),
    check('style_codes_grade', sql`${t.grade} between 0 and 9`),
  ],
);
