import type {
  AskAnswer,
  Coverage,
  KeptReport,
  Look,
  PlanPreview,
  Problem,
  Proof,
  ProofFindings,
  Recipe,
  Reference,
  RunDetail,
  Subject,
} from '@zinc/contract';
import { decodeWorkingCopy, drawMask, type Picture } from '@zinc/core';
import { writeWord } from '@zinc/core/testLetters';
import sharp from 'sharp';
import { uuidv7 } from 'uuidv7';
import { brands, campaigns } from '../src/house/tables.ts';
import { startTestHouse, stock, untilRun, type Agent, type Stocked, type TestHouse } from './harness.ts';

/** Every take of a run is settled. */
const settled = (d: RunDetail): boolean =>
  d.cells.every(c => c.takes.every(t => t.state !== 'waiting' && t.state !== 'painting'));

describe('Proofs made from proofs', () => {
  let house: TestHouse;
  let lead: Agent;
  let stocked: Stocked;
  let runId: string;
  let proofId: string;

  const proof = async (id: string): Promise<Proof> => (await lead.get(`/api/proofs/${id}`).expect(200)).body as Proof;
  const pixels = async (sha: string): Promise<Picture> =>
    decodeWorkingCopy(
      (
        await lead
          .get(`/api/pictures/${sha}/working`)
          .buffer(true)
          .parse((res, done) => {
            const parts: Buffer[] = [];
            res.on('data', (d: Buffer) => parts.push(d));
            res.on('end', () => done(null, Buffer.concat(parts)));
          })
          .expect(200)
      ).body as Buffer,
    );
  /** Orders something of a proof and waits for what comes of it, the newest last. */
  const make = async (path: string, body: object, id = proofId): Promise<Proof[]> => {
    const before = new Set((await proof(id)).family.map(m => m.proofId));
    await lead.post(`/api/proofs/${id}/${path}`).send(body).expect(200);
    await untilRun(lead, runId, settled);
    const fresh = (await proof(id)).family.filter(m => m.proofId && !before.has(m.proofId));
    return Promise.all(fresh.map(m => proof(m.proofId!)));
  };
  const keep = (id: string, verdict = 'keep') =>
    lead.post('/api/decisions').send({ id: uuidv7(), proofId: id, verdict, grade: null, reasons: [], note: '' }).expect(201);

  beforeAll(async () => {
    house = await startTestHouse();
    lead = house.agents.lead;
    stocked = await stock(lead);
    const { db } = house.server.context;
    const [brandId, campaignId] = [uuidv7(), uuidv7()];
    await db.insert(brands).values({ id: brandId, name: 'Test brand', allowedDrift: 0.5, avoid: [] });
    await db.insert(campaigns).values({ id: campaignId, brandId, name: 'Spring' });
    const sent = await lead
      .post('/api/runs')
      .send({ ...stocked.plan, campaignId, takes: 2 })
      .expect(201);
    runId = (sent.body as { id: string }).id;
    const detail = await untilRun(lead, runId, d => d.run.state === 'done');
    proofId = detail.cells.find(c => c.subject.label === 'Radish')!.takes[0].proof!.id;
  }, 120_000);
  afterAll(() => house.close());

  it('are offshoots near and far, several at once, each a further take of the cell', async () => {
    const [one, two] = await make('offshoots', { distance: 60, count: 2 });
    expect([one.take, two.take]).toEqual([3, 4]);
    expect(one.ticket.parents).toEqual([{ proof: proofId, how: 'offshoot' }]);
    expect(one.ticket.offshoots![0].distance).toBe(60);
    expect(one.pixelHash).not.toBe(two.pixelHash);
    expect(one.family.map(m => m.how)).toEqual([null, 'offshoot', 'offshoot']);
    expect(one.depth).toBe(0);
    const again = await lead.post(`/api/proofs/${one.id}/remake`).expect(200);
    expect((again.body as { same: boolean }).same).toBe(true);
  }, 120_000);

  it('are retouches that leave every pixel beyond the mask and its rim as it was', async () => {
    const strokes = [{ points: [0.45, 0.5, 0.55, 0.55], size: 0.12 }];
    const before = await proof(proofId);
    const own = await pixels(before.pictureSha);
    const { width, height } = own;
    const mask = drawMask(width, height, strokes);
    // What is farther from the region than the rim is wide.
    const far = (x: number, y: number): boolean => {
      for (let dy = -16; dy <= 16; dy++)
        for (let dx = -16; dx <= 16; dx++) {
          const [px, py] = [Math.min(width - 1, Math.max(0, x + dx)), Math.min(height - 1, Math.max(0, y + dy))];
          if (mask.data[(py * width + px) * 4] > 0) return false;
        }
      return true;
    };
    for (const [how, kin] of [
      ['remove', 'removed'],
      ['again', 'paintedAgain'],
    ] as const) {
      const [made] = await make('retouches', { how, strokes, note: how === 'again' ? 'blue' : '' });
      expect(made.family.find(m => m.proofId === made.id)!.how).toBe(kin);
      expect(made.depth).toBe(1);
      const after = await pixels(made.pictureSha);
      let inside = 0;
      let beyond = 0;
      for (let y = 0; y < height; y += 2)
        for (let x = 0; x < width; x += 2) {
          const i = (y * width + x) * 4;
          if ([0, 1, 2].every(c => own.data[i + c] === after.data[i + c])) continue;
          if (far(x, y)) beyond++;
          else inside++;
        }
      expect(inside).toBeGreaterThan(100);
      expect(beyond).toBe(0);
    }
  }, 120_000);

  it('refuse a mask over nothing and over everything, and say so at the strokes', async () => {
    const whole = {
      how: 'remove',
      strokes: [
        { points: [0, 0.5, 1, 0.5], size: 1 },
        { points: [0, 0, 1, 0], size: 1 },
        { points: [0, 1, 1, 1], size: 1 },
      ],
    };
    const none = { how: 'remove', strokes: [{ points: [0.5, 0.5], size: 0.1, stays: true }] };
    for (const body of [whole, none]) {
      const refused = (await lead.post(`/api/proofs/${proofId}/retouches`).send(body).expect(400)).body as Problem;
      expect(refused.field).toBe('strokes');
    }
    await lead.post(`/api/proofs/${proofId}/retouches`).send({ how: 'remove', strokes: [] }).expect(400);
    await lead.post(`/api/proofs/${uuidv7()}/offshoots`).send({ distance: 10, count: 1 }).expect(404);
  });

  it('follow asks in words, read back before anything is made, and keep the thread', async () => {
    const ask = { words: 'ground darker, two radishes, fewer leaves, a better hat' };
    const read = (await lead.post(`/api/proofs/${proofId}/asks/reading`).send(ask).expect(200)).body as AskAnswer;
    expect(read.left).toEqual(['a better hat']);
    expect(read.says.map(s => s.says).join(' ')).toContain(
      'The drawing is told: two radishes. The drawing is told: fewer leaves.',
    );
    expect(read.says.map(s => s.says).join(' ')).toContain('The ground goes from');
    const [first] = await make('asks', ask);
    const before = await proof(proofId);
    expect(first.ticket.seed).toBe(before.ticket.seed);
    expect(first.pixelHash).not.toBe(before.pixelHash);
    // The next one begins from the first proof again, and heeds what is kept of the thread.
    const thread = (await proof(first.id)).asks;
    expect(thread.map(a => [a.words, a.left, a.madeId])).toEqual([[ask.words, ['a better hat'], first.id]]);
    const [second] = await make('asks', { words: 'strength 60', keep: [thread[0].id] }, first.id);
    expect(second.ticket.parents).toEqual([{ proof: proofId, how: 'asked' }]);
    expect(second.ticket.settings.strength).toBe(60);
    expect(second.ticket.text.final).toContain('two radishes');
    const [third] = await make('asks', { words: 'warmer', onTop: true }, second.id);
    expect(third.ticket.parents[0].proof).toBe(second.id);
    expect((await proof(third.id)).asks.length).toBe(3);
  }, 120_000);

  it('refuse an ask of which nothing is understood, and lose nothing of it', async () => {
    const refused = (await lead.post(`/api/proofs/${proofId}/asks`).send({ words: 'dancing shoes' }).expect(422)).body as Problem;
    expect(refused.detail).toContain('“dancing shoes” is not understood');
    await lead.post(`/api/proofs/${proofId}/asks`).send({ words: '' }).expect(400);
  });

  it('go towards a picture in the sides that were named', async () => {
    const { picture, name } = stocked.references[0];
    const [made] = await make('asks', { words: '', picture: { sha256: picture.sha256, name, facets: ['colour'] } });
    const before = await proof(proofId);
    expect(made.ticket.look.style.palette).not.toEqual(before.ticket.look.style.palette);
    expect(made.ticket.look.style.amounts.hatch).toBe(before.ticket.look.style.amounts.hatch);
  }, 120_000);

  it('are matched to the set, as a new proof beside the old one', async () => {
    const [made] = await make('match', { amount: 90 });
    expect(made.ticket.binding!.amount).toBe(90);
    expect(made.ticket.binding!.sheet.from).toBe('barycentre');
    expect((await proof(proofId)).ticket.binding).toBeUndefined();
  }, 120_000);

  it('may be made by makers only', async () => {
    for (const path of ['offshoots', 'retouches', 'asks', 'asks/reading', 'match'])
      await house.agents.reviewer.post(`/api/proofs/${proofId}/${path}`).send({}).expect(403);
  });

  it('show what of their sources nobody wanted: a shape that turns up again, and letters, where they are', async () => {
    const findings = async (id: string): Promise<ProofFindings> =>
      (await house.agents.reviewer.get(`/api/proofs/${id}/findings`).expect(200)).body as ProofFindings;
    // Its sources give their colours, so none of them can leak.
    expect((await findings(proofId)).leaks).toEqual([]);
    expect((await findings(proofId)).lettering).toEqual([]);
    // A source with a word on it, which is painted over itself without any strength: all of it turns up.
    const [width, height] = [480, 480];
    const ink = new Uint8Array(width * height);
    writeWord(ink, width, height, 'SEEDMARK', 0.1, 0.4, 0.09);
    const raw = Buffer.from(Uint8Array.from(ink, v => (v ? 30 : 238)).buffer);
    const file = await sharp(raw, { raw: { width, height, channels: 1 } })
      .toColourspace('srgb')
      .png()
      .toBuffer();
    const kept = (await lead.post('/api/references').attach('file', file, 'word.png').expect(201)).body as Reference;
    const sources = [
      { kind: 'reference', id: kept.id, name: 'Word', sha256: kept.picture.sha256, parts: 1, facets: ['line', 'texture'] },
    ];
    const body = { name: 'With a word', sources, strength: 0, words: [], avoid: [], note: '' };
    const look = (await lead.post('/api/looks').send(body).expect(201)).body as Look;
    const subject = stocked.subjects[2];
    await lead.post(`/api/subjects/${subject.id}/picture`).attach('file', file, 'word.png').expect(200);
    const plan = { ...stocked.plan, subjectIds: [subject.id], lookIds: [look.id], takes: 1 };
    const preview = (await lead.post('/api/plans').send(plan).expect(200)).body as PlanPreview;
    expect(preview.findings.map(f => f.code)).toContain('sourceLettering');
    const sent = await lead.post('/api/runs').send(plan).expect(201);
    const made = await untilRun(lead, (sent.body as { id: string }).id, d => d.run.state === 'done');
    const found = await findings(made.cells[0].takes[0].proof!.id);
    expect(found.lettering[0].letters).toBeGreaterThanOrEqual(6);
    expect(found.lettering[0].y).toBeGreaterThan(0.3);
    expect(found.echoes.length).toBeGreaterThan(0);
    expect(found.echoes[0].source).toBe('Word');
  }, 120_000);

  it('are found again when an exported picture comes back, and tell another house’s recipe', async () => {
    await keep(proofId);
    const zip = await lead
      .get(`/api/runs/${runId}/export.zip`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (d: Buffer) => parts.push(d));
        res.on('end', () => done(null, Buffer.concat(parts)));
      });
    // The pictures of the archive are stored as they are.
    const bytes = zip.body as Buffer;
    const start = bytes.indexOf(Buffer.from([0x89, 0x50, 0x4e, 0x47]));
    const png = bytes.subarray(start, bytes.indexOf(Buffer.from('IEND'), start) + 8);
    const told = async (file: Buffer): Promise<Recipe> =>
      (await lead.post('/api/recipes').attach('file', file, 'back.png').expect(200)).body as Recipe;
    expect(await told(png)).toEqual({ proofId, ticket: null, says: jasmine.stringContaining('pixel for pixel') as never });
    const small = await sharp(png).resize(200).keepMetadata().png().toBuffer();
    expect(await told(small)).toEqual({ proofId, ticket: null, says: jasmine.stringContaining('changed since') as never });
    const { xmp } = await sharp(png).metadata();
    const foreign = xmp!.toString('utf8').replace('&#34;seed&#34;:', '&#34;seed&#34;:9');
    const other = await told(await sharp(small).withXmp(foreign).png().toBuffer());
    expect(other.proofId).toBeNull();
    expect(other.ticket!.subject.label).toBe('Radish');
    expect((await told(await sharp(png).resize(200).png().toBuffer())).ticket).toBeNull();
  }, 120_000);

  it('lead a campaign when they are kept, and its coverage tells what is missing', async () => {
    const { campaign } = await proof(proofId);
    expect(campaign).toEqual({ id: jasmine.any(String) as never, name: 'Spring', isHero: false });
    const path = `/api/campaigns/${campaign!.id}`;
    const other = (await proof(proofId)).family[1].proofId!;
    await lead.put(`${path}/hero`).send({ proofId: other }).expect(422);
    await lead.put(`${path}/hero`).send({ proofId }).expect(200);
    await house.agents.designer.put(`${path}/ends`).send({ ends: '2026-12-01' }).expect(403);
    await lead.put(`${path}/ends`).send({ ends: 'soon' }).expect(400);
    await lead.put(`${path}/ends`).send({ ends: '2026-12-01' }).expect(200);
    const c = (await house.agents.reviewer.get(`${path}/coverage`).expect(200)).body as Coverage;
    expect(c.campaign.ends).toBe('2026-12-01');
    expect(c.hero!.proofId).toBe(proofId);
    expect(c.subjects.map(s => s.label).sort()).toEqual(['Beetroot', 'Mark', 'Radish']);
    const radish = c.cells.find(x => x.subjectId === c.subjects.find(s => s.label === 'Radish')!.id)!;
    expect(radish.kept).toBe(1);
    expect(radish.best!.proofId).toBe(proofId);
    expect(c.cells.filter(x => x.kept === 0).length).toBe(2);
    await lead.put(`${path}/hero`).send({ proofId: null }).expect(200);
    await lead.get(`/api/campaigns/${uuidv7()}/coverage`).expect(404);
  });

  it('are counted in what gets kept, with the range the share may lie in', async () => {
    const detail = (await lead.get(`/api/runs/${runId}`).expect(200)).body as RunDetail;
    const mark = detail.cells.find(c => c.subject.label === 'Mark')!.takes;
    await keep(mark[0].proof!.id, 'drop');
    await keep(mark[1].proof!.id);
    const report = (await lead.get('/api/reports/kept').expect(200)).body as KeptReport;
    expect([report.kept, report.decided]).toEqual([2, 3]);
    const [look] = report.by.look;
    expect([look.name, look.kept, look.decided]).toEqual(['Sample look, version 1', 2, 3]);
    expect(look.from).toBeLessThan(0.3);
    expect(look.to).toBeGreaterThan(0.9);
    expect(report.by.subject.find(s => s.name === 'Mark')!.kept).toBe(1);
    expect(report.by.source.map(s => s.name).sort()).toEqual(stocked.references.map(r => r.name).sort());
    expect(report.tries).toEqual([
      { tries: 1, cells: 1 },
      { tries: 2, cells: 1 },
    ]);
    expect(look.proofs.every(p => [proofId, mark[0].proof!.id, mark[1].proof!.id].includes(p.id))).toBe(true);
    const none = (await lead.get(`/api/reports/kept?campaign=${uuidv7()}`).expect(200)).body as KeptReport;
    expect(none.decided).toBe(0);
  });

  it('made one from another twice are found before a third, and led back to the original', async () => {
    const subject = stocked.subjects[0];
    const give = async (sha: string): Promise<void> => {
      const png = await house.server.context.store.read(sha);
      await lead.post(`/api/subjects/${subject.id}/picture`).attach('file', png, 'again.png').expect(200);
    };
    const plan = { ...stocked.plan, subjectIds: [subject.id], takes: 1 };
    const run = async (): Promise<string> => {
      const id = ((await lead.post('/api/runs').send(plan).expect(201)).body as { id: string }).id;
      const done = await untilRun(lead, id, d => d.run.state === 'done');
      return done.cells[0].takes[0].proof!.pictureSha;
    };
    const codes = async (): Promise<string[]> =>
      ((await lead.post('/api/plans').send(plan).expect(200)).body as PlanPreview).findings.map(f => f.code);
    const { picture } = stocked.references[1];
    await give(picture.sha256);
    expect(await codes()).not.toContain('deepChain');
    await lead.post(`/api/subjects/${subject.id}/picture/original`).expect(422);
    await give(await run());
    expect(await codes()).not.toContain('deepChain');
    await give(await run());
    expect(await codes()).toContain('deepChain');
    const back = (await lead.post(`/api/subjects/${subject.id}/picture/original`).expect(200)).body as Subject;
    expect(back.picture!.sha256).toBe(picture.sha256);
    expect(await codes()).not.toContain('deepChain');
  }, 120_000);
});
