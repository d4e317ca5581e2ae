import type { Framing } from '../framing/types.ts';
import type { Lab } from '../image/types.ts';
import type { Swatch } from './swatch.ts';

/** Version of the measuring code. Fingerprints of different versions are never compared. */
export const MEASURE_VERSION = 4;

/** The four sides of a style. */
export const FACETS = ['colour', 'light', 'line', 'texture'] as const;
export type Facet = (typeof FACETS)[number];

/** One colour of a palette with the share of area it covers (shares of a palette sum to 1). */
export interface PaletteColour extends Lab {
  share: number;
}

/** Upper bounds of the thickness classes of thin lines. */
export const THICKNESSES = [1.6, 2.6, 4, 6.5, 10, 16] as const;

/** Distances at which brushwork is compared. */
export const REACHES = [2, 4, 8, 16] as const;

/**
 * What was measured of a picture's style, in its worked part: margins are framing. All lengths are in pixels of a copy of that part whose long
 * side is 512.
 */
export interface Fingerprint {
  measure: number;
  /** A piece of the picture's worked surface; null when it is calm. Not compared: it is there to paint with. */
  swatch: Swatch | null;
  /** How it sits on its sheet; null where there is no one sheet to speak of. Not compared: a look takes it or leaves it. */
  framing: Framing | null;
  colour: {
    /** Up to 8 colours from dark to light; antialiased edge pixels and the shadows of flat shapes are left out. */
    palette: PaletteColour[];
    /** exp(entropy of the shares): how many inks the picture seems to use, 1–8. */
    inks: number;
    /** 9 quantiles of OKLab chroma. */
    chroma: number[];
    /** Share of chroma in 12 hue sectors, from hue 0; sums to 1, or all 0 for a grey picture. */
    hue: number[];
    /** Mean of a + b: positive is warm. */
    warmth: number;
  };
  light: {
    /** 17 quantiles of lightness, dark to light. */
    tone: number[];
    /** 9 quantiles of lightness in which each tone counts by the root of its area, so that a large ground does not rule. */
    spread: number[];
    /** Lightness range between the 1st and 15th of the 17 quantiles. */
    contrast: number;
    /** Share of area in the lightest large colour, when that is light (L > 0.75). */
    paper: number;
    /** Share of pixels outside the middle half of the range. */
    bimodality: number;
    /** Share of the picture that is bare ground: its colour, with nothing going on near. */
    bare: number;
  };
  line: {
    /** Share of pixels on a clear edge. */
    edge: number;
    /** Mean gradient on those edges. */
    sharpness: number;
    /** Amount of thin dark and of thin light lines: mean contrast to what is around them, by thickness class (`THICKNESSES`). */
    dark: number[];
    light: number[];
    /** Mean width of the thin lines; 0 when there are none. */
    width: number;
    /** How far edges wander from their own course within a few pixels, 0–1. */
    raggedness: number;
    /** Local coherence of direction, 0–1. */
    coherence: number;
    /** Main direction in radians, −π/2 to π/2, and how strongly the picture agrees on it, 0–1. */
    direction: number;
    agreement: number;
  };
  texture: {
    /** Share of pixels with hardly any gradient; share with a soft one. */
    flatness: number;
    softness: number;
    /** RMS lightness in six octaves, fine to coarse; RMS chroma in three. */
    bands: number[];
    chromaBands: number[];
    /** Median fine deviation away from edges. */
    grain: number;
    /** How much darker the rims of soft regions are than their insides, −1 to 1. */
    rim: number;
    /** Mean change of lightness along and across the local direction at four distances (`REACHES`), edges left out: brushwork. */
    along: number[];
    across: number[];
    /** Mean change of chroma 8 pixels across the local direction, edges left out. */
    jitter: number;
    /** Soft darkening beside edges, on the side it falls (0 none, about 0.05 strong), and the direction it falls to in radians. */
    shadow: { depth: number; angle: number };
    /** Periodic texture: share of tiles that repeat, their period, direction, and dots (1) or lines (0). */
    period: { share: number; length: number; angle: number; dots: number };
  };
}
