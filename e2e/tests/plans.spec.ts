import { expect, test, type Page } from '@playwright/test';
import { alerts, expectAccessible, picture, planOf, signIn, startPlan, untilLibraryIsFull, watchForErrors } from './helpers.ts';

test.beforeAll(({ browser }) => untilLibraryIsFull(browser));

const sums = (page: Page) => page.locator('.sums');

test('a word with two meanings is found before the run, and the one that is meant is written into the wording', async ({
  page,
}) => {
  const noErrors = watchForErrors(page);
  await signIn(page);
  await page.goto('/wording');
  await page.getByRole('button', { name: /Paste subjects/ }).click();
  await page.getByLabel('One subject a line').fill('Mint\nCrane');
  await page.getByRole('button', { name: 'Add 2 subjects' }).click();
  await expect(page.getByText('2 subjects hang on a word with several meanings')).toBeVisible();
  await planOf(page, ['Radish', 'Mint', 'Crane']);
  const findings = page.locator('.findings li', { hasText: 'means several things' });
  await expect(findings).toHaveCount(2);
  await findings.filter({ hasText: 'Mint' }).getByRole('button', { name: 'Choose the meaning' }).click();
  const row = page.locator('zs-subject-row', { hasText: 'Mint' });
  await row.getByRole('button', { name: /herbaceous plant/ }).click();
  await expect(row).toContainText('mint (herbaceous plant)');
  await expect(row).toContainText('meant: any north temperate plant');
  await expect(page.getByText('One subject hangs on a word with several meanings')).toBeVisible();
  await expectAccessible(page, 'wording with meanings');
  await planOf(page, ['Radish', 'Mint', 'Crane']);
  await expect(findings).toHaveCount(1);
  noErrors();
});

test('slots take several values, rows take their own, and notes are shown as what they are', async ({ page }) => {
  const noErrors = watchForErrors(page, [/status of 400/]);
  await signIn(page);
  await planOf(page, ['Radish', 'Honeybee']);
  await page.getByLabel('Takes', { exact: true }).fill('1');
  await expect(sums(page)).toContainText('2 images');
  await expect(page.getByLabel('The sentence with its slots')).toHaveText(
    'A subject, whole, on plain ground, light from the left',
  );
  await page.getByRole('button', { name: 'Several values of light' }).click();
  await expect(sums(page)).toContainText('6 images');
  await page.getByRole('button', { name: /Honeybee in Block & Brine, 92 %, evening light/ }).click();
  await expect(sums(page)).toContainText('5 images');
  await page.getByLabel('Note', { exact: true }).fill('at dusk');
  await page.getByLabel('Note', { exact: true }).press('Tab');
  await page.getByRole('button', { name: 'Radish', exact: true }).last().click();
  await page.getByLabel('Its own note').fill('on a table');
  await page.getByLabel('Its own note').press('Tab');
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await page.getByRole('button', { name: /Read all 5 texts/ }).click();
  const texts = page.getByRole('list', { name: 'Final texts' }).getByRole('listitem');
  await expect(texts).toHaveCount(5);
  await expect(texts.first().locator('.override')).toHaveText(['light from the left', ', at dusk', ', on a table']);
  await page.getByLabel('Note', { exact: true }).fill('in violet');
  await page.getByLabel('Note', { exact: true }).press('Tab');
  await expect(page.locator('.findings')).toContainText('“violet” is to be avoided, and stands in the note');
  await page.getByLabel('first only').fill('0');
  await page.getByLabel('first only').press('Tab');
  await expect(alerts(page)).toContainText('at least 1 cell');
  await page.getByLabel('first only').fill('');
  await page.getByLabel('first only').press('Tab');
  await expect(alerts(page)).toHaveCount(0);
  await expectAccessible(page, 'plan with alternatives');
  noErrors();
});

test('a strength ladder is made with all else equal, and the range found good goes back to the look', async ({ page }) => {
  const noErrors = watchForErrors(page, [/status of 400/]);
  await signIn(page);
  await planOf(page, ['Radish']);
  await page.getByRole('button', { name: 'Strength ladder' }).click();
  await page.getByLabel('Values of setting 1').fill('20, lots');
  await page.getByLabel('Values of setting 1').press('Tab');
  await expect(alerts(page)).toContainText('Strength is lots; wanted a whole number from 0 to 100');
  await page.getByLabel('Values of setting 1').fill('30, 65, 100');
  await page.getByLabel('Values of setting 1').press('Tab');
  await expect(sums(page)).toContainText('3 images');
  await startPlan(page, 'Radish ladder');
  await expect(page.locator('.take.made')).toHaveCount(3, { timeout: 90_000 });
  const chart = page.locator('zs-strip-curve [role=img]');
  await expect(chart).toHaveAttribute('aria-label', /30 %, drift \d\.\d\d, likeness \d\.\d\d; 65 %, .*; 100 %/);
  const likenesses = (await page.locator('.like').allTextContents()).map(Number);
  expect(likenesses[0]).toBeGreaterThan(likenesses[2]);
  await page.getByLabel('From', { exact: true }).selectOption('65 %');
  await page.getByLabel('for', { exact: true }).fill('round roots');
  await expectAccessible(page, 'test strip');
  await page.getByRole('button', { name: 'Write it back to Block & Brine' }).click();
  await expect(page.getByText('Strength 65 to 100 % is written to Block & Brine, good for round roots.')).toBeVisible();
  await planOf(page, ['Radish']);
  await page.getByLabel('Strength', { exact: true }).fill('40');
  await page.getByLabel('Strength', { exact: true }).press('Tab');
  const outside = page.locator('.findings li', { hasText: 'lies outside the 65 % to 100 %' });
  await outside.getByRole('button', { name: 'Set it to 65 %' }).click();
  await expect(page.getByLabel('Strength', { exact: true })).toHaveValue('65');
  await expect(outside).toHaveCount(0);
  noErrors();
});

