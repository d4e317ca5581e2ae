import { randomFor } from '../number/random.ts';
import { subjectMask } from './subjectMask.ts';
import { pictureOfPlaces } from '../testPictures.ts';

const at = (mask: Float32Array, width: number, x: number, y: number): number => mask[y * width + x];
/** A backdrop that grows lighter from one corner to the other, as a wall in a photograph does. */
const wall = (x: number, y: number): [number, number, number] => [120 + 60 * x, 110 + 50 * y, 105 + 30 * x];
const disc = (x: number, y: number): boolean => (x - 0.5) ** 2 + (y - 0.5) ** 2 < 0.06;

describe('subject mask', () => {
  it('finds a thing before a soft backdrop', () => {
    const mask = subjectMask(pictureOfPlaces(300, 200, (x, y) => (disc(x, y) ? [190, 60, 50] : wall(x, y))))!;
    expect(at(mask, 300, 150, 100)).toBeGreaterThan(0.95);
    expect(at(mask, 300, 20, 20)).toBeLessThan(0.05);
    expect(at(mask, 300, 280, 190)).toBeLessThan(0.05);
    const share = mask.reduce((sum, v) => sum + v, 0) / mask.length;
    expect(share).toBeGreaterThan(0.14);
    expect(share).toBeLessThan(0.25);
  });

  it('sees through a hole in it', () => {
    const ring = (x: number, y: number): boolean => {
      const d = (x - 0.5) ** 2 + (y - 0.5) ** 2;
      return d < 0.13 && d > 0.05;
    };
    const mask = subjectMask(pictureOfPlaces(240, 240, (x, y) => (ring(x, y) ? [60, 120, 70] : wall(x, y))))!;
    expect(at(mask, 240, 120, 50)).toBeGreaterThan(0.9);
    expect(at(mask, 240, 120, 120)).toBeLessThan(0.1);
  });

  it('claims nothing of an empty wall, of noise, of stripes, or of a tiny picture', () => {
    const random = randomFor(4, 'mask');
    expect(subjectMask(pictureOfPlaces(200, 200, wall))).toBeNull();
    expect(subjectMask(pictureOfPlaces(200, 200, () => [random() * 255, random() * 255, random() * 255]))).toBeNull();
    expect(subjectMask(pictureOfPlaces(200, 200, x => ((x * 10) & 1 ? [20, 20, 20] : [230, 230, 230])))).toBeNull();
    expect(subjectMask(pictureOfPlaces(20, 12, (x, y) => (disc(x, y) ? [190, 60, 50] : wall(x, y))))).toBeNull();
  });

  it('has the shape of the picture, also a long one', () => {
    const mask = subjectMask(
      pictureOfPlaces(360, 90, (x, y) => (Math.abs(x - 0.5) < 0.1 && Math.abs(y - 0.5) < 0.3 ? [30, 40, 90] : wall(x, y))),
    )!;
    expect(mask.length).toBe(360 * 90);
    expect(at(mask, 360, 180, 45)).toBeGreaterThan(0.9);
  });
});
