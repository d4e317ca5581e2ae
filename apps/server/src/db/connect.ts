import { dirname, join } from 'node:path';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import mysql, { type Pool } from 'mysql2/promise';

export type Database = MySql2Database;
/** A database or an open transaction: what a query needs. */
export type Queries = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

/** Opens a pool with UTC times and a collation that tells all characters apart. */
export function connect(url: string): { pool: Pool; db: Database } {
  const pool = mysql.createPool({
    uri: url,
    timezone: 'Z',
    connectionLimit: 16,
    charset: 'utf8mb4_bin',
    supportBigNumbers: true,
  });
  return { pool, db: drizzle({ client: pool }) };
}

/** The folder of migrations, beside the sources or beside the built server. */
function migrationsFolder(): string {
  let at = dirname(fileURLToPath(import.meta.url));
  for (let up = 0; up < 5; up++, at = dirname(at)) if (existsSync(join(at, 'drizzle', 'meta'))) return join(at, 'drizzle');
  throw new Error('The folder "drizzle" with the migrations is missing beside the server.');
}

/** Brings the tables up to date. Two servers that start together take turns. */
export async function migrateDatabase(url: string): Promise<void> {
  const connection = await mysql.createConnection({ uri: url, timezone: 'Z' });
  try {
    await connection.query("SELECT GET_LOCK('zinc_migrate', 60)");
    await migrate(drizzle({ client: connection }), { migrationsFolder: migrationsFolder() });
    await connection.query("SELECT RELEASE_LOCK('zinc_migrate')");
  } finally {
    await connection.end();
  }
}

/** Whether an error says that a unique key is taken. */
export function isDuplicate(error: unknown): boolean {
  const cause = (error as { cause?: { code?: string } }).cause ?? (error as { code?: string });
  return cause?.code === 'ER_DUP_ENTRY';
}

const MOST_TRIES = 6;

/**
 * Does work again that the database gave up to resolve a deadlock or a wait for a lock: nothing of it was done. The work must be a whole
 * transaction, or one statement.
 */
export async function inSpiteOfDeadlocks<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++)
    try {
      return await work();
    } catch (error) {
      const code = (error as { cause?: { code?: string } }).cause?.code ?? (error as { code?: string }).code;
      if (tries === MOST_TRIES || (code !== 'ER_LOCK_DEADLOCK' && code !== 'ER_LOCK_WAIT_TIMEOUT')) throw error;
      await new Promise(r => setTimeout(r, 10 * 2 ** tries * (0.5 + Math.random())));
    }
}