test('a set is bound, begun with a pilot, finished, and made once more with one thing changed', async ({ page }) => {
  const noErrors = watchForErrors(page);
  await signIn(page);
  await planOf(page, ['Radish', 'Honeybee', 'Beetroot']);
  await page.getByLabel('Takes', { exact: true }).fill('1');
  await page.getByLabel('Bind', { exact: true }).fill('80');
  await page.getByLabel('Bind', { exact: true }).press('Tab');
  await page.getByRole('list', { name: 'What the set shares' }).getByRole('button', { name: 'texture' }).click();
  await page.getByLabel('first only').fill('2');
  await page.getByLabel('first only').press('Tab');
  await expect(sums(page)).toContainText('2 images');
  await startPlan(page, 'Bound roots');
  await expect(page.locator('.take.made')).toHaveCount(2, { timeout: 120_000 });
  await expect(page.getByText('Bound at 80 % in palette, ground, light, line.')).toBeVisible();
  await page.getByRole('link', { name: 'Make the other cell' }).click();
  await expect(page.getByRole('heading', { name: 'Add to the run' })).toBeVisible();
  await page.getByRole('button', { name: 'Add to the run' }).click();
  await expect(page.locator('.take.made')).toHaveCount(3, { timeout: 120_000 });
  await page.getByRole('button', { name: 'How well does it hang together' }).click();
  await expect(page.locator('.figure')).toContainText(/Block & Brine: \d\.\d\d from its middle over 3 proofs/);
  await expectAccessible(page, 'bound run');
  await page.getByRole('link', { name: 'Change one thing' }).click();
  const differs = page.locator('.differs');
  await expect(differs).toContainText('nothing changed yet');
  await page.getByLabel('Bind', { exact: true }).fill('20');
  await page.getByLabel('Bind', { exact: true }).press('Tab');
  await expect(differs).toContainText('one thing changed');
  await expect(differs).toContainText('Bind: 20 % in palette, ground, light, line, was 80 %');
  await page.getByLabel('Strength', { exact: true }).fill('50');
  await page.getByLabel('Strength', { exact: true }).press('Tab');
  await expect(differs).toContainText('2 things changed');
  noErrors();
});

test('photographs are restyled beside their originals, with what is kept of them as a figure', async ({ page }) => {
  const noErrors = watchForErrors(page);
  await signIn(page);
  await page.goto('/wording');
  await page.getByRole('button', { name: /Paste subjects/ }).click();
  await page.getByLabel('One subject a line').fill('Stall photo one\nStall photo two');
  await page.getByRole('button', { name: 'Add 2 subjects' }).click();
  for (const [i, label] of ['Stall photo one', 'Stall photo two'].entries()) {
    const row = page.locator('zs-subject-row', { hasText: label });
    await row.getByLabel('Give it a picture').setInputFiles({
      name: `${label}.png`,
      mimeType: 'image/png',
      buffer: await picture(20 + i, 'png'),
    });
    await expect(row.getByRole('img')).toBeVisible();
  }
  await planOf(page, ['Stall photo one', 'Stall photo two'], 'Paper Frost');
  await page.getByLabel('Subjects of a list').selectOption('pictures');
  for (const label of ['Crate photo', 'Trowel photo']) {
    const other = page.getByRole('list', { name: 'What' }).getByRole('button', { name: new RegExp(label) });
    if ((await other.count()) > 0 && (await other.getAttribute('aria-pressed')) === 'true') await other.click();
  }
  await page.getByLabel('Takes', { exact: true }).fill('1');
  await page.getByLabel('Keep', { exact: true }).fill('80');
  await page.getByLabel('Keep', { exact: true }).press('Tab');
  await page.getByLabel('Words', { exact: true }).selectOption({ label: 'no template: the subject alone' });
  await expect(page.getByRole('button', { name: 'Start run' })).toBeEnabled();
  await startPlan(page, 'Stall restyle');
  await expect(page.locator('.take.made .like').first()).toBeVisible({ timeout: 120_000 });
  await expect(page.locator('.progress')).toContainText(/(\d+) of \1 made/, { timeout: 120_000 });
  await expect(page.getByRole('img', { name: 'The original of Stall photo one' })).toBeVisible();
  for (const figure of await page.locator('.take.made .like').allTextContents()) expect(Number(figure)).toBeGreaterThan(0.5);
  noErrors();
});
