import { labOfHex } from '../colour/oklab.ts';
import { neutralStyle } from '../mix/style.ts';
import { choicesOf, facetsOf, labelOf, styleKey, valueLabel } from './axes.ts';
import { planDifferences, type PlanNames } from './differences.ts';
import { cellKey, expandPlan } from './expand.ts';
import { preflight, type Finding, type PreflightFacts } from './preflight.ts';
import { NO_LOOK, PlanError, type Plan, type PlanLibrary } from './types.ts';

const library: PlanLibrary = {
  subjects: [
    { id: 's1', label: 'Radish', wording: 'radish', avoid: [], pictureSha: null },
    { id: 's2', label: 'Crate', wording: 'crate', avoid: ['violet'], pictureSha: 'f'.repeat(64), colours: ['#2b5fc0'] },
  ],
  looks: [
    {
      id: 'l1',
      name: 'Block',
      version: 2,
      strength: 64,
      words: [],
      avoid: [],
      style: { ...neutralStyle(), palette: ['#23262b', '#f3eee2', '#8e2a4b'].map(c => ({ ...labOfHex(c), share: 1 / 3 })) },
    },
  ],
  sourceNames: { r1: 'Furrow' },
  template: {
    id: 't',
    version: 1,
    text: '{{subject}} {{place}}',
    avoid: ['shadow'],
    slots: [
      { name: 'place', kind: 'text', default: 'on a table' },
      { name: 'number', kind: 'number', default: '3' },
    ],
  },
  formats: [
    { id: 'f', name: 'Square', width: 768, height: 768 },
    { id: 'g', name: 'Banner', width: 1024, height: 512 },
  ],
  brand: { avoid: [], never: [{ hex: '#6a3fb5', radius: 0.09 }] },
  press: { id: 'p', name: 'House press', version: '1', model: 'drawn' },
  pressSettings: [{ key: 'scatter', label: 'Scatter', type: 'percent', default: 100, from: 0, to: 100 }],
};
const plan: Plan = {
  subjectIds: ['s1', 's2'],
  lookIds: ['l1'],
  templateId: 't',
  fills: {},
  formatIds: ['f'],
  takes: 1,
  seedPolicy: 'fresh',
  seed: 3,
  strength: null,
  pressId: 'p',
  struckOut: [],
};
const expand = (part: Partial<Plan>, lib: Partial<PlanLibrary> = {}) => expandPlan({ ...plan, ...part }, { ...library, ...lib });
const refusal = (part: Partial<Plan>): string => {
  try {
    expand(part);
    return 'accepted';
  } catch (error) {
    return error instanceof PlanError ? `${error.field}: ${error.message}` : String(error);
  }
};

