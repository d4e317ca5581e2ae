import type { Facet } from '../measure/types.ts';

/** One change to a ticket that an ask was understood to want. Amounts are in the units of the ticket. */
export type AskChange =
  | { kind: 'avoid'; word: string }
  | { kind: 'style'; word: string }
  /** A name of a colour, or a step lighter (above 0) or darker. */
  | { kind: 'ground'; to: string | number }
  /** The area of a colour of the look, as a factor. */
  | { kind: 'area'; colour: string; factor: number }
  | { kind: 'strength'; by?: number; to?: number }
  /** How closely the content picture is kept. */
  | { kind: 'fidelity'; by: number }
  | { kind: 'size'; factor: number }
  /** In parts of the frame. */
  | { kind: 'place'; dx: number; dy: number }
  /** Words for the drawing itself: number, place, light, season, colour; the press says whether it knows them. */
  | { kind: 'drawing'; words: string }
  /** Sides of the style taken over from a picture. */
  | { kind: 'picture'; sha256: string; name: string; facets: Facet[] };

/** What an ask was read as: the changes it comes to, and the phrases that were not understood. */
export interface AskReading {
  changes: AskChange[];
  left: string[];
}
