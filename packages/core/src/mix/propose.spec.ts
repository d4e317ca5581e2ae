import { measure } from '../measure/measure.ts';
import { FACETS } from '../measure/types.ts';
import { sampleContent, stripes } from '../testPictures.ts';
import { MixError } from './mix.ts';
import { proposeLook } from './propose.ts';

const soft = measure(sampleContent(256, 3));
const alike = measure(sampleContent(256, 3));
const striped = measure(stripes(256, 6, 0.4));
/** Soft in everything but its colours, which are the stripes'. */
const recoloured = { ...soft, colour: striped.colour };

describe('a proposed look', () => {
  it('of one picture is that picture', () => {
    expect(proposeLook([{ name: 'A', fingerprint: soft }])).toEqual({
      sources: [{ parts: 4, facets: [...FACETS] }],
      strength: 90,
      reasons: [],
    });
  });
  it('mixes what agrees, evenly and strongly', () => {
    const { sources, strength, reasons } = proposeLook([
      { name: 'A', fingerprint: soft },
      { name: 'B', fingerprint: alike },
    ]);
    expect(sources).toEqual([
      { parts: 4, facets: [...FACETS] },
      { parts: 4, facets: [...FACETS] },
    ]);
    expect(strength).toBe(90);
    expect(reasons.join(' ')).toContain('of one hand');
  });
  it('leaves out the side on which one stands apart, and says so', () => {
    const { sources, reasons } = proposeLook([
      { name: 'A', fingerprint: soft },
      { name: 'B', fingerprint: alike },
      { name: 'C', fingerprint: recoloured },
    ]);
    expect(sources[2].facets).toEqual(['light', 'line', 'texture']);
    expect(sources[2].parts).toBeLessThan(sources[0].parts);
    expect(sources[0].facets).toEqual([...FACETS]);
    expect(reasons).toContain('C stands apart in colour, so the others give it.');
  });
  it('never mixes unlike marks: one gives them alone', () => {
    const { sources, strength, reasons } = proposeLook([
      { name: 'A', fingerprint: soft },
      { name: 'B', fingerprint: striped },
    ]);
    for (const facet of FACETS) expect(sources.some(s => s.facets.includes(facet))).toBeTrue();
    expect(sources.filter(s => s.facets.includes('texture')).length).toBe(1);
    expect(strength).toBeLessThan(90);
    expect(reasons.some(r => r.includes('unlike in texture'))).toBeTrue();
  });
  it('speaks of no facet that comes from elsewhere', () => {
    const { sources, reasons } = proposeLook(
      [
        { name: 'A', fingerprint: soft },
        { name: 'B', fingerprint: striped },
      ],
      ['light', 'line', 'texture'],
    );
    expect(sources.some(s => s.facets.includes('colour'))).toBeFalse();
    expect(reasons.some(r => r.includes('colour'))).toBeFalse();
  });
  it('needs a picture', () => {
    expect(() => proposeLook([])).toThrowError(MixError);
  });
});
