import { wilson } from './wilson.ts';

describe('The interval of a share', () => {
  it('is Wilson’s: published values for 8 of 10, and for none and all', () => {
    const { from, to } = wilson(8, 10);
    expect(from).toBeCloseTo(0.4902, 3);
    expect(to).toBeCloseTo(0.9433, 3);
    expect(wilson(0, 10).from).toBe(0);
    expect(wilson(0, 10).to).toBeCloseTo(0.2775, 3);
    expect(wilson(10, 10).to).toBe(1);
  });
  it('knows nothing from nothing, and narrows with more', () => {
    expect(wilson(0, 0)).toEqual({ from: 0, to: 1 });
    const width = (n: number): number => wilson(n / 2, n).to - wilson(n / 2, n).from;
    expect(width(100)).toBeLessThan(width(10) / 2);
  });
});
