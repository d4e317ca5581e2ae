import { FACETS, fingerprintOfCode, NearnessIndex, randomCode, searchVector } from '@zinc/core';
import { randomFor } from '@zinc/core/number/random';
import mysql from 'mysql2/promise';
import { launchChromium } from '../scripts/browser.ts';
import { withHouse } from './house.ts';
import { line, medianOf } from './kit.ts';
import { benchScroll, framesWhile, signIn, untilIdle } from './pages.ts';

const MANY = 100_000;
const THINGS = 10_000;

/** Search by likeness over many fingerprints, against one pass of reading the same bytes. */
export async function benchNearness(): Promise<void> {
  const random = randomFor(3, 'bench nearness');
  const seeds = Array.from({ length: 24 }, () => searchVector(fingerprintOfCode(randomCode(random))));
  const index = new NearnessIndex();
  for (let i = 0; i < MANY; i++) {
    const vector = seeds[i % seeds.length].slice();
    for (let k = 0; k < vector.length; k++) vector[k] *= 0.9 + 0.2 * random();
    index.set(String(i), vector);
  }
  const bytes = new Float32Array(MANY * index.width);
  for (let i = 0; i < bytes.length; i++) bytes[i] = random();
  const reading = await medianOf(7, () => {
    let [s0, s1] = [0, 0];
    for (let i = 0; i < bytes.length; i += 2) {
      s0 += bytes[i];
      s1 += bytes[i + 1];
    }
    return s0 + s1;
  });
  console.log(
    `\nBaseline: one pass over ${MANY.toLocaleString('en')} vectors of ${index.width} numbers, ${reading.toFixed(0)} ms\n`,
  );
  const distances = await medianOf(7, () => index.distances(seeds[0], FACETS));
  line('distances to all of them ÷ one pass', distances / reading, `${distances.toFixed(0)} ms`);
  const nearest = await medianOf(7, () => index.nearest(seeds[0], FACETS, 300));
  line('the nearest 300 of them ÷ one pass', nearest / reading, `${nearest.toFixed(0)} ms`);
}

/** Fills a house up to so many references and codes with copies of what is there: other ids and names, the same pictures' fingerprints. */
async function fillHouse(databaseUrl: string): Promise<void> {
  const db = await mysql.createConnection(databaseUrl);
  const numbers = `(select @n := @n + 1 as n from information_schema.columns a, information_schema.columns b, (select @n := 0) z limit ${THINGS})`;
  await db.query(`create temporary table bench_numbers as ${numbers}`);
  await db.query(`create temporary table bench_some as select sha256 from fingerprints limit 60`);
  // Every reference has a picture of its own: the hash is made up, the rest is that of a picture of the house.
  const own = `lower(concat(lpad(hex(n.n), 8, '0'), right(p.sha256, 56)))`;
  const source = `bench_numbers n join (select p.*, row_number() over (order by p.sha256) as k from pictures p join bench_some s using (sha256)) p on p.k = 1 + (n.n mod 60)`;
  await db.query(
    `insert into pictures (sha256, type, width, height, bytes, working, created_at) select ${own}, p.type, p.width, p.height, p.bytes, p.working, now(3) from ${source}`,
  );
  await db.query(
    `insert into fingerprints (sha256, measure, summary, palette, vector, vector_version) select ${own}, f.measure, f.summary, f.palette, f.vector, f.vector_version from ${source} join fingerprints f on f.sha256 = p.sha256`,
  );
  await db.query(
    `insert into style_references (id, sha256, name, shelf, credit, licence, state, tags, style_words, subject_words, place, added_by, added_at)
     select concat('018f0000-', lpad(hex(n.n div 65536), 4, '0'), '-7', lpad(hex(n.n mod 4096), 3, '0'), '-8000-', lpad(hex(n.n), 12, '0')), ${own}, concat('Find ', n.n), concat('Years of finds ', 1 + n.n mod 40), 'bench', 'ours', 'in use', '[]', '[]', '', n.n, (select id from people limit 1), now(3) from ${source}`,
  );
  await db.query(
    `insert into style_codes (id, kind, text, press, name, note, tags, shelf, state, added_by, added_at)
     select concat('018e0000-', lpad(hex(n.n div 65536), 4, '0'), '-7', lpad(hex(n.n mod 4096), 3, '0'), '-8000-', lpad(hex(n.n), 12, '0')), 'foreign', concat('bench/', n.n), 'Tallow press', concat('Told ', n.n), '', '[]', 'Bench', 'in use', (select id from people limit 1), now(3) from bench_numbers n`,
  );
  await db.end();
}

/** The shelf in the browser with ten thousand references and as many codes: first paint, scrolling, search, likeness. */
export async function benchShelf(): Promise<void> {
  await withHouse(async ({ url, databaseUrl }) => {
    await untilIdle(databaseUrl);
    await fillHouse(databaseUrl);
    await benchBrowser(url);
  });
}

async function benchBrowser(url: string): Promise<void> {
  const browser = await launchChromium();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${url}/sign-in`);
  const empty = await page.evaluate(() => performance.now());
  await signIn(page);
  await page.locator('.references li').first().waitFor({ timeout: 60_000 });
  console.log(
    `\nBaseline: the sign-in page stands after ${empty.toFixed(0)} ms; the shelf holds ${THINGS.toLocaleString('en')} more references and codes\n`,
  );
  const started = performance.now();
  await page.goto(`${url}/shelf`);
  await page.locator('.references li').first().waitFor({ timeout: 60_000 });
  const painted = performance.now() - started;
  line('first paint of the shelf ÷ the sign-in page', painted / empty, `${painted.toFixed(0)} ms`);
  await page.waitForTimeout(6000);
  const nodes = await page.evaluate(() => document.querySelectorAll('*').length);
  line('DOM nodes ÷ 3 000', nodes / 3000, `${nodes} nodes`);
  await page.mouse.move(600, 500);
  await benchScroll(page);
  await page
    .locator('.page')
    .first()
    .evaluate(e => e.scrollTo(0, 0));
  const typing = await framesWhile(page, async () => {
    await page.getByLabel('Things called').pressSequentially('fnd 4821', { delay: 60 });
    await page.getByRole('link', { name: /Find 4821/ }).waitFor({ timeout: 20_000 });
  });
  line(
    'slowest frame while typing a search ÷ 50 ms',
    Math.max(...typing.frames) / 50,
    `longest task ${typing.longest.toFixed(0)} ms`,
  );
  const like = async (): Promise<number> => {
    const at = performance.now();
    const hash = (
      (await (await page.request.get(`${url}/api/references/018f0000-0000-7001-8000-000000000001`)).json()) as {
        picture: { sha256: string };
      }
    ).picture.sha256;
    await page.request.post(`${url}/api/shelf/like`, { data: { sha256: hash, kind: 'reference', facets: [...FACETS] } });
    return performance.now() - at;
  };
  console.log(
    `  looks like this, over the house: first ${(await like()).toFixed(0)} ms (vectors are read), then ${(await like()).toFixed(0)} ms`,
  );
  await browser.close();
}
