import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Run } from '@zinc/contract';
import mysql, { type RowDataPacket } from 'mysql2/promise';
import { pino } from 'pino';
import supertest from 'supertest';
import { backupHouse, restoreHouse } from '../../../scripts/backup.ts';
import { startMariadb } from '../../../scripts/mariadb.ts';
import { startServer } from '../src/server.ts';
import { startTestPress, testSettings, stock, untilRun } from './harness.ts';

/** Every table of a house with its checksum. */
async function checksums(url: string): Promise<Record<string, string>> {
  const connection = await mysql.createConnection(url);
  const [tables] = await connection.query<RowDataPacket[]>('show tables');
  const names = tables.map(t => String(Object.values(t)[0])).sort();
  const [sums] = await connection.query<(RowDataPacket & { Table: string; Checksum: number })[]>(
    `checksum table ${names.map(n => `\`${n}\``).join(', ')}`,
  );
  await connection.end();
  return Object.fromEntries(sums.map(s => [s.Table, String(s.Checksum)]));
}

describe('a backup', () => {
  const folders: string[] = [];
  const folder = (): string => {
    folders.push(mkdtempSync(join(tmpdir(), '.zinc-backup-')));
    return folders.at(-1)!;
  };
  beforeAll(() => (jasmine.DEFAULT_TIMEOUT_INTERVAL = 180_000));
  afterAll(() => folders.forEach(f => rmSync(f, { recursive: true, force: true })));

  it('of a working house comes back with every row and every picture, and the house goes on from there', async () => {
    const press = await startTestPress();
    const [data, second, out] = [folder(), folder(), folder()];
    const database = await startMariadb(join(data, 'mariadb'), true);
    const settings = testSettings(press, database.url, data);
    const server = await startServer(settings, pino({ level: 'silent' }), null);
    const lead = { email: 'ines@example.org', password: 'long enough to sign in' };
    const agent = supertest.agent(`http://127.0.0.1:${server.port}`);
    await agent
      .post('/api/first-lead')
      .send({ ...lead, name: 'Ines', house: 'Kept house' })
      .expect(200);
    const { plan } = await stock(agent);
    const run = (
      await agent
        .post('/api/runs')
        .send({ ...plan, takes: 1 })
        .expect(201)
    ).body as Run;
    await untilRun(agent, run.id, d => d.run.state === 'done');
    const file = join(out, 'house.tar.gz');
    const pictures = await backupHouse(data, file);
    await expectAsync(backupHouse(data, file)).toBeRejectedWithError(/is there already/);
    await server.stop();
    const before = await checksums(database.url);
    await database.stop();

    await expectAsync(restoreHouse(file, data)).toBeRejectedWithError(/holds a house already/);
    const back = join(second, 'house');
    expect(await restoreHouse(file, back)).toBe(pictures);
    const names = (f: string): string[] => (readdirSync(join(f, 'house', 'pictures'), { recursive: true }) as string[]).sort();
    expect(names(back)).toEqual(names(data));
    const again = await startMariadb(join(back, 'mariadb'), true);
    expect(await checksums(again.url)).toEqual(before);
    const restored = await startServer({ ...settings, data: back, databaseUrl: again.url }, pino({ level: 'silent' }), null);
    const other = supertest.agent(`http://127.0.0.1:${restored.port}`);
    await other.post('/api/session').send(lead).expect(200);
    const proof = (await untilRun(other, run.id, d => d.run.made === 3)).cells[0].takes[0].proof!;
    await other.get(`/api/pictures/${proof.pictureSha}/working`).expect(200);
    await restored.stop();
    await again.stop();
    await press.close();

    const bytes = readFileSync(file);
    bytes[Math.floor(bytes.length / 2)] ^= 255;
    const damaged = join(out, 'damaged.tar.gz');
    writeFileSync(damaged, bytes);
    await expectAsync(restoreHouse(damaged, join(second, 'never'))).toBeRejected();
  });
});
