import type { PlanInput } from '@zinc/contract';
import { SHARES, ticketHash } from '@zinc/core';
import { asc, eq, inArray } from 'drizzle-orm';
import { Piscina } from 'piscina';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { events } from '../house/eventTables.ts';
import { campaigns, formats } from '../house/tables.ts';
import { looks, lookVersions } from '../mix/tables.ts';
import { people } from '../people/tables.ts';
import { presses } from '../presses/tables.ts';
import { startRun } from '../runs/starting.ts';
import { batches, cells, runs, takes } from '../runs/tables.ts';
import { takeInPicture } from '../shelf/pictures.ts';
import { createTemplate, pasteSubjects } from '../wording/service.ts';
import { subjectListItems, subjectLists, subjects, templates } from '../wording/tables.ts';
import { LIST_NAMES, MORE_SUBJECTS, PHOTOGRAPHED } from './subjects.ts';
import { MONTHS, MORE_TEMPLATES } from './templates.ts';

const PHOTO_SIDE = 768;
/** The run that ten strays are planted in, and the look they are painted in by mistake. */
export const STRAY_RUN = 'Packet backs, spring';
const STRAY_LOOK = 'Night Heron';
export const STRAYS = 10;

type Ids = ReadonlyMap<string, string>;

/** What is known by name in the house while its runs are ordered. */
interface Names {
  subjects: Ids;
  looks: Ids;
  templates: Ids;
  formats: Ids;
  campaigns: Ids;
  lists: ReadonlyMap<string, string[]>;
  press: string;
}

/**
 * Orders the runs of the demo house, once per house, when its library is full: subjects, lists, templates, then runs that the press makes in
 * the background. What was there when it was last interrupted stays.
 */
export async function orderDemoRuns(context: Context): Promise<void> {
  const { db } = context;
  const marks = await db
    .select({ kind: events.kind })
    .from(events)
    .where(inArray(events.kind, ['demoLibrary', 'demoRuns']));
  if (!marks.some(m => m.kind === 'demoLibrary') || marks.some(m => m.kind === 'demoRuns')) return;
  const staff = await db.select().from(people).orderBy(asc(people.id));
  const designers = staff.filter(p => p.role === 'designer').map(p => p.id);
  await addWording(context, designers[0]);
  await addPhotographs(context, designers[1] ?? designers[0]);
  await addLists(context, designers[0]);
  const names = await readNames(context);
  const there = new Set((await db.select({ name: runs.name }).from(runs)).map(r => r.name));
  for (const [i, plan] of demoPlans(names).entries()) {
    if (there.has(plan.name)) continue;
    const runId = await startRun(context, plan, designers[i % designers.length]);
    // What has strays in it is left for the person who tries the house.
    if (plan.name === STRAY_RUN) await plantStrays(context, runId, names.looks.get(STRAY_LOOK)!);
    else await context.events.add(db, 'demoRun', runId, null);
  }
  await context.events.add(db, 'demoRuns', null, staff[0].id);
}

async function addWording(context: Context, by: string): Promise<void> {
  const there = new Set((await context.db.select({ label: subjects.label }).from(subjects)).map(s => s.label));
  const more = MORE_SUBJECTS.filter(([label]) => !there.has(label));
  if (more.length > 0) await pasteSubjects(context, more.map(([label, wording]) => `${label}; ${wording}`).join('\n'), by);
  const named = new Set((await context.db.select({ name: templates.name }).from(templates)).map(t => t.name));
  for (const t of MORE_TEMPLATES) if (!named.has(t.name)) await createTemplate(context, t, by);
}

const photoLabel = (i: number): string => `Stall photograph ${i + 1}`;

async function addPhotographs(context: Context, by: string): Promise<void> {
  const { db } = context;
  const there = new Set((await db.select({ label: subjects.label }).from(subjects)).map(s => s.label));
  const extension = import.meta.url.endsWith('.ts') ? 'ts' : 'js';
  const pool = new Piscina({ filename: new URL(`./photoWorker.${extension}`, import.meta.url).href, maxThreads: 1 });
  try {
    for (const [i, name] of PHOTOGRAPHED.entries()) {
      if (there.has(photoLabel(i))) continue;
      const png = (await pool.run({ name, seed: 100 + i, side: PHOTO_SIDE })) as Uint8Array;
      const { sha256 } = await takeInPicture(context, `${photoLabel(i)}.png`, Buffer.from(png));
      await db.transaction(async tx => {
        await tx.insert(subjects).values({
          id: uuidv7(),
          label: photoLabel(i),
          wording: name,
          avoid: [],
          tags: ['photograph'],
          sha256,
          state: 'in use',
          createdAt: new Date(),
        });
        await context.events.add(tx, 'subjectsAdded', null, by, { count: 1 });
      });
    }
  } finally {
    await pool.destroy();
  }
}

