import { BRAND_SOURCE, EMPTY_DRAFT, splitWords, withoutColours, type Draft } from './draft';

const draft: Draft = {
  ...EMPTY_DRAFT,
  sources: [
    { kind: 'reference', id: 'r', name: 'Furrow', sha256: 'a', parts: 3, facets: ['colour', 'light', 'line', 'texture'] },
  ],
};

describe('a mix in hand', () => {
  it('keeps the manner and drops the colours in one step', () => {
    const after = withoutColours(draft, true);
    expect(after.sources[0].facets).toEqual(['light', 'line', 'texture']);
    expect(after.sources[1]).toEqual(BRAND_SOURCE);
    expect(draft.sources[0].facets.length).toBe(4);
  });
  it('brings no brand palette where there is none, and never two', () => {
    expect(withoutColours(draft, false).sources.length).toBe(1);
    expect(withoutColours(withoutColours(draft, true), true).sources.length).toBe(2);
  });
  it('splits words at commas and lines, each once', () =>
    expect(splitWords(' cut block, hand inked\n\ncut block,')).toEqual(['cut block', 'hand inked']));
});
