import type { LookSource, LookVersion } from '@zinc/contract';
import type { Reference } from '@zinc/contract';

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

/** The manner without the colours: all other sources stop giving colour, and the brand palette, when there is one, gives it. */
export function withoutColours(draft: Draft, hasBrand: boolean): Draft {
  const sources = draft.sources.map(s => (s.kind !== 'palette' ? { ...s, facets: s.facets.filter(f => f !== 'colour') } : s));
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
