import type { Drift, Fingerprint, Style } from '@zinc/core';

/** One of the yardstick's pictures to be painted at a size. `measureAgainst` asks for its drift too. */
export interface PaintOrder {
  id: number;
  /** What the picture is for; a newer order for the same slot replaces one that waits. */
  slot: string;
  subject: number;
  size: number;
  style: Style;
  strength: number;
  never: { L: number; a: number; b: number; radius: number }[];
  measureAgainst: Fingerprint | null;
}

export interface PaintAnswer {
  id: number;
  slot: string;
  size: number;
  pixels: Uint8ClampedArray<ArrayBuffer>;
  drift: Drift | null;
  /** Strength (0–1) up to which the subject holds; asked for together with the drift. */
  holds: number | null;
  milliseconds: number;
}
