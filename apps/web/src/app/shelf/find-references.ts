import type { Look, Reference } from '@zinc/contract';
import { labDistance2, labOfHex, SOON_DAYS, type Lab } from '@zinc/core';

export const RIGHTS = ['any', 'usable', 'soon', 'ended', 'unknown'] as const;
export type Rights = (typeof RIGHTS)[number];

/** What the slip asks of references. */
export interface ShelfSlip {
  words: string;
  rights: Rights;
  /** Least grade; null takes those without a grade too. */
  grade: number | null;
  use: 'any' | 'used' | 'unused';
  /** Pictures as they came, variants made of them, or proofs of our own. */
  kind: 'any' | 'brought' | 'variant' | 'proof';
  /** Name of the person who brought it; empty for anyone. */
  who: string;
  /** A colour as #rrggbb that must cover a part of the picture. */
  colour: string | null;
}

export const ANY: ShelfSlip = { words: '', rights: 'any', grade: null, use: 'any', kind: 'any', who: '', colour: null };

/** Whether a slip asks for what looks have not: rights, a grade, use, origin or a colour of their own. */
export function isAboutReferences(slip: ShelfSlip): boolean {
  return JSON.stringify({ ...slip, words: '' }) !== JSON.stringify(ANY);
}

/** How the rights of a reference stand on a day (YYYY-MM-DD). */
export function rightsOf({ licence, licenceEnds }: Reference, today: string): Exclude<Rights, 'any'> {
  if (licenceEnds && licenceEnds < today) return 'ended';
  const soon = new Date(Date.parse(today) + SOON_DAYS * 86_400_000).toISOString().slice(0, 10);
  if (licenceEnds && licenceEnds <= soon) return 'soon';
  return licence === '' ? 'unknown' : 'usable';
}

function fitsRights(r: Reference, wanted: Rights, today: string): boolean {
  if (wanted === 'any') return true;
  const own = rightsOf(r, today);
  return own === wanted || (wanted === 'usable' && own === 'soon');
}

function kindOf(r: Reference): ShelfSlip['kind'] {
  return r.origin?.kind === 'variant' || r.origin?.kind === 'proof' ? r.origin.kind : 'brought';
}

/** How near a colour of the palette must be (OKLab), and how much of the picture it must cover, to count as there. */
const NEAR = 0.1;
const PART = 0.03;

/** Share of a picture that is about this colour. */
export function shareOf(reference: Reference, colour: Lab): number {
  return reference.palette.reduce((sum, c) => sum + (labDistance2(c, colour) < NEAR * NEAR ? c.share : 0), 0);
}

/** Hashes of the pictures that some look mixes. */
export function usedPictures(looks: readonly Look[]): Set<string> {
  return new Set(looks.flatMap(l => l.latest.sources.flatMap(s => (s.sha256 ? [s.sha256] : []))));
}

/** What is searched by words. */
export function textOf(r: Reference): string {
  return `${r.name} ${r.shelf} ${r.credit} ${r.tags.join(' ')}`;
}

/**
 * The references that fit a slip; when it asks for a colour, those with most of it first. `fitting` are the ids of those that fit its words,
 * or null when it has none.
 */
export function findReferences(
  references: readonly Reference[],
  slip: ShelfSlip,
  fitting: ReadonlySet<string> | null,
  used: ReadonlySet<string>,
  today: string,
): Reference[] {
  const colour = slip.colour ? labOfHex(slip.colour) : null;
  const found = references.filter(
    r =>
      r.state !== 'put away' &&
      (!fitting || fitting.has(r.id)) &&
      fitsRights(r, slip.rights, today) &&
      (slip.grade === null || (r.grade ?? -1) >= slip.grade) &&
      (slip.use === 'any' || used.has(r.picture.sha256) === (slip.use === 'used')) &&
      (slip.kind === 'any' || kindOf(r) === slip.kind) &&
      (slip.who === '' || r.addedBy === slip.who) &&
      (!colour || shareOf(r, colour) >= PART),
  );
  return colour ? found.sort((p, q) => shareOf(q, colour) - shareOf(p, colour)) : found;
}
