import type { Look, LookVersion, Problem, Subject, Template } from '@zinc/contract';
import { pictureFile, startTestHouse, stock, type Stocked, type TestHouse } from './harness.ts';

describe('looks and wording', () => {
  let house: TestHouse;
  let stocked: Stocked;
  const lead = () => house.agents.lead;
  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 90_000;
    house = await startTestHouse();
    stocked = await stock(house.agents.lead);
  });
  afterAll(() => house.close());

  const input = (change: object = {}) => {
    const { sources, strength, words, avoid } = stocked.look.latest;
    return { sources, strength, words, avoid, note: '', ...change };
  };

  it('saves versions that never change', async () => {
    const first = (await lead().get(`/api/looks/${stocked.look.id}/versions/1`).expect(200)).body as LookVersion;
    const saved = (
      await lead()
        .post(`/api/looks/${stocked.look.id}/versions`)
        .set('if-match', '"1"')
        .send(input({ strength: 40, note: 'softer' }))
        .expect(201)
    ).body as Look;
    expect(saved.latest.version).toBe(2);
    expect(saved.versions.map(v => v.note)).toEqual(['softer', 'first']);
    expect((await lead().get(`/api/looks/${stocked.look.id}/versions/1`).expect(200)).body).toEqual(first);
    await lead().get(`/api/looks/${stocked.look.id}/versions/9`).expect(404);
  });
  it('tells the second of two who save at once', async () => {
    const newest = ((await lead().get(`/api/looks/${stocked.look.id}`)).body as Look).latest.version;
    const save = (agent: TestHouse['anyone']) =>
      agent
        .post(`/api/looks/${stocked.look.id}/versions`)
        .set('if-match', `"${newest}"`)
        .send(input({ note: 'mine' }));
    const statuses = (await Promise.all([save(lead()), save(house.agents.designer)])).map(r => r.status);
    expect(statuses.sort()).toEqual([201, 412]);
  });
  it('refuses bad looks at the field', async () => {
    const refused = async (body: object): Promise<string | undefined> =>
      ((await lead().post('/api/looks').send(body).expect(400)).body as Problem).field;
    expect(await refused({ ...input({ sources: [{ ...stocked.look.latest.sources[0], parts: -3 }] }), name: 'a' })).toBe(
      'sources[0].parts',
    );
    expect(await refused({ ...input({ strength: 140 }), name: 'a' })).toBe('strength');
    expect(await refused(input({ name: '' }))).toBe('name');
    const unknown = await lead()
      .post('/api/looks')
      .send({ ...input({ sources: [{ ...stocked.look.latest.sources[0], sha256: 'e'.repeat(64) }] }), name: 'b' })
      .expect(422);
    expect((unknown.body as Problem).field).toBe('sources[0].sha256');
    const taken = await lead()
      .post('/api/looks')
      .send({ ...input(), name: stocked.look.name })
      .expect(409);
    expect((taken.body as Problem).field).toBe('name');
  });
  it('says so when a brand palette is wanted and there is no brand', async () => {
    const palette = { kind: 'palette', id: 'brand', name: 'Brand palette', sha256: null, parts: 1, facets: ['colour'] };
    const { body } = await lead()
      .post('/api/looks')
      .send({ ...input({ sources: [palette] }), name: 'c' })
      .expect(422);
    expect((body as Problem).detail).toContain('no brand palette');
  });

  it('saves templates in versions and refuses unusable ones at the field', async () => {
    const put = (text: string, slots: object[] = []) => lead().post('/api/templates').send({ name: 'T', text, avoid: [], slots });
    for (const [text, words] of [
      ['', /empty/],
      ['A {{subject', /cannot be read/],
      ['A {{subject}} in {{lihgt}}', /\{\{lihgt\}\}/],
      ['A radish', /no \{\{subject\}\}/],
    ] as const) {
      const { body } = (await put(text).expect(400)) as { body: Problem };
      expect(body.field).toBe('text');
      expect(body.detail).toMatch(words);
    }
    const made = (
      await put('A {{subject}} in {{light}} light', [
        { name: 'light', kind: 'choice', choices: ['soft'], default: 'soft' },
      ]).expect(201)
    ).body as Template;
    const next = await lead()
      .post(`/api/templates/${made.id}/versions`)
      .set('if-match', '"1"')
      .send({ name: 'T2', text: 'One {{subject}}', avoid: [], slots: [] })
      .expect(201);
    expect((next.body as Template).version).toBe(2);
    await lead()
      .post(`/api/templates/${made.id}/versions`)
      .set('if-match', '"1"')
      .send({ name: 'T3', text: 'One {{subject}}', avoid: [], slots: [] })
      .expect(412);
  });

  it('adds all pasted subjects or none, and names each bad line', async () => {
    const before = ((await lead().get('/api/subjects')).body as { items: Subject[] }).items.length;
    const { body } = (await lead()
      .post('/api/subjects/paste')
      .send({ text: 'Leek; leek\nleek; again\nRadish; there already' })
      .expect(400)) as { body: Problem };
    expect((body.findings as { line: number }[]).map(f => f.line)).toEqual([2, 3]);
    expect(((await lead().get('/api/subjects')).body as { items: Subject[] }).items.length).toBe(before);
    expect(((await lead().post('/api/subjects/paste').send({ text: ' \n ' }).expect(400)).body as Problem).field).toBe('text');
  });
  it('gives a subject a picture and takes it away again', async () => {
    const s = stocked.subjects[0];
    const { body } = (await lead()
      .post(`/api/subjects/${s.id}/picture`)
      .attach('file', await pictureFile(70, 'jpeg', 700, 500), 'photo.jpg')
      .expect(200)) as { body: Subject };
    expect([body.picture?.width, body.picture?.height]).toEqual([700, 500]);
    await lead().post(`/api/subjects/${s.id}/picture`).attach('file', Buffer.from('no'), 'photo.jpg').expect(415);
    expect(((await lead().delete(`/api/subjects/${s.id}/picture`).expect(200)).body as Subject).picture).toBeNull();
  });
  it('changes and puts away subjects; a label that was put away can be used again', async () => {
    const s = (
      (await lead().post('/api/subjects/paste').send({ text: 'Snail; garden snail' }).expect(201)).body as { items: Subject[] }
    ).items[0];
    const change = (body: object, revision: number) =>
      lead().patch(`/api/subjects/${s.id}`).set('if-match', `"${revision}"`).send(body);
    expect(
      ((await change({ label: 'Snail', wording: 'a garden snail', avoid: ['slime'] }, 1).expect(200)).body as Subject).wording,
    ).toBe('a garden snail');
    await change({ label: 'Snail', wording: 'x', avoid: [] }, 1).expect(412);
    expect(((await change({ label: 'Radish', wording: 'x', avoid: [] }, 2).expect(409)).body as Problem).field).toBe('label');
    await lead().delete(`/api/subjects/${s.id}`).expect(200);
    await lead().post('/api/subjects/paste').send({ text: 'Snail; another snail' }).expect(201);
  });
});
