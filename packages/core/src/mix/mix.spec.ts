import fc from 'fast-check';
import { decodeStyle, encodeStyle, randomCode } from '../codes/code.ts';
import { fingerprintOfCode, styleOfCode } from '../codes/codeStyle.ts';
import { drift } from '../drift/drift.ts';
import { measure } from '../measure/measure.ts';
import { FACETS, type Facet } from '../measure/types.ts';
import { BRAND, sampleContent, stripes } from '../testPictures.ts';
import { mix, MixError, paletteFromColours } from './mix.ts';
import { mixPalettes } from './mixPalettes.ts';
import { STYLE_FIELDS, type StyleField } from './style.ts';

const a = measure(sampleContent(128, 1));
const b = measure(stripes(128, 7, 0.5));
const all = [...FACETS];

describe('mixing', () => {
  it('of one source gives that source', () => {
    const { target, facets } = mix([{ parts: 3, facets: all, fingerprint: a }]);
    expect(facets).toEqual(all);
    expect(drift(target!, a).total).toBeLessThan(0.01);
  });
  it('with itself changes nothing, whatever the parts', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), fc.integer({ min: 1, max: 50 }), (p, q) => {
        const one = mix([{ parts: 1, facets: all, fingerprint: a }]);
        const two = mix([
          { parts: p, facets: all, fingerprint: a },
          { parts: q, facets: all, fingerprint: a },
        ]);
        return (
          drift(one.target!, two.target!).total < 0.02 &&
          (Object.keys(STYLE_FIELDS) as StyleField[]).every(k => Math.abs(one.style.amounts[k] - two.style.amounts[k]) < 1e-9)
        );
      }),
      { numRuns: 25 },
    );
  });
  it('depends on shares only: double parts are the same mix', () => {
    const once = mix([
      { parts: 1, facets: all, fingerprint: a },
      { parts: 2, facets: all, fingerprint: b },
    ]);
    const twice = mix([
      { parts: 2, facets: all, fingerprint: a },
      { parts: 4, facets: all, fingerprint: b },
    ]);
    expect(twice).toEqual(once);
  });
  it('normalises parts facet by facet: a palette alone gives all the colour', () => {
    const { style, facets } = mix([
      { parts: 9, facets: ['light', 'line', 'texture'], fingerprint: a },
      { parts: 1, facets: ['colour'], palette: paletteFromColours(BRAND) },
    ]);
    expect(facets).toEqual(all);
    expect(style.palette).toEqual(paletteFromColours(BRAND));
  });
  it("lays a look's tones between the tones of the inks it is given", () => {
    const { target, style } = mix([
      { parts: 1, facets: ['light', 'line', 'texture'], fingerprint: b },
      { parts: 1, facets: ['colour'], palette: paletteFromColours(BRAND) },
    ]);
    const tones = BRAND.map(c => c.L);
    expect(target!.light.spread[1]).toBeCloseTo(Math.min(...tones), 5);
    expect(target!.light.spread[8]).toBeCloseTo(Math.max(...tones), 5);
    expect(style.tone).toEqual(target!.light.tone);
  });
  it('keeps shares of any palette mix at one', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20 }), fc.integer({ min: 1, max: 20 }), (p, q) => {
        const mixed = mixPalettes([
          { palette: a.colour.palette, weight: p },
          { palette: b.colour.palette, weight: q },
        ]);
        return mixed.length <= 8 && Math.abs(mixed.reduce((sum, c) => sum + c.share, 0) - 1) < 1e-9;
      }),
    );
  });
  it('does not meet in brown between opposite hues', () => {
    const half = mixPalettes([
      { palette: [{ L: 0.6, a: 0.15, b: 0.05, share: 1 }], weight: 1 },
      { palette: [{ L: 0.6, a: -0.12, b: -0.04, share: 1 }], weight: 1 },
    ]);
    for (const c of half) expect(Math.hypot(c.a, c.b)).toBeGreaterThan(0.1);
  });
  it('leaves a facet that nobody gives at neutral', () => {
    const { style, facets } = mix([{ parts: 1, facets: ['colour'], fingerprint: b }]);
    expect(facets).toEqual(['colour']);
    for (const key of Object.keys(STYLE_FIELDS) as StyleField[])
      if (STYLE_FIELDS[key].facet !== 'colour') expect(style.amounts[key]).toBe(STYLE_FIELDS[key].neutral);
    expect(style.tone).toEqual([]);
  });
  it('holds every amount in its range', () => {
    for (const f of [a, b])
      for (const facet of FACETS) {
        const { style } = mix([{ parts: 1, facets: [facet] as Facet[], fingerprint: f }]);
        for (const key of Object.keys(STYLE_FIELDS) as StyleField[]) {
          expect(style.amounts[key]).toBeGreaterThanOrEqual(STYLE_FIELDS[key].from);
          expect(style.amounts[key]).toBeLessThanOrEqual(STYLE_FIELDS[key].to);
        }
      }
  });
  it('refuses bad parts and says which', () => {
    expect(() => mix([])).toThrowError(MixError, /no sources/);
    expect(() => mix([{ parts: -2, facets: all, fingerprint: a }])).toThrowError(MixError, /-2 parts/);
    expect(() => mix([{ parts: NaN, facets: all, fingerprint: a }])).toThrowError(MixError, /NaN/);
    expect(() => mix([{ parts: 0, facets: all, fingerprint: a }])).toThrowError(MixError, /0 parts/);
  });
  it('of a style code alone paints as the code does, and is measured against what the code paints', () => {
    const code = encodeStyle({ ...decodeStyle(randomCode(() => 0.31)), family: 1 });
    const style = styleOfCode(code);
    const fingerprint = fingerprintOfCode(code);
    const mixed = mix([{ parts: 2, facets: all, fingerprint, style }]);
    for (const k of Object.keys(style.amounts) as StyleField[]) expect(mixed.style.amounts[k]).toBeCloseTo(style.amounts[k], 9);
    expect(mixed.style.tone).toEqual(style.tone);
    mixed.style.palette.forEach((c, i) => expect(c.L).toBeCloseTo(style.palette[i].L, 9));
    expect(drift(mixed.target!, fingerprint).total).toBeLessThan(0.1);
  });
  it('of a style code and a reference lies between the two', () => {
    const style = styleOfCode(encodeStyle({ ...decodeStyle(randomCode(() => 0.31)), family: 1 }));
    const mixed = mix([
      { parts: 1, facets: all, fingerprint: a, style },
      { parts: 1, facets: all, fingerprint: a },
    ]);
    const alone = mix([{ parts: 1, facets: all, fingerprint: a }]).style.amounts.hatch;
    expect(mixed.style.amounts.hatch).toBeCloseTo((style.amounts.hatch + alone) / 2, 9);
  });
});
