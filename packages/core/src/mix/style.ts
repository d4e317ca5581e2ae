import type { Framing } from '../framing/types.ts';
import type { Swatch } from '../measure/swatch.ts';
import type { Facet, PaletteColour } from '../measure/types.ts';

/** Version of the code that turns fingerprints into styles and mixes them. */
export const MIXER_VERSION = 5;

/**
 * A resolved way to paint. Amounts are 0–1; lengths are in units of picture size ÷ 512; angles in radians.
 * An empty palette means that the content keeps its own colours.
 */
export interface Style {
  palette: PaletteColour[];
  /** 17 lightness quantiles to move towards; empty when light is left alone. */
  tone: number[];
  amounts: StyleAmounts;
  /** Surface to paint with, as far as `patch` says; it comes from one source, for surfaces do not mix. */
  swatch?: Swatch | null;
  /** How the painting is laid on its sheet, which is done around the painter; left out when nothing frames. */
  framing?: Framing | null;
}

/**
 * Every number of a style, with the facet that owns it and the range it may take. A field with an `owner` is a size, an angle or a manner
 * of the marks whose amount the owner is.
 */
export const STYLE_FIELDS = {
  paletteAmount: { facet: 'colour', from: 0, to: 1, neutral: 1 },
  shareAmount: { facet: 'colour', from: 0, to: 1, neutral: 0.3 },
  hueKeep: { facet: 'colour', from: 0, to: 1, neutral: 0.8 },
  toneAmount: { facet: 'light', from: 0, to: 1, neutral: 0 },
  outline: { facet: 'line', from: 0, to: 1, neutral: 0 },
  outlineWidth: { facet: 'line', from: 0.6, to: 4, neutral: 1.5, owner: 'outline' },
  outlineRag: { facet: 'line', from: 0, to: 1, neutral: 0, owner: 'outline' },
  lightLines: { facet: 'line', from: 0, to: 1, neutral: 0 },
  edgeKeep: { facet: 'line', from: 0, to: 1, neutral: 0 },
  hatch: { facet: 'line', from: 0, to: 1, neutral: 0 },
  hatchGap: { facet: 'line', from: 2.5, to: 12, neutral: 5, owner: 'hatch' },
  hatchAngle: { facet: 'line', from: -1.5708, to: 1.5708, neutral: 0.7, owner: 'hatch' },
  hatchFollow: { facet: 'line', from: 0, to: 1, neutral: 0.6, owner: 'hatch' },
  cross: { facet: 'line', from: 0, to: 1, neutral: 0, owner: 'hatch' },
  carve: { facet: 'line', from: 0, to: 1, neutral: 0 },
  carveGap: { facet: 'line', from: 3, to: 14, neutral: 6, owner: 'carve' },
  groundWork: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  simplify: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  flat: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  smooth: { facet: 'texture', from: 0, to: 6, neutral: 0 },
  brush: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  brushSize: { facet: 'texture', from: 2, to: 14, neutral: 5, owner: 'brush' },
  brushLength: { facet: 'texture', from: 2, to: 12, neutral: 5, owner: 'brush' },
  brushJitter: { facet: 'texture', from: 0, to: 1, neutral: 0.3, owner: 'brush' },
  bristle: { facet: 'texture', from: 0, to: 1, neutral: 0.5, owner: 'brush' },
  swirl: { facet: 'texture', from: 0, to: 1, neutral: 0.3, owner: 'brush' },
  relief: { facet: 'texture', from: 0, to: 1, neutral: 0, owner: 'brush' },
  tooth: { facet: 'texture', from: 0, to: 1, neutral: 0, owner: 'brush' },
  wash: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  washEdge: { facet: 'texture', from: 0, to: 1, neutral: 0.5, owner: 'wash' },
  washBleed: { facet: 'texture', from: 0, to: 1, neutral: 0.5, owner: 'wash' },
  spot: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  tint: { facet: 'texture', from: 0, to: 1, neutral: 0.5, owner: 'spot' },
  dotGap: { facet: 'texture', from: 3, to: 12, neutral: 6, owner: 'spot' },
  dotAngle: { facet: 'texture', from: -1.5708, to: 1.5708, neutral: 0.5, owner: 'spot' },
  misregister: { facet: 'texture', from: 0, to: 6, neutral: 2, owner: 'spot' },
  shadow: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  shadowAngle: { facet: 'texture', from: -3.1416, to: 3.1416, neutral: 0.9, owner: 'shadow' },
  wobble: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  patch: { facet: 'texture', from: 0, to: 1, neutral: 0 },
  grain: { facet: 'texture', from: 0, to: 1, neutral: 0 },
} as const satisfies Record<string, { facet: Facet; from: number; to: number; neutral: number; owner?: string }>;

/** RMS of lightness that `patch` 1 lays. */
export const PATCH_SCALE = 0.08;

export type StyleField = keyof typeof STYLE_FIELDS;
export type StyleAmounts = Record<StyleField, number>;

/** A style that changes nothing: the content's own colours, tone and surface. */
export function neutralStyle(): Style {
  const amounts = Object.fromEntries(Object.entries(STYLE_FIELDS).map(([k, f]) => [k, f.neutral])) as StyleAmounts;
  return { palette: [], tone: [], amounts };
}
