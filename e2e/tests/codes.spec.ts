import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { nearCodes, randomCode } from '@zinc/core';
import { randomFor } from '@zinc/core/number/random';
import { alerts, canvasHash, expectAccessible, lookLike, signIn } from './helpers.ts';

const random = randomFor(23, 'codes of the journey');
const told = randomCode(random);
const more = Array.from({ length: 40 }, () => randomCode(random));

test('a code that someone tells is kept, and one with two words in each other’s place is mended', async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: 'Style codes' }).click();
  await expect(page.getByRole('heading', { name: 'Style codes' })).toBeVisible();
  const [a, b, c, n] = told.split('-');
  await page.getByLabel('A code you were told').fill(`${b} ${a} ${c} ${n}`);
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(alerts(page)).toContainText('changed places');
  await expect(page.getByLabel('A code you were told')).toHaveValue(`${b} ${a} ${c} ${n}`);
  await page.getByRole('button', { name: `Keep ${told}` }).click();
  await expect(page).toHaveURL(new RegExp(`code=${told}`));
  const large = page.locator('zs-code-pane canvas').first();
  await expect.poll(() => canvasHash(large), { timeout: 30_000 }).not.toBe(0);
  await page.keyboard.press('8');
  await expect(page.getByRole('button', { name: '8', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.getByLabel('Tags').fill('for the journey, winter');
  await page.getByRole('button', { name: 'Keep changes' }).click();
  await page.getByLabel('Codes about').fill('for the journey');
  await expect(page.locator('.codes li')).toHaveCount(1);
  await expect(page.locator('.codes li .grade')).toHaveText('8');
  await expectAccessible(page, 'codes');
});

test('what someone else writes about a code meanwhile is told, and nothing written here is lost', async ({ page }) => {
  await signIn(page);
  await page.goto(`/shelf/codes?code=${told}`);
  const pane = page.locator('zs-code-pane');
  await pane.getByLabel('Good for, bad for').fill('mine: good for roots');
  const { items } = (await (await page.request.get('/api/codes')).json()) as {
    items: { id: string; text: string; revision: number }[];
  };
  const { id, revision } = items.find(c => c.text === told)!;
  const other = await page.request.patch(`/api/codes/${id}`, {
    headers: { 'if-match': `"${revision}"` },
    data: { note: 'theirs' },
  });
  expect(other.status()).toBe(200);
  await expect(pane.getByText('Someone changed this meanwhile')).toBeVisible();
  await expect(pane.getByLabel('Good for, bad for')).toHaveValue('mine: good for roots');
  await pane.getByRole('button', { name: 'Keep changes' }).click();
  await expect(pane.getByRole('alert')).toContainText('changed');
  await pane.getByRole('button', { name: 'Go on with mine' }).click();
  await pane.getByRole('button', { name: 'Keep changes' }).click();
  await expect(pane.getByText('Someone changed this meanwhile')).toHaveCount(0);
  await page.reload();
  await expect(pane.getByLabel('Good for, bad for')).toHaveValue('mine: good for roots');
});

test('codes are sorted by how near they are to a reference, and unseen ones drawn', async ({ page }) => {
  await signIn(page);
  await page.goto('/shelf/codes');
  // Own codes are measured one after the other; some are by now.
  await expect(async () => {
    const clear = page.getByRole('button', { name: 'Like anything' });
    if (await clear.isVisible()) await clear.click();
    await lookLike(page, 'Furrow block');
    await expect(page.locator('.codes').first()).toContainText('distance', { timeout: 2000 });
    expect(await page.locator('.codes .dim', { hasText: 'distance' }).count()).toBeGreaterThan(5);
  }).toPass({ timeout: 60_000 });
  const distances = (await page.locator('.codes .dim', { hasText: 'distance' }).allTextContents()).map(t =>
    Number(t.replace(/[^\d.]/g, '')),
  );
  expect(distances).toEqual([...distances].sort((p, q) => p - q));
  await page.getByRole('button', { name: 'Draw a dozen unseen' }).click();
  const unseen = page.getByRole('region', { name: 'Unseen codes' }).getByRole('button', { name: /^\w+-\w+-\w+-\d{4}$/ });
  await expect(unseen).toHaveCount(12);
  const text = (await unseen.first().getAttribute('aria-label'))!;
  await unseen.first().click();
  await expect(page.getByText('Not on the shelf yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep this code' }).click();
  await expect(page.locator('zs-code-pane').getByRole('button', { name: 'Keep changes' })).toBeVisible();
  await page
    .locator('zs-code-pane')
    .getByRole('button', { name: nearCodes(text)[0] })
    .click();
  await expect(page).toHaveURL(new RegExp(`code=${nearCodes(text)[0]}`));
});

test('a spreadsheet of codes comes in, says what it refused, and is taken back', async ({ page }) => {
  await signIn(page);
  await page.goto('/shelf/codes');
  await expect(page.locator('.head .dim').first()).toHaveText(/^\d\d+$/);
  const before = await page.locator('.head .dim').first().textContent();
  await page.getByRole('button', { name: 'Bring in CSV' }).click();
  const rows = more.map((text, i) => `${text};${(i % 5) + 1};"note ${i}; with a semicolon"`);
  const csv = `Style code;Stars;Good for\n${rows.join('\n')}\nnot-a-code-9;3;\n`;
  const dialog = page.getByRole('dialog');
  await dialog
    .locator('input[type=file]')
    .setInputFiles({ name: 'open.csv', mimeType: 'text/csv', buffer: Buffer.from('code\n"x') });
  await expect(dialog.getByRole('alert')).toContainText('never closed');
  await dialog.locator('input[type=file]').setInputFiles({ name: 'years.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(dialog).toContainText('years.csv, 41 rows');
  await expect(dialog.getByLabel('Column Good for is')).toHaveValue('note');
  await dialog.getByLabel('Grades go').selectOption('1–5');
  await expectAccessible(page, 'import');
  await dialog.getByRole('button', { name: 'Bring in 41 rows' }).click();
  await expect(dialog.locator('.sum')).toContainText('40 came in');
  await expect(dialog.getByRole('row', { name: /42 not-a-code-9/ })).toBeVisible();
  const report = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the report' }).click();
  expect(readFileSync((await (await report).path())!, 'utf8')).toContain('not-a-code-9');
  await expect(page.locator('.head .dim').first()).not.toHaveText(before!);
  await dialog.getByRole('button', { name: 'Take it back' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.locator('.head .dim').first()).toHaveText(before!);
});

test('a code is mixed with a reference, and its look is saved', async ({ page }) => {
  await signIn(page);
  await page.goto(`/mix?from=${told}`);
  const large = page.locator('zs-yardstick canvas').first();
  await expect(page.getByText(/painted in/)).toBeVisible({ timeout: 60_000 });
  expect(await canvasHash(large)).not.toBe(0);
  await page.getByRole('button', { name: 'Add from the shelf' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Hedge block' }).click();
  await page.getByRole('button', { name: 'Mix in' }).click();
  await page.getByLabel('Style words').fill('engraved, sprockety');
  await page.getByLabel('Style words').blur();
  await expect(page.getByText(/Only in the text.*sprockety/)).toBeVisible();
  await page.getByLabel('Name of the look').fill('From a code that was told');
  await page.getByRole('button', { name: 'Save version 1' }).click();
  await expect(page.getByRole('heading', { name: 'From a code that was told' })).toBeVisible();
  await expect(page).toHaveURL(/\/mix\/[0-9a-f-]{36}$/);
  await page.reload();
  await expect(page.getByText('8 parts')).toBeVisible();
  await expect(page.getByText(/painted in/)).toBeVisible({ timeout: 60_000 });
});
