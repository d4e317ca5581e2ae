import { unclearWords } from './meanings.ts';

const wordOf = (wording: string, meaning = ''): string | undefined =>
  unclearWords([{ id: '1', wording, meaning, picture: null }])[0]?.word;

describe('the word that a wording hangs on', () => {
  const unclear: [wording: string, word: string][] = [
    ['rocket', 'rocket'],
    ['fresh rocket on a board', 'rocket'],
    ['a sprig of mint', 'mint'],
    ['striped squash', 'squash'],
    ['crane by the pond', 'crane'],
    ['bark of an old birch', 'bark'],
    ['bat at dusk', 'bat'],
  ];
  for (const [wording, word] of unclear)
    it(`is told when it means several things: ${wording}`, () => expect(wordOf(wording)).toBe(word));

  const clear = [
    'radish, freshly pulled',
    'small greenhouse',
    // Two words that are one of their own.
    'watering can',
    'cold frame',
    // A noun before it says which is meant.
    'seed packet',
    'salad rocket leaves',
    'squash racket',
    // Another word of the wording speaks for one of the meanings.
    'yellow iris in flower',
    'a wren on a spade handle',
    'snail on a leaf',
    "the co-operative's mark",
    '',
  ];
  for (const wording of clear) it(`is left alone when it is clear: “${wording}”`, () => expect(wordOf(wording)).toBeUndefined());

  it('is clear once a meaning was chosen, or when there is a picture', () => {
    expect(wordOf('mint', 'a herb')).toBeUndefined();
    const picture = { sha256: 'a', width: 1, height: 1 };
    expect(unclearWords([{ id: '1', wording: 'mint', meaning: '', picture }])).toEqual([]);
  });
});
