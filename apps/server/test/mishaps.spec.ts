import { readdirSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import type { Problem, Reference } from '@zinc/contract';
import { pictureFile, startTestHouse, stock, untilRun, type Stocked, type TestHouse } from './harness.ts';

describe('When things go wrong around it', () => {
  let house: TestHouse;
  let s: Stocked;
  const lead = () => house.agents.lead;
  const filesKept = (): string[] =>
    (readdirSync(join(house.data, 'house'), { recursive: true }) as string[]).filter(f => /[0-9a-f]{64}/.test(f)).sort();
  const references = async (): Promise<number> =>
    ((await lead().get('/api/references').expect(200)).body as { items: Reference[] }).items.length;

  beforeAll(async () => {
    house = await startTestHouse();
    s = await stock(lead());
  }, 60_000);
  afterAll(() => house.close());

  it('a full disk is told at the upload and by the run; nothing is lost, and both work again once there is room', async () => {
    const { store } = house.server.context;
    const put = store.put.bind(store);
    const before = await references();
    store.put = () => Promise.reject(Object.assign(new Error('no space left on device'), { code: 'ENOSPC' }));
    const { body } = await lead()
      .post('/api/references')
      .attach('file', await pictureFile(7), 'late.png')
      .expect(507);
    expect((body as Problem).detail).toContain('no room on the disk');
    const { id } = (await lead().post('/api/runs').send(s.plan).expect(201)).body as { id: string };
    const waits = await untilRun(lead(), id, d => d.run.waitingFor !== null);
    expect(waits.run.waitingFor).toContain('no room on the disk');
    store.put = put;
    const { run, cells } = await untilRun(lead(), id, d => d.run.state === 'done', 90);
    expect([run.made, run.failed]).toEqual([6, 0]);
    expect(cells.flatMap(c => c.takes.map(t => t.attempts))).toEqual([0, 0, 0, 0, 0, 0]);
    expect(await references()).toBe(before);
    await lead()
      .post('/api/references')
      .attach('file', await pictureFile(7), 'late.png')
      .expect(201);
  }, 120_000);

  it('an upload that is cut off in the middle leaves nothing behind', async () => {
    const before = { files: filesKept(), references: await references() };
    const bytes = await pictureFile(8, 'png', 900, 900);
    const agent = lead() as unknown as { jar: { getCookies(at: { path: string }): { toValueString(): string } } };
    for (const part of [0.1, 0.6, 0.98]) {
      const body = Buffer.concat([
        Buffer.from(
          '--cut\r\nContent-Disposition: form-data; name="file"; filename="cut.png"\r\nContent-Type: image/png\r\n\r\n',
        ),
        bytes,
        Buffer.from('\r\n--cut--\r\n'),
      ]);
      await new Promise<void>(resolve => {
        const req = request({
          port: house.server.port,
          path: '/api/references',
          method: 'POST',
          headers: {
            'content-type': 'multipart/form-data; boundary=cut',
            'content-length': body.length,
            cookie: agent.jar
              .getCookies({ path: '/', domain: '127.0.0.1', secure: false, script: false } as never)
              .toValueString(),
          },
        });
        req.on('error', () => resolve());
        req.on('response', () => resolve());
        req.write(body.subarray(0, Math.floor(body.length * part)), () => setTimeout(() => req.destroy(), 60));
      });
    }
    await new Promise(r => setTimeout(r, 300));
    await lead().get('/api/health').expect(200);
    expect({ files: filesKept(), references: await references() }).toEqual(before);
  });

  it('a clock of the server that jumps, forth or back, neither holds a run up nor makes anything twice', async () => {
    const RealDate = Date;
    const jump = (by: number): void => {
      globalThis.Date = class extends RealDate {
        constructor(...given: [] | [number]) {
          if (given.length === 0) super(RealDate.now() + by);
          else super(...given);
        }
        static override now(): number {
          return RealDate.now() + by;
        }
      } as DateConstructor;
    };
    try {
      for (const hours of [5, -5]) {
        jump(hours * 3_600_000);
        const { id } = (
          await lead()
            .post('/api/runs')
            .send({ ...s.plan, seed: 60 + hours, takes: 1 })
            .expect(201)
        ).body as { id: string };
        await untilRun(lead(), id, d => d.run.made >= 1, 60);
        jump(-hours * 3_600_000);
        const { run, cells } = await untilRun(lead(), id, d => d.run.state === 'done', 60);
        expect([run.made, run.failed]).toEqual([3, 0]);
        expect(cells.every(c => c.takes.every(t => t.attempts === 0))).toBeTrue();
      }
    } finally {
      globalThis.Date = RealDate;
    }
  }, 150_000);
});
