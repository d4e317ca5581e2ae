import type { Reference, ReferenceOrigin } from '@zinc/contract';
import { MEASURE_VERSION, type Fingerprint } from '@zinc/core';
import { and, desc, eq, inArray, type SQL } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { isDuplicate } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { people } from '../people/tables.ts';
import { fingerprints, pictures, styleReferences } from './tables.ts';

/** References in the order they came, newest first. */
export async function selectReferences(context: Context, where: SQL | undefined, limit: number): Promise<Reference[]> {
  const rows = await context.db
    .select({
      r: styleReferences,
      width: pictures.width,
      height: pictures.height,
      palette: fingerprints.palette,
      by: people.name,
    })
    .from(styleReferences)
    .innerJoin(pictures, eq(pictures.sha256, styleReferences.sha256))
    .innerJoin(fingerprints, and(eq(fingerprints.sha256, styleReferences.sha256), eq(fingerprints.measure, MEASURE_VERSION)))
    .innerJoin(people, eq(people.id, styleReferences.addedBy))
    .where(where)
    .orderBy(desc(styleReferences.id))
    .limit(limit);
  return rows.map(({ r, width, height, palette, by }) => ({
    id: r.id,
    name: r.name,
    shelf: r.shelf,
    credit: r.credit,
    licence: r.licence,
    licenceEnds: r.licenceEnds,
    state: r.state,
    picture: { sha256: r.sha256, width, height },
    palette,
    grade: r.grade,
    tags: r.tags,
    styleWords: r.styleWords,
    subjectWords: r.subjectWords,
    place: r.place,
    origin: r.origin ?? null,
    revision: r.revision,
    addedAt: r.addedAt.toISOString(),
    addedBy: by,
  }));
}

export async function oneReference(context: Context, id: string): Promise<Reference> {
  const [found] = await selectReferences(context, eq(styleReferences.id, id), 1);
  if (!found) throw new ProblemError('notFound', 'This reference is not in the house.');
  return found;
}

/** Adds a picture that is kept already as a reference. Throws `inTheWay` when the same picture is on the shelf. */
export async function addReference(
  context: Context,
  personId: string,
  sha256: string,
  facts: {
    name: string;
    shelf: string;
    credit: string;
    licence: string;
    licenceEnds: string | null;
    origin?: ReferenceOrigin | null;
    parentId?: string;
    tags?: string[];
    grade?: number | null;
  },
): Promise<string> {
  const id = uuidv7();
  try {
    await context.db.transaction(async tx => {
      const now = new Date();
      await tx.insert(styleReferences).values({
        id,
        sha256,
        ...facts,
        tags: facts.tags ?? [],
        styleWords: [],
        subjectWords: '',
        state: 'in use',
        // What comes later stands before what is there.
        place: -now.getTime() / 1000,
        addedBy: personId,
        addedAt: now,
      });
      await context.events.add(tx, 'referenceAdded', id, personId, { name: facts.name });
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    const [same] = await context.db
      .select({ name: styleReferences.name })
      .from(styleReferences)
      .where(eq(styleReferences.sha256, sha256));
    throw new ProblemError('inTheWay', `The same picture is on the shelf already, as “${same?.name}”.`, { field: 'file' });
  }
  return id;
}

/** Fingerprints of kept pictures by their hash; what is not known is left out. */
export async function fingerprintsOf(context: Context, hashes: readonly string[]): Promise<Record<string, Fingerprint>> {
  if (hashes.length === 0) return {};
  const rows = await context.db
    .select({ sha256: fingerprints.sha256, summary: fingerprints.summary })
    .from(fingerprints)
    .where(and(inArray(fingerprints.sha256, [...hashes]), eq(fingerprints.measure, MEASURE_VERSION)));
  return Object.fromEntries(rows.map(r => [r.sha256, r.summary]));
}
