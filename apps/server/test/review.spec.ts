import type { Comment, Problem, Proof, RunDetail, Verdict } from '@zinc/contract';
import { uuidv7 } from 'uuidv7';
import { startTestHouse, stock, untilRun, type Agent, type TestHouse } from './harness.ts';

describe('Review of a run', () => {
  let house: TestHouse;
  let runId: string;
  let proofs: string[];
  const detail = async (): Promise<RunDetail> =>
    (await house.agents.lead.get(`/api/runs/${runId}`).expect(200)).body as RunDetail;
  const proofIn = (d: RunDetail, id: string) => d.cells.flatMap(c => c.takes).find(t => t.proof?.id === id)!.proof!;
  const decide = (who: Agent, proofId: string, verdict: Verdict | null, status = 201) =>
    who.post('/api/decisions').send({ id: uuidv7(), proofId, verdict, grade: null, reasons: [], note: '' }).expect(status);
  const say = (who: Agent, body: object, status = 201) =>
    who
      .post('/api/comments')
      .send({ id: uuidv7(), proofId: proofs[0], words: 'The leaf is cut.', ...body })
      .expect(status);

  beforeAll(async () => {
    house = await startTestHouse();
    const s = await stock(house.agents.lead);
    runId = (
      (
        await house.agents.lead
          .post('/api/runs')
          .send({ ...s.plan, takes: 1 })
          .expect(201)
      ).body as { id: string }
    ).id;
    const done = await untilRun(house.agents.lead, runId, d => d.run.state === 'done');
    proofs = done.cells.flatMap(c => c.takes.flatMap(t => t.proof?.id ?? []));
  }, 90_000);
  afterAll(() => house.close());

  it('begins with the first decision, and tells what everyone says beside what stands', async () => {
    expect((await detail()).rounds).toEqual([]);
    await Promise.all([
      decide(house.agents.designer, proofs[0], 'keep'),
      decide(house.agents.reviewer, proofs[0], 'drop'),
      decide(house.agents.reviewer, proofs[1], 'keep'),
    ]);
    await decide(house.agents.lead, proofs[0], 'hold');
    const d = await detail();
    expect(d.rounds.map(r => [r.number, r.signedBy])).toEqual([[1, null]]);
    const { decision, voices } = proofIn(d, proofs[0]);
    expect(decision?.verdict).toBe('hold');
    expect(voices.map(v => [v.role, v.verdict] as string[]).sort()).toEqual([
      ['designer', 'keep'],
      ['lead', 'hold'],
      ['reviewer', 'drop'],
    ]);
  });

  it('is signed off by a lead alone, once; then nothing is decided until it is opened again with a reason', async () => {
    await house.agents.designer.post(`/api/runs/${runId}/sign-off`).expect(403);
    const answers = await Promise.all([0, 1].map(() => house.agents.lead.post(`/api/runs/${runId}/sign-off`)));
    expect(answers.map(a => a.status).sort()).toEqual([200, 409]);
    const signed = answers.find(a => a.status === 200)!;
    expect((signed.body as { message: string }).message).toBe('Round 1 is signed off, with one proof undecided.');
    const refused = (await decide(house.agents.designer, proofs[2], 'keep', 409)).body as Problem;
    expect(refused.detail).toContain('Round 1 of this run is signed off');
    await house.agents.lead.post(`/api/runs/${runId}/reopen`).send({ reason: ' ' }).expect(400);
    await house.agents.lead.post(`/api/runs/${runId}/reopen`).send({ reason: 'The client wants more red' }).expect(200);
    await house.agents.lead.post(`/api/runs/${runId}/reopen`).send({ reason: 'And again' }).expect(409);
    await decide(house.agents.designer, proofs[2], 'keep');
    const { rounds } = await detail();
    expect(rounds.map(r => [r.number, r.reason, r.signedAt !== null] as unknown[])).toEqual([
      [1, '', true],
      [2, 'The client wants more red', false],
    ]);
    expect(rounds[0].stood).toEqual({ [proofs[0]]: 'hold', [proofs[1]]: 'keep', [proofs[2]]: null });
  });

  it('takes comments pinned to a place, answers to them, and closes them', async () => {
    const first = (await say(house.agents.reviewer, { x: 0.25, y: 0.75 })).body as Comment;
    const answer = (await say(house.agents.designer, { answers: first.id, words: 'I will mend it.' })).body as Comment;
    await say(house.agents.reviewer, { answers: answer.id, words: 'Thank you.' });
    expect(proofIn(await detail(), proofs[0]).openComments).toBe(1);
    const { comments } = (await house.agents.lead.get(`/api/proofs/${proofs[0]}`).expect(200)).body as Proof;
    expect(comments.map(c => [c.words, c.answers, c.x] as unknown[])).toEqual([
      ['The leaf is cut.', null, 0.25],
      ['I will mend it.', first.id, null],
      ['Thank you.', first.id, null],
    ]);
    await house.agents.designer.put(`/api/comments/${first.id}/closed`).send({ closed: true }).expect(200);
    expect(proofIn(await detail(), proofs[0]).openComments).toBe(0);
    const late = (await say(house.agents.reviewer, { answers: first.id }, 409)).body as Problem;
    expect(late.detail).toContain('closed this');
    await house.agents.designer.put(`/api/comments/${answer.id}/closed`).send({ closed: true }).expect(400);
    await house.agents.lead.put(`/api/comments/${first.id}/closed`).send({ closed: false }).expect(200);
  });

  it('refuses comments that are too long, empty, off the picture, or of a proof that is not there; markup stays text', async () => {
    const at = async (body: object, status = 400): Promise<string | undefined> =>
      ((await say(house.agents.reviewer, body, status)).body as Problem).field;
    expect(await at({ words: '<b>x</b>'.repeat(2500) })).toBe('words');
    expect(await at({ words: '   ' })).toBe('words');
    expect(await at({ x: 1.2, y: 0.5 })).toBe('x');
    expect(await at({ x: 0.5 })).toBe('y');
    expect(await at({ answers: uuidv7() })).toBe('answers');
    expect(await at({ proofId: uuidv7() }, 404)).toBe('proofId');
    const marked = (await say(house.agents.reviewer, { words: '<img src=x onerror=alert(1)>' })).body as Comment;
    expect(marked.words).toBe('<img src=x onerror=alert(1)>');
    const id = uuidv7();
    await say(house.agents.reviewer, { id, words: 'Once.' });
    await say(house.agents.reviewer, { id, words: 'Once.' });
    const { comments } = (await house.agents.lead.get(`/api/proofs/${proofs[0]}`).expect(200)).body as Proof;
    expect(comments.filter(c => c.words === 'Once.').length).toBe(1);
  });
});