describe('stepping a plan', () => {
  it('makes every combination, in one order, each with its key, and the same seeds', () => {
    const axes = [
      { setting: 'strength', values: [20, 80] },
      { setting: 'press:scatter', values: [0, 100] },
    ];
    const { cells, images } = expand({ axes, alternatives: { place: ['on a table', 'by a window'] } });
    expect(images).toBe(16);
    expect(new Set(cells.map(c => c.key)).size).toBe(16);
    expect(cells.slice(0, 4).map(c => c.values.map(v => v.value).join(' | '))).toEqual([
      'on a table | 20 % | 0 %',
      'on a table | 20 % | 100 %',
      'on a table | 80 % | 0 %',
      'on a table | 80 % | 100 %',
    ]);
    expect(new Set(cells.filter(c => c.subjectId === 's1').map(c => c.tickets[0].seed)).size).toBe(1);
    expect(cells[2].tickets[0].settings).toEqual({ strength: 80, scatter: 0 });
    expect(choicesOf([]).length).toBe(1);
  });
  it('gives a plan without steps the keys and seeds it always had', () => {
    const [cell] = expand({}).cells;
    expect(cell.key).toBe('s1/l1/f');
    expect(cell.key).toBe(cellKey('s1', 'l1', 'f'));
    expect(cell.tickets[0].settings).toEqual({ strength: 64, scatter: 100 });
  });
  it('takes the style of a stepped look, and says which version it is', () => {
    const style = { ...neutralStyle(), palette: [] };
    const axes = [{ setting: 'parts:r1', values: [0, 3] }];
    const key = styleKey('l1', new Map([['parts:r1', 3]]));
    const { cells } = expand({ axes }, { styles: { [key]: { style, version: 5 } } });
    expect(cells.map(c => c.tickets[0].look.version)).toEqual([2, 5, 2, 5]);
    expect(cells[0].values[0].what).toBe('Parts of Furrow');
  });
  it('refuses what cannot be stepped, at the field, with what was got and wanted', () => {
    const step = (setting: string, ...values: (string | number)[]): string => refusal({ axes: [{ setting, values }] });
    expect(step('strength', 120)).toBe('axes: Strength is 120; wanted a whole number from 0 to 100.');
    expect(step('strength')).toContain('has no values');
    expect(step('strength', 5, 5)).toContain('a value twice');
    expect(step('facets', 'smell')).toContain('names no facets');
    expect(step('press:gloss', 1)).toContain('no setting “gloss”');
    expect(refusal({ alternatives: { number: ['three'] } })).toContain('wanted a number');
    expect(refusal({ axes: ['strength', 'bind', 'fidelity'].map(setting => ({ setting, values: [1] })) })).toContain(
      'at most two',
    );
    expect(refusal({ takes: 12, axes: [{ setting: 'strength', values: Array.from({ length: 100 }, (_, i) => i) }] })).toContain(
      'at most 24',
    );
    expect(facetsOf('line+texture')).toEqual(['line', 'texture']);
    expect(facetsOf('')).toBeNull();
  });
  it('binds cells as strongly as they are stepped to be, and rows to an anchor of their own', () => {
    const binding = { amount: 60, share: ['palette' as const], anchor: null };
    expect(expand({ binding }).cells[0].bind).toEqual({ amount: 60, anchor: null });
    expect(expand({}).cells[0].bind).toBeNull();
    const { cells } = expand({ binding, rows: { s2: { anchor: 'proof' } }, axes: [{ setting: 'bind', values: [0, 100] }] });
    expect(cells.map(c => c.bind)).toEqual([null, { amount: 100, anchor: null }, null, { amount: 100, anchor: 'proof' }]);
  });
  it('puts a subject’s own colours, areas left clear, fidelity and colours to avoid on the ticket', () => {
    const [, cell] = expand({ clear: [{ x: 0, y: 0, width: 1, height: 0.2 }], fidelity: { subject: 80, ground: 20 } }).cells;
    const [ticket] = cell.tickets;
    expect(ticket.subject.colours).toEqual(['#2b5fc0']);
    expect(ticket.format.clear?.length).toBe(1);
    expect(ticket.fidelity).toEqual({ subject: 80, ground: 20 });
    expect(ticket.never.length).toBe(5);
  });
  it('makes a run without look or template', () => {
    const [cell] = expand({ lookIds: [NO_LOOK], templateId: null }, { template: null }).cells;
    expect(cell.text).toBe('radish');
    expect(cell.tickets[0].settings.strength).toBe(0);
  });
  it('steps through presses and models, each ticket naming its own', () => {
    const press = { ...library.press, id: 'p', name: 'House press', model: 'one', models: ['one', 'two'] };
    const other = { id: 'q', name: 'Back room', version: '2', model: 'fine', models: ['fine'] };
    const presses = { press, presses: [press, other] };
    const named = (axes: Plan['axes']) =>
      expand({ axes, subjectIds: ['s1'] }, presses).cells.map(c => [c.tickets[0].press.name, c.tickets[0].press.model]);
    expect(named([{ setting: 'press', values: ['p', 'q'] }])).toEqual([
      ['House press', 'one'],
      ['Back room', 'fine'],
    ]);
    expect(named([{ setting: 'model', values: ['two', 'one'] }])).toEqual([
      ['House press', 'two'],
      ['House press', 'one'],
    ]);
    expect(() => named([{ setting: 'press', values: ['r'] }])).toThrowError(PlanError, /no press “r”/);
    expect(() => named([{ setting: 'model', values: ['three'] }])).toThrowError(PlanError, /it has one, two/);
    const [cell] = expand({ axes: [{ setting: 'press', values: ['p', 'q'] }], subjectIds: ['s1'] }, presses).cells;
    expect(cell.values).toEqual([{ setting: 'press', what: 'Press', value: 'House press' }]);
    expect('models' in cell.tickets[0].press).toBeFalse();
  });
  it('says what is said of the anchor with every bound image, and with no free one', () => {
    const binding = { amount: 60, share: ['light' as const], anchor: null, words: 'in morning light' };
    const [bound] = expand({ binding, note: 'small' }).cells;
    expect(bound.parts.slice(-2)).toEqual([
      { from: 'anchor', words: ', in morning light' },
      { from: 'override', words: ', small' },
    ]);
    const cells = expand({ binding, axes: [{ setting: 'bind', values: [0, 60] }], subjectIds: ['s1'] }).cells;
    expect(cells.map(c => c.text.includes('morning'))).toEqual([false, true]);
  });
  it('calls settings and values what people call them', () => {
    expect(labelOf('press:scatter', library)).toBe('Scatter');
    expect(valueLabel('facets', 'colour+light+line+texture', library)).toBe('all facets');
    expect(valueLabel('parts:r1', 1, library)).toBe('1 part');
  });
});

