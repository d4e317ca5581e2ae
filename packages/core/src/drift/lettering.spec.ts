import { fromLabPlanes } from '../colour/oklab.ts';
import type { Picture } from '../image/types.ts';
import { randomFor } from '../number/random.ts';
import { drawStroke } from '../prepare/strokes.ts';
import { letteringIn } from './lettering.ts';

const SIDE = 360;

/** Letters of straight strokes in a box of 0–1, as points x, y, x, y …; a stroke each. */
const LETTERS: Record<string, number[][]> = {
  S: [[1, 0.05, 0.1, 0.1, 0.1, 0.45, 0.9, 0.55, 0.9, 0.9, 0, 0.95]],
  E: [
    [1, 0, 0, 0, 0, 1, 1, 1],
    [0, 0.5, 0.8, 0.5],
  ],
  D: [[0, 0, 0.7, 0, 1, 0.3, 1, 0.7, 0.7, 1, 0, 1, 0, 0]],
  R: [
    [0, 1, 0, 0, 0.9, 0.05, 0.9, 0.45, 0, 0.5],
    [0.4, 0.5, 1, 1],
  ],
  K: [
    [0, 0, 0, 1],
    [1, 0, 0, 0.5, 1, 1],
  ],
  A: [
    [0, 1, 0.5, 0, 1, 1],
    [0.2, 0.65, 0.8, 0.65],
  ],
  L: [[0, 0, 0, 1, 0.9, 1]],
  M: [[0, 1, 0, 0, 0.5, 0.6, 1, 0, 1, 1]],
};

function pictureWith(draw: (into: Uint8Array) => void, dark = 0.2, ground = 0.93): Picture {
  const ink = new Uint8Array(SIDE * SIDE);
  draw(ink);
  const plane = (value: (i: number) => number): Float32Array => Float32Array.from(ink, (_, i) => value(i));
  return fromLabPlanes({
    width: SIDE,
    height: SIDE,
    L: plane(i => (ink[i] ? dark : ground)),
    a: plane(() => 0),
    b: plane(() => 0.01),
  });
}

function write(into: Uint8Array, word: string, x: number, y: number, size: number, slope = 0): void {
  [...word].forEach((letter, k) => {
    for (const stroke of LETTERS[letter]) {
      const points = stroke.flatMap((v, i) => {
        if (i % 2 === 1) return [];
        const [px, py] = [x + k * size * 0.95 + v * size * 0.62, y + k * size * slope + stroke[i + 1] * size];
        return [px, py];
      });
      drawStroke(into, SIDE, SIDE, { points, size: size * 0.13 }, 1);
    }
  });
}

describe('Lettering', () => {
  for (const [size, slope, dark, ground] of [
    [0.07, 0, 0.2, 0.93],
    [0.11, 0.12, 0.3, 0.8],
    [0.09, 0, 0.95, 0.25],
  ])
    it(`is found where it stands: size ${size}, slope ${slope}, ${dark} on ${ground}`, () => {
      const [line] = letteringIn(pictureWith(into => write(into, 'SEEDMARK', 0.1, 0.4, size, slope), dark, ground));
      expect(line?.letters).toBeGreaterThanOrEqual(6);
      expect(line.x).toBeCloseTo(0.1, 1);
      expect(line.y).toBeGreaterThan(0.3);
      expect(line.height).toBeLessThan(0.35);
    });

  it('is not seen in bars, hatching, dots or scattered letters', () => {
    const random = randomFor(4, 'lettering');
    const none: ((into: Uint8Array) => void)[] = [
      into => {
        for (let k = 0; k < 14; k++)
          drawStroke(into, SIDE, SIDE, { points: [0.1 + k * 0.05, 0.3, 0.1 + k * 0.05, 0.5], size: 0.012 }, 1);
      },
      into => {
        for (let k = 0; k < 160; k++) {
          const [x, y] = [0.05 + 0.9 * random(), 0.05 + 0.9 * random()];
          drawStroke(into, SIDE, SIDE, { points: [x, y, x + 0.04, y + 0.03 * random()], size: 0.008 }, 1);
        }
      },
      into => {
        for (let k = 0; k < 400; k++)
          drawStroke(into, SIDE, SIDE, { points: [0.06 + (k % 20) * 0.045, 0.06 + Math.floor(k / 20) * 0.045], size: 0.03 }, 1);
      },
      into => [...'SEDR'].forEach((letter, k) => write(into, letter, 0.1 + 0.22 * k, 0.1 + 0.2 * k, 0.09)),
    ];
    for (const draw of none) expect(letteringIn(pictureWith(draw))).toEqual([]);
  });
});