async function addLists(context: Context, by: string): Promise<void> {
  const { db } = context;
  const rows = await db.select({ id: subjects.id, label: subjects.label }).from(subjects).orderBy(asc(subjects.id));
  const idOf = new Map(rows.map(r => [r.label, r.id]));
  const lists: [string, string[]][] = Object.entries(LIST_NAMES).map(([key, name]) => [
    name,
    MORE_SUBJECTS.filter(([, , lists]) => lists.split(' ').includes(key)).map(([label]) => label),
  ]);
  lists.push(['Stall photographs', PHOTOGRAPHED.map((_, i) => photoLabel(i))]);
  const there = new Set((await db.select({ name: subjectLists.name }).from(subjectLists)).map(l => l.name));
  for (const [name, labels] of lists) {
    if (there.has(name)) continue;
    const id = uuidv7();
    await db.transaction(async tx => {
      await tx.insert(subjectLists).values({ id, name, createdAt: new Date() });
      await tx
        .insert(subjectListItems)
        .values(labels.flatMap((l, place) => (idOf.has(l) ? [{ listId: id, subjectId: idOf.get(l)!, place }] : [])));
      await context.events.add(tx, 'subjectsAdded', null, by, { list: name });
    });
  }
}

async function readNames(context: Context): Promise<Names> {
  const { db } = context;
  const byName = (rows: { id: string; name: string }[]): Ids => new Map(rows.map(r => [r.name, r.id]));
  const items = await db
    .select({ list: subjectLists.name, id: subjectListItems.subjectId })
    .from(subjectListItems)
    .innerJoin(subjectLists, eq(subjectLists.id, subjectListItems.listId))
    .orderBy(asc(subjectListItems.place));
  const lists = new Map<string, string[]>();
  for (const { list, id } of items) lists.set(list, [...(lists.get(list) ?? []), id]);
  const [press] = await db.select({ id: presses.id }).from(presses).orderBy(asc(presses.id)).limit(1);
  return {
    subjects: byName(await db.select({ id: subjects.id, name: subjects.label }).from(subjects)),
    looks: byName(await db.select({ id: looks.id, name: looks.name }).from(looks)),
    templates: byName(await db.select({ id: templates.id, name: templates.name }).from(templates)),
    formats: byName(await db.select({ id: formats.id, name: formats.name }).from(formats)),
    campaigns: byName(await db.select({ id: campaigns.id, name: campaigns.name }).from(campaigns)),
    lists,
    press: press.id,
  };
}