describe('two plans', () => {
  const names: PlanNames = {
    subjects: { s1: 'Radish', s2: 'Crate' },
    looks: { l1: 'Block' },
    templates: { t: 'Plain' },
    formats: { f: 'Square', g: 'Banner' },
    presses: { p: 'House press' },
    pressSettings: library.pressSettings,
  };
  const differ = (part: Partial<Plan>): string[] => planDifferences(plan, { ...plan, ...part }, names);
  it('that are the same differ in nothing', () => {
    expect(differ({})).toEqual([]);
    expect(differ({ alternatives: {}, rows: {}, settings: {}, axes: [], note: '' })).toEqual([]);
  });
  it('say in words what differs', () => {
    expect(differ({ strength: 40 })).toEqual(['Strength: 40 %, was the look’s own']);
    expect(differ({ subjectIds: ['s1'] })).toEqual(['Subjects: without Crate']);
    expect(differ({ lookIds: [NO_LOOK], formatIds: ['f', 'g'] })).toEqual([
      'Looks: no look in place of Block',
      'Formats: Banner too',
    ]);
    expect(differ({ pressId: 'q' })).toEqual(['Press: another, was House press']);
    expect(differ({ settings: { scatter: 20 } })).toEqual(['Scatter: 20 %, was the press’s own']);
    expect(differ({ axes: [{ setting: 'strength', values: [20, 40] }] })).toEqual([
      'Stepped: Strength at 20 %, 40 %, was nothing',
    ]);
  });
});

