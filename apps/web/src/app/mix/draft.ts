import type { House, LookSource, LookVersion, Reference, WordStyle } from '@zinc/contract';
import { labOfHex, mixLook, paletteFromColours, type MixSource, type PaletteColour, type Style } from '@zinc/core';

/** A look being mixed: what a version will be saved from. */
export interface Draft {
  sources: LookSource[];
  strength: number;
  words: string[];
  avoid: string[];
}

export const EMPTY_DRAFT: Draft = { sources: [], strength: 80, words: [], avoid: [] };
export const FIRST_PARTS = 4;

export function draftOf(version: LookVersion): Draft {
  const { sources, strength, words, avoid } = version;
  return { sources, strength, words, avoid };
}

/** A reference as a source that gives every facet. */
export function sourceOf(reference: Reference): LookSource {
  return {
    kind: 'reference',
    id: reference.id,
    name: reference.name,
    sha256: reference.picture.sha256,
    parts: FIRST_PARTS,
    facets: ['colour', 'light', 'line', 'texture'],
  };
}

/** An own style code as a source that gives every facet. */
export function codeSourceOf(text: string, name: string): LookSource {
  return {
    kind: 'ownCode',
    id: text,
    name: (name || text).slice(0, 120),
    sha256: null,
    parts: FIRST_PARTS,
    facets: ['colour', 'light', 'line', 'texture'],
  };
}

export const BRAND_SOURCE: LookSource = {
  kind: 'palette',
  id: 'brand',
  name: 'Brand palette',
  sha256: null,
  parts: FIRST_PARTS,
  facets: ['colour'],
};

/** Own colours as a colour source. */
export function coloursSource(colours: string[]): LookSource {
  return { ...BRAND_SOURCE, id: 'own colours', name: 'Own colours', colours };
}

/** A word style as a source: it keeps the phrases as they are now. */
export function wordSourceOf({ id, name, before, after, avoid }: WordStyle): LookSource {
  return { kind: 'wordStyle', id, name, sha256: null, parts: FIRST_PARTS, facets: [], phrases: { before, after, avoid } };
}

/** How a word style looks by itself: its words said in full, in the colours of the brand when there is one. */
export function styleOfWords({ before, after }: Pick<WordStyle, 'before' | 'after'>, brand: PaletteColour[] | null): Style {
  const colours: MixSource[] = brand ? [{ parts: 1, facets: ['colour'], palette: brand }] : [];
  return mixLook(colours, [], [{ parts: 1, words: [...before, ...after] }]).style;
}

/** The colours that a brand wants, as a source of colour; null when it has none. */
export function brandPaletteOf(house: House | null): PaletteColour[] | null {
  const wanted = house?.brand?.colours.filter(c => !c.never) ?? [];
  return wanted.length > 0 ? paletteFromColours(wanted.map(c => ({ ...labOfHex(c.hex), role: c.role }))) : null;
}

/** The manner without the colours: all other sources stop giving colour, and the brand palette, when there is one, gives it. */
export function withoutColours(draft: Draft, hasBrand: boolean): Draft {
  const sources = draft.sources.map(s =>
    s.kind !== 'palette' && s.kind !== 'wordStyle' ? { ...s, facets: s.facets.filter(f => f !== 'colour') } : s,
  );
  if (hasBrand && !sources.some(s => s.kind === 'palette')) sources.push(BRAND_SOURCE);
  return { ...draft, sources };
}

/** Words written with commas or line breaks between them. */
export function splitWords(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[,\n]/)
        .map(w => w.trim())
        .filter(Boolean),
    ),
  ];
}
