import { FACETS, MEASURE_VERSION, type Facet, type Fingerprint } from '../measure/types.ts';
import { componentsOf } from './components.ts';
import { SCALES } from './scales.ts';

/** What a single difference may add to its facet: one trait, however far off, is not a whole look. */
const MOST = 0.75;

/** How far two fingerprints are apart: 0 is equal, 1 is as far as two unlike looks usually are. `total` is the mean of the facets. */
export type Drift = Record<Facet | 'total', number>;

/**
 * Drift by facet. Every single difference is taken as d² ÷ (d + noise), where the noise is what a change of subject alone usually makes
 * (Huber's idea: small differences count by their square, large ones straight), and summed by weights; `scales.ts` says how noise and
 * weights were found. Throws RangeError when the two were measured by different versions.
 */
export function drift(p: Fingerprint, q: Fingerprint): Drift {
  if (p.measure !== q.measure)
    throw new RangeError(
      `Got fingerprints measured by versions ${p.measure} and ${q.measure}; both must be of version ${MEASURE_VERSION}. Measure again.`,
    );
  const parts = componentsOf(p, q);
  const side = (facet: Facet): number => {
    let sum = 0;
    for (const [name, noise, weight] of SCALES[facet]) {
      const d = parts[name];
      sum += Math.min(MOST, weight * ((d * d) / (d + noise + 1e-9)));
    }
    return sum;
  };
  const out = { colour: side('colour'), light: side('light'), line: side('line'), texture: side('texture') };
  return { ...out, total: (out.colour + out.light + out.line + out.texture) / 4 };
}

/** Mean drift over the facets given; 0 when there are none. */
export function driftOver(d: Drift, facets: readonly Facet[] = FACETS): number {
  return facets.length === 0 ? 0 : facets.reduce((sum, f) => sum + d[f], 0) / facets.length;
}
