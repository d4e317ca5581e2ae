import { boxSeat, hashPixels, toLabPlanes } from '@zinc/core';
import type { Scene } from './canvas/canvas.ts';
import { drawSubject, type Wishes } from './draw.ts';
import { findSubject, findWishes } from './find.ts';
import { photograph } from './photo.ts';
import { SETTINGS } from './setting.ts';
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

  it('are the twenty-four of the catalogue', () => {
    expect(SUBJECTS.length).toBe(24);
    const words = SUBJECTS.flatMap(x => x.words);
    expect(new Set(words).size).toBe(words.length);
  });
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

  it('shows one identity in many poses', () => {
    const at = (seed: number, pose: number): string => hashPixels(drawSubject('wren', seed, 96, 96, { pose }).picture);
    expect(at(3, 1)).toBe(at(3, 1));
    expect(new Set([1, 2, 3, 4].map(pose => at(3, pose))).size).toBe(4);
    expect(at(3, 1)).not.toBe(at(4, 1));
  });
  it('heeds what is wished, each wish visibly', () => {
    const plain = hashPixels(drawSubject('pumpkin', 2, 96, 96).picture);
    const wishes: Wishes[] = [
      { count: 2 },
      { colour: { L: 0.5, a: -0.05, b: -0.1 } },
      { light: 'dusk' },
      { season: 'winter' },
      ...SETTINGS.map(setting => ({ setting })),
    ];
    const seen = wishes.map(w => hashPixels(drawSubject('pumpkin', 2, 96, 96, w).picture));
    expect(new Set([plain, ...seen]).size).toBe(wishes.length + 1);
    expect(() => drawSubject('pumpkin', 2, 96, 96, { count: 0 })).toThrowError(RangeError, /count of 0/);
    expect(() => drawSubject('pumpkin', 2, 96, 96, { count: 2.5 })).toThrowError(RangeError, /2\.5/);
  });
  it('covers more of the frame with more of them, all of them inside it', () => {
    for (const count of [2, 3, 5, 9]) {
      const { mask } = drawSubject('snail', 4, 128, 128, { count });
      let border = 0;
      for (let i = 0; i < 128; i++) for (const at of [i, 127 * 128 + i, i * 128, i * 128 + 127]) if (mask[at] > 0.5) border++;
      expect(border).withContext(`${count}`).toBeLessThan(3);
    }
  });
  it('makes photograph-like pictures, the same for the same seed', () => {
    const p = photograph('radish', 3, 96, 96);
    expect(hashPixels(p)).toBe(hashPixels(photograph('radish', 3, 96, 96)));
    expect(hashPixels(p)).not.toBe(hashPixels(photograph('radish', 4, 96, 96)));
  });
  it('has the five yardstick subjects', () => {
    expect(YARDSTICK.map(y => y.name)).toEqual(['radish', 'greenhouse', 'artichoke', 'honeybee', 'mark']);
  });
});

describe('wishes of words around a subject', () => {
  it('are read without naming a subject, and what is not drawn is told', () => {
    const { wishes, ignored } = findWishes('A , whole, on a table, at dusk, glittering');
    expect(wishes).toEqual({ setting: 'table', light: 'dusk' });
    expect(ignored).toEqual(['glittering']);
  });
  it('stand before those of the wording only where the wording has none', () => {
    expect(findSubject('three radishes in winter').wishes).toEqual({ count: 3, season: 'winter' });
  });
});

