import { GOLDEN_PAINTINGS } from '@zinc/scenes/golden';
import kept from '../../../../../packages/scenes/src/golden.json';

describe('golden paintings in this browser', () => {
  for (const golden of GOLDEN_PAINTINGS)
    it(`${golden.name}: the same bytes as in Node`, () =>
      expect(golden.paint()).toBe((kept as Record<string, string>)[golden.name]));
});
