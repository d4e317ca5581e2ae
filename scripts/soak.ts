import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import mysql, { type RowDataPacket } from 'mysql2/promise';
import { DEMO_PEOPLE } from '../apps/server/src/demo/facts.ts';
import { buildAll } from './build.ts';
import { freePort } from './mariadb.ts';
import { startStack } from './stack.ts';

/**
 * Kills server, press and database at random moments while a run of many images is made, and checks that it ends with every proof exactly
 * once, each with its file, and no file without its row. `npm run soak -- 500` says how many images; the seed of the moments is printed.
 */
const wanted = Number(process.argv[2] ?? 500);
const seed = Number(process.argv[3] ?? Date.now() % 100_000);
if (!Number.isInteger(wanted) || wanted < 10 || wanted > 2000) {
  console.error(`Got ${process.argv[2]} images; wanted a whole number from 10 to 2000.`);
  process.exit(2);
}

let state = seed;
/** A number from 0 to 1; the same seed gives the same moments. */
function random(): number {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 0x100000000;
}

const data = mkdtempSync(join(tmpdir(), '.zinc-soak-'));
const faults: string[] = [];
await buildAll();
const stack = await startStack({
  data,
  port: await freePort(),
  demo: 'small',
  say: console.log,
  onGiveUp: message => faults.push(message),
});
let cookie = '';

/** Asks until it is answered: in between, everything may be dead. */
async function ask<T>(path: string, body?: unknown): Promise<T> {
  for (let tries = 0; ; tries++) {
    try {
      const response = await fetch(`${stack.url}/api${path}`, {
        method: body === undefined ? 'GET' : 'POST',
        headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
        body: body === undefined ? undefined : JSON.stringify(body),
        signal: AbortSignal.timeout(15_000),
      });
      if (response.status < 500) {
        const set = response.headers.getSetCookie()[0];
        if (set) cookie = set.split(';')[0];
        return (await response.json()) as T;
      }
    } catch {
      // Nobody is there just now.
    }
    if (tries > 200) throw new Error(`${path} is not answered any more.`);
    await new Promise(r => setTimeout(r, 500));
  }
}

try {
  await ask('/session', { email: DEMO_PEOPLE[0].email, password: DEMO_PEOPLE[0].password });
  const house = await ask<{ formats: { id: string; name: string }[]; presses: { id: string }[] }>('/house');
  const subjects = (await ask<{ items: { id: string; label: string }[] }>('/subjects')).items.slice(0, 8);
  const [look] = (await ask<{ items: { id: string }[] }>('/looks')).items;
  const takes = 10;
  const rows = Math.ceil(wanted / takes / subjects.length);
  const runs: string[] = [];
  let images = 0;
  for (let i = 0; i < rows; i++) {
    const here = subjects.slice(0, Math.ceil((wanted - images) / takes));
    const plan = {
      name: `Soak ${i + 1}`,
      subjectIds: here.map(s => s.id),
      lookIds: [look.id],
      templateId: null,
      fills: {},
      formatIds: [house.formats.find(f => f.name === 'Square 512')!.id],
      takes,
      seedPolicy: 'fresh',
      seed: i + 1,
      strength: null,
      pressId: house.presses[0].id,
      struckOut: [],
    };
    runs.push((await ask<{ id: string }>('/runs', plan)).id);
    images += here.length * takes;
  }
  console.log(`${images} images in ${runs.length} runs; moments from seed ${seed}.`);
  const kills = { server: 0, press: 0, database: 0 };
  const started = Date.now();
  for (;;) {
    await new Promise(r => setTimeout(r, 6000 + random() * 12_000));
    const all = (await ask<{ items: { id: string; made: number; failed: number; state: string }[] }>('/runs')).items.filter(r =>
      runs.includes(r.id),
    );
    const made = all.reduce((sum, r) => sum + r.made, 0);
    process.stdout.write(
      `\r${made} of ${images} made, killed ${kills.server} × server, ${kills.press} × press, ${kills.database} × database   `,
    );
    if (faults.length > 0) throw new Error(faults[0]);
    if (all.every(r => r.state === 'done')) break;
    if (Date.now() - started > 90 * 60_000) throw new Error('It has not ended after 90 minutes.');
    const which = (['server', 'press', 'database'] as const)[Math.floor(random() * 3)];
    const pid = stack.pids[which]?.();
    if (pid) {
      process.kill(pid, 'SIGKILL');
      kills[which]++;
    }
  }
  console.log('');
  const connection = await mysql.createConnection(stack.databaseUrl);
  const [proofs] = await connection.query<(RowDataPacket & { take_id: string; sha256: string })[]>(
    'select p.take_id, p.sha256 from proofs p join takes t on t.id = p.take_id join batches b on b.id = t.batch_id where b.run_id in (?)',
    [runs],
  );
  const [known] = await connection.query<(RowDataPacket & { sha256: string; working: string })[]>(
    'select sha256, working from pictures',
  );
  await connection.end();
  const folder = join(data, 'house', 'pictures');
  const rowsOf = new Set(known.flatMap(p => [p.sha256, p.working]));
  const files = (readdirSync(folder, { recursive: true }) as string[]).filter(f => f.includes('/')).map(f => f.split('/')[1]);
  const check = (what: string, good: boolean): void => {
    console.log(`${good ? 'right' : 'WRONG'}: ${what}`);
    if (!good) process.exitCode = 1;
  };
  check(`${proofs.length} proofs of ${images}`, proofs.length === images);
  check('each take has one', new Set(proofs.map(p => p.take_id)).size === proofs.length);
  check(
    'each has its file',
    proofs.every(p => existsSync(join(folder, p.sha256.slice(0, 2), p.sha256))),
  );
  const stray = files.filter(f => !rowsOf.has(f));
  check(`no file without its row (${stray.length})`, stray.length === 0);
} catch (error) {
  console.error(`\n${(error as Error).message}`);
  process.exitCode = 1;
} finally {
  await stack.stop();
  rmSync(data, { recursive: true, force: true });
}
