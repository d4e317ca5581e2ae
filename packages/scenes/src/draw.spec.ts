import { hashPixels } from '@zinc/core';
import { drawSubject } from './draw.ts';
import { findSubject } from './find.ts';
import { SUBJECTS } from './subjects/index.ts';
import { YARDSTICK } from './yardstick.ts';

describe('drawn subjects', () => {
  for (const { name, unlit } of SUBJECTS) {
    it(`${name}: the same seed gives the same pixels`, () => {
      expect(hashPixels(drawSubject(name, 42, 96, 96).picture)).toBe(hashPixels(drawSubject(name, 42, 96, 96).picture));
    });
    if (!unlit)
      it(`${name}: seeds differ visibly`, () => {
        const hashes = new Set([1, 2, 3, 4, 5].map(seed => hashPixels(drawSubject(name, seed, 96, 96).picture)));
        expect(hashes.size).toBe(5);
      });
    if (!['greenhouse', 'market stall', 'wren'].includes(name))
      it(`${name}: stands free of the frame at every seed`, () => {
        for (let seed = 1; seed <= 12; seed++) {
          const { mask } = drawSubject(name, seed, 128, 128);
          let border = 0;
          for (let i = 0; i < 128; i++) for (const at of [i, 127 * 128 + i, i * 128, i * 128 + 127]) if (mask[at] > 0.5) border++;
          expect(border).withContext(`seed ${seed}`).toBeLessThan(3);
        }
      });
    it(`${name}: covers a good part of the frame and no more`, () => {
      const { mask } = drawSubject(name, 3, 128, 128);
      const share = mask.reduce((sum, m) => sum + m, 0) / mask.length;
      expect(share).toBeGreaterThan(0.055);
      expect(share).toBeLessThan(0.75);
    });
  }

  it('fills frames of any shape', () => {
    for (const [w, h] of [
      [256, 64],
      [64, 256],
      [97, 131],
    ]) {
      const { picture, mask } = drawSubject('radish', 1, w, h);
      expect(picture.width).toBe(w);
      expect(picture.data.length).toBe(w * h * 4);
      expect(mask.length).toBe(w * h);
      expect(picture.data[3]).toBe(255);
    }
  });

  it('names what it was asked for and what it can draw when it cannot', () => {
    expect(() => drawSubject('dragon', 1, 64, 64)).toThrowError(/dragon.*radish/);
  });

  it('has the five yardstick subjects', () => {
    expect(YARDSTICK.map(y => y.name)).toEqual(['radish', 'greenhouse', 'artichoke', 'honeybee', 'mark']);
  });
});

describe('finding a subject in words', () => {
  const named = (wording: string): string | null => findSubject(wording).subject?.name ?? null;

  it('finds synonyms, plurals and the longest phrase', () => {
    expect(named('three honey bees')).toBe('honeybee');
    expect(named('a small glass house')).toBe('greenhouse');
    expect(named('an old watering can')).toBe('watering can');
    expect(named('Beets')).toBe('beetroot');
    expect(named('the co-operative’s mark')).toBe('mark');
  });

  it('does not find words inside other words', () => {
    expect(named('beeswax candle')).toBeNull();
    expect(named('a remarkable thing')).toBeNull();
  });

  it('finds nothing in what it cannot draw', () => {
    expect(named('tandem bicycle')).toBeNull();
    expect(named('')).toBeNull();
  });

  it('says which words it will not draw', () => {
    expect(findSubject('a radish wearing spectacles').ignored).toEqual(['wearing', 'spectacles']);
    expect(findSubject('a small radish').ignored).toEqual([]);
  });
});
