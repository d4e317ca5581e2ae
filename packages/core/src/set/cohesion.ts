import { drift, type Drift } from '../drift/drift.ts';
import { FACETS, type Fingerprint } from '../measure/types.ts';
import { mix } from '../mix/mix.ts';

/** The fingerprint in the middle of a set: every number its mean, palettes met by transport. Throws MixError for an empty set. */
export function barycentreOf(set: readonly Fingerprint[]): Fingerprint {
  // Fingerprints give every facet, so there is always a target.
  return mix(set.map(fingerprint => ({ parts: 1, facets: FACETS, fingerprint }))).target!;
}

/** How loosely a set hangs together: mean drift of its pictures from their barycentre, by facet; 0 is one and the same look. */
export function cohesionOf(set: readonly Fingerprint[]): Drift {
  const middle = barycentreOf(set);
  const out: Drift = { colour: 0, light: 0, line: 0, texture: 0, total: 0 };
  for (const f of set) {
    const d = drift(f, middle);
    for (const key of [...FACETS, 'total'] as const) out[key] += d[key] / set.length;
  }
  return out;
}
