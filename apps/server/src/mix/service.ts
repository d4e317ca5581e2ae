import type { BegunFrom, Look, LookVersion, LookVersionInput, Phrases } from '@zinc/contract';
import { labOfHex, mixLook, paletteFromColours, styleOfCode, type MixedLook, type MixSource, type WordSource } from '@zinc/core';
import { and, desc, eq, ne, type SQL } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { isDuplicate, type Queries } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { findBrand } from '../house/service.ts';
import { people } from '../people/tables.ts';
import { codeFingerprint, ownCode } from '../shelf/codes/service.ts';
import { fingerprintsOf } from '../shelf/service.ts';
import { looks, lookVersions } from './tables.ts';

/** Phrases of a word style in the order they are said. */
function wordsOf({ before, after }: Phrases): string[] {
  return [...before, ...after];
}

/** What a version says in the text of an image, its word styles included: those without parts say nothing. */
export function textOfLook(v: LookVersion): { before: string[]; words: string[]; avoid: string[] } {
  const said = v.sources.flatMap(s => (s.kind === 'wordStyle' && s.parts > 0 && s.phrases ? [s.phrases] : []));
  return {
    before: said.flatMap(p => p.before),
    words: [...said.flatMap(p => p.after), ...v.words],
    avoid: [...new Set([...said.flatMap(p => p.avoid), ...v.avoid])],
  };
}

/** Mixes a look's sources as they are kept in this house, and its words; references are found by the hash they are pinned to. */
export async function mixSources(context: Context, input: LookVersionInput): Promise<MixedLook> {
  const hashes = input.sources.filter(s => s.kind === 'reference').map(s => s.sha256 ?? '');
  const wordStyles: WordSource[] = [];
  const kept = await fingerprintsOf(context, hashes);
  const brand = await findBrand(context);
  const sources: MixSource[] = [];
  for (const [i, s] of input.sources.entries()) {
    const { parts, facets } = s;
    if (s.kind === 'wordStyle') {
      if (!s.phrases)
        throw new ProblemError('badInput', `The word style “${s.name}” came without its phrases.`, {
          field: `sources[${i}].phrases`,
        });
      wordStyles.push({ parts, words: wordsOf(s.phrases) });
    } else if (s.kind === 'palette' && s.colours?.length) {
      sources.push({ parts, facets, palette: paletteFromColours(s.colours.map(hex => ({ ...labOfHex(hex), role: '' }))) });
    } else if (s.kind === 'palette') {
      const wanted = brand?.colours.filter(c => !c.never) ?? [];
      if (wanted.length === 0)
        throw new ProblemError('notPossible', 'The house has no brand palette yet.', { field: `sources[${i}]` });
      sources.push({ parts, facets, palette: paletteFromColours(wanted.map(c => ({ ...labOfHex(c.hex), role: c.role }))) });
    } else if (s.kind === 'ownCode') {
      const code = ownCode(s.id, `sources[${i}].id`);
      sources.push({ parts, facets, style: styleOfCode(code), fingerprint: await codeFingerprint(context, code) });
    } else {
      const fingerprint = kept[s.sha256 ?? ''];
      if (!fingerprint)
        throw new ProblemError('notPossible', `The source “${s.name}” is not in the house.`, { field: `sources[${i}].sha256` });
      sources.push({ parts, facets, framing: s.framing, fingerprint });
    }
  }
  const avoid = [...input.avoid, ...input.sources.flatMap(s => (s.parts > 0 ? (s.phrases?.avoid ?? []) : []))];
  return mixLook(sources, input.words, wordStyles, avoid);
}

