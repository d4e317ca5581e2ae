import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { inMilliseconds } from '../db/columns.ts';
import { inSpiteOfDeadlocks } from '../db/connect.ts';
import { isDiskFull } from '../http/problemError.ts';
import { PressError } from '../presses/pressClient.ts';
import { isUp, sameMake, type KnownPress } from '../presses/presses.ts';
import { presses } from '../presses/tables.ts';
import { settleTake, type Claim } from './claims.ts';
import { workOf } from './estimate.ts';
import { batches, takes } from './tables.ts';

const MOST_ATTEMPTS = 4;
const AWAY_MS = 2000;
const DISK_FULL_MS = 5000;

/** What becomes of a take that was not made: it waits for the press, is tried again elsewhere or later, or has failed. */
export async function putBack(context: Context, owner: string, claim: Claim, press: KnownPress, error: Error): Promise<void> {
  const { db, presses: house } = context;
  const known = error instanceof PressError;
  if (!known) context.log.error({ err: error }, 'a take could not be kept');
  const runId = await runOf(context, claim.batchId);
  if (isDiskFull(error)) {
    await settleTake(db, owner, claim, { state: 'waiting', notBefore: inMilliseconds(DISK_FULL_MS) });
    const why = 'There is no room on the disk for pictures. The run goes on by itself once there is.';
    await db.update(batches).set({ waitingFor: why }).where(eq(batches.id, claim.batchId));
    await context.events.add(db, 'runWaits', runId, null);
    return;
  }
  if (known && error.kind !== 'fault') {
    // Nobody's fault and no attempt spent: the run waits, and goes on when the press can.
    const wait = Math.max(AWAY_MS, error.waitSeconds * 1000);
    await settleTake(db, owner, claim, { state: 'waiting', notAt: press.row.id, notBefore: inMilliseconds(wait) });
    const others = (await house.all()).some(p => p.row.id !== press.row.id && isUp(p) && sameMake(p, press));
    if (others) return;
    const why =
      error.kind === 'gone'
        ? `${press.row.name} does not answer. The run goes on by itself when it is back.`
        : `${press.row.name} has too much to do just now. The run goes on by itself.`;
    await db.update(batches).set({ waitingFor: why }).where(eq(batches.id, claim.batchId));
    await context.events.add(db, 'runWaits', runId, null);
    return;
  }
  if (known && error.mayRetry) await house.didWrong(press.row.id, error.message);
  const attempts = claim.attempts + 1;
  const again = (!known || error.mayRetry) && attempts < MOST_ATTEMPTS;
  const backoff = Math.max(known ? error.waitSeconds * 1000 : 0, 400 * 2 ** attempts * (0.75 + Math.random() / 2));
  const problem = (known ? error.message : 'Something went wrong in Zinc Shelf while this image was made.').slice(0, 500);
  await settleTake(
    db,
    owner,
    claim,
    again
      ? { state: 'waiting', attempts, problem, notAt: press.row.id, notBefore: inMilliseconds(backoff) }
      : { state: 'failed', attempts, problem, finishedAt: new Date() },
  );
  if (again) await sayResting(context, claim.batchId, press.row.id);
  await context.events.add(db, again ? 'takeRetried' : 'takeFailed', runId, null, { takeId: claim.takeId });
}

/** Says at the batch that its press is left alone for a while, when no other makes its images. */
async function sayResting(context: Context, batchId: string, pressId: string): Promise<void> {
  const all = await context.presses.all();
  const press = all.find(p => p.row.id === pressId);
  if (!press?.rests || all.some(p => p !== press && isUp(p) && sameMake(p, press))) return;
  const why = `${press.row.name} went wrong ${press.row.faults} times in a row. It is left alone for a while, then asked again.`;
  await context.db.update(batches).set({ waitingFor: why }).where(eq(batches.id, batchId));
}

async function runOf(context: Context, batchId: string): Promise<string | null> {
  const [row] = await context.db.select({ runId: batches.runId }).from(batches).where(eq(batches.id, batchId));
  return row?.runId ?? null;
}

/** A batch with nothing left to make is done. */
export async function finishBatch(context: Context, batchId: string): Promise<void> {
  const close = () =>
    context.db.execute(sql`
    update batches set state = 'done', waiting_for = null where id = ${batchId} and state = 'running'
    and not exists (select 1 from takes where takes.batch_id = ${batchId} and takes.state in ('waiting', 'painting'))`);
  const [result] = (await inSpiteOfDeadlocks(close)) as unknown as [{ affectedRows: number }];
  if (result.affectedRows === 1) await context.events.add(context.db, 'runDone', await runOf(context, batchId), null);
}

/** Closes batches whose last take was settled by a server that died before it could close them. */
export async function closeForgotten(context: Context): Promise<void> {
  const [rows] = (await context.db.execute(sql`
    select id from batches where state = 'running'
    and not exists (select 1 from takes where takes.batch_id = batches.id and takes.state in ('waiting', 'painting'))`)) as unknown as [
    { id: string }[],
  ];
  for (const { id } of rows) await finishBatch(context, id);
}

/** Remembers how long a press takes an image, all its painters together, as a running mean; and that it did right. */
export async function recordPace(context: Context, seconds: number, claim: Claim, press: KnownPress): Promise<void> {
  const { format, binding } = claim.ticket;
  const pace = seconds / workOf(format, binding !== undefined);
  const column = binding ? 'secondsPerBound' : 'secondsPerImage';
  await context.db
    .update(presses)
    .set({
      [column]: sql`coalesce(${presses[column]} * 0.85 + ${pace} * 0.15, ${pace})`,
      capabilities: press.says,
      seenAt: new Date(),
    })
    .where(eq(presses.id, press.row.id));
  await context.presses.didRight(press.row.id);
}

/** Takes of a batch that can still be called off become cancelled. */
export async function cancelWaiting(context: Context, batchId: string): Promise<void> {
  await context.db
    .update(takes)
    .set({ state: 'cancelled', leaseOwner: null, leaseEnds: null })
    .where(and(eq(takes.batchId, batchId), inArray(takes.state, ['waiting', 'painting'])));
}
