import { labDistance2 } from '../colour/oklab.ts';
import { groundColour, nearestColour, normaliseShares } from '../measure/palette.ts';
import { FACETS, type Facet, type Fingerprint, type PaletteColour } from '../measure/types.ts';
import type { Style } from '../mix/style.ts';
import { barycentreOf } from './cohesion.ts';

/** What a bound set may share. */
export const SHARES = ['palette', 'ground', 'light', 'line', 'texture'] as const;
export type Share = (typeof SHARES)[number];

/** Decided once for a set, before any of its pictures is painted in full; it goes onto every ticket of the set. */
export interface BindingSheet {
  sheet: 1;
  from: 'barycentre' | 'anchor';
  share: Share[];
  /** The colours of the set by what they do in it. */
  roles: { ground: PaletteColour; mass: PaletteColour; accent: PaletteColour; line: PaletteColour };
  palette: PaletteColour[];
  target: Fingerprint;
}

/**
 * First phase: reads the set's sheet from the fingerprints of its pictures (small previews will do), or from one anchor that the others
 * follow. Throws MixError when there is neither.
 */
export function bindingSheet(set: readonly Fingerprint[], share: readonly Share[] = SHARES, anchor?: Fingerprint): BindingSheet {
  const target = anchor ?? barycentreOf(set);
  const { palette } = target.colour;
  const most = (score: (c: PaletteColour) => number): PaletteColour => palette.reduce((p, c) => (score(c) > score(p) ? c : p));
  const ground = groundColour(palette);
  const rest = (c: PaletteColour): number => (c === ground ? -1 : 1);
  return {
    sheet: 1,
    from: anchor ? 'anchor' : 'barycentre',
    share: [...share],
    roles: {
      ground,
      mass: most(c => rest(c) * c.share),
      accent: most(c => rest(c) * Math.sqrt(c.a * c.a + c.b * c.b)),
      line: most(c => -c.L),
    },
    palette,
    // Surfaces are for painting with, not for comparing; a ticket would carry them for nothing.
    target: { ...target, swatch: null },
  };
}

/** The style with its palette drawn wholly towards the sheet; the style itself when palettes are not shared. */
export function bindStyle(style: Style, sheet: BindingSheet): Style {
  if (!sheet.share.includes('palette') || style.palette.length === 0) return style;
  return { ...style, palette: sharePalette(style.palette, sheet.palette) };
}

/** Every colour takes the area it has on the sheet; one that the sheet has not moves part of the way to the nearest it has. */
function sharePalette(own: PaletteColour[], sheet: PaletteColour[]): PaletteColour[] {
  const areas = own.map(() => 0);
  for (const q of sheet) areas[nearestColour(q, own)] += q.share;
  return normaliseShares(
    own.map((c, i) => {
      const q = sheet[nearestColour(c, sheet)];
      const t = labDistance2(c, q) < 0.12 * 0.12 ? 0 : 0.6;
      return {
        L: c.L + (q.L - c.L) * t,
        a: c.a + (q.a - c.a) * t,
        b: c.b + (q.b - c.b) * t,
        share: Math.max(0.005, areas[i]),
      };
    }),
  );
}

/** Facets that a sheet speaks about. */
export function boundFacets(sheet: BindingSheet): Facet[] {
  const has = (s: Share): boolean => sheet.share.includes(s);
  return FACETS.filter(f => (f === 'colour' ? has('palette') || has('ground') : has(f)));
}
