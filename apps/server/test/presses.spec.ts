import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { PlanPreview, Press, Proof, RunDetail } from '@zinc/contract';
import { sql } from 'drizzle-orm';
import { startTestHouse, startTestPress, stock, untilRun, type Stocked, type TestHouse, type TestPress } from './harness.ts';

describe('Several presses', () => {
  let house: TestHouse;
  let second: TestPress;
  let s: Stocked;
  const lead = () => house.agents.lead;
  const input = (change: object = {}) => ({
    name: 'Back room press',
    url: second.url,
    token: second.token,
    atOnce: null,
    price: null,
    shares: true,
    inUse: true,
    ...change,
  });
  const list = async (): Promise<Press[]> => ((await lead().get('/api/house').expect(200)).body as { presses: Press[] }).presses;
  const pressNamed = async (name: string): Promise<Press> => (await list()).find(p => p.name === name)!;
  const change = async (name: string, changes: object): Promise<void> => {
    const { id, url, atOnce, price, ownPrice, shares, state } = await pressNamed(name);
    const before = { name, url, atOnce, price: ownPrice ? price : null, shares, inUse: state !== 'unused' };
    await lead()
      .put(`/api/presses/${id}`)
      .send({ ...before, ...changes })
      .expect(200);
  };
  const start = async (more: object = {}): Promise<string> =>
    (
      (
        await lead()
          .post('/api/runs')
          .send({ ...s.plan, ...more })
          .expect(201)
      ).body as { id: string }
    ).id;
  const ended = (id: string): Promise<RunDetail> => untilRun(lead(), id, d => d.run.state === 'done', 120);
  const proofsOf = (d: RunDetail): Promise<Proof[]> =>
    Promise.all(
      d.cells.flatMap(c =>
        c.takes.flatMap(t =>
          t.proof
            ? [
                lead()
                  .get(`/api/proofs/${t.proof.id}`)
                  .expect(200)
                  .then(r => r.body as Proof),
              ]
            : [],
        ),
      ),
    );

  beforeAll(async () => {
    house = await startTestHouse({ pressPatience: 8 });
    second = await startTestPress();
    s = await stock(lead());
  }, 60_000);
  afterAll(async () => {
    await house.close();
    await second.close();
  });

  describe('coming to the house', () => {
    const refused = async (changes: object): Promise<{ field: string; detail: string }> =>
      (await lead().post('/api/presses').send(input(changes)).expect(400)).body as { field: string; detail: string };

    it('says at the address when nothing answers, and when what answers is no press', async () => {
      expect(await refused({ url: 'http://127.0.0.1:9' })).toEqual(
        jasmine.objectContaining({ field: 'url', detail: 'Nothing answers at this address.' }),
      );
      const other: Server = createServer((_q, r) => r.end('{"name":"A mangle"}'));
      await new Promise<void>(r => other.listen(0, '127.0.0.1', r));
      const { port } = other.address() as AddressInfo;
      const { field, detail } = await refused({ url: `http://127.0.0.1:${port}` });
      expect(field).toBe('url');
      expect(detail).toContain('does not keep to the press contract');
      other.close();
      expect((await refused({ url: 'ftp://nowhere' })).field).toBe('url');
    });

    it('says at the token when the press does not take it, and at the name when it is taken', async () => {
      expect((await refused({ token: 'of another' })).field).toBe('token');
      expect((await refused({ token: '' })).field).toBe('token');
      expect((await refused({ name: 'house PRESS' })).field).toBe('name');
      expect((await refused({ url: house.press.url, token: house.press.token })).field).toBe('url');
      expect((await refused({ atOnce: 0 })).field).toBe('atOnce');
    });

    it('is kept with a token that nobody can read', async () => {
      const answer = await lead().post('/api/presses').send(input()).expect(201);
      expect(answer.text).not.toContain(second.token);
      const kept = await house.server.context.db.execute(sql`select sealed_token from presses where url is not null`);
      expect(JSON.stringify(kept)).not.toContain(second.token);
      const press = await pressNamed('Back room press');
      expect([press.state, press.url, press.mates]).toEqual(['idle', second.url, ['House press']]);
      await house.agents.designer
        .post('/api/presses')
        .send(input({ name: 'Another' }))
        .expect(403);
    });

    it('can be changed without its token, and a twin of another is refused', async () => {
      await change('Back room press', { price: 0.25, atOnce: 3 });
      expect(await pressNamed('Back room press')).toEqual(
        jasmine.objectContaining({ price: 0.25, ownPrice: true, atOnce: 3, state: 'idle' }),
      );
      const { id } = await pressNamed('House press');
      await lead().put(`/api/presses/${id}`).send(input()).expect(400);
      await change('House press', { price: 0.1 });
      expect((await pressNamed('House press')).price).toBe(0.1);
    });
  });

  it('share one run, each ticket naming the press that made it, and would paint the same picture', async () => {
    const proofs = await proofsOf(await ended(await start({ takes: 3 })));
    expect(proofs.length).toBe(9);
    const makers = new Set(proofs.map(p => p.ticket.press.name));
    expect([...makers].sort()).toEqual(['Back room press', 'House press']);
    const other = proofs.find(p => p.ticket.press.name === 'Back room press')!;
    await second.leave();
    try {
      // The house press takes over, and the pixels are the same.
      const again = await lead().post(`/api/proofs/${other.id}/remake`).expect(200);
      expect((again.body as { same: boolean }).same).toBeTrue();
    } finally {
      await second.comeBack();
    }
  }, 120_000);

  it('finish what one of them cannot, without a failure, and the faulty one is shown and left alone for a while', async () => {
    await house.press.misbehave('error', 1000);
    const id = await start({ seed: 41 });
    const detail = await ended(id);
    expect([detail.run.made, detail.run.failed]).toEqual([6, 0]);
    expect((await proofsOf(detail)).every(p => p.ticket.press.name === 'Back room press')).toBeTrue();
    expect((await pressNamed('House press')).fault).toContain('told to fail');
    await house.press.misbehave('error', 0);
  }, 120_000);

  it('go on without one that dies in the middle', async () => {
    const id = await start({ takes: 3, seed: 42 });
    await untilRun(lead(), id, d => d.run.made >= 2);
    await house.press.leave();
    const detail = await ended(id);
    await house.press.comeBack();
    expect([detail.run.made, detail.run.failed, detail.run.waitingFor]).toEqual([9, 0, null]);
  }, 120_000);

  it('are not believed when they lie: a wrong size, another picture, or one that never comes', async () => {
    await change('Back room press', { inUse: false });
    expect((await pressNamed('Back room press')).state).toBe('unused');
    await house.press.misbehave('wrongSize', 1);
    await house.press.misbehave('otherPicture', 1);
    await house.press.misbehave('stuck', 1);
    const { run } = await ended(await start({ seed: 43, takes: 1 }));
    expect([run.made, run.failed]).toEqual([3, 0]);
    const kinds = await house.server.context.db.execute(sql`select count(*) as n from events where kind = 'takeRetried'`);
    expect(Number((kinds as unknown as [{ n: number }[]])[0][0].n)).toBeGreaterThanOrEqual(3);
  }, 120_000);

  it('are left alone for a while when they go wrong again and again, and the run says so', async () => {
    await house.press.misbehave('error', 9);
    const id = await start({ seed: 45 });
    const waits = await untilRun(lead(), id, d => d.run.waitingFor !== null);
    expect(waits.run.waitingFor).toMatch(/^House press went wrong \d+ times in a row/);
    const { run } = await ended(id);
    expect([run.made, run.failed, run.waitingFor]).toEqual([6, 0, null]);
  }, 120_000);

  it('spend no attempt when they have too much to do', async () => {
    await house.press.misbehave('busy', 8);
    const id = await start({ seed: 44, takes: 1 });
    const waits = await untilRun(lead(), id, d => d.run.waitingFor !== null);
    expect(waits.run.waitingFor).toContain('too much to do');
    const detail = await ended(id);
    expect([detail.run.made, ...detail.cells.flatMap(c => c.takes.map(t => t.attempts))]).toEqual([3, 0, 0, 0]);
    expect((await pressNamed('House press')).fault).toBeNull();
  }, 120_000);

  it('are refused to a plan when out of use', async () => {
    const { id } = await pressNamed('Back room press');
    const answer = await lead()
      .post('/api/plans')
      .send({ ...s.plan, pressId: id })
      .expect(400);
    expect((answer.body as { field: string }).field).toBe('pressId');
    await change('Back room press', { inUse: true });
    expect((await pressNamed('Back room press')).state).toBe('idle');
  });

  it('can be stepped through in a strip, each at its own price', async () => {
    const presses = await list();
    const axes = [{ setting: 'press', values: presses.map(p => p.id) }];
    const plan = { ...s.plan, kind: 'testStrip', takes: 1, axes };
    const preview = (await lead().post('/api/plans').send(plan).expect(200)).body as PlanPreview;
    expect(preview.cells.slice(0, 2).map(c => c.values[0])).toEqual([
      { setting: 'press', what: 'Press', value: 'House press' },
      { setting: 'press', what: 'Press', value: 'Back room press' },
    ]);
    expect(preview.cost).toBeCloseTo(3 * 0.1 + 3 * 0.25);
    const unknown = { ...plan, axes: [{ setting: 'press', values: ['nowhere'] }] };
    expect(((await lead().post('/api/plans').send(unknown).expect(400)).body as { field: string }).field).toBe('axes');
    const models = { ...plan, axes: [{ setting: 'model', values: ['none such'] }] };
    expect(((await lead().post('/api/plans').send(models).expect(400)).body as { detail: string }).detail).toContain(
      'has no model',
    );
  });
});