describe('preflight of words and settings', () => {
  const facts: PreflightFacts = {
    today: '2026-11-23',
    checks: null,
    subjects: [
      { id: 's1', label: 'Radish', picture: null, unclear: { word: 'mint', senses: ['a herb', 'a works'] } },
      { id: 's2', label: 'Crate', picture: { width: 900, height: 300 }, palette: [labOfHex('#2b5fc0')] },
    ],
    formats: library.formats,
    sources: [],
    templateFaults: [],
    overrides: [],
  };
  const found = (part: Partial<Plan>, change: Partial<PreflightFacts> = {}): Finding[] =>
    preflight({ ...plan, ...part }, expand(part), { ...facts, ...change });
  const one = (code: Finding['code'], part: Partial<Plan>, change: Partial<PreflightFacts> = {}): Finding | undefined =>
    found(part, change).find(f => f.code === code);

  it('tells a word with several meanings, of a subject that has no picture', () => {
    expect(one('twoMeanings', {})?.mend?.subjectId).toBe('s1');
    expect(one('twoMeanings', { subjectIds: ['s2'] })).toBeUndefined();
  });
  it('tells what is said and to be avoided at once, and where it stands', () => {
    expect(one('contradiction', { note: 'a long shadow' })?.message).toContain(
      '“shadow” is to be avoided, and stands in the note',
    );
    expect(one('contradiction', { note: 'foreshadowed' })).toBeUndefined();
  });
  it('tells words that are said twice and words that sources carry, with the words themselves', () => {
    const twice = one('saidTwice', { note: 'on a wooden table' });
    expect(twice?.words).toEqual(['table']);
    expect(twice?.message).toContain('in the template and the note or a fill');
    const looks = [{ id: 'l1', name: 'Block', sources: 1, coloursFromReferences: false, carried: ['bold'] }];
    expect(one('alreadyCarried', {}, { looks })?.words).toEqual(['bold']);
    expect(one('alreadyCarried', {}, { looks: [{ ...looks[0], carried: [] }] })).toBeUndefined();
  });
  it('tells a colour word that the palette has nothing for', () => {
    expect(one('colourNotThere', { note: 'in bright green' })?.message).toContain('“green”');
    expect(one('colourNotThere', { note: 'black ink' })).toBeUndefined();
  });
  it('tells when references would colour a subject whose own colours are far from theirs', () => {
    const looks = [{ id: 'l1', name: 'Block', sources: 2, coloursFromReferences: true }];
    expect(one('leakRisk', {}, { looks })?.message).toContain('Crate');
    expect(one('leakRisk', {}, { looks: [{ ...looks[0], coloursFromReferences: false }] })).toBeUndefined();
  });
  it('tells a strength outside what was found good, with the nearest that is, but not on a ladder', () => {
    const ranges = [{ lookId: 'l1', setting: 'strength', from: 70, to: 90, goodFor: 'roots' }];
    expect(one('outsideRange', {}, { ranges })?.mend).toEqual(jasmine.objectContaining({ setting: 'strength', value: 70 }));
    expect(one('outsideRange', { strength: 80 }, { ranges })).toBeUndefined();
    const bind = [{ lookId: 'l1', setting: 'bind', from: 40, to: 70, goodFor: 'all subjects' }];
    const loose = one('outsideRange', {}, { ranges: bind });
    expect(loose?.message).toContain('with bind at 0 % lies outside the 40 % to 70 %');
    expect(loose?.mend).toEqual({ action: 'setValue', label: 'Set it to 40 %', setting: 'bind', value: 40 });
    const tight = { binding: { amount: 55, share: ['light' as const], anchor: null } };
    expect(one('outsideRange', tight, { ranges: bind })).toBeUndefined();
    const tagged = [{ ...ranges[0], goodFor: 'roots' }];
    const subjects = [
      { id: 's1', label: 'Radish', picture: null, tags: ['roots'] },
      { id: 's2', label: 'Crate', picture: null, tags: [] },
    ];
    expect(one('outsideRange', {}, { ranges: tagged, subjects })?.cells.every(k => k.startsWith('s1/'))).toBeTrue();
    expect(one('outsideRange', { axes: [{ setting: 'strength', values: [10] }] }, { ranges })).toBeUndefined();
  });
  it('tells a format of another shape than the picture, and one that fits better', () => {
    expect(one('formatFar', {})?.mend?.formatId).toBe('g');
    expect(one('formatFar', { formatIds: ['g'] })).toBeUndefined();
  });
  it('stops more images than the budget or the room allow, and looks with more sources than the press takes', () => {
    expect(one('overBudget', {}, { budgets: [{ of: 'Ines', left: 1 }] })?.severity).toBe('must');
    expect(one('overBudget', {}, { budgets: [{ of: 'Ines', left: 2 }] })).toBeUndefined();
    expect(one('noRoom', {}, { room: { needed: 2e9, free: 1e6 } })?.message).toContain('2.0 GB');
    const looks = [{ id: 'l1', name: 'Block', sources: 5, coloursFromReferences: false }];
    expect(one('tooManySources', {}, { looks, mostSources: 4 })?.severity).toBe('must');
  });
  it('tells settings that the press would pass over', () => {
    const checks = { 's1/l1/f': { verdict: 'drawable' as const, ignoredSettings: ['gloss'] } };
    expect(one('settingUnknown', {}, { checks })?.mend?.setting).toBe('gloss');
  });
});
