import { neutralStyle } from '../mix/style.ts';
import { canonicalJson, ticketHash } from '../ticket/hash.ts';
import { cellKey, expandPlan } from './expand.ts';
import { PlanError, type Plan, type PlanLibrary } from './types.ts';
import { preflight, writtenDate, type PreflightFacts } from './preflight.ts';
import { batchSeedFor, seedFor } from './seeds.ts';

const library: PlanLibrary = {
  subjects: [
    { id: 's1', label: 'Radish', wording: 'radish', avoid: ['leaves'], pictureSha: null },
    { id: 's2', label: 'Crate', wording: 'crate', avoid: [], pictureSha: 'f'.repeat(64) },
    { id: 's3', label: 'Bicycle', wording: 'tandem bicycle', avoid: [], pictureSha: null },
  ],
  looks: [
    { id: 'l1', name: 'Block', version: 2, strength: 64, words: ['cut block'], avoid: ['shading'], style: neutralStyle() },
    { id: 'l2', name: 'Wash', version: 1, strength: 80, words: [], avoid: [], style: neutralStyle() },
  ],
  template: { id: 't', version: 1, text: 'A {{subject}} on chalk', avoid: ['hands'], slots: [] },
  formats: [
    { id: 'f', name: 'Square', width: 768, height: 768 },
    { id: 'g', name: 'Banner', width: 1024, height: 512 },
  ],
  brand: { avoid: ['lettering', 'hands'], never: [] },
  press: { id: 'p', name: 'House press', version: '1', model: 'drawn' },
};
const plan: Plan = {
  subjectIds: ['s1', 's2', 's3'],
  lookIds: ['l1', 'l2'],
  templateId: 't',
  fills: {},
  formatIds: ['f'],
  takes: 3,
  seedPolicy: 'subject',
  seed: 1907,
  strength: null,
  pressId: 'p',
  struckOut: [],
};
const withPlan = (part: Partial<Plan>) => expandPlan({ ...plan, ...part }, library);

describe('expanding a plan', () => {
  it('makes every cell with every take', () => {
    const { cells, images } = withPlan({});
    expect(cells.length).toBe(6);
    expect(images).toBe(18);
    expect(cells.every(c => c.tickets.length === 3)).toBeTrue();
    expect(new Set(cells.map(c => c.key)).size).toBe(6);
  });
  it('puts words, avoid words and strength together from all who say them', () => {
    const [cell] = withPlan({}).cells;
    expect(cell.text).toBe('A radish on chalk, cut block');
    expect(cell.avoid).toEqual(['hands', 'shading', 'leaves', 'lettering']);
    expect(cell.tickets[0].settings.strength).toBe(64);
    expect(withPlan({ strength: 30 }).cells[0].tickets[0].settings.strength).toBe(30);
  });
  it('gives a subject with a picture its content', () => {
    const { cells } = withPlan({});
    expect(cells.find(c => c.subjectId === 's2')!.tickets[0].contents).toEqual([
      { sha256: 'f'.repeat(64), strength: 100, read: 'areas' },
    ]);
    expect(cells.find(c => c.subjectId === 's1')!.tickets[0].contents).toEqual([]);
  });
  it('leaves struck cells out of the count', () => {
    expect(withPlan({ struckOut: [cellKey('s1', 'l1', 'f')] }).images).toBe(15);
  });
  it('is the same every time, ticket hashes included', () => {
    const hashes = (): string[] => withPlan({}).cells.flatMap(c => c.tickets.map(ticketHash));
    expect(hashes()).toEqual(hashes());
    expect(new Set(hashes()).size).toBe(18);
  });
  it('refuses at the field', () => {
    const field = (part: Partial<Plan>): string => {
      try {
        withPlan(part);
      } catch (error) {
        if (error instanceof PlanError) return error.field;
      }
      return 'accepted';
    };
    expect(field({ subjectIds: [] })).toBe('subjectIds');
    expect(field({ subjectIds: ['s1', 's1'] })).toBe('subjectIds');
    expect(field({ subjectIds: ['nobody'] })).toBe('subjectIds');
    expect(field({ lookIds: [] })).toBe('lookIds');
    expect(field({ lookIds: ['gone'] })).toBe('lookIds');
    for (const takes of [0, -1, 1.5, 13, NaN]) expect(field({ takes })).toBe('takes');
    const many = Array.from({ length: 500 }, (_, i) => `x${i}`);
    expect(() => expandPlan({ ...plan, subjectIds: many, takes: 12 }, library)).toThrowError(/12000 images.*2000/);
  });
});

