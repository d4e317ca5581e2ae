import fc from 'fast-check';
import { drift } from '../drift/drift.ts';
import { randomFor } from '../number/random.ts';
import {
  CODE_FIELDS,
  CODE_KEYS,
  decodeStyle,
  encodeStyle,
  nearCodes,
  randomCode,
  StyleCodeError,
  type CodeSettings,
} from './code.ts';
import { FAMILIES, fingerprintOfCode, nearestCode, styleOfCode } from './codeStyle.ts';
import { codePalette, PALETTE_COUNT } from './palettes.ts';
import { WORDS } from './words.ts';

const anySettings = fc
  .tuple(...CODE_KEYS.map(k => fc.integer({ min: 0, max: CODE_FIELDS[k].steps - 1 })))
  .map(values => Object.fromEntries(CODE_KEYS.map((k, i) => [k, values[i]])) as CodeSettings);

function refusal(code: string): StyleCodeError {
  try {
    decodeStyle(code);
  } catch (error) {
    if (error instanceof StyleCodeError) return error;
    throw error;
  }
  throw new Error(`“${code}” was taken for a right code.`);
}

describe('the words of style codes', () => {
  it('are 2 048, distinct, short and in order', () => {
    expect(WORDS.length).toBe(2048);
    expect(new Set(WORDS).size).toBe(2048);
    for (const w of WORDS) expect(w).toMatch(/^[a-z]{3,8}$/);
    expect([...WORDS].sort()).toEqual([...WORDS]);
  });
  it('fill their three places exactly', () => {
    for (const word of [0, 1, 2])
      expect(CODE_KEYS.filter(k => CODE_FIELDS[k].word === word).reduce((n, k) => n * CODE_FIELDS[k].steps, 1)).toBe(2048);
  });
});

describe('style codes', () => {
  it('come back as they were, in any case and with any parting', () => {
    fc.assert(
      fc.property(anySettings, settings => {
        const code = encodeStyle(settings);
        expect(decodeStyle(code)).toEqual(settings);
        expect(decodeStyle(` ${code.toUpperCase().replaceAll('-', ' ')} `)).toEqual(settings);
      }),
      { numRuns: 200 },
    );
  });
  it('show every single wrong word, and suggest the right code', () => {
    fc.assert(
      fc.property(anySettings, fc.integer({ min: 0, max: 2 }), fc.integer({ min: 0, max: 2047 }), (settings, place, w) => {
        const code = encodeStyle(settings);
        const parts = code.split('-');
        if (WORDS[w] === parts[place]) return;
        parts[place] = WORDS[w];
        expect(refusal(parts.join('-')).suggestions).toContain(code);
      }),
      { numRuns: 120 },
    );
  });
  it('show every swap, and suggest the right code first', () => {
    fc.assert(
      fc.property(anySettings, fc.constantFrom([0, 1], [1, 2], [0, 2]), (settings, [i, j]) => {
        const code = encodeStyle(settings);
        const parts = code.split('-');
        if (parts[i] === parts[j]) return;
        [parts[i], parts[j]] = [parts[j], parts[i]];
        expect(refusal(parts.join('-')).suggestions[0]).toBe(code);
      }),
      { numRuns: 120 },
    );
  });
  it('mend a word that is spelt wrong', () => {
    const code = encodeStyle(decodeStyle(randomCode(randomFor(4, 'spelling'))));
    const parts = code.split('-');
    const wrong = `${parts[0].slice(0, -1)}zz`;
    const error = refusal([wrong, ...parts.slice(1)].join('-'));
    expect(error.message).toContain(wrong);
    expect(error.suggestions).toContain(code);
  });
  it('say what is wrong with their form', () => {
    expect(refusal('madder').message).toContain('three words and a number');
    expect(refusal('a-b-c-d').message).toContain('three words and a number');
    expect(refusal(`${WORDS[1]}-${WORDS[2]}-${WORDS[3]}-4000`).message).toContain('later kind');
    expect(() => encodeStyle({ ...decodeStyle(randomCode(randomFor(1, 'x'))), key: 4 })).toThrowError(RangeError, /4 for key/);
  });
  it('have near relatives one step off, of the same medium', () => {
    const code = randomCode(randomFor(9, 'near'));
    const own = decodeStyle(code);
    const near = nearCodes(code).map(c => decodeStyle(c));
    expect(near.length).toBeGreaterThan(8);
    for (const n of near) {
      expect(n.family).toBe(own.family);
      expect(CODE_KEYS.filter(k => n[k] !== own[k]).length).toBe(1);
    }
  });
  it('name 64 palettes whose colours stand apart', () => {
    for (let p = 0; p < PALETTE_COUNT; p++) {
      const palette = codePalette(p);
      expect(palette.length).toBe(5);
      expect(palette[4].L - palette[0].L)
        .withContext(`palette ${p}`)
        .toBeGreaterThan(0.5);
      expect(palette.reduce((sum, c) => sum + c.share, 0)).toBeCloseTo(1, 9);
    }
    expect(() => codePalette(64)).toThrowError(RangeError, /64/);
  });
  it('give the same style for ever', () => {
    const { amounts, palette } = styleOfCode(
      encodeStyle({
        family: 1,
        palette: 0,
        key: 2,
        scale: 3,
        amount: 5,
        line: 2,
        angle: 5,
        contrast: 2,
        simplify: 1,
        grain: 1,
        wobble: 0,
        chroma: 2,
        lead: 0,
      }),
    );
    expect(amounts.hatch).toBeCloseTo(0.9286, 3);
    expect(amounts.hatchGap).toBeCloseTo(5.257, 3);
    expect(amounts.hatchAngle).toBeCloseTo(0.3927, 3);
    expect(palette.length).toBe(5);
  });
  it('find the code nearest to a look that is itself a code: its medium and its colours', () => {
    const settings = decodeStyle(randomCode(randomFor(21, 'nearest')));
    const code = encodeStyle({ ...settings, family: FAMILIES.indexOf('engraving'), amount: 6 });
    const wanted = fingerprintOfCode(code);
    const found = nearestCode(wanted);
    expect(FAMILIES[decodeStyle(found.code).family]).toBe('engraving');
    expect(found.drift).toBeLessThan(drift(wanted, fingerprintOfCode(encodeStyle({ ...settings, family: 4 }))).total);
  });
});
