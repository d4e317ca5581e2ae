import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Run } from '@zinc/contract';
import mysql, { type RowDataPacket } from 'mysql2/promise';
import supertest from 'supertest';
import { freshDatabase, startTestPress, stock, untilRun, type TestPress } from './harness.ts';

const MAIN = fileURLToPath(new URL('../src/main.ts', import.meta.url));

function freePort(): Promise<number> {
  return new Promise(resolve => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}

/** The server as a process of its own, so that it can be killed. */
function startProcess(env: Record<string, string>): Promise<ChildProcess> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['--import', 'tsx', MAIN], {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    child.once('message', () => resolve(child));
    child.once('exit', code => reject(new Error(`The server ended with ${code} before it was ready.`)));
  });
}

const killed = (child: ChildProcess): Promise<void> =>
  new Promise(resolve => {
    child.removeAllListeners('exit');
    child.once('exit', () => resolve());
    child.kill('SIGKILL');
  });

describe('a server that is killed in mid-run', () => {
  let press: TestPress;
  let database: Awaited<ReturnType<typeof freshDatabase>>;
  let data: string;
  let child: ChildProcess | null = null;
  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 240_000;
    press = await startTestPress();
    database = await freshDatabase();
    data = mkdtempSync(join(tmpdir(), 'zinc-crash-'));
  });
  afterAll(async () => {
    if (child) await killed(child);
    await press.close();
    await database.drop();
    rmSync(data, { recursive: true, force: true });
  });

  it('three times ends with every proof exactly once, each readable, and no stray file', async () => {
    const port = await freePort();
    const env = {
      ZINC_PORT: String(port),
      ZINC_DATA: data,
      ZINC_DB_URL: database.url,
      ZINC_PRESS_URL: press.url,
      ZINC_PRESS_TOKEN: press.token,
      ZINC_SECRET: 'a secret for tests only',
      ZINC_DEMO: 'off',
      ZINC_LOG: 'silent',
    };
    child = await startProcess(env);
    const agent = supertest.agent(`http://127.0.0.1:${port}`);
    await agent
      .post('/api/first-lead')
      .send({ name: 'Ines', email: 'ines@example.org', password: 'long enough to sign in', house: 'Crash house' })
      .expect(200);
    const { plan } = await stock(agent);
    const run = (
      await agent
        .post('/api/runs')
        .send({ ...plan, takes: 8 })
        .expect(201)
    ).body as Run;
    for (const least of [3, 9, 15]) {
      await untilRun(agent, run.id, d => d.run.made >= least, 60);
      await killed(child);
      child = await startProcess(env);
    }
    const done = await untilRun(agent, run.id, d => d.run.state === 'done', 90);
    expect(done.run).toEqual(jasmine.objectContaining({ images: 24, made: 24, failed: 0 }));

    const connection = await mysql.createConnection(database.url);
    const [proofs] = await connection.query<(RowDataPacket & { take_id: string; sha256: string })[]>(
      'select take_id, sha256 from proofs',
    );
    expect(proofs.length).toBe(24);
    expect(new Set(proofs.map(p => p.take_id)).size).toBe(24);
    const [pictures] = await connection.query<(RowDataPacket & { sha256: string; working: string })[]>(
      'select sha256, working from pictures',
    );
    await connection.end();
    const folder = join(data, 'house', 'pictures');
    for (const { sha256 } of proofs) {
      expect(existsSync(join(folder, sha256.slice(0, 2), sha256))).toBeTrue();
      await agent.get(`/api/pictures/${sha256}/working`).expect(200);
    }
    const known = new Set(pictures.flatMap(p => [p.sha256, p.working]));
    const files = (readdirSync(folder, { recursive: true }) as string[]).filter(f => f.includes('/')).map(f => f.split('/')[1]);
    // A kill may fall between file and row; that image is made again to the same bytes, so no file is left without its row.
    expect(files.filter(f => !known.has(f))).toEqual([]);
  });
});
