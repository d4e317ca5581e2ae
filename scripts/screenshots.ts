import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { STRAY_RUN } from '../apps/server/src/demo/campaigns.ts';
import { DEMO_PEOPLE } from '../apps/server/src/demo/facts.ts';
import { launchChromium } from './browser.ts';
import { buildAll } from './build.ts';
import { startStack, type Stack } from './stack.ts';

const out = process.env.ZINC_SHOTS ?? fileURLToPath(new URL('../docs/screenshots', import.meta.url));
const [width, height] = (process.env.ZINC_SHOT_SIZE ?? '1280x800').split('x').map(Number);
const only = process.argv.slice(2);

/** Waits until nothing moves: fonts, pictures, painting. */
async function settle(page: Page): Promise<void> {
  await page.waitForLoadState('networkidle').catch(() => undefined);
  await page.waitForTimeout(700);
}

/** Makes a test strip and a bound run of a few subjects, and waits until both are there. */
async function makeRuns(
  page: Page,
  api: <T>(path: string) => Promise<T>,
  lookId: string,
): Promise<{ strip: string; bound: string }> {
  const house = await api<{ formats: { id: string; name: string }[]; presses: { id: string }[] }>('/house');
  const subjects = (await api<{ items: { id: string; label: string }[] }>('/subjects')).items;
  const [template] = (await api<{ items: { id: string }[] }>('/templates')).items;
  const plan = (name: string, labels: string[], change: object): object => ({
    name,
    subjectIds: labels.map(l => subjects.find(s => s.label === l)!.id),
    lookIds: [lookId],
    templateId: template.id,
    fills: {},
    formatIds: [house.formats.find(f => f.name === 'Square 512')!.id],
    takes: 1,
    seedPolicy: 'subject',
    seed: 1907,
    strength: null,
    pressId: house.presses[0].id,
    struckOut: [],
    ...change,
  });
  const order = async (data: object): Promise<string> => {
    const answer = await page.request.post(`${new URL(page.url()).origin}/api/runs`, { data });
    return ((await answer.json()) as { id: string }).id;
  };
  const strip = await order(
    plan('How strong for roots and wings', ['Radish', 'Honeybee', 'Watering can'], {
      kind: 'testStrip',
      axes: [{ setting: 'strength', values: [20, 40, 60, 80, 100] }],
    }),
  );
  const bound = await order(
    plan('First Frost, bound', ['Radish', 'Globe artichoke', 'Sunflower', 'Honeybee', 'Beetroot'], {
      takes: 3,
      binding: { amount: 80, share: ['palette', 'ground', 'light', 'line'], anchor: null },
    }),
  );
  for (const id of [strip, bound])
    for (let i = 0; i < 180 && (await api<{ run: { state: string } }>(`/runs/${id}`)).run.state !== 'done'; i++)
      await page.waitForTimeout(1000);
  return { strip, bound };
}

/** Has a few things made of the proof in view, and waits until they stand in its family. */
async function makeFamily(page: Page): Promise<void> {
  await page.keyboard.press('e');
  await page.getByLabel('What is to change').fill('ground darker, no outlines');
  await page.getByRole('button', { name: 'Read it back' }).click();
  await page.getByRole('button', { name: 'Make this try' }).click();
  await page.locator('zs-asks ol img').waitFor({ timeout: 120_000 });
  await page.getByLabel('What is to change').fill('larger, more like summer');
  await page.getByRole('button', { name: 'Read it back' }).click();
  await page.getByText('is not understood').waitFor();
}

const wanted = (name: string): boolean => only.length === 0 || only.includes(name);

