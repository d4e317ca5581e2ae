import fc from 'fast-check';
import { fractalNoise, noisePlane } from './noise.ts';
import { hashText, mix32, randomFor, unmix32 } from './random.ts';
import { atan2, cbrt, cos, exp, log, pow, sin } from './trig.ts';

describe('own transcendental functions', () => {
  const near = (own: number, right: number, tolerance: number): void => {
    if (!(Math.abs(own - right) <= tolerance * Math.max(1, Math.abs(right)))) throw new Error(`got ${own}, wanted ${right}`);
  };
  it('agree with the language to many digits', () => {
    fc.assert(
      fc.property(fc.double({ min: -1000, max: 1000, noNaN: true }), x => {
        near(sin(x), Math.sin(x), 1e-6);
        near(cos(x), Math.cos(x), 1e-6);
      }),
    );
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 1e6, noNaN: true }), x => {
        near(log(x), Math.log(x), 1e-9);
        near(cbrt(x), Math.cbrt(x), 1e-8);
        near(pow(x, 0.37), x ** 0.37, 1e-8);
      }),
    );
    fc.assert(fc.property(fc.double({ min: -60, max: 60, noNaN: true }), x => near(exp(x), Math.exp(x), 1e-8)));
    fc.assert(
      fc.property(fc.double({ min: -9, max: 9, noNaN: true }), fc.double({ min: -9, max: 9, noNaN: true }), (y, x) => {
        // A zero has no sign here.
        fc.pre(Math.abs(x) + Math.abs(y) > 1e-6 && !Object.is(y, -0));
        near(atan2(y, x), Math.atan2(y, x), 1e-6);
      }),
    );
  });
  it('have sensible edges', () => {
    expect(atan2(0, 0)).toBe(0);
    expect(cbrt(0)).toBe(0);
    expect(pow(0, 2)).toBe(0);
    expect(log(0)).toBe(-Infinity);
    expect(exp(-1000)).toBe(0);
  });
});

describe('seeded randomness', () => {
  it('is repeatable, and passes do not touch each other', () => {
    const a = randomFor(7, 'brush');
    const b = randomFor(7, 'brush');
    const other = randomFor(7, 'hatching');
    const first = Array.from({ length: 5 }, a);
    expect(Array.from({ length: 5 }, b)).toEqual(first);
    expect(Array.from({ length: 5 }, other)).not.toEqual(first);
  });
  it('spreads evenly over [0, 1)', () => {
    const random = randomFor(1, 'spread');
    const bins = new Array<number>(10).fill(0);
    for (let i = 0; i < 20_000; i++) bins[Math.floor(random() * 10)]++;
    for (const n of bins) expect(Math.abs(n - 2000)).toBeLessThan(220);
  });
  it('mixes 32-bit integers without losing any', () => {
    const seen = new Set<number>();
    for (let i = 0; i < 5000; i++) seen.add(mix32(i));
    expect(seen.size).toBe(5000);
    for (let i = 0; i < 5000; i++) expect(unmix32(mix32(i * 858_599))).toBe((i * 858_599) >>> 0);
    expect(hashText('radish')).not.toBe(hashText('radisg'));
  });
  it('makes noise within its bounds', () => {
    const plane = noisePlane(64, 48, 12, 3);
    expect(plane.length).toBe(64 * 48);
    for (const v of plane) expect(Math.abs(v)).toBeLessThanOrEqual(1.01);
    for (let i = 0; i < 200; i++) {
      const v = fractalNoise(i * 0.37, i * 0.11, 5);
      expect(v >= 0 && v <= 1).toBeTrue();
    }
  });
});
