import type { Drift, Fingerprint, Lab, Style } from '@zinc/core';

/** What is painted: a subject of the yardstick, a subject by its wording, and by the words around it, as the press would draw it, or a picture told to the workers before. */
export type Content =
  | { kind: 'yardstick'; subject: number }
  | { kind: 'subject'; label: string; wording: string; identity: number; seed: number; around?: string }
  | { kind: 'picture'; label: string; key: string };

/** One picture to be painted at a size. `measureAgainst` asks for its drift, its band and its leaks too. */
export interface PaintOrder {
  id: number;
  /** What the picture is for; a newer order for the same slot replaces one that waits. */
  slot: string;
  content: Content;
  size: number;
  style: Style;
  /** Names the style: what was worked out under a name holds for every strength of it. */
  mixture: string;
  strength: number;
  /** For a preview: strength is not evened out. */
  rough?: boolean;
  never: { L: number; a: number; b: number; radius: number }[];
  measureAgainst: Fingerprint | null;
  /** Palettes of sources that give no colour, in which leaks are looked for. */
  withheld?: { id: string; palette: Lab[] }[];
}

export interface PaintAnswer {
  id: number;
  slot: string;
  size: number;
  pixels: Uint8ClampedArray<ArrayBuffer>;
  drift: Drift | null;
  /** Strength (0–1) up to which the subject holds; asked for together with the drift. */
  holds: number | null;
  /** Share of the picture that each withheld palette covers. */
  leaks: { id: string; share: number }[];
  milliseconds: number;
}

/** A picture for the workers, by the key that contents name it by. */
export interface PictureMessage {
  kind: 'picture';
  key: string;
  width: number;
  height: number;
  pixels: Uint8ClampedArray<ArrayBuffer>;
}
