import type { Look, LookRange, Problem, Reference, VariantInput, WordStyle, WordStylesImported } from '@zinc/contract';
import { decodeWorkingCopy, drift, hashPixels, NO_TREATMENT, prepare, type Fingerprint } from '@zinc/core';
import { fingerprintOf, pictureFile, startTestHouse, stock, type Stocked, type TestHouse } from './harness.ts';

const FACETS = ['colour', 'light', 'line', 'texture'];

describe('the library', () => {
  let house: TestHouse;
  let stocked: Stocked;
  let reference: Reference;
  const lead = () => house.agents.lead;
  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 90_000;
    house = await startTestHouse();
    stocked = await stock(lead());
    reference = (
      await lead()
        .post('/api/references')
        .attach('file', await pictureFile(41), 'Barn door.png')
        .expect(201)
    ).body as Reference;
  });
  afterAll(() => house.close());

  const make = (input: Partial<VariantInput>, agent = lead(), of = reference.id) =>
    agent.post(`/api/references/${of}/variants`).send({ name: 'Worn', ...input });
  const working = async (sha256: string) => {
    const { body } = await lead().get(`/api/pictures/${sha256}/working`).responseType('blob').expect(200);
    return decodeWorkingCopy(body as Buffer);
  };

  describe('variants', () => {
    const preparation = {
      crop: { x: 0.1, y: 0.2, width: 0.6, height: 0.5 },
      treatment: { ...NO_TREATMENT, plate: 40, hue: 30 },
    };

    it('are made from the whole picture as their settings say, measured, and leave the original alone', async () => {
      const before = hashPixels(await working(reference.picture.sha256));
      const variant = (await make({ preparation }).expect(201)).body as Reference;
      expect(variant.origin).toEqual(jasmine.objectContaining({ kind: 'variant', of: reference.id, preparation }));
      expect([variant.shelf, variant.credit]).toEqual([reference.shelf, reference.credit]);
      const expected = prepare(await working(reference.picture.sha256), preparation);
      expect([variant.picture.width, variant.picture.height]).toEqual([expected.width, expected.height]);
      expect(hashPixels(await working(variant.picture.sha256))).toBe(hashPixels(expected));
      expect(hashPixels(await working(reference.picture.sha256))).toBe(before);
      const [own, made] = await Promise.all([reference, variant].map(r => fingerprintOf(lead(), r.picture.sha256)));
      expect(drift(own, made).total).toBeGreaterThan(0.05);
      // The same settings again come to the same picture, which stands on the shelf already.
      expect(((await make({ preparation, name: 'Again' }).expect(409)).body as Problem).detail).toContain('“Worn”');
    });

    it('that cannot be made are refused at the part at fault', async () => {
      const refused = async (input: object): Promise<[string | undefined, string]> => {
        const { field, detail } = (await make(input).expect(400)).body as Problem;
        return [field, detail];
      };
      expect((await refused({ preparation: {} }))[1]).toContain('change nothing');
      expect((await refused({ preparation: { crop: { x: 0.5, y: 0.5, width: 0, height: 0 } } }))[0]).toBe('preparation.crop');
      expect((await refused({ preparation: { paintOut: [{ points: [0, 0.5, 1, 0.5], size: 1 }] } }))[0]).toBe(
        'preparation.paintOut',
      );
      const outside = { x: 0.5, y: 0.5, to: 'color(display-p3 1 0 0)', reach: 10, joined: true };
      const [field, detail] = await refused({ preparation: { recolour: [outside] } });
      expect(field).toBe('preparation.recolour[0].to');
      expect(detail).toContain('inside sRGB');
      expect((await refused({ preparation: { treatment: { ...NO_TREATMENT, roller: 130 } } }))[0]).toBe(
        'preparation.treatment.roller',
      );
      expect((await refused({ preparation, name: ' ' }))[0]).toBe('name');
      await make({ preparation }, house.agents.reviewer).expect(403);
      await make({ preparation }, lead(), '018f0000-0000-7000-8000-000000000000').expect(404);
    });

    it('treatments are kept under one name and put away', async () => {
      const settings = { ...NO_TREATMENT, roller: 25 };
      const keep = (body: object) => lead().post('/api/treatments').send(body);
      const kept = (await keep({ name: 'Tired roller', settings }).expect(201)).body as { id: string };
      expect(((await keep({ name: 'Tired roller', settings }).expect(409)).body as Problem).field).toBe('name');
      expect(((await keep({ name: 'Nothing', settings: NO_TREATMENT }).expect(400)).body as Problem).field).toBe('settings');
      const list = (await lead().get('/api/treatments').expect(200)).body as { items: { settings: object }[] };
      expect(list.items.map(t => t.settings)).toEqual([settings]);
      await lead().delete(`/api/treatments/${kept.id}`).expect(204);
      await lead().delete(`/api/treatments/${kept.id}`).expect(404);
    });
  });

  describe('by likeness', () => {
    const like = (body: object) =>
      lead()
        .post('/api/shelf/like')
        .send({ kind: 'reference', facets: FACETS, ...body });

    it('orders the shelf exactly by drift, by the facets asked for, what just arrived included', async () => {
      const late = (
        await lead()
          .post('/api/references')
          .attach('file', await pictureFile(43), 'Late.png')
          .expect(201)
      ).body as Reference;
      for (const facets of [FACETS, ['light']]) {
        const { items } = (await like({ sha256: reference.picture.sha256, facets }).expect(200)).body as {
          items: { id: string; distance: number }[];
        };
        expect(items[0]).toEqual({ id: reference.id, distance: 0 });
        expect(items.map(i => i.distance)).toEqual(items.map(i => i.distance).sort((p, q) => p - q));
        expect(items.map(i => i.id)).toContain(late.id);
        const [p, q] = [await fingerprintOf(lead(), reference.picture.sha256), await fingerprintOf(lead(), late.picture.sha256)];
        const d = drift(p, q);
        const wanted = facets.length === 1 ? d.light : d.total;
        expect(items.find(i => i.id === late.id)!.distance).toBeCloseTo(wanted, 6);
      }
    });

    it('takes a dropped picture that is not kept, a look, and a code', async () => {
      const count = async (): Promise<number> =>
        ((await lead().get('/api/references')).body as { items: unknown[] }).items.length;
      const before = await count();
      const { fingerprint } = (
        await house.agents.reviewer
          .post('/api/pictures/measure')
          .attach('file', await pictureFile(41), 'x.png')
          .expect(200)
      ).body as { fingerprint: Fingerprint };
      expect(await count()).toBe(before);
      const { items } = (await like({ fingerprint }).expect(200)).body as { items: { id: string; distance: number }[] };
      expect(items[0].id).toBe(reference.id);
      expect(items[0].distance).toBeLessThan(1e-6);
      expect(((await like({ lookId: stocked.look.id }).expect(200)).body as { items: unknown[] }).items.length).toBe(before);
      await like({ code: 'nonsense words here 1' }).expect(400);
      await like({ sha256: 'f'.repeat(64) }).expect(404);
      await like({ fingerprint: { measure: fingerprint.measure } }).expect(400);
      expect(((await like({ sha256: reference.picture.sha256, facets: [] }).expect(400)).body as Problem).field).toBe('facets');
    });

    it('leaves out what is put away', async () => {
      const gone = (
        await lead()
          .post('/api/references')
          .attach('file', await pictureFile(44), 'Gone.png')
          .expect(201)
      ).body as Reference;
      await lead().patch(`/api/references/${gone.id}`).set('if-match', '"1"').send({ state: 'put away' }).expect(200);
      const { items } = (await like({ sha256: gone.picture.sha256 }).expect(200)).body as { items: { id: string }[] };
      expect(items.map(i => i.id)).not.toContain(gone.id);
    });
  });

  describe('named shelves', () => {
    it('keep the order given by hand, and take everything along under a new name', async () => {
      await lead()
        .patch('/api/shelves')
        .send({ names: ['Prints', 'Paint', 'Prints'] })
        .expect(200);
      expect((await lead().get('/api/shelves')).body).toEqual({ names: ['Prints', 'Paint'] });
      const put = await lead()
        .patch(`/api/references/${reference.id}`)
        .set('if-match', `"${reference.revision}"`)
        .send({ shelf: 'Paint', place: -3.5, tags: ['winter'] });
      reference = put.body as Reference;
      expect([reference.shelf, reference.place, reference.tags]).toEqual(['Paint', -3.5, ['winter']]);
      await lead().post('/api/shelves/rename').send({ from: 'Paint', to: 'Cloth and paint' }).expect(200);
      expect((await lead().get('/api/shelves')).body).toEqual({ names: ['Prints', 'Cloth and paint'] });
      expect(((await lead().get(`/api/references/${reference.id}`)).body as Reference).shelf).toBe('Cloth and paint');
      await lead().post('/api/shelves/rename').send({ from: 'Cloth and paint', to: 'Prints' }).expect(200);
      expect((await lead().get('/api/shelves')).body).toEqual({ names: ['Prints'] });
      await house.agents.reviewer.patch('/api/shelves').send({ names: [] }).expect(403);
    });
  });

  describe('word styles', () => {
    const EARLY = {
      name: 'Early talk',
      purpose: 'early talks',
      before: ['loose sketch of'],
      after: ['pencil', 'few colours'],
      avoid: ['gloss'],
      byDefault: false,
      grade: 8,
    };
    const list = async (): Promise<WordStyle[]> =>
      ((await lead().get('/api/word-styles').expect(200)).body as { items: WordStyle[] }).items;

    it('are kept, changed under a revision, and refused without a phrase', async () => {
      const kept = (await lead().post('/api/word-styles').send(EARLY).expect(201)).body as WordStyle;
      expect(((await lead().post('/api/word-styles').send(EARLY).expect(409)).body as Problem).field).toBe('name');
      expect(
        (
          (
            await lead()
              .post('/api/word-styles')
              .send({ ...EARLY, name: 'Mute', before: [], after: [] })
              .expect(400)
          ).body as Problem
        ).field,
      ).toBe('after');
      const change = (revision: number) =>
        house.agents.designer
          .patch(`/api/word-styles/${kept.id}`)
          .set('if-match', `"${revision}"`)
          .send({ ...EARLY, grade: 3 });
      expect(((await change(1).expect(200)).body as WordStyle).grade).toBe(3);
      await change(1).expect(412);
      await lead().delete(`/api/word-styles/${kept.id}`).expect(204);
    });

    it('go out as open files and come back without loss; what cannot be read is told row by row', async () => {
      const tricky = { ...EARLY, name: '=SUM(1) "quoted"', purpose: 'with, comma\nand a line', grade: null, byDefault: true };
      for (const w of [EARLY, tricky]) await lead().post('/api/word-styles').send(w).expect(201);
      const before = await list();
      for (const as of ['csv', 'json']) {
        const file = await lead().get(`/api/word-styles/export.${as}`).responseType('blob').expect(200);
        const bytes = file.body as Buffer;
        if (as === 'csv') expect(bytes.toString()).toContain(`"'=SUM(1) ""quoted"""`);
        for (const w of await list()) await lead().delete(`/api/word-styles/${w.id}`).expect(204);
        const result = (await lead().post('/api/word-styles/import').attach('file', bytes, `styles.${as}`).expect(200))
          .body as WordStylesImported;
        expect(result).toEqual({ added: 2, left: 0, refused: [] });
        const plain = (all: WordStyle[]) =>
          all.map(({ name, purpose, before, after, avoid, byDefault, grade }) => ({
            name,
            purpose,
            before,
            after,
            avoid,
            byDefault,
            grade,
          }));
        expect(plain(await list()))
          .withContext(as)
          .toEqual(plain(before));
        const again = (await lead().post('/api/word-styles/import').attach('file', bytes, `styles.${as}`).expect(200))
          .body as WordStylesImported;
        expect([again.added, again.left]).toEqual([0, 2]);
      }
      const csv = 'name,before,after,grade\nGood,,flat,7\n,,flat,\nBad grade,,flat,99\nEmpty,,,\n';
      const some = (await lead().post('/api/word-styles/import').attach('file', Buffer.from(csv), 'some.csv').expect(200))
        .body as WordStylesImported;
      expect(some.added).toBe(1);
      expect(some.refused.map(r => [r.line, r.what])).toEqual([
        [3, ''],
        [4, 'Bad grade'],
        [5, 'Empty'],
      ]);
      for (const [bytes, words] of [
        ['{"wordStyles": [', 'not whole JSON'],
        ['{"looks": []}', 'no list called wordStyles'],
        ['a,b\n1,2\n', 'must name the columns'],
      ]) {
        const { body } = await lead().post('/api/word-styles/import').attach('file', Buffer.from(bytes), 'x').expect(400);
        expect((body as Problem).detail).toContain(words);
      }
    });

    it('are said in the text of an image in their order, and change how it is painted by their parts', async () => {
      const { sources, strength, avoid } = stocked.look.latest;
      const words = (parts: number) => ({
        kind: 'wordStyle',
        id: 'w',
        name: 'Almanac',
        sha256: null,
        facets: [],
        parts,
        phrases: { before: ['vignette of'], after: ['engraved'], avoid: ['colour'] },
      });
      const save = async (name: string, more: object[]): Promise<Look> =>
        (
          await lead()
            .post('/api/looks')
            .send({ name, sources: [...sources, ...more], strength, words: ['quiet'], avoid, note: '' })
            .expect(201)
        ).body as Look;
      const total = sources.reduce((s, x) => s + x.parts, 0);
      const [none, half, full] = [await save('W0', []), await save('W1', [words(total / 2)]), await save('W2', [words(total)])];
      const hatch = (l: Look): number => l.latest.style.amounts.hatch;
      expect(hatch(half)).toBeGreaterThan(hatch(none));
      expect(hatch(full)).toBeGreaterThan(hatch(half));
      const plan = { ...stocked.plan, lookIds: [full.id] };
      const { body } = await lead().post('/api/plans').send(plan).expect(200);
      const [cell] = (body as { cells: { text: string; avoid: string[] }[] }).cells;
      expect(cell.text.startsWith('vignette of, ')).toBeTrue();
      expect(cell.text.endsWith(', engraved, quiet')).toBeTrue();
      expect(cell.avoid).toContain('colour');
      const bare = { ...words(1), phrases: undefined };
      await lead()
        .post('/api/looks')
        .send({ name: 'W3', sources: [bare], strength, words: [], avoid, note: '' })
        .expect(400);
    });
  });

  describe('looks', () => {
    it('take own colours as a source, and begin from a version of another', async () => {
      const { sources, strength, words, avoid } = stocked.look.latest;
      const own = {
        kind: 'palette',
        id: 'own colours',
        name: 'Own colours',
        sha256: null,
        parts: 2,
        facets: ['colour'],
        colours: ['#8e2a4b', '#f3eee2'],
      };
      const body = {
        name: 'Begun',
        sources: [...sources.map(s => ({ ...s, facets: s.facets.filter(f => f !== 'colour') })), own],
        strength,
        words,
        avoid,
        note: '',
        begunFrom: { lookId: stocked.look.id, version: 1 },
      };
      const saved = (await lead().post('/api/looks').send(body).expect(201)).body as Look;
      expect(saved.latest.style.palette.length).toBe(2);
      expect(saved.latest.begunFrom).toEqual({ lookId: stocked.look.id, version: 1, name: stocked.look.name });
      await lead()
        .post('/api/looks')
        .send({ ...body, name: 'Begun 2', begunFrom: { lookId: stocked.look.id, version: 99 } })
        .expect(404);
      const outside = { ...own, colours: ['rgb(300 0 0)'] };
      const refused = await lead()
        .post('/api/looks')
        .send({ ...body, name: 'Begun 3', sources: [outside] })
        .expect(400);
      expect((refused.body as Problem).field).toBe('sources[0].colours[0]');
    });

    it('carry ranges that people recommend, which can be withdrawn and never changed', async () => {
      const at = `/api/looks/${stocked.look.id}/ranges`;
      const range = { version: 1, setting: 'strength', from: 60, to: 80, goodFor: 'round subjects', note: '', proofIds: [] };
      const { body } = await house.agents.designer.post(at).send(range).expect(201);
      const [kept] = (body as { items: LookRange[] }).items;
      expect([kept.setting, kept.from, kept.to, kept.goodFor]).toEqual(['strength', 60, 80, 'round subjects']);
      expect(
        (
          (
            await lead()
              .post(at)
              .send({ ...range, from: 90 })
              .expect(400)
          ).body as Problem
        ).field,
      ).toBe('to');
      await lead()
        .post(at)
        .send({ ...range, version: 50 })
        .expect(404);
      await lead()
        .post(at)
        .send({ ...range, proofIds: ['018f0000-0000-7000-8000-000000000000'] })
        .expect(404);
      await house.agents.reviewer.post(at).send(range).expect(403);
      await lead().delete(`${at}/${kept.id}`).expect(204);
      expect((await lead().get(at).expect(200)).body).toEqual({ items: [] });
    });
  });

  it('refuses an ended licence in new runs, unless a lead says why, which is kept with the run', async () => {
    const source = stocked.look.latest.sources.find(s => s.kind === 'reference')!;
    const found = (await lead().get(`/api/references/${source.id}`)).body as Reference;
    await lead()
      .patch(`/api/references/${found.id}`)
      .set('if-match', `"${found.revision}"`)
      .send({ licenceEnds: '2020-01-01' })
      .expect(200);
    const start = (agent: TestHouse['anyone'], licenceOverrides?: object[]) =>
      agent.post('/api/runs').send({ ...stocked.plan, licenceOverrides });
    expect(((await start(lead()).expect(422)).body as Problem).detail).toContain('licence');
    const why = [{ referenceId: found.id, reason: 'renewed by word on the phone' }];
    await start(house.agents.designer, why).expect(403);
    expect(((await start(lead(), [{ referenceId: found.id, reason: 'x' }]).expect(400)).body as Problem).field).toBe(
      'licenceOverrides[0].reason',
    );
    await start(lead(), why).expect(201);
    const [[batch]] = (await house.server.context.pool.query(
      'select plan from batches order by frozen_at desc limit 1',
    )) as unknown as [{ plan: unknown }[]];
    const kept = (typeof batch.plan === 'string' ? JSON.parse(batch.plan) : batch.plan) as { licenceOverrides: object[] };
    expect(kept.licenceOverrides).toEqual(why);
  });
});
