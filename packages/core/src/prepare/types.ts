import type { Box } from '../paint/options.ts';

/** Version of the code that prepares pictures; it is kept with every variant. */
export const PREPARE_VERSION = 1;

/** A stroke of a brush: `points` are x, y, x, y … in parts of the picture's width and height, `size` its width in parts of the long side. */
export interface Stroke {
  points: number[];
  size: number;
  /** For a cut-out: whether what is under it stays. Strokes that paint out have none. */
  stays?: boolean;
  /** The points are the corners of a region that is covered, too. */
  filled?: boolean;
}

/** One thing given another colour: the thing at a place, as far as its colour reaches. */
export interface Recolouring {
  x: number;
  y: number;
  /** `#rrggbb`. */
  to: string;
  /** Whole percentage: how unlike the colour at the place may be and still belong to it. */
  reach: number;
  /** Only what hangs together with the place, not everything of that colour. */
  joined: boolean;
}

/** An adjustable effect. Amounts are whole percentages, 0 for none. */
export interface Treatment {
  /** Ink that skips over the paper, in streaks along the way of the roller. */
  roller: number;
  /** Pits, bruised edges and scratches where the plate gives no ink any more. */
  plate: number;
  /** A screen of dots, and their period in 512ths of the picture. */
  dots: number;
  dotGap: number;
  soften: number;
  /** Degrees, −180 to 180. */
  hue: number;
  /** Degrees, −90 to 90: every mark turned where it stands, while shapes stay. */
  grain: number;
}

export const NO_TREATMENT: Treatment = { roller: 0, plate: 0, dots: 0, dotGap: 8, soften: 0, hue: 0, grain: 0 };

/**
 * How a variant is made from its picture. The order is always that of the fields, and every place is given in the picture as it was
 * before, so that any part can be changed without the others.
 */
export interface Preparation {
  paintOut?: Stroke[];
  recolour?: Recolouring[];
  /** `reach` as in {@link Recolouring}, for the colours of the background; `pockets`: what is seen of it through the thing goes too. */
  cutOut?: { reach: number; pockets: boolean; strokes: Stroke[] };
  crop?: Box;
  treatment?: Treatment;
}

/** A preparation that cannot be carried out, with what was got and what was wanted. */
export class PreparationError extends Error {
  override name = 'PreparationError';
  /** The part of the preparation that is at fault. */
  constructor(
    readonly part: keyof Preparation,
    message: string,
  ) {
    super(message);
  }
}
