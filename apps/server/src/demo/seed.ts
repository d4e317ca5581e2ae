import { eq } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { nameHouse } from '../house/service.ts';
import { brandColours, brands, campaigns, formats } from '../house/tables.ts';
import { addWordStyle } from '../mix/wordStyles.ts';
import { addPerson, isHouseEmpty } from '../people/service.ts';
import { presses } from '../presses/tables.ts';
import { startRun } from '../runs/starting.ts';
import { createTemplate, pasteSubjects } from '../wording/service.ts';
import { styleCodes } from '../shelf/codes/tables.ts';
import { shelves, treatments } from '../shelf/tables.ts';
import { orderDemoRuns } from './campaigns.ts';
import { demoCodes } from './codes.ts';
import { DEMO_PEOPLE, DEMO_SUBJECTS } from './facts.ts';
import { bringReferences, fillLibrary, mixLooks } from './library.ts';
import { FIRST_LOOKS } from './looks.ts';
import { firstReferences } from './references/index.ts';
import { ALLOWED_DRIFT, reviewDemoRuns } from './review.ts';
import { DEMO_TREATMENTS, DEMO_WORD_STYLES } from './words.ts';

const SHELF_ORDER = ['Prints', 'Paper and stencil', 'Paint', 'Washes', 'Sticks and chalk'];

/** Fills an empty house with the demo house: at once what is needed to begin, the rest in the background, decisions as runs are made. */
export async function keepDemoHouse(context: Context): Promise<void> {
  const size = context.settings.demo === 'full' ? 'full' : 'small';
  if (await isHouseEmpty(context)) await seedHouse(context, size);
  const inBackground = async (): Promise<void> => {
    await fillLibrary(context, size);
    // Codes are many, and nobody waits for their figures: they come after the library.
    context.codes.poke();
    if (size === 'full') await orderDemoRuns(context);
  };
  void inBackground().catch(error => context.log.warn({ err: error as Error }, 'the demo house could not be filled'));
  void reviewDemoRuns(context).catch(error => context.log.warn({ err: error as Error }, 'demo runs could not be reviewed'));
}

async function seedHouse(context: Context, size: 'full' | 'small'): Promise<void> {
  const { db } = context;
  context.log.info('the house is empty; the demo house is being set up');
  const ids: string[] = [];
  await db.transaction(async tx => {
    await nameHouse(tx, 'Marrow & Vane');
    for (const p of DEMO_PEOPLE) ids.push((await addPerson(tx, p.name, p.email, p.role, p.password)).id);
    const brandId = uuidv7();
    await tx
      .insert(brands)
      .values({ id: brandId, name: 'Marrow & Vane', allowedDrift: ALLOWED_DRIFT, avoid: ['lettering', 'violet'] });
    const colours = [
      { name: 'Soot', role: 'line', hex: '#23262b', never: false, tolerance: 6 },
      { name: 'Chalk', role: 'ground', hex: '#f3eee2', never: false, tolerance: 4 },
      { name: 'Beet', role: 'lead', hex: '#8e2a4b', never: false, tolerance: 6 },
      { name: 'Brine', role: 'second', hex: '#5f7f6b', never: false, tolerance: 6 },
      { name: "The rival's violet", role: 'never', hex: '#6a3fb5', never: true, tolerance: 9 },
    ];
    await tx.insert(brandColours).values(colours.map((c, position) => ({ ...c, id: uuidv7(), brandId, position })));
    const names = ['First Frost catalogue', 'Market Saturdays', 'Growing calendar', 'Stall photographs'];
    // One that is late, two that are not, and one without a day.
    const days = [9, -2, 40, null];
    const ends = days.map(d => (d === null ? null : new Date(Date.now() + d * 86_400_000).toISOString().slice(0, 10)));
    await tx.insert(campaigns).values(names.map((name, i) => ({ id: uuidv7(), brandId, name, ends: ends[i] })));
  });
  const [lead, , ruta] = ids;
  await bringReferences(context, firstReferences(), ruta);
  await db.insert(shelves).values(SHELF_ORDER.map((name, place) => ({ name, place })));
  for (const w of DEMO_WORD_STYLES) await addWordStyle(context, w, lead);
  await db.insert(treatments).values(DEMO_TREATMENTS.map(t => ({ ...t, id: uuidv7(), addedBy: ruta, addedAt: new Date() })));
  await db
    .insert(styleCodes)
    .values(
      demoCodes(size).map(code => ({ ...code, id: uuidv7(), state: 'in use' as const, addedBy: ruta, addedAt: new Date() })),
    );
  const [block] = await mixLooks(context, FIRST_LOOKS, lead);
  const template = await createTemplate(
    context,
    {
      name: 'Catalogue, single subject',
      text: 'A {{subject}}, whole, on plain ground, {{light}}',
      avoid: ['hands', 'tableware'],
      slots: [
        {
          name: 'light',
          kind: 'choice',
          choices: ['light from the left', 'evening light', 'morning light'],
          default: 'light from the left',
          help: 'Where the light comes from, or when it is',
        },
      ],
    },
    lead,
  );
  const subjectIds = await pasteSubjects(context, DEMO_SUBJECTS, lead);
  const [format] = await context.db.select().from(formats).where(eq(formats.name, 'Square 512'));
  const [press] = await context.db.select().from(presses);
  const plan = {
    name: 'First Frost, pilot',
    subjectIds: subjectIds.slice(0, 8),
    lookIds: [block],
    templateId: template,
    fills: {},
    formatIds: [format.id],
    takes: 3,
    seedPolicy: 'subject' as const,
    seed: 1907,
    strength: null,
    pressId: press.id,
    struckOut: [],
  };
  const runId = await startRun(context, plan, lead);
  await context.events.add(context.db, 'demoRun', runId, lead);
}
