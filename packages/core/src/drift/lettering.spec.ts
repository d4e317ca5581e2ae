import { fromLabPlanes } from '../colour/oklab.ts';
import type { Picture } from '../image/types.ts';
import { randomFor } from '../number/random.ts';
import { drawStroke } from '../prepare/strokes.ts';
import { writeWord } from '../testLetters.ts';
import { letteringIn } from './lettering.ts';

const SIDE = 360;

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

describe('Lettering', () => {
  for (const [size, slope, dark, ground] of [
    [0.07, 0, 0.2, 0.93],
    [0.11, 0.12, 0.3, 0.8],
    [0.09, 0, 0.95, 0.25],
  ])
    it(`is found where it stands: size ${size}, slope ${slope}, ${dark} on ${ground}`, () => {
      const [line] = letteringIn(
        pictureWith(into => writeWord(into, SIDE, SIDE, 'SEEDMARK', 0.1, 0.4, size, slope), dark, ground),
      );
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
      into => [...'SEDR'].forEach((letter, k) => writeWord(into, SIDE, SIDE, letter, 0.1 + 0.22 * k, 0.1 + 0.2 * k, 0.09)),
    ];
    for (const draw of none) expect(letteringIn(pictureWith(draw))).toEqual([]);
  });
});
