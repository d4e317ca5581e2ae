import type { LookUsage } from '@zinc/contract';
import { usageLine, usageOf } from './usage';

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
  it('is said in a line', () => {
    expect(usageLine(usageOf([one, two], 'a'))).toBe('8 images, 50 % of 6 kept');
    expect(usageLine({ ...one, images: 1, decided: 0 })).toBe('1 image');
    expect(usageLine(null)).toBe('not used yet');
  });
});
