import { mixFraming } from '../framing/mixFraming.ts';
import { FACETS, MEASURE_VERSION, type Facet, type Fingerprint, type PaletteColour } from '../measure/types.ts';
import { inksOf } from '../measure/colour.ts';
import { mergeNear, normaliseShares } from '../measure/palette.ts';
import { length2 } from '../number/trig.ts';
import { clampAmounts, inferStyle } from './inferStyle.ts';
import { mixPalettes } from './mixPalettes.ts';
import { neutralStyle, STYLE_FIELDS, type Style, type StyleField } from './style.ts';

/**
 * One thing mixed into a look. A palette source gives colour alone; a reference may give any facet. What brings its own `style`, as a style
 * code does, is painted by that; its fingerprint says what to measure against.
 */
export interface MixSource {
  parts: number;
  facets: readonly Facet[];
  /** Whether the mix takes its framing, too. */
  framing?: boolean;
  fingerprint?: Fingerprint;
  palette?: PaletteColour[];
  style?: Style;
}

/** What a mix comes to: how to paint, what to measure against, and which facets any source gives. */
export interface Mixture {
  style: Style;
  target: Fingerprint | null;
  facets: Facet[];
}

/** A mix that cannot be made, with what was got and what was wanted. */
export class MixError extends Error {
  override name = 'MixError';
}

/**
 * Mixes sources by parts, facet by facet: parts are normalised among the sources that give the facet, so a palette with one part that
 * alone gives colour gives all of it. Throws MixError for negative or non-finite parts, or when all parts are 0.
 */
export function mix(sources: readonly MixSource[]): Mixture {
  if (sources.length === 0) throw new MixError('Got no sources; a mix needs at least one.');
  for (const s of sources)
    if (!Number.isFinite(s.parts) || s.parts < 0) throw new MixError(`Got ${s.parts} parts; wanted a number of 0 or more.`);
  if (sources.every(s => s.parts === 0)) throw new MixError('Every source has 0 parts; give at least one source a part.');
  const givers = (facet: Facet): MixSource[] =>
    sources.filter(
      s => s.parts > 0 && s.facets.includes(facet) && (s.fingerprint ? true : facet === 'colour' && !!s.palette?.length),
    );
  const facets = FACETS.filter(f => givers(f).length > 0);
  const style = neutralStyle();
  const inferred = new Map(sources.filter(s => s.fingerprint).map(s => [s, s.style ?? inferStyle(s.fingerprint!)]));
  for (const key of Object.keys(STYLE_FIELDS) as StyleField[]) {
    const field = STYLE_FIELDS[key];
    const owner = 'owner' in field ? field.owner : undefined;
    let sum = 0;
    let weight = 0;
    for (const s of givers(field.facet)) {
      const own = inferred.get(s);
      if (!own) continue;
      // A size counts as much as the marks it belongs to, so a source without hatching does not drag the hatch gap of another.
      const w = s.parts * (owner ? 0.02 + own.amounts[owner as StyleField] : 1);
      sum += w * own.amounts[key];
      weight += w;
    }
    if (weight > 0) style.amounts[key] = sum / weight;
  }
  style.amounts = clampAmounts(style.amounts);
  style.palette = mixPalettes(
    givers('colour').map(s => ({ palette: s.palette ?? s.style?.palette ?? s.fingerprint!.colour.palette, weight: s.parts })),
  );
  const surfaces = givers('texture').filter(s => s.fingerprint?.swatch);
  const surface = surfaces.reduce<MixSource | null>(
    (p, s) => (!p || weightOf(s, inferred) > weightOf(p, inferred) ? s : p),
    null,
  );
  style.swatch = surface?.fingerprint?.swatch ?? null;
  style.framing = mixFraming(
    sources.flatMap(s =>
      s.framing && s.fingerprint?.framing
        ? [{ framing: s.fingerprint.framing, parts: s.parts, colour: s.facets.includes('colour') }]
        : [],
    ),
    style.palette,
  );
  const target = mixFingerprints(givers, style.palette);
  style.tone = target ? toneOf(givers('light'), target) : [];
  return { style, target, facets };
}

/** Tones to paint with: those of the target, unless a source brings its own. */
function toneOf(givers: MixSource[], target: Fingerprint): number[] {
  if (givers.length === 0) return [];
  if (!givers.some(s => s.style)) return [...target.light.tone];
  const parts = givers.reduce((sum, s) => sum + s.parts, 0);
  const own = givers.map(s => s.style?.tone ?? s.fingerprint!.light.tone);
  return target.light.tone.map((_, i) => givers.reduce((sum, s, k) => sum + (s.parts / parts) * own[k][i], 0));
}

