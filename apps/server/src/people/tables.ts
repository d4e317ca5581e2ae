import { mysqlEnum, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import { moment, uuid } from '../db/columns.ts';

export const people = mysqlTable(
  'people',
  {
    id: uuid('id').primaryKey(),
    name: varchar('name', { length: 120 }).notNull(),
    email: varchar('email', { length: 200 }).notNull(),
    role: mysqlEnum('role', ['lead', 'designer', 'reviewer']).notNull(),
    passwordHash: varchar('password_hash', { length: 255 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  t => [uniqueIndex('people_email').on(t.email)],
);
