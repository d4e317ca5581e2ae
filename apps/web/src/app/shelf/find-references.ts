import type { Look, Reference } from '@zinc/contract';
import { labDistance2, labOfHex, type Lab } from '@zinc/core';

/** What the slip asks of references. */
export interface ShelfSlip {
  words: string;
  rights: 'any' | 'usable';
  /** Least grade; null takes those without a grade too. */
  grade: number | null;
  use: 'any' | 'used' | 'unused';
  /** A colour as #rrggbb that must cover a part of the picture. */
  colour: string | null;
}

export const ANY: ShelfSlip = { words: '', rights: 'any', grade: null, use: 'any', colour: null };

/** Whether a slip asks for what looks have not: rights, a grade, use or a colour of their own. */
export function isAboutReferences({ rights, grade, use, colour }: ShelfSlip): boolean {
  return rights !== 'any' || grade !== null || use !== 'any' || colour !== null;
}

/** How near a colour of the palette must be (OKLab), and how much of the picture it must cover, to count as there. */
const NEAR = 0.1;
const PART = 0.03;

/** Share of a picture that is about this colour. */
export function shareOf(reference: Reference, colour: Lab): number {
  const { palette } = reference.fingerprint.colour;
  return palette.reduce((sum, c) => sum + (labDistance2(c, colour) < NEAR * NEAR ? c.share : 0), 0);
}

/** Hashes of the pictures that some look mixes. */
export function usedPictures(looks: readonly Look[]): Set<string> {
  return new Set(looks.flatMap(l => l.latest.sources.flatMap(s => (s.sha256 ? [s.sha256] : []))));
}

/** The references that fit a slip; when it asks for a colour, those with most of it first. */
export function findReferences(
  references: readonly Reference[],
  slip: ShelfSlip,
  used: ReadonlySet<string>,
  today: string,
): Reference[] {
  const words = slip.words.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const colour = slip.colour ? labOfHex(slip.colour) : null;
  const found = references.filter(r => {
    const text = `${r.name} ${r.shelf} ${r.credit}`.toLowerCase();
    return (
      r.state !== 'put away' &&
      words.every(w => text.includes(w)) &&
      (slip.rights === 'any' || ((!r.licenceEnds || r.licenceEnds >= today) && r.licence !== '')) &&
      (slip.grade === null || (r.grade ?? -1) >= slip.grade) &&
      (slip.use === 'any' || used.has(r.picture.sha256) === (slip.use === 'used')) &&
      (!colour || shareOf(r, colour) >= PART)
    );
  });
  return colour ? found.sort((p, q) => shareOf(q, colour) - shareOf(p, colour)) : found;
}
