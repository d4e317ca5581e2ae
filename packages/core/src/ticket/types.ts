import type { Style } from '../mix/style.ts';
import type { Box } from '../paint/options.ts';
import type { BindingSheet } from '../set/bind.ts';
import type { TextPart } from '../words/template.ts';

export const TICKET_VERSION = 1;

/** The complete recipe of one image. Percentages are whole numbers; see docs/words.md for the terms. */
export interface Ticket {
  ticket: number;
  press: { id: string; name: string; version: string; model: string; painterVersion?: number };
  text: { parts: TextPart[]; final: string; avoid: string[]; lettering: string[] };
  /** `colours` are its own, as #rrggbb: the first is what it mostly has. */
  subject: { id: string; label: string; wording: string; identity: number; colours?: string[] };
  contents: { sha256: string; strength: number; read: 'areas' | 'outline' | 'tone' }[];
  look: { id: string; version: number; name: string; mixer: number; measure: number; style: Style };
  format: { name: string; width: number; height: number; fit: 'crop' | 'extend'; clear?: Box[] };
  /** Pictures laid over the painting exactly as they are, each with its place in the frame. */
  marks?: { sha256: string; box: Box }[];
  /** What the set shares, decided before it was painted, and how strongly, in whole per cent. */
  binding?: { sheet: BindingSheet; amount: number };
  fidelity?: { subject: number; ground: number };
  never: { hex: string; radius: number }[];
  seed: number;
  take: number;
  /** Steps away from the image of this seed, each with the seed it goes towards and how far, 0–100: an offshoot has one more than its parent. */
  offshoots?: { seed: number; distance: number }[];
  /** A region of a finished picture that is done anew; everything beyond the feathered mask stays as it is. */
  retouch?: Retouch;
  settings: { strength: number } & Record<string, number | string | boolean>;
  /** The proof that this was made from, and how. */
  parents: { proof: string; how: Kin }[];
}

/** How one proof comes from another. */
export type Kin = 'offshoot' | 'removed' | 'paintedAgain' | 'asked' | 'matched';

export interface Retouch {
  /** Hashes of the working copies of the picture and of its mask (white is the region), both of the ticket's size. */
  picture: string;
  mask: string;
  /** Whether what is there is taken out, or painted again as the rest of the ticket says. */
  how: 'remove' | 'again';
  /** Of the new marks, or of the search for a filling. */
  seed: number;
}

/** Every picture that a press needs for a ticket, by the hash of its working copy. */
export function inputsOf({ contents, marks, retouch }: Pick<Ticket, 'contents' | 'marks' | 'retouch'>): string[] {
  const named = [...contents, ...(marks ?? [])].map(p => p.sha256);
  return [...new Set([...named, ...(retouch ? [retouch.picture, retouch.mask] : [])])];
}