/** The runs in the order they are made; together with the first pilot they come to some six hundred images. */
function demoPlans(n: Names): PlanInput[] {
  const of = (ids: Ids, name: string): string => {
    const id = ids.get(name);
    if (!id) throw new Error(`The demo house has nothing called “${name}”.`);
    return id;
  };
  const list = (...names: string[]): string[] => names.flatMap(l => n.lists.get(l) ?? []);
  const plan = (
    name: string,
    about: { campaign: string; look: string | string[]; template: string; format?: string; takes: number; subjects: string[] },
    more: Partial<PlanInput> = {},
  ): PlanInput => ({
    name,
    campaignId: of(n.campaigns, about.campaign),
    subjectIds: about.subjects,
    lookIds: [about.look].flat().map(l => of(n.looks, l)),
    templateId: of(n.templates, about.template),
    fills: {},
    formatIds: [of(n.formats, about.format ?? 'Square 512')],
    takes: about.takes,
    seedPolicy: 'subject',
    seed: 1907,
    strength: null,
    pressId: n.press,
    struckOut: [],
    ...more,
  });
  const first = ['Radish', 'Globe artichoke', 'Sunflower', 'Honeybee', 'Watering can', 'Greenhouse', 'Beetroot', 'The mark'];
  const catalogue = [...first, ...MORE_SUBJECTS.slice(0, 16).map(([label]) => label)].map(s => of(n.subjects, s));
  const share = [...SHARES];
  return [
    plan(
      'First Frost, the catalogue',
      {
        campaign: 'First Frost catalogue',
        look: 'Block & Brine',
        template: 'Catalogue, single subject',
        takes: 3,
        subjects: catalogue,
      },
      { binding: { amount: 70, share, anchor: null } },
    ),
    plan('First Frost, each by itself', {
      campaign: 'First Frost catalogue',
      look: 'Block & Brine',
      template: 'Catalogue, single subject',
      takes: 1,
      subjects: catalogue,
    }),
    plan('Market posters', {
      campaign: 'Market Saturdays',
      look: ['Packing Crate', 'Hothouse'],
      template: 'Market poster',
      format: 'Spread 3:4',
      takes: 3,
      subjects: catalogue.slice(0, 8),
    }),
    plan(
      'Stall banner, room for prices',
      {
        campaign: 'Market Saturdays',
        look: 'Paper Frost',
        template: 'Stall banner',
        format: 'Banner 2:1',
        takes: 2,
        subjects: list('Roots and bulbs').slice(0, 8),
      },
      { clear: [{ x: 0.66, y: 0, width: 0.34, height: 1 }] },
    ),
    plan(
      'Twelve months of one watering can',
      {
        campaign: 'Growing calendar',
        look: 'Almanac Wash',
        template: 'Garden calendar',
        takes: 2,
        subjects: [of(n.subjects, 'Watering can')],
      },
      // Light and ground are left to the seasons.
      { alternatives: { month: MONTHS }, binding: { amount: 60, share: ['palette', 'line', 'texture'], anchor: null } },
    ),
    plan(
      'Stall photographs, in wash',
      {
        campaign: 'Stall photographs',
        look: 'Almanac Wash',
        template: 'Bare',
        takes: 1,
        subjects: list('Stall photographs'),
      },
      { kind: 'restyle', fidelity: { subject: 85, ground: 30 } },
    ),
    plan(
      'How strong for roots',
      {
        campaign: 'First Frost catalogue',
        look: 'Block & Brine',
        template: 'Catalogue, single subject',
        takes: 1,
        subjects: list('Roots and bulbs').slice(0, 4),
      },
      { kind: 'testStrip', axes: [{ setting: 'strength', values: [20, 40, 60, 80, 100] }] },
    ),
    plan('Winter cards', {
      campaign: 'Growing calendar',
      look: ['Slate Morning', 'Pond'],
      template: 'Winter card',
      takes: 4,
      subjects: list('Visitors of the garden', 'In the yard'),
    }),
    plan('Recipe cards', {
      campaign: 'Market Saturdays',
      look: 'Graver',
      template: 'Recipe card',
      takes: 4,
      subjects: list('Roots and bulbs', 'Leaves').slice(0, 12),
    }),
    plan(STRAY_RUN, {
      campaign: 'First Frost catalogue',
      look: 'Slate Morning',
      template: 'Packet back',
      takes: 9,
      subjects: catalogue,
    }),
  ];
}

/**
 * Ten takes are painted in another look by mistake, as happens to people who work on two things at once: something for the eye and the
 * figures to find. Their tickets say which style they were painted in.
 */
export async function plantStrays(context: Context, runId: string, lookId: string): Promise<void> {
  const { db } = context;
  const [{ style }] = await db
    .select({ style: lookVersions.style })
    .from(lookVersions)
    .where(eq(lookVersions.lookId, lookId))
    .orderBy(asc(lookVersions.version))
    .limit(1);
  const rows = await db
    .select({ id: takes.id, ticket: takes.ticket })
    .from(takes)
    .innerJoin(cells, eq(cells.id, takes.cellId))
    .innerJoin(batches, eq(batches.id, takes.batchId))
    .where(eq(batches.runId, runId))
    .orderBy(asc(takes.take), asc(cells.row));
  // The last takes are ordered last, so none of them is being painted yet.
  const last = rows.filter(r => r.ticket.take === rows.at(-1)!.ticket.take);
  for (const { id, ticket } of last.filter((_, i) => i % 2 === 0).slice(0, STRAYS)) {
    const stray = { ...ticket, look: { ...ticket.look, style } };
    await db
      .update(takes)
      .set({ ticket: stray, ticketHash: ticketHash(stray) })
      .where(eq(takes.id, id));
  }
}
