import { check, date, double, index, int, mysqlEnum, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import { sql } from 'drizzle-orm';
import type { ReferenceOrigin } from '@zinc/contract';
import type { Fingerprint, PaletteColour, Treatment, Lettering } from '@zinc/core';
import { floats, json, moment, sha, uuid } from '../db/columns.ts';
import { people } from '../people/tables.ts';

/** The only table that knows files; each is named by its SHA-256. `working` is the lossless copy every painter starts from. */
export const pictures = mysqlTable(
  'pictures',
  {
    sha256: sha('sha256').primaryKey(),
    type: varchar('type', { length: 20 }).notNull(),
    width: int('width').notNull(),
    height: int('height').notNull(),
    bytes: int('bytes').notNull(),
    working: sha('working').notNull(),
    /** Of the pixels, whatever file they came in; null for pictures that were taken in before it was kept. */
    pixelHash: sha('pixel_hash'),
    /** Lines of letters in it; null until someone needed to know. */
    lettering: json<Lettering[] | null>('lettering'),
    createdAt: moment('created_at').notNull(),
  },
  t => [index('pictures_working').on(t.working)],
);

export const fingerprints = mysqlTable(
  'fingerprints',
  {
    sha256: sha('sha256')
      .notNull()
      .references(() => pictures.sha256),
    measure: int('measure').notNull(),
    summary: json<Fingerprint>('summary').notNull(),
    /** A copy of the summary's palette, so that lists need not read whole summaries. */
    palette: json<PaletteColour[]>('palette').notNull(),
    /** For search; one of another version is worked out again from the summary. */
    vector: floats('vector').notNull(),
    vectorVersion: int('vector_version').notNull(),
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
    tags: json<string[]>('tags').notNull(),
    /** What a person read and agreed to, of how it looks and of what it shows; each can be used without the other. */
    styleWords: json<string[]>('style_words').notNull(),
    subjectWords: varchar('subject_words', { length: 300 }).notNull(),
    /** Order on the shelf by hand, smallest first; what arrives stands before all others. */
    place: double('place').notNull(),
    origin: json<ReferenceOrigin>('origin'),
    /** What a variant was made from. */
    parentId: uuid('parent_id'),
    revision: int('revision').notNull().default(1),
    addedBy: uuid('added_by')
      .notNull()
      .references(() => people.id),
    addedAt: moment('added_at').notNull(),
  },
  t => [
    index('style_references_shelf').on(t.state, t.shelf, t.id),
    uniqueIndex('style_references_picture').on(t.sha256),
    index('style_references_parent').on(t.parentId),
    check('style_references_grade', sql`${t.grade} between 0 and 9`),
  ],
);

/** Adjustable effects kept with their settings, to be used on other pictures. */
export const treatments = mysqlTable(
  'treatments',
  {
    id: uuid('id').primaryKey(),
    name: varchar('name', { length: 80 }).notNull(),
    settings: json<Treatment>('settings').notNull(),
    addedBy: uuid('added_by')
      .notNull()
      .references(() => people.id),
    addedAt: moment('added_at').notNull(),
  },
  t => [uniqueIndex('treatments_name').on(t.name)],
);

/** The order of named shelves; a shelf that is not here stands after these, by name. */
export const shelves = mysqlTable('shelves', {
  name: varchar('name', { length: 80 }).primaryKey(),
  place: int('place').notNull(),
});
