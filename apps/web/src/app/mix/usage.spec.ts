import type { Look, LookUsage } from '@zinc/contract';
import { usageLine, usageOf, usageOfSource } from './usage';

const one: LookUsage = {
  lookId: 'a',
  version: 1,
  images: 6,
  decided: 4,
  kept: 1,
  drift: 0.6,
  goodFor: ['Radish'],
  badFor: ['Leek', 'Kale'],
};
const two: LookUsage = { ...one, version: 2, images: 2, decided: 2, kept: 2, drift: 0.2, goodFor: ['Leek'], badFor: [] };

describe('usage of a look', () => {
  it('adds its versions up, or tells of one', () => {
    expect(usageOf([one, two], 'a')).toEqual(
      jasmine.objectContaining({ images: 8, decided: 6, kept: 3, goodFor: ['Radish'], badFor: ['Kale'] }),
    );
    expect(usageOf([one, two], 'a')!.drift).toBeCloseTo(0.5, 9);
    expect(usageOf([one, two], 'a', 2)!.kept).toBe(2);
    expect(usageOf([one, two], 'b')).toBeNull();
  });
  it('of a source is that of all looks that mix it now', () => {
    const look = (id: string, sha256: string, parts = 2): Look =>
      ({ id, latest: { sources: [{ sha256, parts }] } }) as unknown as Look;
    const looks = [look('a', 'x'), look('c', 'x'), look('d', 'y'), look('e', 'x', 0)];
    const other: LookUsage = { ...two, lookId: 'c', goodFor: [] };
    const found = usageOfSource([one, other, { ...one, lookId: 'd' }], looks, s => s.sha256 === 'x');
    expect(found.looks.map(l => l.id)).toEqual(['a', 'c']);
    expect(found.usage).toEqual(jasmine.objectContaining({ images: 8, decided: 6, kept: 3, goodFor: ['Radish'] }));
    expect(usageOfSource([one], looks, s => s.sha256 === 'z')).toEqual({ looks: [], usage: null });
  });
  it('is said in a line', () => {
    expect(usageLine(usageOf([one, two], 'a'))).toBe('8 images, 50 % of 6 kept');
    expect(usageLine({ ...one, images: 1, decided: 0 })).toBe('1 image');
    expect(usageLine(null)).toBe('not used yet');
  });
});
