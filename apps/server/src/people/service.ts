import { hash, verify } from '@node-rs/argon2';
import type { Person, Role } from '@zinc/contract';
import { count, eq } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connect.ts';
import { people } from './tables.ts';

const personColumns = { id: people.id, name: people.name, email: people.email, role: people.role };

export async function findPerson(context: Context, id: string): Promise<Person | null> {
  const [person] = await context.db.select(personColumns).from(people).where(eq(people.id, id));
  return person ?? null;
}

export async function listPeople(context: Context): Promise<Person[]> {
  return context.db.select(personColumns).from(people).orderBy(people.createdAt);
}

export async function isHouseEmpty(context: Context): Promise<boolean> {
  const [row] = await context.db.select({ n: count() }).from(people);
  return row.n === 0;
}

/** Adds a person; the password is kept as an argon2id hash. */
export async function addPerson(db: Queries, name: string, email: string, role: Role, password: string): Promise<Person> {
  const person = { id: uuidv7(), name, email: email.toLowerCase(), role };
  await db.insert(people).values({ ...person, passwordHash: await hash(password), createdAt: new Date() });
  return person;
}

// Verified when no such person exists, so that an unknown address takes as long as a wrong password.
let decoy: Promise<string> | null = null;

/** The person these belong to, or null. */
export async function checkSignIn(context: Context, email: string, password: string): Promise<Person | null> {
  const [row] = await context.db
    .select({ ...personColumns, passwordHash: people.passwordHash })
    .from(people)
    .where(eq(people.email, email.toLowerCase()));
  decoy ??= hash('nobody has this password');
  const right = await verify(row?.passwordHash ?? (await decoy), password);
  if (!row || !right) return null;
  return { id: row.id, name: row.name, email: row.email, role: row.role };
}
