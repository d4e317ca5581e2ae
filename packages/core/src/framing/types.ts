import type { Lab } from '../image/types.ts';

/** How the thing sits: the middle of its box and its longer extent, all 0–1 of the worked part's width and height. */
export interface Seat {
  x: number;
  y: number;
  size: number;
}

/** How a picture sits on its sheet: habits of a style that are neither colour, light, line nor texture. */
export interface Framing {
  /** Bare margins top, right, bottom and left, each 0–0.3 of the sheet's shorter side. */
  margins: [number, number, number, number];
  /** Radius of the worked part's corners, 0–0.5 of its shorter side. */
  corner: number;
  /** Colour of the margins; null when there are none. */
  sheet: Lab | null;
  /** Null when no one thing stands out. */
  seat: Seat | null;
}

/** A part of a sheet in whole pixels. */
export interface Window {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Whether there is anything in it that a look could take. */
export function isFramed(f: Framing): boolean {
  return f.corner > 0 || f.seat !== null || f.margins.some(m => m > 0);
}

/** The worked part of a sheet of this size. */
export function windowOf(framing: Framing | null | undefined, width: number, height: number): Window {
  const short = Math.min(width, height);
  const [top, right, bottom, left] = (framing?.margins ?? [0, 0, 0, 0]).map(m => Math.round(m * short));
  return { left, top, width: Math.max(1, width - left - right), height: Math.max(1, height - top - bottom) };
}
