import { markWords, repeatedWords, stands } from './marks.ts';
import type { TextPart } from './template.ts';

const parts: TextPart[] = [
  { from: 'template', words: 'A bold ' },
  { from: 'subject', words: 'leek with roots' },
  { from: 'template', words: ' on chalk, with light from the left' },
  { from: 'look', words: ', bold outline, chalk' },
];

describe('Words of a final text', () => {
  it('are told when they stand twice, with where they come from; small words may', () => {
    expect(repeatedWords(parts)).toEqual([
      { word: 'bold', from: ['template', 'look'] },
      { word: 'chalk', from: ['template', 'look'] },
    ]);
  });
  it('stand only as whole words, and as whole phrases in their order', () => {
    expect(stands('bold outline', 'in bold, outline')).toBeTrue();
    expect(stands('bold outline', 'outline, bold')).toBeFalse();
    expect(stands('old', 'bold')).toBeFalse();
    expect(stands('…', 'bold …')).toBeFalse();
  });
  it('are cut out of their parts with what is to be said of them, and nothing is lost', () => {
    const marked = markWords(parts, [
      { word: 'Bold', why: 'said twice' },
      { word: 'bold outline', why: 'to be avoided' },
    ]);
    expect(marked.map(p => p.words).join('')).toBe(parts.map(p => p.words).join(''));
    expect(marked.filter(p => p.why).map(p => [p.from, p.words, p.why])).toEqual([
      ['template', 'bold', 'said twice'],
      ['look', 'bold outline', 'to be avoided'],
    ]);
    expect(markWords(parts, [{ word: '(?', why: 'no word' }])).toEqual(parts);
  });
});
