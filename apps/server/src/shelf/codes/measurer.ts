import { MEASURE_VERSION, searchVector, VECTOR_VERSION } from '@zinc/core';
import { and, eq, isNull, ne, or } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../../db/connect.ts';
import type { PicturePool } from '../picturePool.ts';
import { styleCodes } from './tables.ts';

const AT_ONCE = 50;
/** Milliseconds between two codes. */
const BREATH = 120;

/** Measures own codes in the background, a few hundred milliseconds each, until every one has a fingerprint of the present version. */
export class CodeMeasurer {
  private working: Promise<void> | null = null;
  private again = false;
  private stopped = false;

  constructor(
    private readonly db: Database,
    private readonly pool: PicturePool,
    private readonly log: Logger,
  ) {}

  /** Says that there may be codes to measure. */
  poke(): void {
    this.again = true;
    this.working ??= this.work().finally(() => (this.working = null));
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.working;
  }

  private async work(): Promise<void> {
    try {
      while (this.again && !this.stopped) {
        this.again = false;
        for (let some = await this.unmeasured(); some.length > 0 && !this.stopped; some = await this.unmeasured())
          for (const { id, text } of some) {
            if (this.stopped) return;
            const summary = await this.pool.measureCode(text);
            await this.db
              .update(styleCodes)
              .set({
                summary,
                measure: summary.measure,
                vector: searchVector(summary),
                vectorVersion: VECTOR_VERSION,
              })
              .where(eq(styleCodes.id, id));
            // Nobody waits for this: pictures that someone brings, and the press, come first.
            await new Promise(resolve => setTimeout(resolve, BREATH));
          }
      }
    } catch (error) {
      if (!this.stopped) this.log.warn({ err: error }, 'style codes could not be measured');
    }
  }

  private unmeasured(): Promise<{ id: string; text: string }[]> {
    return this.db
      .select({ id: styleCodes.id, text: styleCodes.text })
      .from(styleCodes)
      .where(and(eq(styleCodes.kind, 'own'), or(isNull(styleCodes.measure), ne(styleCodes.measure, MEASURE_VERSION))))
      .limit(AT_ONCE);
  }
}
