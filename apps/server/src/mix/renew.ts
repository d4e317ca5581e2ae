import { MEASURE_VERSION, MixError } from '@zinc/core';
import { and, eq } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { mixSources } from './service.ts';
import { lookVersions } from './tables.ts';

/**
 * Mixes again every version of a look that was resolved with an older measure: its recipe stays as it was, and what follows from it (style,
 * target, facets) is worked out anew. Tickets keep the style they were painted with.
 */
export async function renewLooks(context: Context): Promise<void> {
  const versions = await context.db.select().from(lookVersions);
  for (const v of versions) {
    if (!v.target || v.target.measure === MEASURE_VERSION) continue;
    try {
      const { style, target, facets } = await mixSources(context, v);
      await context.db
        .update(lookVersions)
        .set({ style, target, facets })
        .where(and(eq(lookVersions.lookId, v.lookId), eq(lookVersions.version, v.version)));
    } catch (error) {
      if (!(error instanceof MixError || error instanceof ProblemError)) throw error;
      context.log.warn({ look: v.lookId, version: v.version, reason: error.message }, 'a look could not be mixed again');
    }
  }
}
