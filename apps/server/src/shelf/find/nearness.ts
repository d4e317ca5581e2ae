import {
  drift,
  driftOver,
  MEASURE_VERSION,
  NearnessIndex,
  searchVector,
  VECTOR_VERSION,
  type Facet,
  type Fingerprint,
} from '@zinc/core';
import { and, count, eq, inArray, max, ne } from 'drizzle-orm';
import type { Database } from '../../db/connect.ts';
import { styleCodes } from '../codes/tables.ts';
import { fingerprints, styleReferences } from '../tables.ts';

export type LikeKind = 'reference' | 'code';
interface Vectored {
  id: string;
  vector: Float32Array | null;
  version: number | null;
}
/** Rows read at a time, so that other requests are served meanwhile. */
const CHUNK = 2000;
/** How many are compared exactly, of those that the vectors say are nearest. */
const EXACT = 300;

const presentPrint = and(eq(fingerprints.sha256, styleReferences.sha256), eq(fingerprints.measure, MEASURE_VERSION));
const measuredCode = and(eq(styleCodes.kind, 'own'), eq(styleCodes.measure, MEASURE_VERSION));

/** Search by likeness over everything on the shelf. Vectors are kept in memory; before each search it is seen whether there are others now. */
export class ShelfNearness {
  private readonly indexes: Record<LikeKind, NearnessIndex> = { reference: new NearnessIndex(), code: new NearnessIndex() };
  private readonly seen: Record<LikeKind, string> = { reference: '', code: '' };
  private readonly reading = new Map<LikeKind, Promise<void>>();

  constructor(private readonly db: Database) {}

  /** Things by how far they are from a fingerprint, nearest first, by the facets given. */
  async like(kind: LikeKind, to: Fingerprint, facets: readonly Facet[]): Promise<{ id: string; distance: number }[]> {
    if (!this.reading.has(kind))
      this.reading.set(
        kind,
        this.catchUp(kind).finally(() => this.reading.delete(kind)),
      );
    await this.reading.get(kind);
    const ids = this.indexes[kind].nearest(searchVector(to), facets, EXACT);
    if (ids.length === 0) return [];
    return (await this.summaries(kind, ids))
      .map(r => ({ id: r.id, distance: driftOver(drift(r.summary!, to), facets) }))
      .sort((p, q) => p.distance - q.distance);
  }

  private async catchUp(kind: LikeKind): Promise<void> {
    const [now] = await (kind === 'reference'
      ? this.db.select({ count: count(), last: max(styleReferences.id) }).from(styleReferences)
      : this.db
          .select({ count: count(), last: max(styleCodes.id) })
          .from(styleCodes)
          .where(measuredCode));
    const sign = `${now.count}/${now.last}`;
    if (sign === this.seen[kind]) return;
    const index = this.indexes[kind];
    const ids = new Set((await this.ids(kind)).map(r => r.id));
    for (const id of index.ids()) if (!ids.has(id)) index.delete(id);
    const missing = [...ids].filter(id => !index.has(id));
    for (let at = 0; at < missing.length; at += CHUNK) {
      const rows = await this.vectors(kind, missing.slice(at, at + CHUNK));
      const stale = rows.filter(r => !r.vector || r.version !== VECTOR_VERSION).map(r => r.id);
      for (const r of rows) if (r.vector && r.version === VECTOR_VERSION) index.set(r.id, r.vector);
      if (stale.length > 0)
        for (const { id, summary } of await this.summaries(kind, stale)) if (summary) index.set(id, searchVector(summary));
    }
    this.seen[kind] = sign;
  }

  private ids(kind: LikeKind): Promise<{ id: string }[]> {
    return kind === 'reference'
      ? this.db.select({ id: styleReferences.id }).from(styleReferences)
      : this.db.select({ id: styleCodes.id }).from(styleCodes).where(measuredCode);
  }

  private vectors(kind: LikeKind, ids: string[]): Promise<Vectored[]> {
    return kind === 'reference'
      ? this.db
          .select({ id: styleReferences.id, vector: fingerprints.vector, version: fingerprints.vectorVersion })
          .from(styleReferences)
          .innerJoin(fingerprints, presentPrint)
          .where(inArray(styleReferences.id, ids))
      : this.db
          .select({ id: styleCodes.id, vector: styleCodes.vector, version: styleCodes.vectorVersion })
          .from(styleCodes)
          .where(inArray(styleCodes.id, ids));
  }

  private summaries(kind: LikeKind, ids: string[]): Promise<{ id: string; summary: Fingerprint | null }[]> {
    return kind === 'reference'
      ? this.db
          .select({ id: styleReferences.id, summary: fingerprints.summary })
          .from(styleReferences)
          .innerJoin(fingerprints, presentPrint)
          .where(and(inArray(styleReferences.id, ids), ne(styleReferences.state, 'put away')))
      : this.db
          .select({ id: styleCodes.id, summary: styleCodes.summary })
          .from(styleCodes)
          .where(and(inArray(styleCodes.id, ids), ne(styleCodes.state, 'put away'), measuredCode));
  }
}