/** Looks with their newest version and the list of all versions. */
export async function selectLooks(context: Context, where?: SQL): Promise<Look[]> {
  const rows = await context.db
    .select({ look: looks, v: lookVersions, author: people.name })
    .from(looks)
    .innerJoin(lookVersions, eq(lookVersions.lookId, looks.id))
    .innerJoin(people, eq(people.id, lookVersions.author))
    .where(and(ne(looks.state, 'put away'), where))
    .orderBy(desc(looks.id), desc(lookVersions.version));
  const out = new Map<string, Look>();
  for (const { look, v, author } of rows) {
    const madeAt = v.madeAt.toISOString();
    const known = out.get(look.id);
    if (known) known.versions.push({ version: v.version, note: v.note, author, madeAt });
    else
      out.set(look.id, {
        id: look.id,
        name: look.name,
        state: look.state,
        latest: toVersion(v, author),
        versions: [{ version: v.version, note: v.note, author, madeAt }],
      });
  }
  return [...out.values()];
}

function toVersion(v: typeof lookVersions.$inferSelect, author: string): LookVersion {
  const { version, sources, strength, words, avoid, note, style, target, facets, madeAt } = v;
  const begunFrom = v.begunFrom ?? null;
  return {
    version,
    sources,
    strength,
    words,
    avoid,
    note,
    style,
    target,
    facets,
    begunFrom,
    author,
    madeAt: madeAt.toISOString(),
  };
}

export async function oneLook(context: Context, id: string): Promise<Look> {
  const [look] = await selectLooks(context, eq(looks.id, id));
  if (!look) throw new ProblemError('notFound', 'This look is not in the house.');
  return look;
}

export async function oneVersion(context: Context, id: string, version: number): Promise<LookVersion> {
  const [row] = await context.db
    .select({ v: lookVersions, author: people.name })
    .from(lookVersions)
    .innerJoin(people, eq(people.id, lookVersions.author))
    .where(and(eq(lookVersions.lookId, id), eq(lookVersions.version, version)));
  if (!row) throw new ProblemError('notFound', `This look has no version ${version}.`);
  return toVersion(row.v, row.author);
}

async function insertVersion(
  context: Context,
  db: Queries,
  lookId: string,
  version: number,
  input: LookVersionInput,
  personId: string,
  begunFrom: BegunFrom | null = null,
): Promise<void> {
  const { style, target, facets } = await mixSources(context, input);
  const { sources, strength, words, avoid, note } = input;
  await db.insert(lookVersions).values({
    lookId,
    version,
    sources,
    strength,
    words,
    avoid,
    note,
    style,
    target,
    facets,
    begunFrom,
    author: personId,
    madeAt: new Date(),
  });
}

/** Saves a new look as version 1. */
export async function createLook(
  context: Context,
  name: string,
  input: LookVersionInput,
  personId: string,
  from?: { lookId: string; version: number },
): Promise<string> {
  const id = uuidv7();
  let begunFrom: BegunFrom | null = null;
  if (from) {
    await oneVersion(context, from.lookId, from.version);
    begunFrom = { ...from, name: (await oneLook(context, from.lookId)).name };
  }
  try {
    await context.db.transaction(async tx => {
      await tx.insert(looks).values({ id, name, state: 'in use', createdAt: new Date() });
      await insertVersion(context, tx, id, 1, input, personId, begunFrom);
      await context.events.add(tx, 'lookSaved', id, personId, { name, version: 1 });
    });
  } catch (error) {
    if (isDuplicate(error))
      throw new ProblemError('inTheWay', `There is a look called “${name}” already. Give this one another name.`, {
        field: 'name',
      });
    throw error;
  }
  return id;
}

/** Saves the next version of a look that the writer believes to be at `basedOn`. */
export async function addVersion(
  context: Context,
  id: string,
  basedOn: number,
  input: LookVersionInput,
  personId: string,
): Promise<void> {
  const look = await oneLook(context, id);
  const stale = new ProblemError(
    'changedMeanwhile',
    `“${look.name}” has a newer version by ${look.latest.author}. Yours is kept here; look at theirs, then save again.`,
  );
  if (look.latest.version !== basedOn) throw stale;
  try {
    await context.db.transaction(async tx => {
      await insertVersion(context, tx, id, basedOn + 1, input, personId);
      await context.events.add(tx, 'lookSaved', id, personId, { name: look.name, version: basedOn + 1 });
    });
  } catch (error) {
    throw isDuplicate(error) ? stale : error;
  }
}
