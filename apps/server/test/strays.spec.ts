import type { Look, Reference, RunDetail } from '@zinc/contract';
import { outliersOf } from '@zinc/core';
import sharp from 'sharp';
import { plantStrays } from '../src/demo/campaigns.ts';
import { startTestHouse, stock, untilRun, type TestHouse } from './harness.ts';

/** A picture quite unlike the others of a test house: dark, with grain all over. */
async function night(): Promise<Buffer> {
  const [width, height] = [480, 480];
  const data = Buffer.alloc(width * height * 3);
  for (let i = 0, n = 7; i < data.length; i++) {
    n = (Math.imul(n, 1103515245) + 12345) >>> 0;
    data[i] = 18 + (i % 3) * 14 + ((n >>> 16) % 46);
  }
  return sharp(data, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer();
}

describe('Strays in a set', () => {
  let house: TestHouse;
  beforeAll(async () => {
    house = await startTestHouse();
  });
  afterAll(() => house.close());

  it('painted in another look by mistake are just the ones that stand out by their drift', async () => {
    const { lead } = house.agents;
    const { plan } = await stock(lead);
    const reference = (
      await lead
        .post('/api/references')
        .attach('file', await night(), 'night.png')
        .expect(201)
    ).body as Reference;
    const sources = [
      {
        ...{ kind: 'reference', id: reference.id, name: reference.name, sha256: reference.picture.sha256, parts: 1 },
        facets: ['colour', 'light', 'line', 'texture'],
      },
    ];
    const other = (
      await lead.post('/api/looks').send({ name: 'Night', sources, strength: 80, words: [], avoid: [], note: '' }).expect(201)
    ).body as Look;
    const sent = await lead
      .post('/api/runs')
      // One seed for all: the same pictures, and so the same figures, in every house.
      .send({ ...plan, seedPolicy: 'one', takes: 4 })
      .expect(201);
    const { id } = sent.body as { id: string };
    await lead.post(`/api/runs/${id}/pause`).expect(200);
    await plantStrays(house.server.context, id, other.id);
    await lead.post(`/api/runs/${id}/resume`).expect(200);
    const detail: RunDetail = await untilRun(lead, id, d => d.run.state === 'done', 110);
    const takes = detail.cells.flatMap(c => c.takes.map(t => ({ row: c.row, take: t.take, drift: t.proof!.drift!.total })));
    // Every second subject's last take was planted.
    const planted = takes.filter(t => t.take === 4 && t.row % 2 === 0);
    expect(planted.length).toBe(2);
    const found = outliersOf(takes.map(t => t.drift)).map(i => takes[i]);
    expect(found.sort((p, q) => p.row - q.row)).toEqual(planted);

    // Matched to its set, one of them no longer stands out.
    const stray = detail.cells.find(c => c.row === planted[0].row)!.takes.find(t => t.take === 4)!;
    await lead.post(`/api/proofs/${stray.proof!.id}/match`).send({ amount: 100 }).expect(200);
    const after: RunDetail = await untilRun(lead, id, d => d.cells.some(c => c.takes.some(t => t.take === 5 && t.proof)), 60);
    const all = after.cells.flatMap(c => c.takes);
    const outside = outliersOf(all.map(t => t.proof!.drift!.total)).map(i => all[i].take);
    expect(outside).toEqual([4, 4]);
    expect(all.some(t => t.take === 5)).toBeTrue();
  }, 180_000);
});
