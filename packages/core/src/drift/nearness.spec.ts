import { FACETS, type Fingerprint } from '../measure/types.ts';
import { measure } from '../measure/measure.ts';
import { sampleContent } from '../testPictures.ts';
import { fingerprintOfCode } from '../codes/codeStyle.ts';
import { randomCode } from '../codes/code.ts';
import { randomFor } from '../number/random.ts';
import { drift, driftOver } from './drift.ts';
import { NearnessIndex, searchVector } from './nearness.ts';

describe('nearness', () => {
  const random = randomFor(7, 'nearness spec');
  let prints: Fingerprint[];
  let index: NearnessIndex;
  beforeAll(() => {
    prints = [
      ...Array.from({ length: 36 }, () => fingerprintOfCode(randomCode(random))),
      ...Array.from({ length: 6 }, (_, i) => measure(sampleContent(160, i + 1))),
    ];
    index = new NearnessIndex();
    prints.forEach((f, i) => index.set(String(i), searchVector(f)));
  });

  it('finds the nearest by drift among its first few, by all facets and by each', () => {
    for (const facets of [FACETS, ...FACETS.map(f => [f])]) {
      let found = 0;
      for (const to of prints) {
        const exact = prints.map((f, i) => ({ i, d: driftOver(drift(f, to), facets) })).sort((p, q) => p.d - q.d);
        const few = index.nearest(searchVector(to), facets, 14);
        expect(few).toContain(String(exact[0].i));
        found += exact.slice(0, 5).filter(e => few.includes(String(e.i))).length;
      }
      expect(found / (5 * prints.length))
        .withContext(facets.join(' '))
        .toBeGreaterThan(0.86);
    }
  });

  it('forgets what is taken out and takes what is put in its place', () => {
    const own = new NearnessIndex();
    prints.slice(0, 5).forEach((f, i) => own.set(String(i), searchVector(f)));
    own.delete('1');
    own.set('2', searchVector(prints[9]));
    expect(own.size).toBe(4);
    expect(own.has('1')).toBeFalse();
    expect(own.nearest(searchVector(prints[9]), FACETS, 1)).toEqual(['2']);
    expect(own.nearest(searchVector(prints[4]), FACETS, 9).length).toBe(4);
  });

  it('refuses vectors of another length', () => {
    expect(() => new NearnessIndex().set('x', new Float32Array(3))).toThrowError(/Got a vector of 3 numbers/);
  });
});
