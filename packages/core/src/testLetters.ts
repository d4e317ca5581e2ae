import { drawStroke } from './prepare/strokes.ts';

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

/**
 * Marks a word of these letters into a mask, for tests and measurements: `x`, `y` of its top left, 0–1 of the frame; `size` of a letter in
 * parts of the long side, `slope` of the line, `bold` the width of a stroke in parts of a letter. Throws RangeError for other letters.
 */
export function writeWord(
  into: Uint8Array,
  width: number,
  height: number,
  word: string,
  x: number,
  y: number,
  size: number,
  slope = 0,
  bold = 0.13,
): void {
  const long = Math.max(width, height);
  const [kx, ky] = [(size * long) / width, (size * long) / height];
  [...word].forEach((letter, k) => {
    const strokes = LETTERS[letter];
    if (!strokes) throw new RangeError(`Got the letter ${letter}; wanted one of ${Object.keys(LETTERS).join('')}.`);
    for (const stroke of strokes) {
      const points = stroke.map((v, i) => (i % 2 === 0 ? x + (k * 0.95 + v * 0.62) * kx : y + (k * slope + v) * ky));
      drawStroke(into, width, height, { points, size: size * bold }, 1);
    }
  });
}
