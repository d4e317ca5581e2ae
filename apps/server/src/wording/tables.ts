import { int, mysqlEnum, mysqlTable, primaryKey, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { Slot } from '@zinc/core';
import { json, moment, sha, uuid } from '../db/columns.ts';
import { people } from '../people/tables.ts';
import { pictures } from '../shelf/tables.ts';

export const templates = mysqlTable('templates', {
  id: uuid('id').primaryKey(),
  name: varchar('name', { length: 120 }).notNull(),
  state: mysqlEnum('state', ['in use', 'rests', 'put away']).notNull(),
});

export const templateVersions = mysqlTable(
  'template_versions',
  {
    templateId: uuid('template_id')
      .notNull()
      .references(() => templates.id),
    version: int('version').notNull(),
    text: text('text').notNull(),
    avoid: json<string[]>('avoid').notNull(),
    slots: json<Slot[]>('slots').notNull(),
    author: uuid('author')
      .notNull()
      .references(() => people.id),
    madeAt: moment('made_at').notNull(),
  },
  t => [primaryKey({ columns: [t.templateId, t.version] })],
);

export const subjects = mysqlTable(
  'subjects',
  {
    id: uuid('id').primaryKey(),
    label: varchar('label', { length: 120 }).notNull(),
    wording: varchar('wording', { length: 500 }).notNull(),
    avoid: json<string[]>('avoid').notNull(),
    colours: json<string[]>('colours').notNull().default([]),
    tags: json<string[]>('tags').notNull().default([]),
    meaning: varchar('meaning', { length: 300 }).notNull().default(''),
    sha256: sha('sha256').references(() => pictures.sha256),
    state: mysqlEnum('state', ['in use', 'rests', 'put away']).notNull(),
    revision: int('revision').notNull().default(1),
    createdAt: moment('created_at').notNull(),
  },
  t => [uniqueIndex('subjects_label').on(t.label)],
);

export const subjectLists = mysqlTable(
  'subject_lists',
  { id: uuid('id').primaryKey(), name: varchar('name', { length: 120 }).notNull(), createdAt: moment('created_at').notNull() },
  t => [uniqueIndex('subject_lists_name').on(t.name)],
);

export const subjectListItems = mysqlTable(
  'subject_list_items',
  {
    listId: uuid('list_id')
      .notNull()
      .references(() => subjectLists.id, { onDelete: 'cascade' }),
    subjectId: uuid('subject_id')
      .notNull()
      .references(() => subjects.id, { onDelete: 'cascade' }),
    place: int('place').notNull(),
  },
  t => [primaryKey({ columns: [t.listId, t.subjectId] })],
);
