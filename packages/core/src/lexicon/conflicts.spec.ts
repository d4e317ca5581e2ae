import { FACETS } from '../measure/types.ts';
import { wordConflicts } from './conflicts.ts';
import type { WordDraft } from './draftWords.ts';

const draft = (...words: WordDraft['words']): WordDraft => ({ medium: null, colours: [], words });

describe('words against sources', () => {
  const bright = {
    draft: draft({ word: 'high key', facet: 'light', sureness: 0.9 }, { word: 'flat', facet: 'texture', sureness: 0.4 }),
    facets: FACETS,
  };

  it('repeat in any word of the same meaning, and fight in any of the opposite', () => {
    expect(wordConflicts(['Airy'], [bright])).toEqual([
      { word: 'Airy', kind: 'repeats', source: 0, measured: 'high key', facet: 'light' },
    ]);
    expect(wordConflicts(['moody'], [bright])[0].kind).toBe('fights');
    expect(wordConflicts(['carved'], [bright])).toEqual([]);
  });

  it('are held only against what is surely measured, in facets that the source gives', () => {
    expect(wordConflicts(['soft'], [bright])).toEqual([]);
    expect(wordConflicts(['moody'], [{ ...bright, facets: ['line'] }])).toEqual([]);
  });

  it('a fight is told before a repetition', () => {
    const dark = { draft: draft({ word: 'low key', facet: 'light', sureness: 1 }), facets: FACETS };
    expect(wordConflicts(['airy'], [bright, dark])).toEqual([
      jasmine.objectContaining({ kind: 'fights', source: 1, measured: 'low key' }),
    ]);
  });
});
