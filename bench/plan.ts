import { expandPlan, neutralStyle, preflight, ticketHash, type Plan, type PlanLibrary, type PreflightFacts } from '@zinc/core';
import { line, medianOf } from './kit.ts';

const SUBJECTS = 500;
const VALUES = [10, 30, 50, 70];
/** A batch holds at most 2 000 cells; a plan of more is made as several. */
const BATCHES = 5;

/** Plans of 10 000 cells, as many as may be in each of their batches: expanded, checked and hashed, against writing its tickets out as JSON. */
export async function benchPlan(): Promise<void> {
  const subjects = Array.from({ length: SUBJECTS }, (_, i) => ({
    id: `subject-${i}`,
    label: `Subject ${i}`,
    wording: `a thing of kind ${i}`,
    avoid: ['hands'],
    pictureSha: null,
  }));
  const library: PlanLibrary = {
    subjects,
    looks: [{ id: 'look', name: 'Look', version: 1, strength: 70, words: ['flat'], avoid: ['shadow'], style: neutralStyle() }],
    template: {
      id: 't',
      version: 1,
      text: 'A {{subject}}, whole, {{place}}',
      avoid: [],
      slots: [{ name: 'place', kind: 'text', default: 'on a table' }],
    },
    formats: [{ id: 'f', name: 'Square', width: 768, height: 768 }],
    brand: { avoid: ['violet'], never: [] },
    press: { id: 'p', name: 'Press', version: '1', model: 'one' },
  };
  const plan: Plan = {
    subjectIds: subjects.map(s => s.id),
    lookIds: ['look'],
    templateId: 't',
    fills: {},
    formatIds: ['f'],
    takes: 1,
    seedPolicy: 'fresh',
    seed: 1,
    strength: null,
    axes: [{ setting: 'strength', values: VALUES }],
    pressId: 'p',
    struckOut: [],
  };
  const facts: PreflightFacts = {
    today: '2026-11-25',
    checks: {},
    subjects: subjects.map(s => ({ id: s.id, label: s.label, picture: null })),
    formats: library.formats,
    sources: [],
    templateFaults: [],
    overrides: [],
  };
  const plans = Array.from({ length: BATCHES }, (_, i): Plan => ({ ...plan, seed: i + 1 }));
  const expanded = plans.map(p => expandPlan(p, library));
  const tickets = expanded.flatMap(e => e.cells.flatMap(c => c.tickets));
  const writing = await medianOf(5, () => tickets.map(t => JSON.stringify(t)).length);
  const cells = tickets.length;
  console.log(`\nBaseline: ${cells} tickets written out as JSON, ${writing.toFixed(0)} ms\n`);
  const expanding = await medianOf(5, () => plans.map(p => expandPlan(p, library)));
  line(`expand plans of ${cells} cells`, expanding / writing, `${expanding.toFixed(0)} ms`);
  const checking = await medianOf(5, () => plans.map((p, i) => preflight(p, expanded[i], facts)));
  line('preflight of them', checking / writing, `${checking.toFixed(0)} ms`);
  const hashing = await medianOf(3, () => tickets.map(ticketHash).length);
  line('hash their tickets', hashing / writing, `${hashing.toFixed(0)} ms`);
}
