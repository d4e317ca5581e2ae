import type { Page } from '@playwright/test';
import mysql from 'mysql2/promise';
import { launchChromium } from '../scripts/browser.ts';
import { withHouse } from './house.ts';
import { line, quantile } from './kit.ts';
import { benchScroll, framesWhile, signIn, untilIdle } from './pages.ts';

const ROWS = 500;
const TAKES = 4;

/** Adds a run of 500 subjects in four takes each; the pictures are those of the demo house's first run, over and over. Returns its id. */
async function addLargeRun(databaseUrl: string): Promise<string> {
  const db = await mysql.createConnection(databaseUrl);
  const [runId, batchId] = ['018d0000-0000-7000-8000-000000000001', '018d0000-0000-7000-8000-000000000002'];
  const id = (kind: string, n: string): string =>
    `concat('018d${kind}-', lpad(hex(${n} div 4096), 4, '0'), '-7', lpad(hex(${n} mod 4096), 3, '0'), '-8000-', lpad(hex(${n}), 12, '0'))`;
  const numbers = (count: number): string =>
    `(select n from (select @n := @n + 1 as n from information_schema.columns a, information_schema.columns b, (select @n := -1) z limit ${count}) y)`;
  await db.query(
    `insert into runs (id, name, kind, campaign_id, started_by, started_at) select '${runId}', 'Two thousand', kind, null, started_by, now(3) from runs order by id limit 1`,
  );
  await db.query(
    `insert into batches (id, run_id, number, state, plan, press_id, frozen_at) select '${batchId}', '${runId}', 1, 'done', plan, press_id, now(3) from batches order by id limit 1`,
  );
  await db.query(
    `insert into run_looks (run_id, look_id, version, target, facets) select '${runId}', look_id, version, target, facets from run_looks limit 1`,
  );
  await db.query(
    `insert into cells (id, batch_id, cell_key, \`row_number\`, column_number, subject_id, subject_label, look_id, look_name, look_version, format_id, cell_values, final_text, struck_out)
     select ${id('0001', 'n.n')}, '${batchId}', concat('bench/', n.n), n.n, 0, ${id('0002', 'n.n')}, concat('Subject ', n.n), c.look_id, c.look_name, c.look_version, c.format_id, '[]', c.final_text, 0
     from ${numbers(ROWS)} n join (select * from cells order by id limit 1) c`,
  );
  const some = `(select t.*, p.sha256 as p_sha, p.pixel_hash as p_pixels, p.drift as p_drift, row_number() over (order by p.id) - 1 as k, count(*) over () as many from proofs p join takes t on t.id = p.take_id)`;
  await db.query(
    `insert into takes (id, cell_id, batch_id, take, press_id, seed, ticket, ticket_hash, state, generation, attempts, not_before)
     select ${id('0003', 'n.n')}, ${id('0001', `(n.n div ${TAKES})`)}, '${batchId}', 1 + n.n mod ${TAKES}, s.press_id, n.n, s.ticket, s.ticket_hash, 'made', 0, 0, now(3)
     from ${numbers(ROWS * TAKES)} n join ${some} s on s.k = n.n mod s.many`,
  );
  await db.query(
    `insert into proofs (id, take_id, generation, sha256, pixel_hash, ticket_hash, drift, made_at)
     select ${id('0004', 'n.n')}, ${id('0003', 'n.n')}, 0, s.p_sha, s.p_pixels, s.ticket_hash, s.p_drift, now(3)
     from ${numbers(ROWS * TAKES)} n join ${some} s on s.k = n.n mod s.many`,
  );
  await db.end();
  return runId;
}

/** Review of two thousand proofs in the browser: first paint, scrolling, from a key to the next picture; and zooming what is laid together. */
export async function benchReview(): Promise<void> {
  await withHouse(async ({ url, databaseUrl }) => {
    await untilIdle(databaseUrl);
    const runId = await addLargeRun(databaseUrl);
    const browser = await launchChromium();
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${url}/sign-in`);
    const empty = await page.evaluate(() => performance.now());
    await signIn(page);
    await page.getByRole('heading', { name: 'Shelf', level: 1 }).waitFor();
    console.log(`\nBaseline: the sign-in page stands after ${empty.toFixed(0)} ms; ${ROWS * TAKES} proofs are reviewed\n`);
    const started = performance.now();
    await page.goto(`${url}/review/${runId}`);
    await page.locator('button.proof img').first().waitFor({ timeout: 60_000 });
    const painted = performance.now() - started;
    line('first paint of the review ÷ the sign-in page', painted / empty, `${painted.toFixed(0)} ms`);
    await page.waitForTimeout(4000);
    const nodes = await page.evaluate(() => document.querySelectorAll('*').length);
    line('DOM nodes ÷ 3 000', nodes / 3000, `${nodes} nodes, the dots of the plot among them`);
    await page.locator('.grid').hover();
    await benchScroll(page);
    await benchKeys(page, empty);
    const ids = [1, 2, 3, 4].map(
      k => `018d0004-0000-7${k.toString(16).padStart(3, '0')}-8000-${k.toString(16).padStart(12, '0')}`,
    );
    await page.goto(`${url}/review/together?proofs=${ids.join(',')}`);
    await page.locator('zs-pane img').first().waitFor({ timeout: 20_000 });
    await page.waitForTimeout(1500);
    const zoom = await framesWhile(page, async () => {
      await page.mouse.move(500, 400);
      for (let i = 0; i < 40; i++) {
        await page.mouse.wheel(0, i < 20 ? -120 : 120);
        await page.waitForTimeout(25);
      }
    });
    line(
      'slowest frame while zooming four ÷ 50 ms',
      Math.max(...zoom.frames) / 50,
      `p50 ${quantile(zoom.frames, 0.5).toFixed(0)} ms, p99 ${quantile(zoom.frames, 0.99).toFixed(0)} ms`,
    );
    await browser.close();
  });
}

/** From an arrow key until the next picture stands, whole, in the hand. */
async function benchKeys(page: Page, empty: number): Promise<void> {
  await page.locator('.grid').evaluate(e => e.scrollTo(0, 0));
  await page.locator('button.proof').first().click();
  const times: number[] = [];
  for (let i = 0; i < 60; i++) {
    const before = await page.locator('.big img').getAttribute('src');
    const at = performance.now();
    await page.keyboard.press('ArrowRight');
    // Asked in short steps: what would wait in the page is evaluated as text, which its policy forbids.
    const next = page.locator('.big img');
    const isThere = (): Promise<boolean> =>
      next.evaluate((i: HTMLImageElement, old) => i.complete && i.naturalWidth > 0 && i.getAttribute('src') !== old, before);
    while (!(await isThere().catch(() => false))) await new Promise(r => setTimeout(r, 4));
    times.push(performance.now() - at);
  }
  line(
    'key to next picture ÷ the sign-in page, median',
    quantile(times, 0.5) / empty,
    `p50 ${quantile(times, 0.5).toFixed(0)} ms, p99 ${quantile(times, 0.99).toFixed(0)} ms`,
  );
}
