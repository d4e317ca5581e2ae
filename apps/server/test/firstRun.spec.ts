import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Session } from '@zinc/contract';
import { pino } from 'pino';
import supertest from 'supertest';
import { startServer } from '../src/server.ts';
import { readSettings } from '../src/settings.ts';
import { freshDatabase, startTestPress, testSettings } from './harness.ts';

describe('settings', () => {
  const good = {
    ZINC_DATA: '/tmp/x',
    ZINC_DB_URL: 'mariadb://a:b@127.0.0.1:3306/z',
    ZINC_PRESS_URL: 'http://127.0.0.1:1/',
    ZINC_PRESS_TOKEN: 't',
    ZINC_SECRET: 'x'.repeat(16),
  };
  it('take defaults and tidy addresses', () => {
    const s = readSettings(good);
    expect([s.port, s.demo, s.databaseUrl, s.pressUrl]).toEqual([
      4310,
      'full',
      'mysql://a:b@127.0.0.1:3306/z',
      'http://127.0.0.1:1',
    ]);
  });
  it('name everything that is wrong at once', () => {
    expect(() =>
      readSettings({ ...good, ZINC_PORT: 'many', ZINC_DB_URL: 'postgres://x', ZINC_SECRET: 'short', ZINC_DEMO: 'maybe' }),
    ).toThrowError(/ZINC_PORT[^]*ZINC_DB_URL[^]*ZINC_SECRET[^]*ZINC_DEMO|ZINC_DEMO[^]*/);
    for (const name of ['ZINC_PORT', 'ZINC_DB_URL', 'ZINC_SECRET', 'ZINC_DEMO'])
      expect(() =>
        readSettings({ ...good, ZINC_PORT: 'many', ZINC_DB_URL: 'postgres://x', ZINC_SECRET: 'short', ZINC_DEMO: 'maybe' }),
      ).toThrowError(new RegExp(name));
  });
});

describe('an empty house', () => {
  it('asks for its first lead, once, and opens it', async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 60_000;
    const database = await freshDatabase();
    const press = await startTestPress();
    const data = mkdtempSync(join(tmpdir(), 'zinc-first-'));
    const server = await startServer(testSettings(press, database.url, data), pino({ level: 'silent' }), null);
    const agent = supertest.agent(`http://127.0.0.1:${server.port}`);
    expect(((await agent.get('/api/session').expect(200)).body as Session).houseEmpty).toBeTrue();
    const lead = { name: 'Ines', email: 'ines@example.org', password: 'long enough to sign in', house: 'Our house' };
    await agent
      .post('/api/first-lead')
      .send({ ...lead, password: 'short' })
      .expect(400);
    await agent
      .post('/api/first-lead')
      .send({ ...lead, email: 'nowhere' })
      .expect(400);
    await agent.post('/api/first-lead').send(lead).expect(200);
    await agent.post('/api/first-lead').send(lead).expect(409);
    const session = (await agent.get('/api/session').expect(200)).body as Session;
    expect([session.houseEmpty, session.person?.role, session.houseName]).toEqual([false, 'lead', 'Our house']);
    expect(((await agent.get('/api/references')).body as { items: unknown[] }).items).toEqual([]);
    await server.stop();
    await press.close();
    await database.drop();
    rmSync(data, { recursive: true, force: true });
  });
});
