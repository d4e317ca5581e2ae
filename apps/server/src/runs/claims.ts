import type { Ticket } from '@zinc/core';
import { and, eq, sql, type SQL } from 'drizzle-orm';
import type { MySqlUpdateSetSource } from 'drizzle-orm/mysql-core';
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

/** For whom takes are claimed: a press, and the presses whose work it may take over. */
export interface Claimant {
  own: string;
  mates: string[];
  /** Whether another can make the work as well: then nobody makes again at once what they have failed at. */
  othersUp: boolean;
}

/** Batches looked at in one claim; each gives at most one take a turn. */
const MOST_BATCHES = 12;
const CLAIMABLE = sql`((t.state = 'waiting' and t.not_before <= utc_timestamp(3)) or (t.state = 'painting' and t.lease_ends < utc_timestamp(3)))`;

/**
 * Claims up to `most` takes for `owner` in one short READ COMMITTED transaction: those that wait, and those whose lease ran out because
 * their server died. People take turns, and the batches of one person do: whose last claim is longest ago comes first, so that a run of
 * thousands does not starve a run of four. Rows another server is claiming are skipped, never waited for. The database's clock is the only
 * one asked.
 */
export async function claimTakes(db: Database, owner: string, most: number, who: Claimant): Promise<Claim[]> {
  const mine = sql`${CLAIMABLE} and t.press_id in (${listed([who.own, ...who.mates])})${
    who.othersUp ? sql` and (t.not_at is null or t.not_at <> ${who.own})` : sql``
  }`;
  return db.transaction(
    async tx => {
      const [queue] = (await tx.execute(sql`
        select b.id from batches b join runs r on r.id = b.run_id
        join (select r2.started_by as person, max(b2.claimed_at) as claimed from batches b2 join runs r2 on r2.id = b2.run_id
              where b2.state = 'running' group by r2.started_by) p on p.person = r.started_by
        where b.state = 'running' and exists (select 1 from takes t where t.batch_id = b.id and ${mine})
        order by p.claimed, b.claimed_at, b.frozen_at, b.id limit ${sql.raw(String(MOST_BATCHES))}`)) as unknown as [
        { id: string }[],
      ];
      const ids: string[] = [];
      const wanted = Math.max(1, Math.floor(most));
      let left = queue.map(b => b.id);
      while (left.length > 0 && ids.length < wanted) {
        const giving: string[] = [];
        for (const batch of left) {
          if (ids.length >= wanted) break;
          const [[take]] = (await tx.execute(sql`
            select t.id from takes t where t.batch_id = ${batch} and ${mine}${
              ids.length > 0 ? sql` and t.id not in (${listed(ids)})` : sql``
            } order by t.press_id <> ${who.own}, t.take, t.id limit 1 for update skip locked`)) as unknown as [{ id: string }[]];
          if (!take) continue;
          ids.push(take.id);
          giving.push(batch);
        }
        if (giving.length > 0)
          await tx.execute(sql`update batches set claimed_at = utc_timestamp(3) where id in (${listed(giving)})`);
        left = giving;
      }
      if (ids.length === 0) return [];
      await tx.execute(sql`
        update takes set state = 'painting', lease_owner = ${owner}, lease_ends = timestampadd(second, ${LEASE_SECONDS}, utc_timestamp(3)),
        started_at = coalesce(started_at, utc_timestamp(3)) where id in (${listed(ids)})`);
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
        .where(sql`${takes.id} in (${listed(ids)})`);
    },
    { isolationLevel: 'read committed' },
  );
}

function listed(ids: readonly string[]): SQL {
  return sql.join(
    ids.map(i => sql`${i}`),
    sql`, `,
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
  set: MySqlUpdateSetSource<typeof takes>,
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
