import type { Lab } from '../image/types.ts';

/** Version of the painter; it stands on every ticket, and a deliberate change of any pixel raises it. */
export const PAINTER_VERSION = 2;

export interface PaintOptions {
  /** Object mask of the content, 0–1 a pixel, same size; keeps marks off the ground and keeps the ground calm. */
  mask?: Float32Array;
  /** Part number a pixel; edges between parts are kept where colours meet. */
  parts?: Uint8Array;
  /** Colours that must not appear, in OKLab, each with the radius around it that is forbidden. */
  never?: (Lab & { radius: number })[];
}
