import { MEASURE_VERSION } from '@zinc/core';
import { and, eq, isNull } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { recordFingerprint } from './pictures.ts';
import { fingerprints, pictures } from './tables.ts';

/**
 * Measures every kept picture that has no fingerprint of the present version, from its working copy. Fingerprints of different versions are
 * never compared, so this runs before anything is served. Returns how many were measured.
 */
export async function measureAgain(context: Context): Promise<number> {
  const waiting = await context.db
    .select({ sha256: pictures.sha256, working: pictures.working })
    .from(pictures)
    .leftJoin(fingerprints, and(eq(fingerprints.sha256, pictures.sha256), eq(fingerprints.measure, MEASURE_VERSION)))
    .where(isNull(fingerprints.sha256));
  let done = 0;
  await Promise.all(
    waiting.map(async ({ sha256, working }) => {
      const taken = await context.pictures.run({ kind: 'proof', bytes: await context.store.read(working) });
      if (!taken.ok) {
        context.log.warn({ sha256, reason: taken.reason }, 'a kept picture could not be measured again');
        return;
      }
      await recordFingerprint(context.db, sha256, taken.fingerprint);
      done++;
    }),
  );
  if (waiting.length > 0)
    context.log.info({ done, of: waiting.length, measure: MEASURE_VERSION }, 'measured kept pictures again');
  return done;
}
