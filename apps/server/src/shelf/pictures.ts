import { searchVector, VECTOR_VERSION, type Fingerprint, type Lettering } from '@zinc/core';
import { eq, inArray } from 'drizzle-orm';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import type { IntakeResult } from './pictureWorker.ts';
import { fingerprints, pictures } from './tables.ts';

export interface KeptPicture {
  sha256: string;
  width: number;
  height: number;
  fingerprint: Fingerprint;
}

/** Writes the rows of a picture whose files are kept already; a picture that is known stays as it is. */
export async function recordPicture(
  db: Queries,
  sha256: string,
  working: string,
  bytes: number,
  taken: Extract<IntakeResult, { ok: true }>,
): Promise<void> {
  const { type, width, height, fingerprint, pixelHash } = taken;
  await db
    .insert(pictures)
    .values({ sha256, type, width, height, bytes, working, pixelHash, createdAt: new Date() })
    .onDuplicateKeyUpdate({ set: { sha256 } });
  await recordFingerprint(db, sha256, fingerprint);
}

/** Writes a fingerprint of a kept picture; one of the same version that is there already stays. */
export async function recordFingerprint(db: Queries, sha256: string, fingerprint: Fingerprint): Promise<void> {
  await db
    .insert(fingerprints)
    .values({
      sha256,
      measure: fingerprint.measure,
      summary: fingerprint,
      palette: fingerprint.colour.palette,
      vector: searchVector(fingerprint),
      vectorVersion: VECTOR_VERSION,
    })
    .onDuplicateKeyUpdate({ set: { sha256 } });
}

/** Checks, measures and keeps an uploaded picture. Throws `notAPicture` with the reason when it cannot be used. */
export async function takeInPicture(context: Context, name: string, bytes: Buffer): Promise<KeptPicture> {
  const taken = await context.pictures.run({ kind: 'intake', name, bytes });
  if (!taken.ok) throw new ProblemError('notAPicture', `${name}: ${taken.reason}`, { field: 'file' });
  const [sha256, working] = await Promise.all([context.store.put(bytes), context.store.put(taken.working)]);
  await context.db.transaction(tx => recordPicture(tx, sha256, working, bytes.length, taken));
  return { sha256, width: taken.width, height: taken.height, fingerprint: taken.fingerprint };
}

export async function findPicture(
  context: Context,
  sha256: string,
): Promise<{ type: string; working: string; width: number; height: number } | null> {
  if (!/^[0-9a-f]{64}$/.test(sha256)) return null;
  const [row] = await context.db
    .select({ type: pictures.type, working: pictures.working, width: pictures.width, height: pictures.height })
    .from(pictures)
    .where(eq(pictures.sha256, sha256));
  return row ?? null;
}

/** Lines of letters in pictures, by their hashes; what nobody asked about before is looked at now and kept. */
export async function letteringOf(context: Context, hashes: readonly string[]): Promise<Record<string, Lettering[]>> {
  if (hashes.length === 0) return {};
  const rows = await context.db
    .select({ sha256: pictures.sha256, working: pictures.working, lettering: pictures.lettering })
    .from(pictures)
    .where(inArray(pictures.sha256, [...hashes]));
  const found = await Promise.all(
    rows.map(async ({ sha256, working, lettering }) => {
      if (lettering) return [sha256, lettering] as const;
      const lines = await context.pictures.lettering(await context.store.read(working));
      await context.db.update(pictures).set({ lettering: lines }).where(eq(pictures.sha256, sha256));
      return [sha256, lines] as const;
    }),
  );
  return Object.fromEntries(found);
}