async function capture(url: string): Promise<void> {
  const browser = await launchChromium();
  const page = await browser.newPage({ viewport: { width, height } });
  const faults: string[] = [];
  page.on('pageerror', e => faults.push(e.message));
  page.on('console', m => m.type() === 'error' && faults.push(m.text()));
  const shot = async (name: string): Promise<void> => {
    if (!wanted(name)) return;
    await settle(page);
    await page.screenshot({ path: join(out, `${name}.png`) });
    console.log(`  ${name}`);
  };
  await page.goto(`${url}/sign-in`);
  await page.getByLabel('Address').fill(DEMO_PEOPLE[0].email);
  await page.getByLabel('Password').fill(DEMO_PEOPLE[0].password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Shelf' }).waitFor();
  const api = async <T>(path: string): Promise<T> => (await page.request.get(`${url}/api${path}`)).json() as Promise<T>;
  // The demo run is made and judged in the background after the first start.
  let run: { id: string; state: string; decided: number } | undefined;
  for (let i = 0; i < 240 && !(run && run.state === 'done' && run.decided > 0); i++) {
    await page.waitForTimeout(1000);
    run = (await api<{ items: { id: string; state: string; decided: number }[] }>('/runs')).items.at(-1);
  }
  // So is the rest of the library.
  let looks: { id: string; name: string }[] = [];
  for (let i = 0; i < 240 && looks.length < 18; i++) {
    await page.waitForTimeout(1000);
    looks = (await api<{ items: { id: string; name: string }[] }>('/looks')).items;
  }
  const block = looks.find(l => l.name === 'Block & Brine')!;
  await page.goto(`${url}/shelf`);
  // Looks are painted one after the other, those in sight first.
  await page.waitForTimeout(wanted('shelf') ? 14_000 : 0);
  await shot('shelf');
  await page.getByLabel('Things called').fill('market cloth');
  await page.getByRole('link', { name: /Market cloth/ }).click();
  await page.waitForTimeout(2000);
  await shot('reference');
  await page.getByRole('link', { name: 'Prepare a variant' }).click();
  await page.getByRole('tab', { name: 'Treat' }).click();
  await page.getByRole('button', { name: 'Third printing', exact: true }).click();
  await page.waitForTimeout(4000);
  await shot('prepare');
  const codes = (await api<{ items: { text: string; grade: number | null; kind: string }[] }>('/codes')).items;
  const best = codes.filter(c => c.kind === 'own' && c.grade === 9)[2];
  await page.goto(`${url}/shelf/codes?code=${best.text}`);
  await page.waitForTimeout(6000);
  await shot('codes');
  await page.goto(`${url}/mix/${block.id}`);
  await page.getByText(/painted in/).waitFor({ timeout: 30_000 });
  await shot('mix');
  await page.goto(`${url}/wording`);
  await shot('wording');
  await page.goto(`${url}/wording/styles`);
  await page.waitForTimeout(6000);
  await shot('word-styles');
  await page.goto(
    `${url}/runs/new?looks=${['Block & Brine', 'Almanac Wash', 'Graver'].map(n => looks.find(l => l.name === n)!.id).join(',')}`,
  );
  await page.getByText(/must be settled/).waitFor();
  await shot('plan');
  if (wanted('strip') || wanted('bound')) {
    const made = await makeRuns(page, api, block.id);
    await page.goto(`${url}/runs/${made.strip}`);
    await page.getByLabel('From', { exact: true }).selectOption('60 %');
    await shot('strip');
    await page.goto(`${url}/runs/${made.bound}`);
    await page.getByRole('button', { name: 'How well does it hang together' }).click();
    await page.locator('.figure').waitFor();
    await shot('bound');
  }
  await page.goto(`${url}/runs/${run!.id}`);
  await shot('run');
  // In the whole demo house a run with strays waits for review; the small one has its first run only.
  const large = (await api<{ items: { id: string; name: string }[] }>('/runs')).items.find(r => r.name === STRAY_RUN);
  await page.goto(`${url}/review/${large?.id ?? run!.id}`);
  await page.locator('.proof').first().waitFor();
  await page.keyboard.press('m');
  await page.waitForTimeout(3000);
  await shot('review');
  await page.goto(`${url}/review/${run!.id}`);
  await page.locator('.proof').nth(7).click();
  await page.waitForTimeout(1200);
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'Ticket' }).waitFor();
  await shot('proof');
  if (wanted('mend')) {
    await makeFamily(page);
    await shot('mend');
  }
  const house = await api<{ campaigns: { id: string; name: string }[] }>('/house');
  const campaign = house.campaigns.find(c => c.name === 'Market Saturdays')!;
  await page.goto(`${url}/campaigns/${large ? campaign.id : house.campaigns[0].id}`);
  await page.waitForTimeout(1500);
  await shot('coverage');
  await page.goto(`${url}/reports/kept`);
  await page.locator('.share').first().click();
  await page.waitForTimeout(1500);
  await shot('kept');
  await page.goto(`${url}/review/${run!.id}`);
  await page.locator('.proof').nth(7).click();
  await page.keyboard.press('l');
  await page.locator('zs-pane').nth(2).waitFor();
  await page.waitForTimeout(1200);
  await shot('together');
  await page.goto(`${url}/deliver/${run!.id}`);
  await shot('deliver');
  await page.goto(`${url}/house`);
  await shot('house');
  await browser.close();
  if (faults.length > 0) console.log(`Errors in the page:\n${[...new Set(faults)].join('\n')}`);
}

mkdirSync(out, { recursive: true });
let stack: Stack | null = null;
const data = mkdtempSync(join(tmpdir(), '.zinc-shots-'));
try {
  if (!process.env.ZINC_URL) {
    await buildAll();
    stack = await startStack({
      data,
      port: 0,
      demo: 'small',
      forTests: true,
      say: console.log,
      onGiveUp: message => console.error(message),
    });
  }
  await capture(process.env.ZINC_URL ?? stack!.url);
} finally {
  await stack?.stop();
  rmSync(data, { recursive: true, force: true });
}
