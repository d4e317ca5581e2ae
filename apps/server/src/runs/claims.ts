import type { Ticket } from '@zinc/core';
import { and, eq, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/connect.ts';
import { takes } from './tables.ts';

export const LEASE_SECONDS = 10;

export interface Claim {
  takeId: string;
  batchId: string;
  ticket: Ticket;
  ticketHash: string;
  generation: number;
  attempts: number;
}

/**
 * Claims up to `most` takes for `owner` in one short READ COMMITTED transaction: those that wait, and those whose lease ran out because
 * their server died. Rows another server is claiming are skipped, never waited for. The database's clock is the only one asked.
 */
export async function claimTakes(db: Database, owner: string, most: number): Promise<Claim[]> {
  return db.transaction(
    async tx => {
      const [rows] = (await tx.execute(sql`
        select t.id from takes t join batches b on b.id = t.batch_id
        where b.state = 'running' and ((t.state = 'waiting' and t.not_before <= utc_timestamp(3)) or (t.state = 'painting' and t.lease_ends < utc_timestamp(3)))
        order by t.batch_id, t.take, t.id limit ${sql.raw(String(Math.max(1, Math.floor(most))))} for update skip locked`)) as unknown as [
        { id: string }[],
      ];
      if (rows.length === 0) return [];
      const ids = rows.map(r => r.id);
      await tx.execute(sql`
        update takes set state = 'painting', lease_owner = ${owner}, lease_ends = timestampadd(second, ${LEASE_SECONDS}, utc_timestamp(3)),
        started_at = coalesce(started_at, utc_timestamp(3)) where id in (${sql.join(
          ids.map(i => sql`${i}`),
          sql`, `,
        )})`);
      return tx
        .select({
          takeId: takes.id,
          batchId: takes.batchId,
          ticket: takes.ticket,
          ticketHash: takes.ticketHash,
          generation: takes.generation,
          attempts: takes.attempts,
        })
        .from(takes)
        .where(
          sql`${takes.id} in (${sql.join(
            ids.map(i => sql`${i}`),
            sql`, `,
          )})`,
        );
    },
    { isolationLevel: 'read committed' },
  );
}

/** Keeps a lease alive. False when it was lost: taken over, cancelled or asked again. */
export async function renewLease(db: Database, owner: string, claim: Claim): Promise<boolean> {
  const [result] = (await db.execute(sql`
    update takes set lease_ends = timestampadd(second, ${LEASE_SECONDS}, utc_timestamp(3))
    where id = ${claim.takeId} and lease_owner = ${owner} and generation = ${claim.generation} and state = 'painting'`)) as unknown as [
    { affectedRows: number },
  ];
  return result.affectedRows === 1;
}

/** Moves a take on only if this owner still holds it; false when it does not. */
export async function settleTake(
  db: Queries,
  owner: string,
  claim: Claim,
  set: Partial<typeof takes.$inferInsert>,
): Promise<boolean> {
  const [result] = await db
    .update(takes)
    .set({ ...set, leaseOwner: null, leaseEnds: null })
    .where(
      and(
        eq(takes.id, claim.takeId),
        eq(takes.leaseOwner, owner),
        eq(takes.generation, claim.generation),
        eq(takes.state, 'painting'),
      ),
    );
  return result.affectedRows === 1;
}