/** How much of its surface a source brings to a mix. */
function weightOf(s: MixSource, inferred: Map<MixSource, Style>): number {
  return s.parts * (inferred.get(s)?.amounts.patch ?? 0);
}

/** Weighted mean of every number in a nested record of numbers and lists; the records must have one shape. */
function meanRecord<T>(items: { value: T; weight: number }[]): T {
  const first = items[0].value;
  const total = items.reduce((sum, i) => sum + i.weight, 0);
  if (typeof first === 'number') return (items.reduce((sum, i) => sum + i.weight * (i.value as number), 0) / total) as T;
  const keys = Object.keys(first as object) as (keyof T)[];
  const entries = keys.map(k => [k, meanRecord(items.map(i => ({ value: i.value[k], weight: i.weight })))]);
  return (Array.isArray(first) ? entries.map(e => e[1]) : Object.fromEntries(entries)) as T;
}

function mixFingerprints(givers: (f: Facet) => MixSource[], palette: PaletteColour[]): Fingerprint | null {
  const measured = (f: Facet): { value: Fingerprint; weight: number }[] =>
    givers(f)
      .filter(s => s.fingerprint)
      .map(s => ({ value: s.fingerprint!, weight: s.parts }));
  const any = FACETS.flatMap(measured)[0]?.value;
  if (!any) return null;
  const side = <F extends Facet>(f: F): Fingerprint[F] => {
    const from = measured(f);
    return from.length > 0 ? meanRecord(from.map(i => ({ value: i.value[f], weight: i.weight }))) : structuredClone(any[f]);
  };
  // Palettes have different lengths: they are mixed by transport, everything else by its mean.
  const withoutPalette = (v: Fingerprint): Omit<Fingerprint['colour'], 'palette'> => ({
    inks: v.colour.inks,
    chroma: v.colour.chroma,
    hue: v.colour.hue,
    warmth: v.colour.warmth,
  });
  const colours = measured('colour');
  const base =
    colours.length > 0
      ? meanRecord(colours.map(i => ({ value: withoutPalette(i.value), weight: i.weight })))
      : withoutPalette(any);
  const colour =
    palette.length > 0 && colours.length < givers('colour').length
      ? { ...base, ...colourOfPalette(palette), palette }
      : { ...base, palette: palette.length > 0 ? palette : any.colour.palette };
  const light = side('light');
  // Inks from elsewhere bring their own darkest and lightest tone; the look's tones lie between those.
  const foreign = palette.length > 1 && colours.length < givers('colour').length && measured('light').length > 0;
  return {
    measure: MEASURE_VERSION,
    framing: null,
    swatch: measured('texture').find(i => i.value.swatch)?.value.swatch ?? null,
    colour,
    light: foreign ? stretchLight(light, palette) : light,
    line: side('line'),
    texture: side('texture'),
  };
}

/** The same tones between the darkest and the lightest of a palette. */
function stretchLight(light: Fingerprint['light'], palette: PaletteColour[]): Fingerprint['light'] {
  const tones = palette.map(c => c.L);
  const low = Math.min(...tones);
  const high = Math.max(...tones);
  const from = light.spread[1];
  const to = light.spread[light.spread.length - 1];
  const gain = (high - low) / Math.max(0.05, to - from);
  const move = (v: number): number => Math.min(1, Math.max(0, low + (v - from) * gain));
  return { ...light, tone: light.tone.map(move), spread: light.spread.map(move), contrast: light.contrast * gain };
}

/** What a picture made of exactly this palette would measure on the colour facet. */
function colourOfPalette(palette: PaletteColour[]): Pick<Fingerprint['colour'], 'inks' | 'chroma'> {
  const sorted = palette.map(c => ({ chroma: length2(c.a, c.b), share: c.share })).sort((p, q) => p.chroma - q.chroma);
  const chroma = Array.from({ length: 9 }, (_, k) => {
    let seen = 0;
    for (const c of sorted) {
      seen += c.share;
      if (seen >= (k / 8) * 0.99 + 0.005) return c.chroma;
    }
    return sorted[sorted.length - 1].chroma;
  });
  return { inks: inksOf(palette), chroma };
}

/** A brand's wanted colours as a palette source: the ground takes most of the area, accents least. */
export function paletteFromColours(colours: { L: number; a: number; b: number; role: string }[]): PaletteColour[] {
  const shares: Record<string, number> = { ground: 5, lead: 2, second: 2, line: 1, accent: 0.6 };
  return mergeNear(normaliseShares(colours.map(c => ({ L: c.L, a: c.a, b: c.b, share: shares[c.role] ?? 1 }))), 1e-4).sort(
    (p, q) => p.L - q.L,
  );
}
