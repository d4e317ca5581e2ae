import { pictureOf, sampleContent } from '../testPictures.ts';
import { blur, halve } from './filter.ts';
import { resizePicture } from './resize.ts';
import { fitPicture } from './fit.ts';
import { measureFlow, slopesOf } from './tensor.ts';
import { decodeWorkingCopy, encodeWorkingCopy, hashPixels } from './workingCopy.ts';

describe('working copies', () => {
  it('come back with every pixel', () => {
    const p = sampleContent(40);
    p.data[3] = 10;
    expect(hashPixels(decodeWorkingCopy(encodeWorkingCopy(p)))).toBe(hashPixels(p));
  });
  it('hash size and pixels', () => {
    const data = new Uint8ClampedArray(24);
    expect(hashPixels({ width: 2, height: 3, data })).not.toBe(hashPixels({ width: 3, height: 2, data }));
  });
  it('refuse what is not a PNG', () => {
    expect(() => decodeWorkingCopy(new Uint8Array([1, 2, 3, 4]))).toThrowError();
  });
});

describe('filters', () => {
  it('keep the mean when they blur, at every size', () => {
    const plane = Float32Array.from({ length: 64 * 64 }, (_, i) => ((i * 7919) % 101) / 100);
    const mean = (p: Float32Array): number => p.reduce((s, v) => s + v, 0) / p.length;
    for (const sigma of [0, 0.5, 1, 1.5, 3, 8]) expect(mean(blur(plane, 64, 64, sigma))).toBeCloseTo(mean(plane), 1);
  });
  it('spread a point by about sigma', () => {
    const plane = new Float32Array(101 * 101);
    plane[50 * 101 + 50] = 1;
    for (const sigma of [0.8, 1.5, 3, 6]) {
      const out = blur(plane, 101, 101, sigma);
      let second = 0;
      let total = 0;
      for (let y = 0; y < 101; y++)
        for (let x = 0; x < 101; x++) {
          second += out[y * 101 + x] * (x - 50) ** 2;
          total += out[y * 101 + x];
        }
      expect(Math.abs(Math.sqrt(second / total) - sigma) / sigma)
        .withContext(`sigma ${sigma}`)
        .toBeLessThan(0.2);
    }
  });
  it('halve by averaging', () => {
    expect([...halve({ width: 2, height: 2, data: Float32Array.of(0, 1, 2, 3) }).data]).toEqual([1.5]);
    expect(halve({ width: 1, height: 1, data: Float32Array.of(4) }).data[0]).toBe(4);
  });
  it('find the direction of lines', () => {
    const L = Float32Array.from({ length: 64 * 64 }, (_, i) => 0.5 + 0.5 * Math.sin((i % 64) * 0.8));
    const { tx, ty, coherence } = measureFlow(slopesOf(L, 64, 64), 2);
    const i = 16 * 32 + 16;
    expect(Math.abs(ty[i])).toBeGreaterThan(0.99);
    expect(Math.abs(tx[i])).toBeLessThan(0.1);
    expect(coherence[i]).toBeGreaterThan(0.95);
  });
  it('resize without bleeding the colour of transparent pixels', () => {
    const p = pictureOf(4, 4, () => [200, 20, 20]);
    for (let i = 0; i < 16; i += 2) p.data.set([0, 255, 0, 0], i * 4);
    const out = resizePicture(p, 2, 2);
    expect([out.data[0], out.data[1], out.data[2]]).toEqual([200, 20, 20]);
    expect(Math.abs(out.data[3] - 128)).toBeLessThan(2);
  });
});

describe('fitting', () => {
  it('returns the very picture when the size is right', () => {
    const p = sampleContent(32);
    expect(fitPicture(p, 32, 32)).toBe(p);
  });
  it('crops around the middle and never stretches', () => {
    const p = pictureOf(300, 100, x => (x < 100 ? [255, 0, 0] : x < 200 ? [0, 255, 0] : [0, 0, 255]));
    const out = fitPicture(p, 50, 50);
    expect([out.width, out.height]).toEqual([50, 50]);
    expect(out.data[1]).toBeGreaterThan(250);
    expect(out.data[(49 * 50 + 49) * 4 + 1]).toBeGreaterThan(250);
  });
});
