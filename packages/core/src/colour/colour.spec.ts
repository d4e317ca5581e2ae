import { converter, differenceCiede2000, formatHex } from 'culori';
import fc from 'fast-check';
import { deltaE2000 } from './deltaE.ts';
import { fromLabPlanes, hexOfLab, labOfHex, toLabPlanes } from './oklab.ts';

const toOklab = converter('oklab');
const toLab65 = converter('lab65');
const hexes = fc.integer({ min: 0, max: 0xffffff }).map(v => `#${v.toString(16).padStart(6, '0')}`);

describe('OKLab', () => {
  it('agrees with an independent library', () => {
    fc.assert(
      fc.property(hexes, hex => {
        const own = labOfHex(hex);
        const right = toOklab(hex)!;
        return Math.abs(own.L - right.l) < 2e-5 && Math.abs(own.a - right.a) < 2e-5 && Math.abs(own.b - right.b) < 2e-5;
      }),
    );
  });
  it('comes back to the same byte, give or take one', () => {
    const data = Uint8ClampedArray.from({ length: 4 * 4096 }, (_, i) => (i % 4 === 3 ? 255 : (i * 37) % 256));
    const back = fromLabPlanes(toLabPlanes({ width: 64, height: 64, data }));
    for (let i = 0; i < data.length; i++) expect(Math.abs(back.data[i] - data[i])).toBeLessThanOrEqual(1);
  });
  it('puts transparent parts on white', () => {
    const { L } = toLabPlanes({ width: 1, height: 1, data: new Uint8ClampedArray([0, 0, 0, 0]) });
    expect(L[0]).toBeCloseTo(1, 4);
  });
  it('writes and reads hexadecimal, and names what it got', () => {
    for (const hex of ['#23262b', '#f3eee2', '#8e2a4b', '#000000', '#ffffff'])
      expect(hexOfLab(labOfHex(hex))).toBe(formatHex(hex)!);
    expect(() => labOfHex('beet')).toThrowError(/"beet".*#8e2a4b/);
  });
});

describe('CIEDE2000', () => {
  // Published test pairs: Sharma, Wu & Dalal 2005, table 1.
  const PAIRS: [number, number, number, number, number, number, number][] = [
    [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
    [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
    [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
    [50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0],
    [50, -1.1848, -84.8006, 50, 0, -82.7485, 1.0],
    [50, 0, 0, 50, -1, 2, 2.3669],
    [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
    [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
    [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
    [50, 2.5, 0, 50, 0, -2.5, 4.3065],
    [50, 2.5, 0, 73, 25, -18, 27.1492],
    [50, 2.5, 0, 61, -5, 29, 22.8977],
    [50, 2.5, 0, 56, -27, -3, 31.903],
    [50, 2.5, 0, 58, 24, 15, 19.4535],
    [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
    [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
    [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
    [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
    [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
    [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
  ];
  it('gives the published differences', () => {
    for (const [L1, a1, b1, L2, a2, b2, right] of PAIRS) {
      expect(deltaE2000([L1, a1, b1], [L2, a2, b2])).toBeCloseTo(right, 4);
      expect(deltaE2000([L2, a2, b2], [L1, a1, b1])).toBeCloseTo(right, 4);
    }
  });
  it('agrees with an independent library on any pair', () => {
    const right = differenceCiede2000();
    fc.assert(
      fc.property(hexes, hexes, (p, q) => {
        const [x, y] = [toLab65(p)!, toLab65(q)!];
        return Math.abs(deltaE2000([x.l, x.a, x.b], [y.l, y.a, y.b]) - right(p, q)) < 1e-6;
      }),
    );
  });
});
