import { toLabPlanes } from '../colour/oklab.ts';
import { likeness } from '../drift/likeness.ts';
import { sampleContent } from '../testPictures.ts';
import { readContent } from './readContent.ts';

describe('a content picture', () => {
  const picture = sampleContent(200, 7);
  it('is read as it is, byte for byte, unless something else is asked', () => {
    expect(readContent(picture, 'areas', 1)).toBe(picture);
  });
  it('read as tone has no colour and keeps its form', () => {
    const tone = readContent(picture, 'tone', 1);
    const { a, b } = toLabPlanes(tone);
    expect(Math.max(...a.map(Math.abs), ...b.map(Math.abs))).toBeLessThan(0.01);
    expect(likeness(picture, tone)).toBeGreaterThan(0.97);
  });
  it('read as outline is bare where it has no edge and dark where it has', () => {
    const { L } = toLabPlanes(readContent(picture, 'outline', 1));
    const sorted = [...L].sort((p, q) => p - q);
    expect(sorted[sorted.length >> 1]).toBeGreaterThan(0.93);
    expect(sorted[0]).toBeLessThan(0.4);
  });
  it('keeps less of its fine form the less of it is asked, and all its large form', () => {
    const at = (strength: number): number => likeness(picture, readContent(picture, 'areas', strength));
    expect(at(0.5)).toBeLessThan(at(0.9));
    expect(at(0)).toBeLessThan(at(0.5));
    expect(at(0)).toBeGreaterThan(0.4);
  });
});
