import { TestBed } from '@angular/core/testing';
import { provideState, provideStore, Store } from '@ngrx/store';
import { planSchema, type House, type Look, type PlanInput, type Subject, type Template } from '@zinc/contract';
import { NO_LOOK, seedFor, type Ticket } from '@zinc/core';
import { looks } from '../mix/looks.store';
import { sessionActions, sessionFeature } from '../shared/session.store';
import { subjects, templates } from '../wording/wording.store';
import { PlanDraft } from './plan-draft';

const uuid = (n: number): string => `01a20798-4ccd-7f37-a5b6-0000000000${String(n).padStart(2, '0')}`;

const SUBJECTS = ['Radish', 'Crate'].map(
  (label, i) =>
    ({ id: uuid(i + 1), label, wording: label.toLowerCase(), avoid: [], picture: null, revision: 1 }) as unknown as Subject,
);
const LOOK = {
  id: uuid(10),
  name: 'Block',
  latest: { version: 2, strength: 64, sources: [{ id: 'r1', name: 'Furrow' }] },
} as unknown as Look;
const TEMPLATE = {
  id: uuid(20),
  name: 'Plain',
  text: 'A {{subject}} {{place}}',
  slots: [{ name: 'place', kind: 'text', choices: [], default: 'on a table' }],
} as unknown as Template;
const HOUSE = {
  name: 'House',
  campaigns: [],
  people: [],
  brand: null,
  formats: [
    { id: uuid(30), name: 'Square', width: 512, height: 512 },
    { id: uuid(31), name: 'Banner', width: 1024, height: 512 },
  ],
  presses: [{ id: uuid(40), name: 'Press', capabilities: { settings: [{ key: 'scatter', label: 'Scatter', type: 'percent' }] } }],
} as unknown as House;

describe('a plan being written', () => {
  let draft: PlanDraft;
  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [
        provideStore(),
        provideState(subjects.feature),
        provideState(looks.feature),
        provideState(templates.feature),
        provideState(sessionFeature),
        PlanDraft,
      ],
    });
    const store = TestBed.inject(Store);
    store.dispatch(subjects.actions.loaded({ items: SUBJECTS }));
    store.dispatch(looks.actions.loaded({ items: [LOOK] }));
    store.dispatch(templates.actions.loaded({ items: [TEMPLATE] }));
    store.dispatch(sessionActions.houseLoaded({ house: HOUSE }));
    draft = TestBed.inject(PlanDraft);
    draft.name.set('Run');
    draft.subjectIds.set(SUBJECTS.map(s => s.id));
    draft.lookIds.set([LOOK.id]);
    draft.templateId.set(TEMPLATE.id);
    draft.formatIds.set([uuid(30)]);
    draft.seed.set('5');
  });

  it('comes to a plan that the server takes', async () => {
    const plan = await planSchema.validate(draft.plan());
    expect(plan.takes).toBe(3);
    expect(plan.binding).toBeUndefined();
    expect(plan.strength).toBeNull();
  });

  it('has a column for every look, value and format, with what tells them apart', () => {
    draft.lookIds.set([LOOK.id, NO_LOOK]);
    draft.alternatives.set({ place: ['on a table', 'by a window'] });
    draft.axes.set([{ setting: 'press:scatter', values: [0, 100] }]);
    expect(draft.columns().length).toBe(8);
    expect(draft.columns()[0].detail).toBe('64 %, on a table, 0 %');
    expect(draft.columns()[7].name).toBe('No look');
    expect(new Set(draft.columns().map(c => draft.keyOf(SUBJECTS[0].id, c))).size).toBe(8);
  });

  it('makes a row with a format of its own once, and forgets what is emptied again', () => {
    draft.formatIds.set([uuid(30), uuid(31)]);
    const [one, two] = SUBJECTS;
    draft.changeRow(one.id, { formatId: uuid(31), note: 'close by' });
    expect(draft.columns().map(c => draft.isMade(one.id, c))).toEqual([true, false]);
    expect(draft.columns().map(c => draft.isMade(two.id, c))).toEqual([true, true]);
    draft.changeRow(one.id, { formatId: '', note: '' });
    expect(draft.rows()).toEqual({});
  });

  it('takes up an earlier plan, and leaves out what is gone', () => {
    draft.bind.set('60');
    draft.fidelity.set({ subject: '80', ground: '' });
    draft.note.set('at dusk');
    draft.settings.set({ scatter: 20 });
    draft.axes.set([{ setting: 'strength', values: [20, 80] }]);
    const plan = draft.plan();
    const old: PlanInput = { ...plan, subjectIds: [...plan.subjectIds, uuid(99)] };
    draft.bind.set('0');
    draft.note.set('');
    draft.axes.set([]);
    draft.takeUp(old);
    expect(draft.plan()).toEqual(plan);
  });

  it('takes up a recipe as far as the house has what it names, to the very seed, and says what is missing', () => {
    const [subject] = SUBJECTS;
    const [look] = draft.allLooks();
    const ticket = {
      subject: { id: uuid(90), label: 'Another label', wording: subject.wording },
      look: { id: uuid(91), name: look.name },
      format: { width: 333, height: 77 },
      contents: [],
      seed: 1521331310,
      settings: { strength: 64, unheardOf: 3 },
    } as unknown as Ticket;
    draft.bind.set('70');
    draft.anchor.set(uuid(93));
    draft.axes.set([{ setting: 'strength', values: [20, 60] }]);
    expect(draft.takeRecipe(ticket)).toEqual(['a format of 333 × 77']);
    const plan = draft.plan();
    // What lay in the plan before is no part of the recipe.
    expect([plan.binding, plan.axes]).toEqual([undefined, []] as never);
    expect([plan.subjectIds, plan.lookIds, plan.strength, plan.takes]).toEqual([[subject.id], [look.id], 64, 1]);
    expect(plan.settings).toEqual({});
    expect(seedFor(plan.seedPolicy, plan.seed, subject.id, 'cell', 1)).toBe(ticket.seed);
    const other = { ...ticket, subject: { ...ticket.subject, wording: 'a tandem' }, look: { id: uuid(92), name: 'Elsewhere' } };
    expect(draft.takeRecipe(other as Ticket).slice(0, 2)).toEqual(['the subject “a tandem”', 'the look “Elsewhere”']);
  });

  it('strikes a cell out and takes it back in', () => {
    const key = draft.keyOf(SUBJECTS[0].id, draft.columns()[0]);
    draft.strike(key);
    expect(draft.plan().struckOut).toEqual([key]);
    draft.strike(key);
    expect(draft.plan().struckOut).toEqual([]);
  });
});
