import type { Brand, Campaign, Format, House } from '@zinc/contract';
import { eq } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connect.ts';
import { listPeople } from '../people/service.ts';
import { listPresses } from '../presses/service.ts';
import { presses } from '../presses/tables.ts';
import { brandColours, brands, campaigns, formats, house } from './tables.ts';

/** Formats and the press that every house starts with. */
const FIRST_FORMATS = [
  { name: 'Square 768', width: 768, height: 768 },
  { name: 'Square 512', width: 512, height: 512 },
  { name: 'Spread 3:4', width: 768, height: 1024 },
  { name: 'Banner 2:1', width: 1024, height: 512 },
  // For trials and pilots, which need no more.
  { name: 'Square 320', width: 320, height: 320 },
];

export async function houseName(context: Context): Promise<string | null> {
  const [row] = await context.db.select({ name: house.name }).from(house);
  return row?.name ?? null;
}

/** Names the house and gives it the formats and the press it starts with. The single row's key keeps two from opening it at once. */
export async function nameHouse(db: Queries, name: string): Promise<void> {
  await db.insert(house).values({ id: 1, name, createdAt: new Date() });
  await db.insert(formats).values(FIRST_FORMATS.map((f, position) => ({ ...f, id: uuidv7(), position })));
  await db.insert(presses).values({ id: uuidv7(), name: 'House press' });
}

export async function findBrand(context: Context): Promise<Brand | null> {
  const [brand] = await context.db.select().from(brands).limit(1);
  if (!brand) return null;
  const colours = await context.db
    .select()
    .from(brandColours)
    .where(eq(brandColours.brandId, brand.id))
    .orderBy(brandColours.position);
  return {
    id: brand.id,
    name: brand.name,
    allowedDrift: brand.allowedDrift,
    avoid: brand.avoid,
    colours: colours.map(({ name, role, hex, never, tolerance }) => ({ name, role, hex, never, tolerance })),
  };
}

export async function listFormats(context: Context): Promise<Format[]> {
  return context.db
    .select({ id: formats.id, name: formats.name, width: formats.width, height: formats.height })
    .from(formats)
    .orderBy(formats.position);
}

export async function describeHouse(context: Context): Promise<House> {
  const [brand, formatList, pressList, people, campaignList] = await Promise.all([
    findBrand(context),
    listFormats(context),
    listPresses(context),
    listPeople(context),
    context.db.select({ id: campaigns.id, name: campaigns.name, ends: campaigns.ends }).from(campaigns) as Promise<Campaign[]>,
  ]);
  return {
    name: (await houseName(context)) ?? '',
    brand,
    campaigns: campaignList,
    formats: formatList,
    presses: pressList,
    people,
  };
}
