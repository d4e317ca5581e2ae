import type { Page } from '@playwright/test';
import mysql from 'mysql2/promise';
import { DEMO_PEOPLE } from '../apps/server/src/demo/facts.ts';
import { line, quantile } from './kit.ts';

/** Waits until the house has done what it does in the background: its library, its run, the measuring of codes. */
export async function untilIdle(databaseUrl: string): Promise<void> {
  const db = await mysql.createConnection(databaseUrl);
  const one = async (sql: string): Promise<number> => Number(((await db.query(sql))[0] as { n: number }[])[0].n);
  for (;;) {
    const library = await one(`select count(*) as n from events where kind = 'demoReviewed' or kind = 'demoLibrary'`);
    const codes = await one(`select count(*) as n from style_codes where kind = 'own' and measure is null`);
    if (library === 2 && codes === 0) break;
    await new Promise(r => setTimeout(r, 1000));
  }
  await db.end();
}

/** How long frames took while something went on, in milliseconds, and the longest piece of work that held the page up. */
export async function framesWhile(page: Page, act: () => Promise<void>): Promise<{ frames: number[]; longest: number }> {
  // As text: what a compiler would add to a function is not known in the page.
  await page.evaluate(`{
    const bench = (window.bench = { frames: [], tasks: [], on: true });
    new PerformanceObserver(list => list.getEntries().forEach(e => bench.tasks.push(e.duration))).observe({ type: 'longtask' });
    let last = performance.now();
    const tick = now => {
      bench.frames.push(now - last);
      last = now;
      if (bench.on) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }`);
  await act();
  return page.evaluate(
    '((bench.on = false), { frames: bench.frames.slice(1), longest: Math.max(0, ...bench.tasks) })',
  ) as Promise<{ frames: number[]; longest: number }>;
}

/** Signs the demo house's lead in, from the page for it. */
export async function signIn(page: Page): Promise<void> {
  await page.getByLabel('Address').fill(DEMO_PEOPLE[0].email);
  await page.getByLabel('Password').fill(DEMO_PEOPLE[0].password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

/** Scrolls what lies under the mouse, far and fast, and prints the slowest frame. */
export async function benchScroll(page: Page): Promise<void> {
  const scroll = await framesWhile(page, async () => {
    for (let i = 0; i < 60; i++) {
      await page.mouse.wheel(0, 700);
      await page.waitForTimeout(30);
    }
  });
  line(
    'slowest frame while scrolling ÷ 50 ms',
    Math.max(...scroll.frames) / 50,
    `p50 ${quantile(scroll.frames, 0.5).toFixed(0)} ms, p99 ${quantile(scroll.frames, 0.99).toFixed(0)} ms, longest task ${scroll.longest.toFixed(0)} ms`,
  );
}
