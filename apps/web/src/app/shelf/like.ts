import type { LikeInput, LikeResult } from '@zinc/contract';
import type { Facet, Fingerprint } from '@zinc/core';
import type { Api } from '../shared/api';

/** What things are looked for by likeness to. */
export type Like = { name: string } & (
  | { kind: 'picture'; sha256: string }
  | { kind: 'look'; lookId: string }
  | { kind: 'code'; code: string }
  | { kind: 'dropped'; fingerprint: Fingerprint }
);

/** Distances of what is on the shelf from this, by id; the server compares everything. */
export async function distancesTo(
  api: Api,
  like: Like,
  kind: LikeInput['kind'],
  facets: readonly Facet[],
): Promise<ReadonlyMap<string, number>> {
  const { items } = await api.send<LikeResult>('POST', '/shelf/like', { ...askFor(like), kind, facets });
  return new Map(items.map(i => [i.id, i.distance]));
}

function askFor(like: Like): Record<string, unknown> {
  switch (like.kind) {
    case 'picture':
      return { sha256: like.sha256 };
    case 'look':
      return { lookId: like.lookId };
    case 'code':
      return { code: like.code };
    case 'dropped':
      return { fingerprint: like.fingerprint };
  }
}
