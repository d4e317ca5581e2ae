import { drift } from '../drift/drift.ts';
import { THRESHOLDS } from '../drift/kinship.ts';
import { FACETS, type Facet, type Fingerprint } from '../measure/types.ts';
import { MixError } from './mix.ts';

/** How a handful of pictures could be mixed, and why. */
export interface Proposal {
  /** One for each picture, in the order given. */
  sources: { parts: number; facets: Facet[] }[];
  /** Whole percentage. */
  strength: number;
  /** Plain sentences, the most important first. */
  reasons: string[];
}

const MOST_PARTS = 4;

/** Mean drift of each picture from all others, by facet and in total. */
function distances(pictures: readonly Fingerprint[], side: Facet | 'total'): number[] {
  return pictures.map(
    (p, i) => pictures.reduce((sum, q, k) => sum + (k === i ? 0 : drift(p, q)[side]), 0) / Math.max(1, pictures.length - 1),
  );
}

const least = (values: readonly number[]): number => values.indexOf(Math.min(...values));
const list = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;

/**
 * Proposes parts, facets and strength for a look from pictures that someone likes together. What agrees is mixed; on a side of the style where
 * a picture stands apart it gives nothing, and where none agrees the one in the middle gives it alone, for a mean of unlike marks
 * is like none of them. Only `facets` are spoken of: the others come from elsewhere. Throws MixError for no pictures.
 */
export function proposeLook(
  pictures: readonly { name: string; fingerprint: Fingerprint }[],
  facets: readonly Facet[] = FACETS,
): Proposal {
  if (pictures.length === 0) throw new MixError('Got no pictures; a proposal needs at least one.');
  const prints = pictures.map(p => p.fingerprint);
  const reasons: string[] = [];
  const sources: Proposal['sources'] = prints.map(() => ({ parts: 1, facets: [] }));
  const found = facets.map(facet => {
    const far = distances(prints, facet);
    const middle = least(far);
    const agree = prints.map((p, i) => i === middle || drift(p, prints[middle])[facet] <= THRESHOLDS.close);
    agree.forEach((yes, i) => yes && sources[i].facets.push(facet));
    return { facet, middle, agree };
  });
  const idle = pictures.filter((_, i) => sources[i].facets.length === 0).map(p => p.name);
  if (idle.length === 1) reasons.push(`${idle[0]} agrees with the others in nothing; better take it out.`);
  if (idle.length > 1) reasons.push(`${list(idle)} agree with the others in nothing; better take them out.`);
  for (const { facet, middle, agree } of found) {
    const apart = pictures.filter((p, i) => !agree[i] && !idle.includes(p.name)).map(p => p.name);
    if (pictures.length > 1 && agree.filter(Boolean).length === 1)
      reasons.push(
        pictures.length === 2
          ? `They are unlike in ${facet}, and a mean of the two is like neither, so ${pictures[middle].name} gives it alone.`
          : `No two agree in ${facet}, so ${pictures[middle].name}, which is nearest to all, gives it alone.`,
      );
    else if (apart.length > 0)
      reasons.push(`${list(apart)} ${apart.length === 1 ? 'stands' : 'stand'} apart in ${facet}, so the others give it.`);
  }
  const total = distances(prints, 'total');
  const nearest = Math.min(...total);
  sources.forEach((s, i) => {
    // Twice as far from the rest is half as much of it.
    s.parts = Math.max(1, Math.round((MOST_PARTS * (nearest + 0.1)) / (total[i] + 0.1)));
  });
  const spread = total.reduce((sum, v) => sum + v, 0) / total.length;
  const strength = pictures.length === 1 || spread <= THRESHOLDS.same ? 90 : spread <= THRESHOLDS.close ? 80 : 70;
  if (pictures.length > 1) {
    const figure = `mean distance ${spread.toFixed(2)}`;
    reasons.push(
      spread <= THRESHOLDS.same
        ? `They could be of one hand (${figure}), so the look bears ${strength} % strength.`
        : spread <= THRESHOLDS.close
          ? `They are near relations (${figure}), so ${strength} % strength leaves room for the subject.`
          : `They are unlike (${figure}), so ${strength} % strength is a careful start.`,
    );
  }
  return { sources, strength, reasons };
}
