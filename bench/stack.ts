import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { DEMO_PEOPLE } from '../apps/server/src/demo/facts.ts';
import { withHouse } from './house.ts';
import { line, quantile } from './kit.ts';
import { benchRun } from './run.ts';

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
    const send = (method: string, path: string, body: unknown): Promise<Response> =>
      fetch(`${stack.url}${path}`, {
        method,
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
    await benchRun(stack, get, send);
    benchScripts();
  });
}
