import { decisionInputSchema, lookVersionInputSchema } from './api.ts';
import { planSchema } from './plan.ts';
import { isProblem, problem, PROBLEMS, type ProblemCode } from './problems.ts';

const ID = '01a20798-4ccd-7f37-a5b6-09b4b27239ff';
const SHA = 'a'.repeat(64);

/** The field a schema refuses, or "accepted". */
function refusedAt(schema: { validateSync(value: unknown): unknown }, value: unknown): string {
  try {
    schema.validateSync(value);
    return 'accepted';
  } catch (error) {
    return (error as { path?: string }).path ?? 'somewhere';
  }
}

describe('problems', () => {
  it('carry status and title of their code', () => {
    for (const code of Object.keys(PROBLEMS) as ProblemCode[]) {
      const p = problem(code, 'detail', { field: 'x' });
      expect(p.status).toBe(PROBLEMS[code].status);
      expect(p.type).toContain(code);
      expect(isProblem(p)).toBeTrue();
    }
    expect(isProblem({ message: 'no' })).toBeFalse();
  });
});

describe('look versions', () => {
  const source = { kind: 'reference', id: ID, name: 'Furrow', sha256: SHA, parts: 3, facets: ['line'] };
  const look = { sources: [source], strength: 64, words: [], avoid: [], note: '' };
  it('take what is right', () => expect(refusedAt(lookVersionInputSchema, look)).toBe('accepted'));
  it('refuse bad parts, strengths and facets at their field', () => {
    for (const parts of [-1, 1.5, 100, 'many', null])
      expect(refusedAt(lookVersionInputSchema, { ...look, sources: [{ ...source, parts }] })).toBe('sources[0].parts');
    for (const strength of [-1, 101, 3.3]) expect(refusedAt(lookVersionInputSchema, { ...look, strength })).toBe('strength');
    expect(refusedAt(lookVersionInputSchema, { ...look, sources: [] })).toBe('sources');
    expect(refusedAt(lookVersionInputSchema, { ...look, sources: [{ ...source, parts: 0 }] })).toBe('sources');
    expect(refusedAt(lookVersionInputSchema, { ...look, sources: [{ ...source, facets: ['smell'] }] })).toBe(
      'sources[0].facets[0]',
    );
  });
});

describe('plans', () => {
  const plan = {
    name: 'Run',
    subjectIds: [ID],
    lookIds: [ID],
    templateId: ID,
    fills: {},
    formatIds: [ID],
    takes: 3,
    seedPolicy: 'one',
    seed: 1,
    strength: null,
    pressId: ID,
    struckOut: [],
  };
  it('take what is right', () => expect(refusedAt(planSchema, plan)).toBe('accepted'));
  it('refuse at the field', () => {
    expect(refusedAt(planSchema, { ...plan, takes: 0 })).toBe('takes');
    expect(refusedAt(planSchema, { ...plan, takes: 100_000 })).toBe('takes');
    expect(refusedAt(planSchema, { ...plan, subjectIds: [] })).toBe('subjectIds');
    expect(refusedAt(planSchema, { ...plan, seed: -1 })).toBe('seed');
    expect(refusedAt(planSchema, { ...plan, seedPolicy: 'lucky' })).toBe('seedPolicy');
  });
});

describe('decisions', () => {
  const decision = { id: ID, proofId: ID, verdict: 'keep', grade: 7, reasons: [], note: '' };
  it('take verdicts, grades and reasons from their lists only', () => {
    expect(refusedAt(decisionInputSchema, decision)).toBe('accepted');
    expect(refusedAt(decisionInputSchema, { ...decision, verdict: null })).toBe('accepted');
    expect(refusedAt(decisionInputSchema, { ...decision, verdict: 'maybe' })).toBe('verdict');
    expect(refusedAt(decisionInputSchema, { ...decision, grade: 10 })).toBe('grade');
    expect(refusedAt(decisionInputSchema, { ...decision, reasons: ['ugly'] })).toBe('reasons[0]');
  });
});
