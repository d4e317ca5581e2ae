import type { Capabilities } from '@zinc/contract';
import { boolean, double, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import { json, moment, uuid } from '../db/columns.ts';

export const presses = mysqlTable(
  'presses',
  {
    id: uuid('id').primaryKey(),
    name: varchar('name', { length: 80 }).notNull(),
    /** Where it is; null for the press of the house, which the settings name. */
    url: varchar('url', { length: 300 }),
    /** What it is opened with, sealed with the secret of the house; never leaves the server. */
    sealedToken: varchar('sealed_token', { length: 600 }),
    /** Most images at once that this house asks of it; null: as many as it says. */
    atOnce: int('at_once'),
    /** Price of an image that holds in place of what the press says. */
    price: double('price'),
    inUse: boolean('in_use').notNull().default(true),
    /** Whether it shares work with presses that would paint the very same pictures. */
    shares: boolean('shares').notNull().default(true),
    /** What it last said of itself. */
    capabilities: json<Capabilities>('capabilities'),
    /** Seconds of an image of 768 × 768, all its painters together, as a running mean: measured with free images, and with bound ones. */
    secondsPerImage: double('seconds_per_image'),
    secondsPerBound: double('seconds_per_bound'),
    seenAt: moment('seen_at'),
    /** What it last did wrong; null since it did right again. */
    fault: varchar('fault', { length: 300 }),
    /** Faults in a row. */
    faults: int('faults').notNull().default(0),
    /** Until when nothing is asked of it, because it went wrong too often in a row. */
    restsUntil: moment('rests_until'),
  },
  t => [uniqueIndex('presses_name').on(t.name)],
);
export type PressRow = typeof presses.$inferSelect;
