import { measure } from '../measure/measure.ts';
import { facetMaps } from '../measure/facetMaps.ts';
import { FACETS } from '../measure/types.ts';
import { labOfHex } from '../colour/oklab.ts';
import { pictureOfPlaces, stripes } from '../testPictures.ts';
import { applyWords } from './applyWords.ts';
import { colourName, draftWords } from './draftWords.ts';
import { mixLook, wordAmount } from './mixLook.ts';
import { neutralStyle } from '../mix/style.ts';

describe('words drafted from a picture', () => {
  const poster = pictureOfPlaces(300, 300, (x, y) => ((x - 0.5) ** 2 + (y - 0.5) ** 2 < 0.08 ? [142, 42, 75] : [243, 238, 226]));

  it('say what was measured, in words that the painter knows', () => {
    const { words, colours } = draftWords(measure(poster));
    const said = words.map(w => w.word);
    expect(said).toContain('two-colour');
    expect(said).toContain('flat');
    expect(said).not.toContain('many colours');
    expect(said).not.toContain('grainy');
    expect(colours[0]).toBe('cream');
    expect(applyWords(neutralStyle(), said).unknown).toEqual([]);
    for (const w of words) expect(w.sureness).toBeGreaterThan(0.3);
  });

  it('name a medium only when the marks point to one', () => {
    expect(draftWords(measure(pictureOfPlaces(200, 200, () => [200, 180, 150]))).medium).toBeNull();
    const hatched = draftWords(measure(stripes(512, 7, 0.6)));
    expect(hatched.medium?.word).toBe('engraved');
    expect(hatched.medium!.sureness).toBeGreaterThan(0.5);
  });

  it('name colours plainly', () => {
    const named = (hex: string): string => colourName(labOfHex(hex));
    expect(named('#ffffff')).toBe('white');
    expect(named('#111111')).toBe('black');
    expect(named('#8e2a4b')).toContain('wine red');
    expect(named('#2f6f62')).toMatch(/green|teal/);
    expect(named('#e6b450')).toMatch(/ochre|yellow|orange/);
    expect(named('#4667a8')).toContain('blue');
    expect(named('#6a3fb5')).toContain('violet');
  });
});

describe('where facets come from', () => {
  it('shows colour on the coloured half, line on the edges, texture on the worked half', () => {
    const two = pictureOfPlaces(256, 256, (x, y) => {
      if (x > 0.5) return [235, 230, 220];
      const v = (((x * 256) | 0) * 7 + ((y * 256) | 0) * 13) % 5;
      return [150 + 9 * v, 60 + 9 * v, 60 + 9 * v];
    });
    const maps = facetMaps(two);
    const mean = (facet: (typeof FACETS)[number], from: number, to: number): number => {
      const { width, height, data } = maps[facet];
      let [sum, n] = [0, 0];
      for (let y = 4; y < height - 4; y++)
        for (let x = Math.floor(from * width); x < to * width; x++, n++) sum += data[y * width + x];
      return sum / n;
    };
    expect(mean('colour', 0.05, 0.45)).toBeGreaterThan(3 * mean('colour', 0.6, 0.95));
    expect(mean('texture', 0.05, 0.45)).toBeGreaterThan(3 * mean('texture', 0.6, 0.95));
    expect(mean('line', 0.48, 0.53)).toBeGreaterThan(1.5 * mean('line', 0.7, 0.95));
    for (const f of FACETS) for (const v of maps[f].data) expect(v >= 0 && v <= 1).toBeTrue();
  });
});

describe('word styles in a look', () => {
  const source = {
    parts: 4,
    facets: FACETS,
    fingerprint: measure(pictureOfPlaces(128, 128, x => (x > 0.5 ? [40, 60, 90] : [240, 230, 210]))),
  };
  const hatchOf = (parts: number): number => mixLook([source], [], [{ parts, words: ['engraved'] }]).style.amounts.hatch;

  it('go as far as their parts', () => {
    expect(wordAmount(2, 4)).toBe(0.5);
    expect(wordAmount(9, 4)).toBe(1);
    expect(wordAmount(3, 0)).toBe(1);
    expect(hatchOf(0)).toBe(mixLook([source], []).style.amounts.hatch);
    expect(hatchOf(4)).toBeCloseTo(mixLook([source], ['engraved']).style.amounts.hatch, 9);
    expect(hatchOf(1)).toBeGreaterThan(hatchOf(0));
    expect(hatchOf(2)).toBeGreaterThan(hatchOf(1));
    expect(hatchOf(4)).toBeGreaterThan(hatchOf(2));
  });

  it('stack in order, and can make a look alone', () => {
    const first = { parts: 4, words: ['engraved'] };
    const second = { parts: 4, words: ['wash'] };
    expect(mixLook([source], [], [first, second]).style.amounts).not.toEqual(
      mixLook([source], [], [second, first]).style.amounts,
    );
    const alone = mixLook([], [], [{ parts: 1, words: ['engraved', 'nonsense'] }]);
    expect(alone.style.amounts.hatch).toBeGreaterThan(0.6);
    expect(alone.target).toBeNull();
    expect(alone.unknown).toEqual(['nonsense']);
    const grey = mixLook([], [], [{ parts: 1, words: ['black and white', 'low key'] }]).style;
    expect(grey.palette.length).toBeGreaterThan(3);
    expect(grey.palette.every(c => c.a === 0 && c.b === 0)).toBeTrue();
    expect(grey.tone.length).toBe(17);
    expect(mixLook([], [], [{ parts: 1, words: ['engraved'] }]).style.tone).toEqual([]);
  });
});
