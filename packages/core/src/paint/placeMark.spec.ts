import { pictureOf } from '../testPictures.ts';
import { placeMark } from './placeMark.ts';

describe('a mark', () => {
  const painted = pictureOf(100, 80, (x, y) => [x * 2, y * 2, 90]);
  const mark = pictureOf(20, 10, () => [10, 20, 30]);
  const pixel = (p: { width: number; data: Uint8ClampedArray }, x: number, y: number): number[] => [
    ...p.data.subarray((y * p.width + x) * 4, (y * p.width + x) * 4 + 3),
  ];
  it('is laid exactly, as large as fits, in the middle of its box, and nothing else changes', () => {
    const out = placeMark(painted, mark, { x: 0.5, y: 0.5, width: 0.4, height: 0.4 });
    expect(pixel(out, 70, 56)).toEqual([10, 20, 30]);
    expect(pixel(out, 51, 47)).toEqual([10, 20, 30]);
    expect(pixel(out, 88, 65)).toEqual([10, 20, 30]);
    let changed = 0;
    for (let i = 0; i < out.data.length; i += 4)
      if (out.data[i] !== painted.data[i] || out.data[i + 2] !== painted.data[i + 2]) changed++;
    expect(changed).toBe(40 * 20);
  });
  it('lets through what is under its clear parts, and is cut where it leaves the frame', () => {
    const ring = { ...mark, data: mark.data.slice() };
    for (let i = 3; i < ring.data.length; i += 4) ring.data[i] = 0;
    expect(placeMark(painted, ring, { x: 0, y: 0, width: 1, height: 1 }).data).toEqual(painted.data);
    const out = placeMark(painted, mark, { x: 0.9, y: 0.9, width: 0.4, height: 0.4 });
    expect(pixel(out, 99, 79)).toEqual([10, 20, 30]);
  });
});
