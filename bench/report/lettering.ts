import { letteringIn, LETTERING_FOUND, type Picture } from '@zinc/core';
import { randomFor } from '@zinc/core/number/random';
import { writeWord } from '@zinc/core/testLetters';
import type { Figure } from './figures.ts';

const WORDS = ['SEEDMARK', 'LEAKED', 'SALAD', 'RAKES', 'MARKED', 'ALARM'];
/** What the product says of its detector may differ from what is measured by so much. */
const SAME = 0.03;

/** The picture with a word across it, dark on what is light and light on what is dark. */
function withWord(picture: Picture, n: number): Picture {
  const { width, height } = picture;
  const random = randomFor(n, 'lettering report');
  const word = WORDS[n % WORDS.length];
  const size = [0.05, 0.07, 0.1][n % 3];
  const ink = new Uint8Array(width * height);
  const slope = [0, 0, 0.1, -0.08][n % 4];
  writeWord(ink, width, height, word, 0.04 + 0.2 * random(), 0.2 + 0.5 * random(), size, slope, n % 2 ? 0.13 : 0.17);
  const data = new Uint8ClampedArray(picture.data);
  let sum = 0;
  let under = 0;
  for (let i = 0; i < ink.length; i++) {
    if (!ink[i]) continue;
    sum += data[i * 4] + data[i * 4 + 1] + data[i * 4 + 2];
    under += 3;
  }
  const colour = sum / under > 110 ? [29, 32, 36] : [250, 246, 234];
  for (let i = 0; i < ink.length; i++) if (ink[i]) data.set(colour, i * 4);
  return { width, height, data };
}

/** How often what is found is lettering and how much of it is found, over pictures without letters and the same with a word across. */
export function lettering(pictures: readonly Picture[]): Figure[] {
  let [right, wrong, missed] = [0, 0, 0];
  for (const [n, picture] of pictures.entries()) {
    const before = letteringIn(picture).length;
    if (before > 0) wrong++;
    if (letteringIn(withWord(picture, n)).length > before) right++;
    else missed++;
  }
  const figure = (name: string, value: number, said: number): Figure => ({
    name: `lettering, ${name}, over ${pictures.length} pictures`,
    study: '–',
    aim: `as the product says, ${said.toFixed(2)}`,
    value: value.toFixed(2),
    met: Math.abs(value - said) <= SAME,
  });
  return [
    figure('precision', right / Math.max(1, right + wrong), LETTERING_FOUND.precision),
    figure('recall', right / Math.max(1, right + missed), LETTERING_FOUND.recall),
  ];
}
