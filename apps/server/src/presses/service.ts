import { ValidationError, type Capabilities, type Press, type PressInput } from '@zinc/contract';
import { and, eq, inArray, ne, sql } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { batches, takes } from '../runs/tables.ts';
import { PressError } from './pressClient.ts';
import { isUp, sameMake, type KnownPress } from './presses.ts';
import { seal, unseal } from './seal.ts';
import { presses } from './tables.ts';

/** The presses with what they last said of themselves, how they behave, and how much waits for them. */
export async function listPresses(context: Context): Promise<Press[]> {
  const all = await context.presses.all();
  const counts = await context.db
    .select({ pressId: takes.pressId, n: sql<number>`count(*)`.mapWith(Number) })
    .from(takes)
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(and(inArray(takes.state, ['waiting', 'painting']), inArray(batches.state, ['running', 'waiting'])))
    .groupBy(takes.pressId);
  return all.map(p => {
    const { row } = p;
    const waiting = counts.find(c => c.pressId === row.id)?.n ?? 0;
    const capabilities = p.says ?? row.capabilities;
    return {
      id: row.id,
      name: row.name,
      state: stateOf(p, waiting),
      url: row.url,
      atOnce: row.atOnce,
      price: row.price ?? capabilities?.pricePerImage ?? 0,
      ownPrice: row.price !== null,
      shares: row.shares,
      mates: all.filter(o => o !== p && o.row.inUse && sameMake(o, p)).map(o => o.row.name),
      fault: row.fault,
      restsUntil: p.rests ? (row.restsUntil?.toISOString() ?? null) : null,
      capabilities,
      secondsPerImage: row.secondsPerImage,
      waiting,
    };
  });
}

function stateOf(p: KnownPress, waiting: number): Press['state'] {
  if (!p.row.inUse) return 'unused';
  if (p.says === null) return 'gone';
  return isUp(p) ? (waiting > 0 ? 'busy' : 'idle') : 'rests';
}

/** Adds a press to the house once it has answered. Throws at the field that is wrong. */
export async function addPress(context: Context, input: PressInput, personId: string): Promise<void> {
  if (input.url === null) throw new ProblemError('badInput', 'Write the address of the press.', { field: 'url' });
  if (!input.token) throw new ProblemError('badInput', 'Write the token that the press is opened with.', { field: 'token' });
  await refuseTwin(context, input);
  const capabilities = await tryOut(context, input.url, input.token);
  const id = uuidv7();
  await context.db.insert(presses).values({
    ...kept(input),
    id,
    url: plain(input.url),
    sealedToken: seal(input.token, context.settings.secret),
    capabilities,
    seenAt: new Date(),
  });
  await context.events.add(context.db, 'pressAdded', id, personId, { name: input.name });
}

/** Changes a press. One that comes (back) into use, or moves, must answer first. */
export async function changePress(context: Context, id: string, input: PressInput, personId: string): Promise<void> {
  const { row } = await context.presses.one(id);
  if ((row.url === null) !== (input.url === null))
    throw new ProblemError(
      'badInput',
      row.url === null
        ? 'The house’s own press is where its settings say; it cannot be moved.'
        : 'Write the address of the press.',
      { field: 'url' },
    );
  await refuseTwin(context, input, id);
  const token = input.token || unseal(row.sealedToken ?? '', context.settings.secret);
  const moved = input.url !== null && (plain(input.url) !== row.url || Boolean(input.token));
  const said =
    input.url !== null && input.inUse && (moved || !row.inUse)
      ? { capabilities: await tryOut(context, input.url, token ?? '') }
      : {};
  await context.db
    .update(presses)
    .set({
      ...kept(input),
      ...said,
      ...(input.url === null ? {} : { url: plain(input.url), sealedToken: seal(token ?? '', context.settings.secret) }),
      // Who changes a press says that it is to be tried again.
      fault: null,
      faults: 0,
      restsUntil: null,
    })
    .where(eq(presses.id, id));
  await context.events.add(context.db, 'pressChanged', id, personId, { name: input.name });
}

const plain = (url: string): string => url.replace(/\/+$/, '');
const kept = ({ name, atOnce, price, shares, inUse }: PressInput) => ({ name, atOnce, price, shares, inUse });

async function refuseTwin(context: Context, { name, url }: PressInput, own = ''): Promise<void> {
  const others = await context.db.select().from(presses).where(ne(presses.id, own));
  if (others.some(p => p.name.toLowerCase() === name.toLowerCase()))
    throw new ProblemError('badInput', `There is a press called “${name}” already.`, { field: 'name' });
  const twin = url && others.find(p => (p.url ?? context.settings.pressUrl) === plain(url));
  if (twin) throw new ProblemError('badInput', `${twin.name} is at this address already.`, { field: 'url' });
}

/** Asks what is at an address. Throws at the address or the token when it is no press, or not ours to use. */
async function tryOut(context: Context, url: string, token: string): Promise<Capabilities> {
  try {
    return await context.presses.tryOut(plain(url), token).ask();
  } catch (error) {
    if (error instanceof ValidationError)
      throw new ProblemError('badInput', `What answers there does not keep to the press contract: ${error.message}.`, {
        field: 'url',
      });
    if (!(error instanceof PressError)) throw error;
    if (error.status === 401 || error.status === 403)
      throw new ProblemError('badInput', 'The press does not take this token.', { field: 'token' });
    const what = error.kind === 'gone' ? 'Nothing answers at this address.' : `What answers there is no press: ${error.message}`;
    throw new ProblemError('badInput', what, { field: 'url' });
  }
}
