import { boolean, double, int, mysqlEnum, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { json, moment, uuid } from '../db/columns.ts';

export const house = mysqlTable('house', {
  id: int('id').primaryKey(),
  name: varchar('name', { length: 120 }).notNull(),
  createdAt: moment('created_at').notNull(),
});

export const brands = mysqlTable('brands', {
  id: uuid('id').primaryKey(),
  name: varchar('name', { length: 120 }).notNull(),
  allowedDrift: double('allowed_drift').notNull(),
  avoid: json<string[]>('avoid').notNull(),
});

export const brandColours = mysqlTable('brand_colours', {
  id: uuid('id').primaryKey(),
  brandId: uuid('brand_id')
    .notNull()
    .references(() => brands.id, { onDelete: 'cascade' }),
  name: varchar('name', { length: 60 }).notNull(),
  role: varchar('role', { length: 20 }).notNull(),
  hex: varchar('hex', { length: 7 }).notNull(),
  never: boolean('never').notNull(),
  tolerance: double('tolerance').notNull(),
  position: int('position').notNull(),
});

export const campaigns = mysqlTable('campaigns', {
  id: uuid('id').primaryKey(),
  brandId: uuid('brand_id')
    .notNull()
    .references(() => brands.id),
  name: varchar('name', { length: 120 }).notNull(),
  /** The day by which it must be done, as YYYY-MM-DD. */
  ends: varchar('ends', { length: 10 }),
  /** The proof that leads it, and who said so. */
  hero: uuid('hero'),
  heroBy: uuid('hero_by'),
});

export const formats = mysqlTable('formats', {
  id: uuid('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  width: int('width').notNull(),
  height: int('height').notNull(),
  position: int('position').notNull(),
});

/** How many images a campaign or a person may make; whoever has no row has no limit. */
export const budgets = mysqlTable('budgets', {
  about: uuid('about').primaryKey(),
  kind: mysqlEnum('kind', ['campaign', 'person']).notNull(),
  images: int('images').notNull(),
  setBy: uuid('set_by').notNull(),
  setAt: moment('set_at').notNull(),
});
