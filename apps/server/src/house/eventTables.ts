import { bigint, index, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { json, moment, uuid } from '../db/columns.ts';

export const events = mysqlTable(
  'events',
  {
    seq: bigint('seq', { mode: 'number' }).primaryKey().autoincrement(),
    kind: varchar('kind', { length: 40 }).notNull(),
    about: uuid('about'),
    who: uuid('who'),
    data: json<Record<string, unknown>>('data').notNull(),
    at: moment('at').notNull(),
  },
  t => [index('events_about').on(t.about)],
);
