import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Browser, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';

export const PASSWORD = 'furrow-and-frost';
export const LEAD = 'ines@marrow-vane.example';
export const REVIEWER = 'odile@marrow-vane.example';

/** Signs in without the form, which has a test of its own, and opens the shelf. */
export async function signIn(page: Page, email = LEAD): Promise<void> {
  const answer = await page.request.post('/api/session', { data: { email, password: PASSWORD } });
  expect(answer.status()).toBe(200);
  await page.goto('/shelf');
  await expect(page.getByRole('heading', { name: 'Shelf', level: 1 })).toBeVisible();
}

/** What a page itself tells as wrong; messages at the foot of the window are not meant. */
export function alerts(page: Page): Locator {
  return page.locator('main, .sheet').getByRole('alert');
}

/** Where the presses of the demo house are: its own, and a second one that it does not know of yet. */
export function testPresses(): { url: string; token: string; second: string } {
  return JSON.parse(readFileSync(process.env.ZINC_E2E_PRESS!, 'utf8')) as { url: string; token: string; second: string };
}

/** Tells the stand-in press to do something wrong so many times. */
export async function misbehave(how: string, times: number): Promise<void> {
  const { url, token } = testPresses();
  const response = await fetch(`${url}/v1/misbehave`, {
    method: 'POST',
    headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
    body: JSON.stringify({ how, times }),
  });
  expect(response.status).toBe(204);
}

/** A made-up picture file; the number decides colours and shapes. */
export function picture(n: number, type: 'png' | 'jpeg' | 'webp', side = 640): Promise<Buffer> {
  const leaf = (k: number): string =>
    `<ellipse cx="${20 + ((n * 31 + k * 23) % 60)}%" cy="${20 + ((n * 17 + k * 37) % 60)}%" rx="${10 + ((n + k) % 3) * 5}%" ry="${6 + (k % 2) * 9}%" fill="hsl(${(n * 97 + k * 67) % 360} 45% ${26 + ((n + k * 2) % 5) * 11}%)" transform="rotate(${(n * 13 + k * 29) % 60})"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}"><rect width="100%" height="100%" fill="#efe6d2"/>${[0, 1, 2, 3, 4, 5].map(leaf).join('')}</svg>`;
  return sharp(Buffer.from(svg)).toFormat(type).toBuffer();
}

/** Drops files on an element as a person would from a folder. */
export async function dropFiles(
  page: Page,
  target: Locator,
  files: { name: string; type: string; bytes: Buffer }[],
): Promise<void> {
  const transfer = await page.evaluateHandle(
    list => {
      const data = new DataTransfer();
      for (const f of list)
        data.items.add(new File([Uint8Array.from(atob(f.base64), c => c.charCodeAt(0))], f.name, { type: f.type }));
      return data;
    },
    files.map(f => ({ name: f.name, type: f.type, base64: f.bytes.toString('base64') })),
  );
  await target.dispatchEvent('dragover', { dataTransfer: transfer });
  await target.dispatchEvent('drop', { dataTransfer: transfer });
}

/** What a canvas shows, as one number that changes with any pixel; 0 when it is blank. */
export function canvasHash(canvas: Locator): Promise<number> {
  return canvas.evaluate((c: HTMLCanvasElement) => {
    const { data } = c.getContext('2d')!.getImageData(0, 0, c.width, c.height);
    let hash = 0;
    let different = false;
    for (let i = 0; i < data.length; i++) {
      hash = (Math.imul(hash, 31) + data[i]) | 0;
      if (data[i] !== data[i % 4]) different = true;
    }
    return different ? hash || 1 : 0;
  });
}

/** Axe finds nothing serious on the page as it stands. */
export async function expectAccessible(page: Page, name: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  const serious = violations
    .filter(v => v.impact === 'serious' || v.impact === 'critical')
    .map(
      v =>
        `${v.id}: ${v.nodes
          .map(n => n.target.join(' '))
          .slice(0, 4)
          .join('; ')}`,
    );
  expect(serious, name).toEqual([]);
}

/** Fails the test on any error a page throws or writes to its console. */
export function watchForErrors(page: Page, ignore: RegExp[] = []): () => void {
  const faults: string[] = [];
  const note = (text: string): void => void (ignore.some(r => r.test(text)) || faults.push(text));
  page.on('pageerror', e => note(e.message));
  page.on('console', m => m.type() === 'error' && note(m.text()));
  return () => expect(faults).toEqual([]);
}

/** Waits until the demo house, which fills up in the background, holds its whole library. */
export async function untilLibraryIsFull(browser: Browser): Promise<void> {
  test.setTimeout(460_000);
  const page = await browser.newPage();
  await signIn(page);
  const count = async (): Promise<number> =>
    ((await (await page.request.get('/api/looks')).json()) as { items: unknown[] }).items.length;
  await expect.poll(count, { timeout: 420_000 }).toBeGreaterThanOrEqual(18);
  await page.close();
}

/** Asks the shelf for things called so, and waits for the answer; only what is in sight stands in the page. */
export async function findReference(page: Page, words: string): Promise<void> {
  await page.getByLabel('Things called').fill(words);
  await expect(page.locator('.ledges[aria-busy="true"]')).toHaveCount(0);
}

/** Sorts the shelf by nearness to a reference. */
export async function lookLike(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'anything', exact: true }).click();
  await page.getByRole('searchbox', { name: 'A reference or look, by its name' }).fill(name);
  await page.getByRole('button', { name: new RegExp(`^${name} ?reference`) }).click();
}

/** Opens a new plan of some subjects in one look, at 320 × 320. */
export async function planOf(page: Page, labels: string[], look = 'Block & Brine'): Promise<void> {
  const looks = (await (await page.request.get('/api/looks')).json()) as { items: { id: string; name: string }[] };
  await page.goto(`/runs/new?looks=${looks.items.find(l => l.name === look)!.id}`);
  // A large house begins with some of its subjects only.
  const all = page.getByRole('button', { name: /^\s*(All|None)\s*$/ });
  if ((await all.textContent())?.trim() === 'All') await all.click();
  await page.getByRole('button', { name: 'None', exact: true }).click();
  const what = page.getByRole('list', { name: 'What' });
  for (const label of labels) await what.getByRole('button', { name: new RegExp(`^\\s*${label}(\\s+picture)?\\s*$`) }).click();
  const where = page.getByRole('list', { name: 'Where' });
  await where.getByRole('button', { name: /Square 320/ }).click();
  await where.getByRole('button', { name: /Square 768/ }).click();
  await page.getByLabel('Words', { exact: true }).selectOption({ label: 'Catalogue, single subject' });
}

/** Names a plan and starts it. */
export async function startPlan(page: Page, name: string): Promise<void> {
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByRole('button', { name: 'Start run' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}