describe('the number of parts', () => {
  const side = 160;
  const sceneOf = (name: string, parts: Wishes['parts'] = {}): Scene => drawSubject(name, 7, side, side, { parts, count: 1 });
  const tones = ({ picture }: Scene): Float32Array => toLabPlanes(picture).L;

  it('is read of things that have such parts; of others it is told as not drawn', () => {
    expect(findSubject('a radish with fewer leaves').wishes.parts).toEqual({ leaves: -1 });
    const radish = findSubject('radish').subject;
    expect(findWishes(', on a table, fewer leaves, many more leaves', radish)).toEqual({
      wishes: { setting: 'table', parts: { leaves: 1 } },
      ignored: [],
    });
    expect(findWishes('more of the petals', radish).ignored).toEqual(['more', 'petals']);
    expect(findWishes('fewer hats', radish).ignored).toEqual(['fewer', 'hats']);
  });

  it('changes what is there of them, and nothing else of the thing', () => {
    const usual = sceneOf('radish');
    const area = ({ mask }: Scene): number => mask.reduce((sum, v) => sum + v, 0);
    const [few, fewest, most] = [-1, -3, 3].map(leaves => sceneOf('radish', { leaves }));
    expect(area(fewest)).toBeLessThan(area(few));
    expect(area(few)).toBeLessThan(area(usual));
    expect(area(most)).toBeGreaterThan(area(usual));
    // The root, below the leaves, is the same to the last pixel, whatever was drawn above it.
    const below = Math.round(side * 0.68) * side;
    for (const other of [few, fewest, most]) expect(tones(other).subarray(below)).toEqual(tones(usual).subarray(below));
  });

  it('is kept to at least one, and to what a thing has by itself when nothing is said', () => {
    const same = (name: string, parts: Wishes['parts']): boolean =>
      hashPixels(sceneOf(name, parts).picture) === hashPixels(sceneOf(name).picture);
    for (const { name, parts } of SUBJECTS)
      for (const part of parts ?? []) {
        for (const steps of [-9, -1, 1, 9])
          expect(same(name, { [part]: steps }))
            .withContext(`${name}, ${steps} ${part}`)
            .toBeFalse();
        expect(same(name, { [part]: 0 })).toBeTrue();
      }
  });
});

describe('scatter and the amount of a colour', () => {
  const at = (wishes: Wishes): string => hashPixels(drawSubject('wren', 5, 96, 96, wishes).picture);
  it('draw every take in the identity’s own pose at none, in its own at all', () => {
    expect(at({ pose: 11, scatter: 0 })).toBe(at({ pose: 12, scatter: 0 }));
    expect(at({ pose: 11, scatter: 0 })).toBe(at({}));
    expect(at({ pose: 11, scatter: 1 })).toBe(at({ pose: 11 }));
    expect(at({ pose: 11, scatter: 0.5 })).not.toBe(at({ pose: 12, scatter: 0.5 }));
  });
  it('colour part of the way', () => {
    const colour = { L: 0.5, a: -0.05, b: -0.1 };
    expect(at({ colour, colourAmount: 0 })).toBe(at({}));
    expect(at({ colour, colourAmount: 1 })).toBe(at({ colour }));
    expect(new Set([at({}), at({ colour, colourAmount: 0.5 }), at({ colour })]).size).toBe(3);
  });
});

describe('a seat', () => {
  it('brings a thing to its place and size, in any shape of frame', () => {
    const seat = { x: 0.56, y: 0.6, size: 0.42 };
    for (const [name, width, height] of [
      ['pumpkin', 240, 240],
      ['wren', 320, 200],
      ['watering can', 180, 260],
    ] as const) {
      const found = boxSeat(drawSubject(name, 7, width, height, { seat }).mask, width, height)!;
      expect(Math.abs(found.x - seat.x))
        .withContext(`x of the ${name}`)
        .toBeLessThan(0.03);
      expect(Math.abs(found.y - seat.y))
        .withContext(`y of the ${name}`)
        .toBeLessThan(0.03);
      expect(Math.abs(found.size - seat.size))
        .withContext(`size of the ${name}`)
        .toBeLessThan(0.04);
    }
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

  it('reads count, colour, setting, light and season', () => {
    const { wishes, ignored, subject } = findSubject('three yellow carrots on a wooden table in evening light, in winter');
    expect(subject?.name).toBe('carrot');
    expect(wishes).toEqual(jasmine.objectContaining({ count: 3, setting: 'table', light: 'evening', season: 'winter' }));
    expect(wishes.colour!.b).toBeGreaterThan(0.1);
    expect(ignored).toEqual([]);
    expect(findSubject('7 snails').wishes.count).toBe(7);
    expect(findSubject('a radish').wishes).toEqual({});
  });
  it('draws a near relation and says so, and refuses what has none', () => {
    expect(findSubject('a parsnip')).toEqual(jasmine.objectContaining({ drawnAs: 'carrot' }));
    expect(findSubject('a carrot').drawnAs).toBeNull();
    expect(findSubject('tandem bicycle').subject).toBeNull();
  });
  it('says which words it will not draw', () => {
    expect(findSubject('a radish wearing spectacles').ignored).toEqual(['wearing', 'spectacles']);
    expect(findSubject('a small radish').ignored).toEqual([]);
  });
});
