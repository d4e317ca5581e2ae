import { randomFor } from '../number/random.ts';
import { outliersOf } from './outliers.ts';

describe('Figures that stand out', () => {
  const random = randomFor(5, 'outliers');
  const crowd = Array.from({ length: 90 }, () => 0.4 + 0.12 * (random() + random() + random() - 1.5));
  it('are found among many, the farthest first', () => {
    const all = [...crowd];
    all[7] = 1.2;
    all[40] = 1.5;
    expect(outliersOf(all)).toEqual([40, 7]);
  });
  it('do not hide one another, as they would behind a mean', () => {
    const all = [...crowd, ...Array.from({ length: 30 }, () => 1.4)];
    expect(outliersOf(all).sort((p, q) => p - q)).toEqual(Array.from({ length: 30 }, (_, i) => 90 + i));
  });
  it('are none in a crowd, among equals, below the middle, or of a few', () => {
    expect(outliersOf(crowd)).toEqual([]);
    expect(outliersOf([0.4, 0.4, 0.4, 0.4, 0.41, 0.42])).toEqual([]);
    expect(outliersOf([...crowd, -2])).toEqual([]);
    expect(outliersOf([0.1, 0.1, 3])).toEqual([]);
  });
});
