import type {
  Budget,
  Cohesion,
  PlanPreview,
  Problem,
  Proof,
  Run,
  RunDetail,
  Subject,
  SubjectList,
  UnclearWord,
} from '@zinc/contract';
import { NO_LOOK } from '@zinc/core';
import sharp from 'sharp';
import { startTestHouse, stock, untilRun, type Stocked, type TestHouse } from './harness.ts';

describe('plans', () => {
  let house: TestHouse;
  let stocked: Stocked;
  const lead = () => house.agents.lead;
  const read = async (change: object): Promise<PlanPreview> =>
    (
      await lead()
        .post('/api/plans')
        .send({ ...stocked.plan, ...change })
        .expect(200)
    ).body as PlanPreview;
  const refused = async (change: object): Promise<Problem> =>
    (
      await lead()
        .post('/api/plans')
        .send({ ...stocked.plan, ...change })
        .expect(400)
    ).body as Problem;
  const make = async (change: object): Promise<RunDetail> => {
    const run = (
      await lead()
        .post('/api/runs')
        .send({ ...stocked.plan, ...change })
        .expect(201)
    ).body as Run;
    return untilRun(lead(), run.id, d => d.run.state === 'done', 90);
  };
  const ticketOf = async (d: RunDetail, cell: number): Promise<Proof['ticket']> =>
    ((await lead().get(`/api/proofs/${d.cells[cell].takes[0].proof!.id}`).expect(200)).body as Proof).ticket;
  let one: { subjectIds: string[]; takes: number };

  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 180_000;
    house = await startTestHouse();
    stocked = await stock(house.agents.lead);
    one = { subjectIds: [stocked.subjects[1].id], takes: 1 };
  });
  afterAll(() => house.close());

  it('multiplies by the values of a slot, and strikes a combination out', async () => {
    const template = (
      await lead()
        .post('/api/templates')
        .send({
          name: 'Weather',
          text: 'A {{subject}} {{place}} {{season}}',
          avoid: [],
          slots: [
            { name: 'place', kind: 'text', choices: [], default: 'on a table' },
            { name: 'season', kind: 'choice', choices: ['in spring', 'in winter'], default: 'in spring' },
          ],
        })
        .expect(201)
    ).body as { id: string };
    const plan = {
      templateId: template.id,
      takes: 1,
      alternatives: { place: ['on a table', 'by a window'], season: ['in spring', 'in winter'] },
    };
    const preview = await read(plan);
    expect(preview.images).toBe(12);
    expect(new Set(preview.cells.map(c => c.text)).size).toBe(12);
    const [first] = preview.cells;
    expect(first.values.map(v => v.value)).toEqual(['on a table', 'in spring']);
    expect((await read({ ...plan, struckOut: [first.key] })).images).toBe(11);
    expect((await refused({ ...plan, alternatives: { nothing: ['x'] } })).field).toBe('alternatives');
    expect((await refused({ ...plan, alternatives: { place: [] } })).detail).toContain('no values');
    expect((await refused({ templateId: template.id, fills: { season: 'in May' } })).detail).toContain('wanted one of');
  });

  it('keeps what belongs to one row to that row, and shows notes as what they are', async () => {
    const [a, b] = stocked.subjects;
    const banner = stocked.house.formats.find(f => f.name.startsWith('Banner'))!;
    const preview = await read({
      takes: 1,
      note: 'at dusk',
      rows: { [a.id]: { formatId: banner.id, note: 'from the left' } },
      formatIds: stocked.house.formats.slice(0, 2).map(f => f.id),
    });
    const own = preview.cells.filter(c => c.subjectId === a.id);
    expect(own.map(c => c.formatId)).toEqual([banner.id]);
    expect(own[0].text).toContain('at dusk, from the left');
    const other = preview.cells.filter(c => c.subjectId === b.id);
    expect(other.length).toBe(2);
    expect(other[0].parts.filter(p => p.from === 'override').map(p => p.words)).toEqual([', at dusk']);
  });

  it('steps one setting with all else equal, same seeds, and measures what is kept of the subject', async () => {
    const d = await make({ ...one, kind: 'testStrip', axes: [{ setting: 'strength', values: [0, 50, 100] }] });
    expect(d.run.kind).toBe('testStrip');
    expect(d.cells.map(c => c.values[0])).toEqual(
      ['0 %', '50 %', '100 %'].map(value => ({ setting: 'strength', what: 'Strength', value })),
    );
    const proofs = d.cells.map(c => c.takes[0].proof!);
    expect(new Set(proofs.map(p => p.seed)).size).toBe(1);
    expect(proofs[0].likeness).toBeCloseTo(1, 3);
    expect(proofs[2].likeness!).toBeLessThan(proofs[0].likeness!);
    expect(proofs[2].drift!.total).toBeLessThan(proofs[0].drift!.total);
  });

  it('steps facets, parts, versions and what the press declares', async () => {
    const [source] = stocked.references;
    const preview = await read({
      ...one,
      axes: [
        { setting: 'facets', values: ['colour', 'line+texture'] },
        { setting: `parts:${source.id}`, values: [0, 4] },
      ],
    });
    expect(preview.cells.map(c => c.values.map(v => v.value).join(' / '))).toEqual([
      'colour / 0 parts',
      'colour / 4 parts',
      'line, texture / 0 parts',
      'line, texture / 4 parts',
    ]);
    expect((await read({ ...one, axes: [{ setting: 'press:scatter', values: [0, 100] }] })).images).toBe(2);
    const fault = async (setting: string, ...values: unknown[]): Promise<string> =>
      (await refused({ ...one, axes: [{ setting, values }] })).detail;
    expect(await fault('lookVersion', 1, 7)).toContain('no version 7');
    expect(await fault('strength', 130)).toContain('0 to 100');
    expect(await fault('strength')).toContain('no values');
    expect(await fault('mood', 1)).toContain('nothing that can be stepped');
    expect(await fault('press:glow', 1)).toContain('no setting “glow”');
  });

  it('makes images without any look, and says so on the ticket', async () => {
    const d = await make({ ...one, lookIds: [NO_LOOK], templateId: null });
    expect(d.cells[0].takes[0].problem).toBeNull();
    const ticket = await ticketOf(d, 0);
    expect(ticket.look.name).toBe('No look');
    expect(ticket.settings.strength).toBe(0);
    expect(ticket.text.final).toBe('radish');
  });

  it('decides what a bound set shares before it is painted, and later subjects match it', async () => {
    const binding = { amount: 100, share: ['palette', 'light'], anchor: null };
    const [a, b, c] = stocked.subjects;
    const d = await make({ subjectIds: [a.id, b.id], takes: 1, binding });
    expect(d.batches[0].bound).toBe('barycentre');
    const sheets = await Promise.all([0, 1].map(async i => (await ticketOf(d, i)).binding!.sheet));
    expect(sheets[0]).toEqual(sheets[1]);
    expect(sheets[0].share).toEqual(['palette', 'light']);
    const again = await make({ subjectIds: [a.id, b.id], takes: 1, binding });
    expect(again.cells.map(x => x.takes[0].proof!.pictureSha)).toEqual(d.cells.map(x => x.takes[0].proof!.pictureSha));
    await lead()
      .post(`/api/runs/${d.run.id}/batches`)
      .send({ ...stocked.plan, subjectIds: [a.id, b.id, c.id], takes: 1, binding })
      .expect(201);
    const joined = await untilRun(lead(), d.run.id, x => x.run.state === 'done' && x.run.made === 3);
    expect(joined.batches.length).toBe(2);
    expect(joined.batches[1].differs).toEqual([`Subjects: ${c.label} too`]);
    expect((await ticketOf(joined, 2)).binding!.sheet).toEqual(sheets[0]);
    const { items } = (await lead().get(`/api/runs/${d.run.id}/cohesion`).expect(200)).body as Cohesion;
    expect(items[0].proofs).toBe(3);
    expect(items[0].cohesion.total).toBeGreaterThan(0);
    const twice = await lead()
      .post(`/api/runs/${d.run.id}/batches`)
      .send({ ...stocked.plan, subjectIds: [a.id], takes: 1, binding })
      .expect(400);
    expect((twice.body as Problem).detail).toContain('in the run already');
    const anchored = await make({
      subjectIds: [b.id],
      takes: 1,
      binding: { ...binding, anchor: d.cells[0].takes[0].proof!.id },
    });
    expect(anchored.batches[0].bound).toBe('anchor');
  });

  it('makes a pilot first and the rest after a look at it', async () => {
    const d = await make({ takes: 1, pilot: 1 });
    expect(d.run.made).toBe(1);
    await lead()
      .post(`/api/runs/${d.run.id}/batches`)
      .send({ ...stocked.plan, takes: 1 })
      .expect(201);
    const whole = await untilRun(lead(), d.run.id, x => x.run.state === 'done' && x.run.made === 3);
    expect(whole.cells.map(c => c.takes.length)).toEqual([1, 1, 1]);
    expect(whole.cells.map(c => c.row)).toEqual([0, 1, 2]);
    expect(whole.leftOut).toEqual([]);
    const more = (await lead().post(`/api/runs/${d.run.id}/more-takes`).send({ takes: 1 }).expect(200)).body as {
      message: string;
    };
    expect(more.message).toContain('3 more takes');
    const grown = await untilRun(lead(), d.run.id, x => x.run.state === 'done' && x.run.made === 6);
    expect(new Set(grown.cells.flatMap(c => c.takes.map(t => t.seed))).size).toBe(6);
  });

  it('calls off a take that is not made yet', async () => {
    await house.press.misbehave('slow', 20);
    const run = (
      await lead()
        .post('/api/runs')
        .send({ ...stocked.plan, takes: 3 })
        .expect(201)
    ).body as Run;
    const waiting = (await untilRun(lead(), run.id, d => d.cells.length > 0)).cells.at(-1)!.takes.at(-1)!;
    await lead().post(`/api/takes/${waiting.id}/cancel`).expect(204);
    await house.press.misbehave('slow', 0);
    const d = await untilRun(lead(), run.id, x => x.run.state === 'done');
    expect(d.run.made).toBe(8);
    expect(d.cells.at(-1)!.takes.at(-1)!.state).toBe('cancelled');
    await lead().post(`/api/takes/${d.cells[0].takes[0].id}/cancel`).expect(409);
  });

  it('holds the budgets of people and campaigns', async () => {
    const { designer } = house.people;
    await house.agents.designer.put(`/api/budgets/${designer.id}`).send({ images: 900 }).expect(403);
    await lead().put(`/api/budgets/${designer.id}`).send({ images: 4 }).expect(200);
    const tooMany = await house.agents.designer.post('/api/runs').send(stocked.plan).expect(422);
    expect((tooMany.body as Problem).detail).toContain('6 images are more than the 4');
    const fits = (
      await house.agents.designer
        .post('/api/runs')
        .send({ ...stocked.plan, ...one })
        .expect(201)
    ).body as Run;
    const { items } = (await lead().get('/api/budgets').expect(200)).body as { items: Budget[] };
    expect(items).toEqual([jasmine.objectContaining({ about: designer.id, images: 4, used: 1, kind: 'person' })]);
    await untilRun(lead(), fits.id, d => d.run.state === 'done');
    await lead().put(`/api/budgets/${designer.id}`).send({ images: null }).expect(200);
    await house.agents.designer.post('/api/plans').send(stocked.plan).expect(200);
  });

  it('lets a small run of one person pass a large run of another', async () => {
    const large = (
      await lead()
        .post('/api/runs')
        .send({ ...stocked.plan, takes: 12 })
        .expect(201)
    ).body as Run;
    const small = (
      await house.agents.designer
        .post('/api/runs')
        .send({ ...stocked.plan, ...one, takes: 2 })
        .expect(201)
    ).body as Run;
    await untilRun(lead(), small.id, d => d.run.state === 'done');
    const left = (await lead().get(`/api/runs/${large.id}`).expect(200)).body as RunDetail;
    expect(left.run.made).toBeLessThan(30);
    await lead().post(`/api/runs/${large.id}/stop`).expect(200);
  });

  it('flags a word with two meanings until one is chosen', async () => {
    const { items } = (await lead().post('/api/subjects/paste').send({ text: 'Rocket\nMint\nPea shoot' }).expect(201)).body as {
      items: Subject[];
    };
    const unclear = (await lead().get('/api/subjects/unclear').expect(200)).body as { items: UnclearWord[] };
    expect(unclear.items.map(u => u.word)).toEqual(['rocket', 'mint']);
    const plant = unclear.items[0].senses.find(s => s.gloss.includes('salad'))!;
    const plan = { subjectIds: items.map(s => s.id) };
    expect((await read(plan)).findings.filter(f => f.code === 'twoMeanings').length).toBe(2);
    const [rocket] = items;
    await lead()
      .patch(`/api/subjects/${rocket.id}`)
      .set('If-Match', String(rocket.revision))
      .send({ label: rocket.label, wording: `rocket (${plant.hint})`, avoid: [], meaning: plant.gloss })
      .expect(200);
    expect((await read(plan)).findings.filter(f => f.code === 'twoMeanings').map(f => f.mend?.subjectId)).toEqual([items[1].id]);
  });

  it('brings subjects in from a spreadsheet, tells the rows it refuses, and keeps lists', async () => {
    const csv =
      'Label;Wording;Avoid;Colours;Tags\nKale;curly kale;hands, dirt;#2c5238;greens\nRadish;radish;;;\n;nothing;;;\nLeek;leek;;grass;\n';
    const { body } = await lead().post('/api/subjects/import').attach('file', Buffer.from(csv), 'subjects.csv').expect(201);
    const answer = body as { added: number; refused: { line: number; reason: string }[] };
    expect(answer.added).toBe(1);
    expect(answer.refused.map(r => r.line)).toEqual([3, 4, 5]);
    const all = ((await lead().get('/api/subjects').expect(200)).body as { items: Subject[] }).items;
    const kale = all.find(s => s.label === 'Kale')!;
    expect(kale).toEqual(jasmine.objectContaining({ avoid: ['hands', 'dirt'], colours: ['#2c5238'], tags: ['greens'] }));
    const none = await lead().post('/api/subjects/import').attach('file', Buffer.from('a,b\n1,2\n'), 'x.csv').expect(400);
    expect((none.body as Problem).detail).toContain('must be called label');
    const kept = (
      await lead()
        .post('/api/subject-lists')
        .send({ name: 'Greens', subjectIds: [kale.id] })
        .expect(201)
    ).body as { items: SubjectList[] };
    expect(kept.items).toEqual([jasmine.objectContaining({ name: 'Greens', subjectIds: [kale.id] })]);
    await lead().delete(`/api/subject-lists/${kept.items[0].id}`).expect(200);
  });

  it('places a mark exactly, and says so on the ticket', async () => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="40"><rect width="80" height="40" fill="#1a4b2c"/></svg>';
    const mark = (await lead().post('/api/marks').attach('file', Buffer.from(svg), 'mark.svg').expect(201)).body as {
      sha256: string;
    };
    const box = { x: 0.5, y: 0.5, width: 0.4, height: 0.4 };
    const d = await make({ ...one, marks: [{ sha256: mark.sha256, box }] });
    expect((await ticketOf(d, 0)).marks?.[0].box).toEqual(box);
    const { body } = await lead()
      .get(`/api/pictures/${d.cells[0].takes[0].proof!.pictureSha}/working`)
      .responseType('blob')
      .expect(200);
    const { data, info } = await sharp(body as Buffer)
      .raw()
      .toBuffer({ resolveWithObject: true });
    const at = (Math.round(0.7 * info.height) * info.width + Math.round(0.7 * info.width)) * info.channels;
    expect([...data.subarray(at, at + 3)]).toEqual([0x1a, 0x4b, 0x2c]);
    expect((await refused({ marks: [{ sha256: 'a'.repeat(64), box }] })).field).toBe('marks');
  });

  it('says where words and avoid words meet, and what a subject’s own colours do', async () => {
    const [subject] = (
      (await lead().post('/api/subjects/paste').send({ text: 'Pumpkin' }).expect(201)).body as { items: Subject[] }
    ).items;
    const changed = (
      await lead()
        .patch(`/api/subjects/${subject.id}`)
        .set('If-Match', String(subject.revision))
        .send({ label: 'Pumpkin', wording: 'pumpkin', avoid: ['shadow'], colours: ['#2b5fc0'] })
        .expect(200)
    ).body as Subject;
    const plan = { subjectIds: [changed.id], takes: 1, note: 'a long shadow, violet' };
    const { findings } = await read(plan);
    expect(findings.find(f => f.code === 'contradiction')?.message).toContain('“shadow” is to be avoided');
    expect(findings.find(f => f.code === 'leakRisk')?.message).toContain('Pumpkin');
    const d = await make(plan);
    expect((await ticketOf(d, 0)).subject.colours).toEqual(['#2b5fc0']);
  });
});
