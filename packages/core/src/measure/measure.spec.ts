import { drift } from '../drift/drift.ts';
import { holdsUpTo, likeness } from '../drift/likeness.ts';
import { resizePicture } from '../image/resize.ts';
import { PictureError } from '../image/types.ts';
import { pictureOf, sampleContent, stripes } from '../testPictures.ts';
import { describeFingerprint } from './describe.ts';
import { measure } from './measure.ts';
import { searchVector } from '../drift/nearness.ts';

describe('measuring', () => {
  it('finds the colours of flat areas and their shares', () => {
    const f = measure(pictureOf(200, 100, x => (x < 150 ? [243, 238, 226] : [142, 42, 75])));
    expect(f.colour.palette.length).toBe(2);
    expect(f.colour.palette[1].share).toBeCloseTo(0.75, 1);
    expect(f.colour.inks).toBeGreaterThan(1.5);
    expect(f.colour.inks).toBeLessThan(2.1);
    expect(f.light.paper).toBeCloseTo(0.75, 1);
  });
  it('sees one ink in a plain picture and no line in it', () => {
    const f = measure(pictureOf(64, 64, () => [90, 90, 90]));
    expect(f.colour.inks).toBeCloseTo(1, 5);
    expect(f.line.edge).toBe(0);
    expect(f.texture.flatness).toBe(1);
    expect(f.light.contrast).toBe(0);
  });
  it('finds period and direction of hatching, and tells lines from dots', () => {
    for (const angle of [0, 0.6, -0.9]) {
      const { period } = measure(stripes(512, 8, angle)).texture;
      expect(period.share).toBeGreaterThan(0.9);
      expect(Math.abs(period.length - 8)).toBeLessThan(0.7);
      const off = Math.abs(Math.atan2(Math.sin(2 * (period.angle - angle)), Math.cos(2 * (period.angle - angle)))) / 2;
      expect(off).withContext(`angle ${angle}`).toBeLessThan(0.12);
      expect(period.dots).toBeLessThan(0.3);
    }
    const dots = pictureOf(512, 512, (x, y) => {
      const v = 130 + 50 * (Math.cos((x * 2 * Math.PI) / 8) + Math.cos((y * 2 * Math.PI) / 8));
      return [v, v, v];
    });
    expect(measure(dots).texture.period.dots).toBeGreaterThan(0.8);
  });
  it('tells thin dark lines from thin light ones, and thick from thin', () => {
    const lines = (width: number, dark: boolean) =>
      measure(pictureOf(256, 256, x => (x % 32 < width === dark ? [20, 20, 20] : [235, 235, 235]))).line;
    const sum = (list: number[]): number => list.reduce((s, v) => s + v, 0);
    const thin = lines(2, true);
    expect(sum(thin.dark)).toBeGreaterThan(5 * sum(thin.light));
    const light = lines(2, false);
    expect(sum(light.light)).toBeGreaterThan(5 * sum(light.dark));
    expect(thin.width).toBeCloseTo(2, 0);
    expect(lines(6, true).width).toBeCloseTo(6, 0);
  });
  it('changes little with the size of a picture', () => {
    const large = sampleContent(1024);
    const d = drift(measure(large), measure(resizePicture(large, 512, 512)));
    expect(d.total).toBeLessThan(0.05);
  });
  it('is the same every time and survives JSON', () => {
    const f = measure(sampleContent(128));
    expect(measure(sampleContent(128))).toEqual(f);
    expect(drift(JSON.parse(JSON.stringify(f)) as typeof f, f).total).toBe(0);
  });
  it('takes the smallest and the oddest shapes', () => {
    for (const [w, h] of [
      [1, 1],
      [1, 40],
      [300, 2],
      [64, 64],
    ]) {
      const f = measure(pictureOf(w, h, x => [x % 256, 100, 50]));
      for (const v of searchVector(f)) expect(Number.isFinite(v)).withContext(`${w} × ${h}`).toBeTrue();
    }
  });
  it('refuses malformed pictures by name', () => {
    const data = new Uint8ClampedArray(16);
    expect(() => measure({ width: 0, height: 4, data })).toThrowError(PictureError, /0 × 4/);
    expect(() => measure({ width: 3, height: 4, data })).toThrowError(PictureError, /16 bytes.*48/);
    expect(() => measure({ width: NaN, height: 4, data })).toThrowError(PictureError, /NaN/);
    expect(() => measure({ width: 20_000, height: 20_000, data })).toThrowError(PictureError, /100 million/);
  });
  it('says what it found in words', () => {
    const words = describeFingerprint(measure(stripes(512, 8, 0.6)));
    expect(words.texture).toContain('regular hatching');
    expect(words.colour).toContain('nearly grey');
  });
});

describe('drift', () => {
  it('is nothing to itself, alike both ways, and larger for what is less alike', () => {
    const a = measure(sampleContent(128, 1));
    const b = measure(sampleContent(128, 2));
    const c = measure(stripes(128, 6, 0.5));
    expect(drift(a, a).total).toBe(0);
    expect(drift(a, b).total).toBeCloseTo(drift(b, a).total, 10);
    expect(drift(a, c).total).toBeGreaterThan(drift(a, b).total);
  });
  it('refuses fingerprints of different versions', () => {
    const f = measure(sampleContent(64));
    expect(() => drift(f, { ...f, measure: 99 })).toThrowError(/versions \d+ and 99/);
  });
});

describe('likeness', () => {
  it('is 1 for the same picture, lower for another, and refuses other sizes', () => {
    const p = sampleContent(96, 1);
    expect(likeness(p, p)).toBeCloseTo(1, 6);
    expect(likeness(p, sampleContent(96, 5))).toBeLessThan(0.6);
    expect(() => likeness(p, sampleContent(64))).toThrowError(/96 × 96.*64 × 64/);
  });
  it('says up to which strength a subject holds', () => {
    const p = sampleContent(96, 1);
    expect(holdsUpTo(p, p)).toBe(1);
    expect(holdsUpTo(p, stripes(96, 5, 0.4))).toBeLessThan(0.7);
  });
});
