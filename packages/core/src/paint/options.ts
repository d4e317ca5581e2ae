import type { Lab } from '../image/types.ts';
import type { BindingSheet } from '../set/bind.ts';
import type { Fidelity } from './fidelity.ts';

/** Version of the painter; it stands on every ticket, and a deliberate change of any pixel raises it. */
export const PAINTER_VERSION = 6;

/** A part of the frame, 0–1 of its width and height. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface PaintOptions {
  /** Object mask of the content, 0–1 a pixel, same size; keeps marks off the ground and keeps the ground calm. */
  mask?: Float32Array;
  /** Part number a pixel; edges between parts are kept where colours meet. */
  parts?: Uint8Array;
  /** Colours that must not appear, in OKLab, each with the radius around it that is forbidden. */
  never?: (Lab & { radius: number })[];
  fidelity?: Fidelity;
  /** The sheet of the set this picture belongs to, and how strongly it is bound, 0–1. */
  bind?: { sheet: BindingSheet; amount: number };
  /** Areas left clear of marks and of strong tone, for lettering. */
  clear?: Box[];
}
