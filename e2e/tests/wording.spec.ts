import { expect, test } from '@playwright/test';
import { expectAccessible, planOf, signIn, watchForErrors } from './helpers.ts';

test('subjects come in from a spreadsheet, refused rows are told by line, and a list is kept of them', async ({ page }) => {
  const noErrors = watchForErrors(page);
  await signIn(page);
  await page.goto('/wording');
  const csv = [
    'label,wording,colours,avoid,tags',
    'Long leek,"leek, long and white",#dfe6c8,hands,roots',
    'Radish,radish,,,',
    'Sour cherry,sour cherry,beige-ish,,',
    '=HYPERLINK("x"),a formula,,,',
    'Kale row,a row of kale,,,leaves;winter',
  ].join('\n');
  await page
    .getByLabel('From a spreadsheet')
    .setInputFiles({ name: 'subjects.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  const told = page.locator('.brought');
  await expect(told).toContainText(/subjects came in/);
  await expect(told).toContainText('Line 3, Radish');
  await expect(told).toContainText('Line 4, Sour cherry');
  await told.getByRole('button', { name: 'All right' }).click();
  const leek = page.locator('zs-subject-row', { hasText: 'Long leek' });
  await expect(leek).toContainText('avoid hands');
  await expect(leek).toContainText('roots');
  await expectAccessible(page, 'wording after an import');

  await planOf(page, ['Long leek', 'Kale row']);
  await page.getByRole('button', { name: 'Keep as a list' }).click();
  await page.getByLabel('Name of the list').fill('Winter leaves');
  await page.getByLabel('Name of the list').press('Enter');
  await expect(page.getByText('“Winter leaves” is kept as a list.')).toBeVisible();
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByLabel('Subjects of a list').selectOption({ label: 'Winter leaves, 2' });
  await page.getByLabel('Takes', { exact: true }).fill('1');
  await expect(page.locator('.sums')).toContainText('2 images');
  noErrors();
});

test('what a text says twice or against itself is marked in it, and an older version of a template comes back', async ({
  page,
}) => {
  const noErrors = watchForErrors(page);
  await signIn(page);
  await page.goto('/wording');
  await page.getByRole('button', { name: 'New template' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Bold on paper');
  await page.getByLabel('Sentence', { exact: true }).fill('A bold {{subject}} on paper, bold and plain');
  await page.getByLabel('Avoid', { exact: true }).fill('paper');
  await page.getByLabel('Avoid', { exact: true }).press('Tab');
  const marked = page.locator('zs-subject-row', { hasText: 'Greenhouse' }).first().locator('.marked');
  await expect(marked).toHaveText(['bold', 'paper', 'bold']);
  await expect(marked.nth(1)).toHaveAttribute('title', 'to be avoided, and said all the same');
  await page.getByRole('button', { name: 'Save version 1' }).click();
  await page.getByLabel('Sentence', { exact: true }).fill('A {{subject}} on chalk');
  await page.getByRole('button', { name: 'Save version 2' }).click();
  await expect(page.getByRole('button', { name: 'Save version 3' })).toBeDisabled();
  await page.getByLabel('Version', { exact: true }).selectOption({ index: 1 });
  await expect(page.getByLabel('Sentence', { exact: true })).toHaveValue('A bold {{subject}} on paper, bold and plain');
  await expect(page.getByText('An older version. Saving it makes version 3; nothing is lost.')).toBeVisible();
  await expectAccessible(page, 'an older version of a template');
  await page.getByRole('button', { name: 'Save version 3' }).click();
  await expect(page.getByLabel('Version', { exact: true }).locator('option')).toHaveCount(3);
  const exported = (await (await page.request.get('/api/templates/export')).json()) as {
    templates: { name: string; version: number; text: string }[];
  };
  expect(exported.templates.find(t => t.name === 'Bold on paper')).toEqual(
    expect.objectContaining({ version: 3, text: 'A bold {{subject}} on paper, bold and plain' }),
  );

  await planOf(page, ['Greenhouse']);
  await page.getByLabel('Words', { exact: true }).selectOption({ label: 'Bold on paper' });
  await page.getByLabel('Takes', { exact: true }).fill('1');
  await expect(page.locator('.findings')).toContainText('“bold” is said twice, in the template');
  await page.getByRole('button', { name: /Read all 1 text/ }).click();
  await expect(page.getByRole('list', { name: 'Final texts' }).locator('.marked').first()).toHaveText('bold');
  noErrors();
});
