import { readdirSync, readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { DEMO_PEOPLE } from '../apps/server/src/demo/facts.ts';
import type { Stack } from '../scripts/stack.ts';
import { withHouse } from './house.ts';
import { line, quantile } from './kit.ts';

/** CPU seconds that a process and its threads have used. */
function cpuSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

async function benchReads(get: (path: string) => Promise<Response>, runId: string): Promise<void> {
  const time = async (path: string, count: number): Promise<number[]> => {
    const times: number[] = [];
    for (let i = 0; i < count; i++) {
      const started = performance.now();
      await (await get(path)).arrayBuffer();
      times.push(performance.now() - started);
    }
    return times;
  };
  await time('/api/health', 50);
  const nothing = await time('/api/health', 300);
  console.log(
    `\nBaseline: a route that does nothing, p50 ${quantile(nothing, 0.5).toFixed(2)} ms, p99 ${quantile(nothing, 0.99).toFixed(2)} ms\n`,
  );
  for (const [name, path] of [
    ['session', '/api/session'],
    ['references', '/api/references'],
    ['looks', '/api/looks'],
    ['subjects', '/api/subjects'],
    ['runs', '/api/runs'],
    ['one run with its grid', `/api/runs/${runId}`],
  ]) {
    await time(path, 20);
    const times = await time(path, 200);
    line(
      `read ${name}, p99 ÷ p99 of nothing`,
      quantile(times, 0.99) / quantile(nothing, 0.99),
      `p50 ${quantile(times, 0.5).toFixed(1)} ms, p99 ${quantile(times, 0.99).toFixed(1)} ms`,
    );
  }
}

async function benchRun(
  stack: Stack,
  get: (path: string) => Promise<Response>,
  post: (path: string, body: unknown) => Promise<Response>,
): Promise<void> {
  const json = async <T>(path: string): Promise<T> => (await get(path)).json() as Promise<T>;
  const house = await json<{ formats: { id: string; name: string }[]; presses: { id: string }[] }>('/api/house');
  const subjects = (await json<{ items: { id: string }[] }>('/api/subjects')).items.slice(0, 8);
  const looks = (await json<{ items: { id: string; name: string }[] }>('/api/looks')).items;
  const templates = (await json<{ items: { id: string }[] }>('/api/templates')).items;
  const plan = {
    name: 'Bench',
    subjectIds: subjects.map(s => s.id),
    lookIds: [looks.find(l => l.name === 'Almanac Wash')!.id],
    templateId: templates[0].id,
    fills: {},
    formatIds: [house.formats.find(f => f.name === 'Square 768')!.id],
    takes: 5,
    seedPolicy: 'fresh',
    seed: 1,
    strength: null,
    pressId: house.presses[0].id,
    struckOut: [],
  };
  const pids = [stack.pids.server!, stack.pids.press!];
  const cpu = (): number => pids.reduce((sum, pid) => sum + cpuSeconds(pid()!), 0);
  const [before, started] = [cpu(), performance.now()];
  const run = (await (await post('/api/runs', plan)).json()) as { id: string };
  let made = 0;
  while (made < 40) {
    await new Promise(r => setTimeout(r, 300));
    made = (await json<{ run: { made: number } }>(`/api/runs/${run.id}`)).run.made;
  }
  const wall = (performance.now() - started) / 1000;
  const cores = availableParallelism();
  line(
    `cores busy over a run of 40 at 768², share of ${cores}`,
    (cpu() - before) / (wall * cores),
    `${wall.toFixed(0)} s, ${(wall / 40).toFixed(2)} s an image`,
  );
}

function benchScripts(): void {
  const web = fileURLToPath(new URL('../dist/web/browser', import.meta.url));
  const index = readFileSync(join(web, 'index.html'), 'utf8');
  const seen = new Set<string>();
  // The first load is what the page names and everything that imports without being asked for later.
  const visit = (name: string): void => {
    if (seen.has(name)) return;
    seen.add(name);
    const text = readFileSync(join(web, name), 'utf8');
    for (const m of text.matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/g)) visit(m[1]);
  };
  for (const m of index.matchAll(/(?:src|href)="([^"]+\.js)"/g)) visit(m[1]);
  const bytes = [...seen].reduce((sum, name) => sum + gzipSync(readFileSync(join(web, name))).length, 0);
  line(
    'script of the first load, gzip, ÷ 450 kB',
    bytes / 450_000,
    `${(bytes / 1000).toFixed(0)} kB in ${seen.size} of ${readdirSync(web).filter(f => f.endsWith('.js')).length} files`,
  );
}

/** A whole house: start, reads, how busy a run keeps the cores, size of the first load. */
export async function benchStack(): Promise<void> {
  await withHouse(async stack => {
    const signed = await fetch(`${stack.url}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: DEMO_PEOPLE[0].email, password: DEMO_PEOPLE[0].password }),
    });
    const cookie = signed.headers.getSetCookie()[0].split(';')[0];
    const get = (path: string): Promise<Response> => fetch(`${stack.url}${path}`, { headers: { cookie } });
    const post = (path: string, body: unknown): Promise<Response> =>
      fetch(`${stack.url}${path}`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    let demo = { id: '', state: '' };
    while (demo.state !== 'done') {
      await new Promise(r => setTimeout(r, 500));
      demo = ((await (await get('/api/runs')).json()) as { items: { id: string; state: string }[] }).items[0];
    }
    await benchReads(get, demo.id);
    console.log('');
    await benchRun(stack, get, post);
    benchScripts();
  });
}
