import { measure } from '../measure/measure.ts';
import { FACETS } from '../measure/types.ts';
import { mergeNear } from '../measure/palette.ts';
import { clampAmounts } from '../mix/inferStyle.ts';
import { paletteFromColours } from '../mix/mix.ts';
import { STYLE_FIELDS, type Style } from '../mix/style.ts';
import { BRAND, sampleContent } from '../testPictures.ts';
import { applyWords, WORD_COUNT } from './applyWords.ts';
import { LEXICON } from './lexicon.ts';
import { mixLook } from './mixLook.ts';

/** Halfway in every setting, with more colours than any word leaves, so that each word has something to change. */
const amounts = Object.fromEntries(
  Object.entries(STYLE_FIELDS).map(([k, f]) => [k, f.from + 0.45 * (f.to - f.from)]),
) as Style['amounts'];
const style: Style = {
  amounts,
  palette: [...paletteFromColours(BRAND), { L: 0.7, a: 0.05, b: 0.1, share: 0.1 }, { L: 0.5, a: -0.03, b: -0.09, share: 0.1 }],
  tone: Array.from({ length: 17 }, (_, i) => 0.2 + i * 0.045),
};
const mean = (v: number[]): number => v.reduce((s, x) => s + x, 0) / v.length;
const chroma = (s: Style): number => mean(s.palette.map(c => Math.hypot(c.a, c.b)));

describe('style words', () => {
  it('are about 300, each listed once', () => {
    const all = LEXICON.flatMap(m => m.words.split(',').map(w => w.trim()));
    expect(new Set(all).size).toBe(all.length);
    expect(all.length).toBe(WORD_COUNT);
    expect(WORD_COUNT).toBeGreaterThan(290);
  });
  it('each change the style, within the ranges of its settings', () => {
    for (const m of LEXICON) {
      const word = m.words.split(',')[0];
      const { style: changed, understood } = applyWords(style, [word]);
      expect(understood).toEqual([word]);
      expect(changed).withContext(word).not.toEqual(style);
      expect(clampAmounts(changed.amounts)).withContext(word).toEqual(changed.amounts);
    }
  });
  it('do what they say', () => {
    const word = (...w: string[]): Style => applyWords(style, w).style;
    expect(word('engraved').amounts.hatch).toBeGreaterThan(0.7);
    expect(word('dotted').amounts.spot).toBeGreaterThan(0.7);
    expect(chroma(word('muted'))).toBeLessThan(chroma(style) * 0.7);
    expect(chroma(word('black and white'))).toBe(0);
    expect(mean(word('high key').tone)).toBeGreaterThan(mean(style.tone) + 0.08);
    expect(mean(word('low key').tone)).toBeLessThan(mean(style.tone) - 0.1);
    expect(word('two-ink').palette.length).toBe(3);
  });
  it('come to the same in any order and however often', () => {
    const a = applyWords(style, ['flat', 'muted', 'engraved']).style;
    const b = applyWords(style, ['engraved', 'flat', 'muted', 'flat']).style;
    for (const k of Object.keys(a.amounts) as (keyof typeof a.amounts)[]) expect(b.amounts[k]).toBeCloseTo(a.amounts[k], 12);
    expect(b.palette.length).toBe(mergeNear(a.palette, 1e-9).length);
  });
  it('report what is not understood and leave the style alone for it', () => {
    const { style: same, unknown, understood } = applyWords(style, ['  Sprockety ', 'FLAT  Colour', '']);
    expect(unknown).toEqual(['Sprockety']);
    expect(understood).toEqual(['FLAT  Colour']);
    expect(applyWords(style, ['sprockety']).style.amounts).toEqual(style.amounts);
    expect(same.amounts.flat).toBeGreaterThan(0.7);
  });
  it('of a look are laid over the mix of its sources, which stays what drift is measured against', () => {
    const source = { parts: 1, facets: FACETS, fingerprint: measure(sampleContent(128, 4)) };
    const plain = mixLook([source], []);
    const worded = mixLook([source], ['engraved', 'sprockety']);
    expect(worded.style.amounts.hatch).toBeGreaterThan(plain.style.amounts.hatch + 0.3);
    expect(worded.target).toEqual(plain.target);
    expect(worded.unknown).toEqual(['sprockety']);
  });
});
