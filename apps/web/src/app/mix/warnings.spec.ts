import type { LookSource, Reference } from '@zinc/contract';
import { FACETS, fingerprintOfCode, labOfHex, measure, mixLook, randomCode, type Fingerprint } from '@zinc/core';
import { EMPTY_DRAFT, type Draft } from './draft';
import { warningsOf, type MixFacts } from './warnings';

function flatPicture(colours: [string, number][]): Fingerprint {
  const side = 96;
  const data = new Uint8ClampedArray(side * side * 4);
  for (let y = 0; y < side; y++) {
    const hex = colours.find(([, to]) => y / side < to)![0];
    const v = parseInt(hex.slice(1), 16);
    for (let x = 0; x < side; x++) data.set([v >> 16, (v >> 8) & 255, v & 255, 255], (y * side + x) * 4);
  }
  return measure({ width: side, height: side, data });
}

describe('warnings of the bench', () => {
  const prints: Record<string, Fingerprint> = {
    bright: flatPicture([
      ['#f6f1e4', 0.9],
      ['#e8d9b8', 1],
    ]),
    dark: flatPicture([
      ['#1b1d24', 0.9],
      ['#33405c', 1],
    ]),
    violet: flatPicture([
      ['#f3eee2', 0.5],
      ['#6a3fb5', 1],
    ]),
  };
  const source = (name: string, more: Partial<LookSource> = {}): LookSource => ({
    kind: 'reference',
    id: name,
    name,
    sha256: name,
    parts: 4,
    facets: [...FACETS],
    ...more,
  });
  const facts = (draft: Partial<Draft>, more: Partial<MixFacts> = {}): MixFacts => {
    const whole = { ...EMPTY_DRAFT, ...draft };
    const giving = whole.sources.filter(s => prints[s.id]);
    return {
      draft: whole,
      mixture:
        giving.length > 0
          ? mixLook(
              giving.map(s => ({ parts: s.parts, facets: s.facets, fingerprint: prints[s.id] })),
              whole.words,
            )
          : null,
      fingerprintOf: s => prints[s.id],
      referenceOf: s => ({ id: s.id, licenceEnds: null }) as Reference,
      never: [],
      holds: null,
      leaks: [],
      hasBrand: true,
      today: '2026-11-23',
      ...more,
    };
  };
  const texts = (f: MixFacts): string =>
    warningsOf(f)
      .map(w => w.text)
      .join('\n');

  it('says nothing of an empty bench', () => {
    expect(warningsOf(facts({}))).toEqual([]);
  });

  it('names words that repeat or fight a source, and mends by dropping the word alone', () => {
    const f = facts({ sources: [source('bright')], words: ['airy', 'moody', 'dotted'] });
    expect(texts(f)).toContain('“airy” says what bright already gives');
    expect(texts(f)).toContain('“moody” fights bright');
    expect(texts(f)).not.toContain('dotted');
    const mend = warningsOf(f).find(w => w.text.includes('moody'))!.mend!;
    expect(mend.to!.words).toEqual(['airy', 'dotted']);
  });

  it('names sources that cancel each other in a facet; the larger goes on giving it', () => {
    const f = facts({ sources: [source('bright', { parts: 5 }), source('dark')] });
    const found = warningsOf(f).find(w => w.text.includes('cancel each other in light'))!;
    expect(found.mend!.label).toBe('Only bright gives light');
    expect(found.mend!.to!.sources[1].facets).not.toContain('light');
    expect(found.mend!.to!.sources[0].facets).toContain('light');
    expect(texts(facts({ sources: [source('bright'), source('dark', { facets: [] })] }))).not.toContain('cancel');
  });

  it('names a background, colours never to be seen, leaks, and a strength beyond the band', () => {
    expect(texts(facts({ sources: [source('bright')] }))).toContain('is bare background');
    const never = [{ ...labOfHex('#6a3fb5'), radius: 0.1 }];
    expect(texts(facts({ sources: [source('violet')] }, { never }))).toContain('never shows');
    expect(texts(facts({ sources: [source('bright')] }, { never }))).not.toContain('never shows');
    const leaks = [{ id: 'dark', name: 'dark', share: 0.08 }];
    expect(texts(facts({ sources: [source('bright')] }, { leaks }))).toContain('Colours of dark cover 8 %');
    const strong = facts({ sources: [source('bright')], strength: 95 }, { holds: 0.7 });
    expect(warningsOf(strong).find(w => w.text.includes('drowns'))!.mend!.to!.strength).toBe(70);
    expect(texts(facts({ sources: [source('bright')], strength: 70 }, { holds: 0.7 }))).not.toContain('drowns');
  });

  it('warns of licences 30 days before they end', () => {
    const ends = (licenceEnds: string): string =>
      texts(facts({ sources: [source('bright')] }, { referenceOf: s => ({ id: s.id, licenceEnds }) as Reference }));
    expect(ends('2026-12-23')).toContain('ends soon');
    expect(ends('2026-12-24')).not.toContain('licence');
    expect(ends('2026-11-22')).toContain('has ended');
  });

  it('counts codes as sources', () => {
    const text = randomCode(() => 0.4);
    prints['code'] = fingerprintOfCode(text);
    expect(texts(facts({ sources: [source('code', { kind: 'ownCode', facets: [] })] }))).toContain('gives no facet');
  });
});
