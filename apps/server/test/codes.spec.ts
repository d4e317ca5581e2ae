import type {
  CodeInput,
  ImportPlan,
  ImportPreview,
  ImportResult,
  NearCode,
  Problem,
  Reference,
  StyleCode,
  UndoResult,
} from '@zinc/contract';
import { drift, fingerprintOfCode, nearCodes, randomCode, styleOfCode, type Fingerprint } from '@zinc/core';
import { randomFor } from '@zinc/core/number/random';
import { parse } from 'csv-parse/sync';
import { fingerprintOf, pictureFile, startTestHouse, type TestHouse } from './harness.ts';

const random = randomFor(7, 'codes of the test');
const [first, second, third] = [1, 2, 3].map(() => randomCode(random));
const PLAN: ImportPlan = { columns: { text: 0, grade: 1, note: 2, tags: 3, press: 4 }, scale: '0–9', duplicates: 'leave' };

describe('style codes', () => {
  let house: TestHouse;
  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 90_000;
    house = await startTestHouse();
  });
  afterAll(() => house.close());

  const keep = (input: Partial<CodeInput>) => house.agents.designer.post('/api/codes').send(input);
  const all = async (): Promise<StyleCode[]> =>
    ((await house.agents.lead.get('/api/codes').expect(200)).body as { items: StyleCode[] }).items;
  const bring = (csv: string | Buffer, plan: Partial<ImportPlan> = {}) =>
    house.agents.lead
      .post('/api/codes/imports')
      .field('plan', JSON.stringify({ ...PLAN, ...plan }))
      .attach('file', Buffer.from(csv), 'years.csv');

  it('are kept in one way of writing, once, with what people say about them', async () => {
    const { body } = (await keep({
      text: first.toUpperCase().replaceAll('-', ' '),
      grade: 7,
      tags: ['winter'],
      note: 'good for roots',
    }).expect(201)) as { body: StyleCode };
    expect([body.text, body.kind, body.grade, body.shelf]).toEqual([first, 'own', 7, 'Just arrived']);
    const again = (await keep({ text: first }).expect(409)).body as Problem;
    expect(again.detail).toContain('on the shelf already');
    const foreign = (await keep({ text: 'tl/5x/881', press: 'Tallow press' }).expect(201)).body as StyleCode;
    expect([foreign.kind, foreign.press]).toEqual(['foreign', 'Tallow press']);
  });
  it('that are written wrong are refused, with what may have been meant', async () => {
    const [a, b, c, n] = second.split('-');
    const { body } = (await keep({ text: [b, a, c, n].join('-') }).expect(400)) as { body: Problem };
    expect(body.field).toBe('text');
    expect(body.findings).toContain(second);
    expect(body.detail).toContain(second);
  });
  it('change under a revision, so that nobody overwrites another', async () => {
    const code = (await keep({ text: second }).expect(201)).body as StyleCode;
    const patch = (agent: 'lead' | 'designer', body: object) =>
      house.agents[agent].patch(`/api/codes/${code.id}`).set('if-match', `"${code.revision}"`).send(body);
    await patch('lead', { grade: 9 }).expect(200);
    await patch('designer', { grade: 1 }).expect(412);
    await house.agents.lead.patch(`/api/codes/${code.id}`).set('if-match', '"2"').send({ grade: 10 }).expect(400);
    expect((await all()).find(c => c.id === code.id)?.grade).toBe(9);
  });
  it('are measured in the background, and sorted by their distance from a picture', async () => {
    const reference = (
      await house.agents.lead
        .post('/api/references')
        .attach('file', await pictureFile(3), 'near.png')
        .expect(201)
    ).body as Reference;
    const asked = { sha256: reference.picture.sha256, kind: 'code', facets: ['colour', 'light', 'line', 'texture'] };
    let items: { id: string; distance: number }[] = [];
    for (let tries = 0; items.length < 2 && tries < 100; tries++) {
      await new Promise(r => setTimeout(r, 200));
      items = ((await house.agents.reviewer.post('/api/shelf/like').send(asked).expect(200)).body as { items: typeof items })
        .items;
    }
    const codes = await all();
    const textOf = (id: string): string => codes.find(c => c.id === id)!.text;
    expect(items.map(i => textOf(i.id)).sort()).toEqual([first, second].sort());
    expect(items[0].distance).toBeLessThanOrEqual(items[1].distance);
    const measured = await fingerprintOf(house.agents.lead, reference.picture.sha256);
    expect(items[0].distance).toBeCloseTo(drift(fingerprintOfCode(textOf(items[0].id)), measured).total, 6);
    const nearest = (await house.agents.lead.post('/api/codes/nearest').send({ sha256: reference.picture.sha256 }).expect(200))
      .body as NearCode;
    expect(nearest.distance).toBeLessThan(items[0].distance);
    expect(drift(fingerprintOfCode(nearest.text), measured).total).toBeCloseTo(nearest.distance, 6);
  });
  it('mix into looks as what they carry in themselves, whether they are on the shelf or not', async () => {
    const unseen = nearCodes(third)[0];
    const source = (id: string) => ({
      kind: 'ownCode',
      id,
      name: 'told',
      sha256: null,
      parts: 2,
      facets: ['colour', 'light', 'line', 'texture'],
    });
    const look = (name: string, id: string, words: string[] = []) =>
      house.agents.lead.post('/api/looks').send({ name, sources: [source(id)], strength: 80, words, avoid: [], note: '' });
    const { body } = await look('From a code', unseen).expect(201);
    const style = (body as { latest: { style: { amounts: Record<string, number> } } }).latest.style;
    for (const [k, v] of Object.entries(styleOfCode(unseen).amounts)) expect(style.amounts[k]).withContext(k).toBeCloseTo(v, 9);
    const target = (body as { latest: { target: Fingerprint } }).latest.target;
    expect(drift(target, fingerprintOfCode(unseen)).total).toBeLessThan(0.1);
    await look('From nothing', 'no such code').expect(400);
    const worded = await look('With words', unseen, ['black and white']).expect(201);
    const palette = (worded.body as { latest: { style: { palette: { a: number; b: number }[] } } }).latest.style.palette;
    for (const c of palette) expect(Math.hypot(c.a, c.b)).toBeCloseTo(0, 6);
  });

  describe('from a spreadsheet', () => {
    it('are shown before they come in', async () => {
      const { body } = (await house.agents.lead
        .post('/api/codes/imports/preview')
        .attach('file', Buffer.from(`Stars;Style code;Good for\n5;${third};posters\n`), 'old.csv')
        .expect(200)) as { body: ImportPreview };
      expect(body.plan.columns).toEqual({ grade: 0, text: 1, note: 2 });
      expect([body.count, body.rows[0][1]]).toEqual([1, third]);
      expect((await all()).some(c => c.text === third)).toBeFalse();
    });
    it('come in by the thousand; every row that is refused says why', async () => {
      const many = Array.from({ length: 1500 }, () => randomCode(random));
      const [a, b, c, n] = third.split('-');
      const csv = [
        'code,grade,note,tags,press',
        ...many.map((text, i) => `${text},${i % 10},"note ${i}, with a comma",roots; winter,`),
        `${[b, a, c, n].join('-')},3,,,`,
        `${third},12,,,`,
        ',4,,,',
        `${first},4,,,`,
        'tl/9z/1,4,,,Tallow press',
      ].join('\n');
      const { body } = (await bring(csv).expect(201)) as { body: ImportResult };
      expect([body.added, body.merged, body.left]).toEqual([1501, 0, 1]);
      expect(body.refused.map(r => r.line)).toEqual([1502, 1503, 1504]);
      expect(body.refused[0].reason).toContain(third);
      expect(body.refused[1].reason).toContain('“12” is not a grade from 0 to 9');
      expect(body.refused[2].reason).toContain('no code');
      const one = (await all()).find(x => x.text === many[3])!;
      expect([one.grade, one.note, one.tags]).toEqual([3, 'note 3, with a comma', ['roots', 'winter']]);
      const undone = (await house.agents.lead.delete(`/api/codes/imports/${body.id}`).expect(200)).body as UndoResult;
      expect(undone).toEqual({ removed: 1501, restored: 0, kept: 0 });
      await house.agents.lead.delete(`/api/codes/imports/${body.id}`).expect(404);
    });
    it('merge with what is on the shelf, and are taken back without harm to what was changed since', async () => {
      const before = (await all()).find(c => c.text === first)!;
      const fresh = [randomCode(random), randomCode(random)];
      const csv = `code,grade,note,tags,press\n${first},2,and for labels,loud,\n${fresh[0]},5,,,\n${fresh[1]},5,,,\n${fresh[1]},8,twice,,\n`;
      const { body } = (await bring(csv, { duplicates: 'merge' }).expect(201)) as { body: ImportResult };
      expect([body.added, body.merged, body.refused.length]).toEqual([2, 1, 0]);
      const merged = (await all()).find(c => c.text === first)!;
      expect([merged.grade, merged.note, merged.tags]).toEqual([2, 'good for roots\nand for labels', ['winter', 'loud']]);
      const kept = (await all()).find(c => c.text === fresh[1])!;
      expect([kept.grade, kept.note]).toEqual([8, 'twice']);
      await house.agents.designer.patch(`/api/codes/${kept.id}`).set('if-match', '"1"').send({ grade: 9 }).expect(200);
      const undone = (await house.agents.lead.delete(`/api/codes/imports/${body.id}`).expect(200)).body as UndoResult;
      expect(undone).toEqual({ removed: 1, restored: 1, kept: 1 });
      const after = (await all()).find(c => c.text === first)!;
      expect([after.grade, after.note, after.tags]).toEqual([before.grade, before.note, before.tags]);
      expect((await all()).find(c => c.text === fresh[1])?.grade).toBe(9);
    });
    it('go out and come back in without loss, formulas and quotes included', async () => {
      const told = (
        await keep({ text: third, name: '=SUM(A1)', note: '\'twas "good",\nand more; much', tags: ['a b'] }).expect(201)
      ).body as StyleCode;
      const csv = (await house.agents.lead.get('/api/codes/export.csv').expect(200)).text;
      const rows: string[][] = parse(csv, { bom: true });
      expect(rows.flat().some(cell => /^[=+\-@]/.test(cell))).toBeFalse();
      const before = await all();
      for (const c of before)
        await house.agents.lead
          .patch(`/api/codes/${c.id}`)
          .set('if-match', `"${c.revision}"`)
          .send({ state: 'put away' })
          .expect(200);
      expect(await all()).toEqual([]);
      const columns = { text: 0, press: 1, name: 2, grade: 3, note: 4, tags: 5, shelf: 6 };
      await bring(csv, { columns, duplicates: 'merge' }).expect(201);
      const plain = (list: StyleCode[]): object[] =>
        list.map(({ text, press, name, grade, note, tags, shelf }) => ({ text, press, name, grade, note, tags, shelf }));
      expect(plain(await all())).toEqual(plain(before));
      expect((await all()).find(c => c.id === told.id)?.note).toBe('\'twas "good",\nand more; much');
    });
    it('brought in by two people at once stand there once, and the one who came late is told', async () => {
      const same = Array.from({ length: 300 }, () => randomCode(random));
      const csv = ['code', ...same].join('\n');
      const answers = await Promise.all([bring(csv), bring(csv)]);
      for (const { status } of answers) expect([201, 412]).toContain(status);
      expect(answers.some(a => a.status === 201)).toBeTrue();
      const there = (await all()).filter(c => same.includes(c.text));
      expect(there.length).toBe(new Set(same).size);
    });
    it('are refused whole when the file or the plan is no good', async () => {
      const reason = async (job: ReturnType<typeof bring>, status: number): Promise<string> =>
        ((await job.expect(status)).body as Problem).detail;
      expect(await reason(bring('code\n"open'), 400)).toContain('never closed');
      expect(await reason(bring('code,grade\nx,1', { columns: {} }), 400)).toContain('which column');
      expect(await reason(bring(Buffer.from([80, 75, 3, 4, 0, 0])), 400)).toContain('not a text file');
      await house.agents.lead.post('/api/codes/imports').attach('file', Buffer.from('code\nx'), 'a.csv').expect(400);
      const wild = { text: 'first' } as unknown as ImportPlan['columns'];
      await bring('code\nx', { columns: wild }).expect(400);
      await bring('code\nx', { columns: { text: -1 } }).expect(400);
      await house.agents.reviewer.post('/api/codes').send({ text: third }).expect(403);
    });
  });
});
