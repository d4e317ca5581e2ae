import type { Random } from '@zinc/core/number/random';
import type { Canvas } from '../canvas/canvas.ts';

/** Parts of things that can be asked for by number. */
export const PART_NAMES = ['leaves', 'petals', 'beans', 'stripes'] as const;
export type PartName = (typeof PART_NAMES)[number];

/** One thing the press can draw: words that name it (first the plain one) and how it is drawn. */
export interface DrawnSubject {
  name: string;
  words: string[];
  /** Parts of which there may be more or fewer than it has by itself. */
  parts?: PartName[];
  /** Flat artwork: laid colours are kept as they are, no lamp. */
  unlit?: boolean;
  /** Made by hand: green on it is paint and no leaf. */
  made?: boolean;
  /** It cannot be mirrored. */
  oneWay?: boolean;
  /** How far it may lean, in radians to either side; 0.05 when left out. */
  leans?: number;
  draw(canvas: Canvas, random: Random, seed: number): void;
}