describe('seeds', () => {
  it('of one for all can be had backwards: the number that gives a first take its seed', () => {
    for (const seed of [0, 1, 11, 1907, 1521331310, 4294967295])
      expect(seedFor('one', batchSeedFor(seed), 'any', 'cell', 1)).toBe(seed);
  });
  it('follow their policy', () => {
    const one = (s: string, c: string): number => seedFor('one', 5, s, c, 1);
    expect(one('a', 'x')).toBe(one('b', 'y'));
    const subject = (s: string, c: string): number => seedFor('subject', 5, s, c, 1);
    expect(subject('a', 'x')).toBe(subject('a', 'y'));
    expect(subject('a', 'x')).not.toBe(subject('b', 'x'));
    const fresh = (s: number, c: string): number => seedFor('fresh', s, 'a', c, 1);
    expect(fresh(5, 'x')).not.toBe(fresh(5, 'y'));
    expect(fresh(5, 'x')).not.toBe(fresh(6, 'x'));
  });
  it('are 32-bit and differ between takes', () => {
    for (const policy of ['one', 'subject', 'fresh'] as const) {
      const seeds = Array.from({ length: 12 }, (_, t) => seedFor(policy, 9, 's', 'c', t + 1));
      expect(new Set(seeds).size).toBe(12);
      for (const s of seeds) expect(Number.isInteger(s) && s >= 0 && s <= 0xffffffff).toBeTrue();
    }
  });
  it('never change: tickets of old runs are read by these numbers', () => {
    expect([
      seedFor('one', 1907, 'a', 'b', 1),
      seedFor('subject', 1907, 'a', 'b', 2),
      seedFor('fresh', 1907, 'a', 'b', 3),
    ]).toEqual([111373273, 881219581, 706141140]);
  });
});
describe('tickets', () => {
  it('have one canonical form, whatever the order of keys', () => {
    expect(canonicalJson({ b: 1, a: [2, { d: 3, c: 'é' }] })).toBe('{"a":[2,{"c":"é","d":3}],"b":1}');
    const [ticket] = withPlan({}).cells[0].tickets;
    const shuffled = Object.fromEntries(Object.entries(ticket).reverse()) as typeof ticket;
    expect(ticketHash(shuffled)).toBe(ticketHash(ticket));
    expect(ticketHash({ ...ticket, seed: ticket.seed + 1 })).not.toBe(ticketHash(ticket));
  });
});

describe('preflight', () => {
  const facts: PreflightFacts = {
    today: '2026-11-23',
    checks: Object.fromEntries(
      withPlan({}).cells.map(c => [
        c.key,
        { verdict: c.subjectId === 's3' ? ('notDrawn' as const) : ('drawable' as const), ignored: [] },
      ]),
    ),
    subjects: [
      { id: 's1', label: 'Radish', picture: null },
      { id: 's2', label: 'Crate', picture: { width: 800, height: 800 } },
      { id: 's3', label: 'Bicycle', picture: null },
    ],
    formats: library.formats,
    sources: [{ referenceId: 'r', name: 'Furrow', lookId: 'l1', width: 900, height: 900, licenceEnds: null }],
    templateFaults: [],
    overrides: [],
  };
  const find = (part: Partial<Plan>, change: Partial<PreflightFacts> = {}) =>
    preflight({ ...plan, ...part }, withPlan(part), { ...facts, ...change });
  const codes = (part: Partial<Plan>, change: Partial<PreflightFacts> = {}): string[] => find(part, change).map(f => f.code);

  it('stops what the press cannot draw, and counts what would fail', () => {
    const [first] = find({});
    expect(first).toEqual(jasmine.objectContaining({ code: 'notDrawn', severity: 'must' }));
    expect(first.message).toContain('Bicycle');
    expect(first.message).toContain('6 images');
    expect(first.mend?.action).toBe('strikeOut');
  });
  it('goes quiet once that is left out, but says that fewer subjects are made', () => {
    const struckOut = withPlan({})
      .cells.filter(c => c.subjectId === 's3')
      .map(c => c.key);
    expect(codes({ struckOut })).toEqual(['fewerCells']);
    expect(find({ struckOut })[0].message).toContain('2 of 3 subjects');
  });
  it('sees pictures and sources that are too small', () => {
    expect(codes({}, { subjects: [{ id: 's2', label: 'Crate', picture: { width: 300, height: 900 } }] })).toContain(
      'pictureTooSmall',
    );
    expect(codes({}, { sources: [{ ...facts.sources[0], width: 200 }] })).toContain('sourceTooSmall');
    expect(codes({}, { sources: [{ ...facts.sources[0], letters: 6 }] })).toContain('sourceLettering');
    expect(codes({}, { sources: [{ ...facts.sources[0], letters: 0 }] })).not.toContain('sourceLettering');
  });
  it('sees licences that ended or soon will, on the very day', () => {
    const ends = (licenceEnds: string) => find({}, { sources: [{ ...facts.sources[0], licenceEnds }] });
    expect(ends('2026-11-22').find(f => f.code === 'licenceEnded')?.severity).toBe('must');
    expect(ends('2026-11-23').map(f => f.code)).toContain('licenceEnds');
    expect(ends('2026-12-23').map(f => f.code)).toContain('licenceEnds');
    expect(ends('2026-12-24').map(f => f.code)).not.toContain('licenceEnds');
  });
  it('lets an ended licence be used when a reason was given for that very one', () => {
    const sources = [{ ...facts.sources[0], licenceEnds: '2026-11-01' }];
    const told = find({}, { sources, overrides: [{ referenceId: 'r', reason: 'the loan was renewed by word' }] });
    const finding = told.find(f => f.code === 'licenceOverridden')!;
    expect(finding.severity).toBe('note');
    expect(finding.message).toContain('the loan was renewed by word');
    expect(codes({}, { sources, overrides: [{ referenceId: 'other', reason: 'for another one' }] })).toContain('licenceEnded');
    expect(writtenDate('2026-12-05')).toBe('5 December 2026');
  });
  it('says so when the press is gone, instead of guessing', () => {
    expect(codes({}, { checks: null })).toContain('pressGone');
    expect(codes({}, { checks: null })).not.toContain('notDrawn');
  });
  it('puts what must be settled first', () => {
    const severities = find({}, { templateFaults: ['No subject.'], sources: [{ ...facts.sources[0], width: 100 }] }).map(
      f => f.severity,
    );
    expect(severities).toEqual([...severities].sort((p, q) => (p === q ? 0 : p === 'must' ? -1 : 1)));
  });
});
