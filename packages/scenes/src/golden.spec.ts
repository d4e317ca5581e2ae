import { readFileSync } from 'node:fs';
import { GOLDEN_PAINTINGS } from './golden.ts';

const kept = JSON.parse(readFileSync(new URL('./golden.json', import.meta.url), 'utf8')) as Record<string, string>;

describe('golden paintings', () => {
  it('are all kept', () => expect(Object.keys(kept).sort()).toEqual(GOLDEN_PAINTINGS.map(g => g.name).sort()));
  for (const golden of GOLDEN_PAINTINGS)
    it(`${golden.name} has not changed by a pixel`, () => expect(golden.paint()).toBe(kept[golden.name]));
});
