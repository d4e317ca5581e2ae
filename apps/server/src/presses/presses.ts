import type { Capabilities } from '@zinc/contract';
import { asc, eq, sql } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import type { Settings } from '../settings.ts';
import { PressClient, PressError } from './pressClient.ts';
import { unseal } from './seal.ts';
import { presses, type PressRow } from './tables.ts';

/** So many faults in a row, and a press is left alone for a while. */
const MOST_FAULTS = 6;
/** The rest doubles with each further fault, up to so many times the first. */
const LONGEST_REST = 30;

/** One press as the house knows it, with what it says of itself now: null when it does not answer. */
export interface KnownPress {
  row: PressRow;
  client: PressClient;
  says: Capabilities | null;
  rests: boolean;
}

/** Whether images can be asked of a press now. */
export const isUp = (p: KnownPress): boolean => p.row.inUse && p.says !== null && !p.rests;

/**
 * Whether two presses would paint the very same picture from a ticket, so that one may take over for the other: both share, both are
 * repeatable, and make, version and painter are the same.
 */
export function sameMake(a: KnownPress, b: KnownPress): boolean {
  const p = a.says ?? a.row.capabilities;
  const q = b.says ?? b.row.capabilities;
  if (!p || !q || !a.row.shares || !b.row.shares) return false;
  return p.repeatable && q.repeatable && p.name === q.name && p.version === q.version && p.painterVersion === q.painterVersion;
}

/** Every press of the house: how it is reached, whether it answers, and how it has behaved. */
export class Presses {
  private readonly clients = new Map<string, { key: string; client: PressClient }>();

  constructor(
    private readonly db: Database,
    private readonly settings: Settings,
  ) {}

  /** The presses in the order they came to the house. */
  async all(): Promise<KnownPress[]> {
    const rows = await this.db
      .select({ press: presses, rests: sql<number>`coalesce(${presses.restsUntil} > utc_timestamp(3), 0)`.mapWith(Boolean) })
      .from(presses)
      .orderBy(asc(presses.id));
    return Promise.all(
      rows.map(async ({ press: row, rests }) => {
        const client = this.clientOf(row);
        return { row, client, rests, says: row.inUse ? await client.capabilities() : null };
      }),
    );
  }

  async one(id: string): Promise<KnownPress> {
    const found = (await this.all()).find(p => p.row.id === id);
    if (!found) throw new ProblemError('notFound', 'There is no such press in the house.');
    return found;
  }

  /** The press itself when it can be asked now, else one of the same make that can; the press itself when there is none. */
  async openFor(id: string): Promise<KnownPress> {
    const all = await this.all();
    const own = all.find(p => p.row.id === id);
    if (!own) throw new ProblemError('notFound', 'The press of this ticket is not in the house any more.');
    return isUp(own) ? own : (all.find(p => isUp(p) && sameMake(p, own)) ?? own);
  }

  /** Has work done at a press, or, when it turns out to be away, at another of its make. */
  async at<T>(id: string, work: (client: PressClient) => Promise<T>): Promise<T> {
    const { client } = await this.openFor(id);
    try {
      return await work(client);
    } catch (error) {
      const other = error instanceof PressError && error.kind === 'gone' ? await this.openFor(id) : null;
      if (!other || other.client === client) throw error;
      return work(other.client);
    }
  }

  /** A client for an address and token that are not kept yet. */
  tryOut(url: string, token: string): PressClient {
    return new PressClient(url, token, this.settings.pressPatience);
  }

  private clientOf(row: PressRow): PressClient {
    const url = row.url ?? this.settings.pressUrl;
    const key = `${url}\n${row.sealedToken ?? ''}`;
    const known = this.clients.get(row.id);
    if (known?.key === key) return known.client;
    const token = row.url === null ? this.settings.pressToken : unseal(row.sealedToken ?? '', this.settings.secret);
    const client = new PressClient(url, token ?? '', this.settings.pressPatience);
    this.clients.set(row.id, { key, client });
    return client;
  }

  /** A press did as it was asked. */
  async didRight(id: string): Promise<void> {
    await this.db
      .update(presses)
      .set({ fault: null, faults: 0, restsUntil: null })
      .where(sql`${eq(presses.id, id)} and ${presses.faults} > 0`);
  }

  /** A press did wrong. After several times in a row it rests, longer each time. */
  async didWrong(id: string, what: string): Promise<void> {
    await this.db
      .update(presses)
      .set({
        fault: what.slice(0, 300),
        faults: sql`${presses.faults} + 1`,
        // MariaDB sets in the order of the columns, so this already sees the raised count.
        restsUntil: sql`if(${presses.faults} < ${MOST_FAULTS}, ${presses.restsUntil}, timestampadd(microsecond,
          1000000 * ${this.settings.pressRest} * least(${LONGEST_REST}, pow(2, ${presses.faults} - ${MOST_FAULTS})), utc_timestamp(3)))`,
      })
      .where(eq(presses.id, id));
  }
}
