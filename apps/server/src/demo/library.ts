import { asc, eq, inArray } from 'drizzle-orm';
import sharp from 'sharp';
import type { Context } from '../context.ts';
import { events } from '../house/eventTables.ts';
import { addVersion, createLook } from '../mix/service.ts';
import { looks } from '../mix/tables.ts';
import { people } from '../people/tables.ts';
import { takeInPicture } from '../shelf/pictures.ts';
import { addReference } from '../shelf/service.ts';
import { styleReferences } from '../shelf/tables.ts';
import { inputsOf, MORE_LOOKS, type DemoLook } from './looks.ts';
import type { DemoReference } from './references/index.ts';
import { moreReferences } from './references/more.ts';

const DAY = 86_400_000;
/** Milliseconds between two things that nobody waits for: what people do, and the press, come first. */
const BREATH = 60;

/** Brings made-up references onto the shelf, in their order. */
export async function bringReferences(context: Context, list: readonly DemoReference[], by: string): Promise<void> {
  const taken = await Promise.all(list.map(r => takeIn(context, r)));
  for (const [i, sha256] of taken.entries()) await stand(context, list[i], sha256, by);
}

async function takeIn(context: Context, r: DemoReference): Promise<string> {
  const png = await sharp(Buffer.from(r.svg)).png().toBuffer();
  return (await takeInPicture(context, `${r.name}.png`, png)).sha256;
}

async function stand(context: Context, r: DemoReference, sha256: string, by: string): Promise<void> {
  const { name, shelf, credit, licence, grade, tags } = r;
  const licenceEnds = r.licenceDays === null ? null : new Date(Date.now() + r.licenceDays * DAY).toISOString().slice(0, 10);
  await addReference(context, by, sha256, { name, shelf, credit, licence, licenceEnds, grade, tags });
}

/** Mixes demo looks with all their versions; returns their ids. */
export async function mixLooks(context: Context, list: readonly DemoLook[], by: string): Promise<string[]> {
  const rows = await context.db
    .select({ name: styleReferences.name, id: styleReferences.id, sha256: styleReferences.sha256 })
    .from(styleReferences);
  const kept = new Map(rows.map(r => [r.name, r]));
  const ids: string[] = [];
  for (const look of list) {
    const [first, ...later] = inputsOf(look, kept);
    const id = await createLook(context, look.name, first, by);
    for (const [i, input] of later.entries()) await addVersion(context, id, i + 1, input, by);
    ids.push(id);
  }
  return ids;
}

/**
 * Fills the demo library up in the background, once per house; what was there when it was last interrupted stays. The small house gets
 * those references only that its looks are mixed of.
 */
export async function fillLibrary(context: Context, size: 'full' | 'small'): Promise<void> {
  const { db } = context;
  const marks = await db
    .select({ kind: events.kind, who: events.who })
    .from(events)
    .where(inArray(events.kind, ['demoRun', 'demoLibrary']));
  if (!marks.some(m => m.kind === 'demoRun') || marks.some(m => m.kind === 'demoLibrary')) return;
  const [first] = await db
    .select({ id: people.id })
    .from(people)
    .where(eq(people.role, 'designer'))
    .orderBy(asc(people.id))
    .limit(1);
  const by = first.id;
  const there = new Set((await db.select({ name: styleReferences.name }).from(styleReferences)).map(r => r.name));
  const mixedIn = new Set(MORE_LOOKS.flatMap(l => l.versions.flatMap(v => v.sources.map(([name]) => name))));
  for (const r of moreReferences()) {
    if (there.has(r.name) || (size === 'small' && !mixedIn.has(r.name))) continue;
    await stand(context, r, await takeIn(context, r), by);
    await new Promise(resolve => setTimeout(resolve, BREATH).unref());
  }
  const mixed = new Set((await db.select({ name: looks.name }).from(looks)).map(l => l.name));
  await mixLooks(
    context,
    MORE_LOOKS.filter(l => !mixed.has(l.name)),
    by,
  );
  await context.events.add(db, 'demoLibrary', null, by);
}
