import type { LookUsage, PlanPreview, Problem, Proof, Reference, Remake, Run, RunDetail, Decision } from '@zinc/contract';
import { ticketHash } from '@zinc/core';
import { parse } from 'csv-parse/sync';
import sharp from 'sharp';
import { uuidv7 } from 'uuidv7';
import { fromBuffer, type Entry } from 'yauzl';
import { pictureFile, startTestHouse, stock, untilRun, type Stocked, type TestHouse } from './harness.ts';

/** The files of a ZIP by name. */
function unzip(bytes: Buffer): Promise<Map<string, Buffer>> {
  return new Promise((resolve, reject) => {
    fromBuffer(bytes, { lazyEntries: true }, (error, zip) => {
      if (error) return reject(error);
      const files = new Map<string, Buffer>();
      zip.on('entry', (entry: Entry) => {
        zip.openReadStream(entry, (fault, stream) => {
          if (fault) return reject(fault);
          const parts: Buffer[] = [];
          stream.on('data', (p: Buffer) => parts.push(p));
          stream.on('end', () => {
            files.set(entry.fileName, Buffer.concat(parts));
            zip.readEntry();
          });
        });
      });
      zip.on('end', () => resolve(files));
      zip.readEntry();
    });
  });
}

describe('runs', () => {
  let house: TestHouse;
  let stocked: Stocked;
  const lead = () => house.agents.lead;
  const start = async (change: object = {}): Promise<Run> =>
    (
      await lead()
        .post('/api/runs')
        .send({ ...stocked.plan, ...change })
        .expect(201)
    ).body as Run;
  const isOver = (d: RunDetail): boolean => d.run.state === 'done';
  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 150_000;
    house = await startTestHouse();
    stocked = await stock(house.agents.lead);
  });
  afterAll(() => house.close());

  it('reads a plan back with every text, count and finding, and makes nothing', async () => {
    await lead().post('/api/subjects/paste').send({ text: 'Tandem bicycle; tandem bicycle' }).expect(201);
    const subjects = ((await lead().get('/api/subjects')).body as { items: { id: string; label: string }[] }).items;
    const plan = { ...stocked.plan, subjectIds: subjects.map(s => s.id) };
    const { body } = (await lead().post('/api/plans').send(plan).expect(200)) as { body: PlanPreview };
    expect(body.images).toBe(8);
    expect(body.cells.map(c => c.text)).toContain('A radish on chalk, bold');
    const finding = body.findings.find(f => f.code === 'notDrawn')!;
    expect(finding.message).toContain('Tandem bicycle');
    const refused = await lead().post('/api/runs').send(plan).expect(422);
    expect((refused.body as Problem).findings?.length).toBe(1);
    const struck = (
      await lead()
        .post('/api/plans')
        .send({ ...plan, struckOut: finding.cells })
        .expect(200)
    ).body as PlanPreview;
    expect(struck.images).toBe(6);
    expect(struck.findings.map(f => f.code)).toContain('fewerCells');
    expect(struck.findings.filter(f => f.severity === 'must')).toEqual([]);
    const all = struck.cells.map(c => c.key);
    const none = await lead()
      .post('/api/runs')
      .send({ ...plan, struckOut: all })
      .expect(400);
    expect((none.body as Problem).detail).toContain('0 images');
    expect(((await lead().get('/api/runs')).body as { items: Run[] }).items.length).toBe(0);
  });
  it('refuses bad plans at the field', async () => {
    const field = async (change: object): Promise<string | undefined> =>
      (
        (
          await lead()
            .post('/api/plans')
            .send({ ...stocked.plan, ...change })
            .expect(400)
        ).body as Problem
      ).field;
    expect(await field({ takes: 0 })).toBe('takes');
    expect(await field({ takes: 100_000 })).toBe('takes');
    expect(await field({ subjectIds: [stocked.subjects[0].id, stocked.subjects[0].id] })).toBe('subjectIds');
    expect(await field({ formatIds: [uuidv7()] })).toBe('formatIds');
    expect(await field({ strength: 300 })).toBe('strength');
  });
  it('makes every image once, each with its ticket, drift and file', async () => {
    const run = await start();
    const d = await untilRun(lead(), run.id, isOver);
    expect(d.run).toEqual(jasmine.objectContaining({ images: 6, made: 6, failed: 0 }));
    const takes = d.cells.flatMap(c => c.takes);
    expect(takes.every(t => t.proof !== null && t.proof.drift !== null)).toBeTrue();
    expect(new Set(takes.map(t => t.seed)).size).toBe(6);
    for (const t of takes) {
      const proof = (await lead().get(`/api/proofs/${t.proof!.id}`).expect(200)).body as Proof;
      expect(ticketHash(proof.ticket)).toBe(proof.ticketHash);
      expect(proof.ticket.seed).toBe(t.seed);
      const working = await lead().get(`/api/pictures/${proof.pictureSha}/working`).responseType('blob').expect(200);
      const meta = await sharp(working.body as Buffer).metadata();
      expect([meta.width, meta.height]).toEqual([320, 320]);
    }
    const house2 = (await lead().get('/api/house')).body as { presses: { secondsPerImage: number | null }[] };
    expect(house2.presses[0].secondsPerImage).toBeGreaterThan(0);
  });
  it('makes a proof again to the same pixels, and keeps nothing of it', async () => {
    const { items } = (await lead().get('/api/runs')).body as { items: Run[] };
    const before = (await untilRun(lead(), items[0].id, isOver)).cells[1].takes[0].proof!;
    const remade = (await lead().post(`/api/proofs/${before.id}/remake`).expect(200)).body as Remake;
    expect(remade).toEqual(jasmine.objectContaining({ same: true, pixelHash: remade.expected }));
    expect(((await lead().get('/api/runs')).body as { items: Run[] }).items[0].made).toBe(6);
  });
  it('an old run never changes because its look did', async () => {
    const { items } = (await lead().get('/api/runs')).body as { items: Run[] };
    const id = (await untilRun(lead(), items[0].id, isOver)).cells[0].takes[0].proof!.id;
    const before = (await lead().get(`/api/proofs/${id}`)).body as Proof;
    const { sources, words, avoid } = stocked.look.latest;
    await lead()
      .post(`/api/looks/${stocked.look.id}/versions`)
      .set('if-match', '"1"')
      .send({ sources, words, avoid, strength: 20, note: 'weaker' })
      .expect(201);
    expect((await lead().get(`/api/proofs/${id}`)).body).toEqual(before);
  });
  it('restyles a subject that has a picture of its own', async () => {
    const s = stocked.subjects[0];
    await lead()
      .post(`/api/subjects/${s.id}/picture`)
      .attach('file', await pictureFile(80, 'jpeg', 640, 800), 'photo.jpg')
      .expect(200);
    const run = await start({ name: 'Restyle', subjectIds: [s.id], takes: 1 });
    const d = await untilRun(lead(), run.id, isOver);
    const proof = (await lead().get(`/api/proofs/${d.cells[0].takes[0].proof!.id}`)).body as Proof;
    expect(proof.ticket.contents.length).toBe(1);
    expect([proof.original?.width, proof.original?.height]).toEqual([640, 800]);
    await lead().delete(`/api/subjects/${s.id}/picture`).expect(200);
  });
  it('pauses, goes on, and stops for good', async () => {
    const run = await start({ name: 'Paused', takes: 6 });
    await lead().post(`/api/runs/${run.id}/pause`).expect(200);
    await new Promise(r => setTimeout(r, 2500));
    const made = ((await lead().get(`/api/runs/${run.id}`)).body as RunDetail).run.made;
    await new Promise(r => setTimeout(r, 1500));
    expect(((await lead().get(`/api/runs/${run.id}`)).body as RunDetail).run.made).toBe(made);
    await lead().post(`/api/runs/${run.id}/resume`).expect(200);
    await untilRun(lead(), run.id, d => d.run.made > made);
    await lead().post(`/api/runs/${run.id}/stop`).expect(200);
    const stopped = (await lead().get(`/api/runs/${run.id}`)).body as RunDetail;
    expect(stopped.run.state).toBe('stopped');
    expect(stopped.cells.flatMap(c => c.takes).some(t => t.state === 'cancelled')).toBeTrue();
    await lead().post(`/api/runs/${run.id}/resume`).expect(409);
  });
  it('tries again by itself when the press fails, cuts the line or sends a broken picture', async () => {
    await house.press.misbehave('error', 2);
    await house.press.misbehave('cut', 2);
    await house.press.misbehave('brokenPicture', 2);
    const run = await start({ name: 'Troubled' });
    const d = await untilRun(lead(), run.id, isOver, 90);
    expect(d.run).toEqual(jasmine.objectContaining({ made: 6, failed: 0 }));
    expect(d.cells.flatMap(c => c.takes).some(t => t.attempts > 0)).toBeTrue();
  });
  it('gives up after several tries, says why, and repeats what failed with one action', async () => {
    await house.press.misbehave('error', 1000);
    const run = await start({ name: 'Failing', subjectIds: [stocked.subjects[1].id], takes: 2 });
    const failed = await untilRun(lead(), run.id, isOver, 90);
    expect(failed.run.failed).toBe(2);
    expect(failed.cells[0].takes[0].problem).toContain('told to fail');
    await house.press.misbehave('error', 0);
    const { body } = await lead().post(`/api/runs/${run.id}/repeat-failed`).expect(200);
    expect((body as { message: string }).message).toContain('2 takes');
    const done = await untilRun(lead(), run.id, d => isOver(d) && d.run.made === 2);
    expect(done.run.failed).toBe(0);
  });
  it('orders one more take of a cell that has images, under a seed of its own', async () => {
    const { items } = (await lead().get('/api/runs')).body as { items: Run[] };
    const run = items.find(r => r.name === 'Sample run')!;
    const before = (await lead().get(`/api/runs/${run.id}`)).body as RunDetail;
    await lead().post(`/api/takes/${before.cells[0].takes[0].id}/again`).expect(204);
    const after = await untilRun(lead(), run.id, d => isOver(d) && d.run.made === 7);
    const seeds = after.cells[0].takes.map(t => t.seed);
    expect(new Set(seeds).size).toBe(3);
  });
  it('waits while the press is gone, says so, and goes on when it is back', async () => {
    await house.press.leave();
    await new Promise(r => setTimeout(r, 3200));
    const preview = (await lead().post('/api/plans').send(stocked.plan).expect(200)).body as PlanPreview;
    expect(preview.findings.map(f => f.code)).toContain('pressGone');
    const run = await start({ name: 'Patient', takes: 1 });
    const waiting = await untilRun(lead(), run.id, d => d.run.waitingFor !== null, 30);
    expect(waiting.run.waitingFor).toContain('press does not answer');
    expect(waiting.run.failed).toBe(0);
    await house.press.comeBack();
    const done = await untilRun(lead(), run.id, isOver, 60);
    expect(done.run).toEqual(jasmine.objectContaining({ made: 3, failed: 0, waitingFor: null }));
    expect(done.cells.flatMap(c => c.takes).every(t => t.attempts === 0)).toBeTrue();
  });

  describe('review and delivery', () => {
    let detail: RunDetail;
    const decide = (agent: TestHouse['anyone'], proofId: string, part: object) =>
      agent.post('/api/decisions').send({ id: uuidv7(), proofId, verdict: 'keep', grade: null, reasons: [], note: '', ...part });
    beforeAll(async () => {
      const run = ((await lead().get('/api/runs')).body as { items: Run[] }).items.find(r => r.name === 'Sample run')!;
      detail = (await lead().get(`/api/runs/${run.id}`)).body as RunDetail;
    });
    const standing = async (proofId: string): Promise<Decision | null> =>
      ((await lead().get(`/api/runs/${detail.run.id}`)).body as RunDetail).cells
        .flatMap(c => c.takes)
        .find(t => t.proof?.id === proofId)!.proof!.decision;

    it('adds decisions and never overwrites; the lead’s stands; taking back gives the floor to the others', async () => {
      const id = detail.cells[0].takes[0].proof!.id;
      await decide(house.agents.reviewer, id, { verdict: 'hold' }).expect(201);
      expect((await standing(id))?.verdict).toBe('hold');
      await decide(lead(), id, { verdict: 'keep', grade: 8 }).expect(201);
      await decide(house.agents.reviewer, id, { verdict: 'drop', reasons: ['crop'] }).expect(201);
      expect(await standing(id)).toEqual(jasmine.objectContaining({ verdict: 'keep', grade: 8 }));
      await decide(lead(), id, { verdict: null }).expect(201);
      expect(await standing(id)).toEqual(jasmine.objectContaining({ verdict: 'drop', reasons: ['crop'] }));
      const proof = (await lead().get(`/api/proofs/${id}`)).body as Proof;
      expect(proof.decisions.map(d => d.verdict)).toEqual(['hold', 'keep', 'drop', null]);
    });
    it('takes the same decision once, however often it is sent', async () => {
      const id = detail.cells[0].takes[1].proof!.id;
      const body = { id: uuidv7(), proofId: id, verdict: 'keep', grade: 5, reasons: [], note: '' };
      for (let i = 0; i < 3; i++) await lead().post('/api/decisions').send(body).expect(201);
      expect(((await lead().get(`/api/proofs/${id}`)).body as Proof).decisions.length).toBe(1);
    });
    it('puts a kept proof on the shelf as a reference that knows where it came from, once', async () => {
      const [kept, dropped] = [detail.cells[0].takes[1].proof!.id, detail.cells[1].takes[0].proof!.id];
      const promote = (proofId: string) => house.agents.designer.post('/api/references/from-proof').send({ proofId });
      await decide(lead(), kept, { verdict: 'keep' }).expect(201);
      const { body } = (await promote(kept).expect(201)) as { body: Reference };
      const proof = (await lead().get(`/api/proofs/${kept}`)).body as Proof;
      expect(body.picture.sha256).toBe(proof.pictureSha);
      expect(body.origin).toEqual({ kind: 'proof', proofId: kept, run: 'Sample run', look: 'Sample look version 1' });
      await promote(kept).expect(409);
      await decide(lead(), dropped, { verdict: 'drop' }).expect(201);
      expect(((await promote(dropped).expect(422)).body as Problem).detail).toContain('Only a proof that is kept');
      await promote(uuidv7()).expect(404);
    });
    it('tells how each version of a look did, by the verdicts that stand', async () => {
      const { items } = (await house.agents.reviewer.get('/api/usage/looks').expect(200)).body as { items: LookUsage[] };
      const look = detail.cells[0].look;
      const own = items.find(u => u.lookId === look.id && u.version === look.version)!;
      const proofs = ((await lead().get(`/api/runs/${detail.run.id}`)).body as RunDetail).cells
        .flatMap(c => c.takes)
        .map(t => t.proof!);
      expect(own.images).toBeGreaterThanOrEqual(proofs.length);
      expect([own.decided, own.kept]).toEqual([3, 1]);
      expect(own.badFor).toContain(detail.cells[1].subject.label);
      expect(own.drift).toBeGreaterThan(0);
    });
    it('refuses decisions about nothing or with unknown words', async () => {
      await decide(lead(), uuidv7(), {}).expect(400);
      expect(
        ((await decide(lead(), detail.cells[0].takes[0].proof!.id, { verdict: 'maybe' }).expect(400)).body as Problem).field,
      ).toBe('verdict');
      expect(((await decide(lead(), detail.cells[0].takes[0].proof!.id, { grade: 12 }).expect(400)).body as Problem).field).toBe(
        'grade',
      );
    });
    it('exports what was kept: PNGs with ticket, rights and source type inside, and both manifests', async () => {
      for (const cell of detail.cells) await decide(lead(), cell.takes[1].proof!.id, { verdict: 'keep', grade: 7 }).expect(201);
      const { body } = await lead()
        .get(`/api/runs/${detail.run.id}/export.zip?verdicts=keep&naming=${encodeURIComponent('{{subject}}')}`)
        .responseType('blob')
        .expect(200);
      const files = await unzip(body as Buffer);
      expect([...files.keys()].sort()).toEqual(['beetroot.png', 'manifest.csv', 'manifest.json', 'mark.png', 'radish.png']);
      const manifest = JSON.parse(files.get('manifest.json')!.toString()) as {
        images: {
          file: string;
          ticketHash: string;
          ticket: Proof['ticket'];
          pixelHash: string;
          rights: { sources: { name: string }[] };
        }[];
      };
      expect(manifest.images.length).toBe(3);
      const rows = parse(files.get('manifest.csv')!, { columns: true }) as Record<string, string>[];
      expect(rows.map(r => r.file).sort()).toEqual(['beetroot.png', 'mark.png', 'radish.png']);
      for (const image of manifest.images) {
        expect(ticketHash(image.ticket)).toBe(image.ticketHash);
        expect(image.rights.sources.map(s => s.name).sort()).toEqual(['sample 1', 'sample 2']);
        const meta = await sharp(files.get(image.file)).metadata();
        const xmp = meta.xmp!.toString();
        expect(xmp).toContain('digitalsourcetype/algorithmicMedia');
        expect(xmp).toContain(image.ticketHash);
        expect(xmp).toContain('sample 1');
        const inside = /<zinc:ticket>(.*?)<\/zinc:ticket>/s
          .exec(xmp)![1]
          .replace(/&#(?:x([0-9a-f]+)|(\d+));|&(quot|amp|lt|gt|apos);/gi, (_, h: string, d: string, n: string) =>
            n ? { quot: '"', amp: '&', lt: '<', gt: '>', apos: "'" }[n]! : String.fromCharCode(h ? parseInt(h, 16) : Number(d)),
          );
        expect(ticketHash(JSON.parse(inside) as Proof['ticket'])).toBe(image.ticketHash);
      }
    });
    it('says so when there is nothing to export, or the naming rule is wrong', async () => {
      const get = (query: string) => lead().get(`/api/runs/${detail.run.id}/export.zip?${query}`);
      await get('verdicts=hold').expect(422);
      expect(((await get('verdicts=keep&naming={{colour}}').expect(400)).body as Problem).field).toBe('naming');
      await get('verdicts=sometimes').expect(400);
    });
  });
});
