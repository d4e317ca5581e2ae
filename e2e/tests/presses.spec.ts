import { expect, test, type Locator, type Page } from '@playwright/test';
import { expectAccessible, misbehave, planOf, signIn, startPlan, testPresses, watchForErrors } from './helpers.ts';

const cardOf = (page: Page, name: string): Locator =>
  page.locator('zs-presses article', { has: page.getByRole('heading', { name, exact: true }) });

test('a second press is added, shares the work, makes what the first cannot, and is compared with it in a strip', async ({
  page,
}) => {
  const noErrors = watchForErrors(page, [/status of 400/]);
  const { second, token } = testPresses();
  await signIn(page);
  await page.goto('/house');
  await page.getByRole('button', { name: 'Add a press' }).click();
  const form = page.getByRole('form', { name: 'Add a press' });
  await form.getByLabel('Name').fill('Back room press');
  await form.getByLabel('Address').fill('http://127.0.0.1:9');
  await form.getByLabel('Token').fill(token);
  await form.getByLabel('Price an image').fill('dear');
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(form.getByText('Write the price as a number')).toBeVisible();
  await form.getByLabel('Price an image').fill('0.5');
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(form.getByText('Nothing answers at this address.')).toBeVisible();
  await form.getByLabel('Address').fill(second);
  await expectAccessible(page, 'a press being added');
  await form.getByRole('button', { name: 'Add it' }).click();
  const card = cardOf(page, 'Back room press');
  await expect(card).toContainText('shares its work with House press');
  await expect(card).toContainText('0.50 an image, as the house has it');

  await misbehave('error', 10_000);
  try {
    // More than one of them makes at once, so that both take some.
    await planOf(page, ['Radish', 'Honeybee']);
    await page.getByLabel('Takes', { exact: true }).fill('5');
    await expect(page.getByLabel('Press', { exact: true })).toHaveValue(/.+/);
    await startPlan(page, 'Made in the back room');
    await expect(page.locator('.take.made')).toHaveCount(10, { timeout: 90_000 });
    await page.locator('.take.made').first().click();
    await expect(page.getByText(/made .* by Back room press/)).toBeVisible();
    await page.goto('/house');
    await expect(cardOf(page, 'House press')).toContainText('Last went wrong');
  } finally {
    await misbehave('error', 0);
  }

  await planOf(page, ['Radish']);
  await page.getByRole('button', { name: 'Step a setting' }).click();
  await page.getByLabel('Setting 1 to step').selectOption({ label: 'Press' });
  await page.getByLabel('Values of setting 1').fill('House press, Attic press');
  await page.getByLabel('Values of setting 1').press('Tab');
  await expect(page.getByText('There is no press “Attic press” in use in the house.')).toBeVisible();
  await page.getByLabel('Values of setting 1').fill('House press, Back room press');
  await page.getByLabel('Values of setting 1').press('Tab');
  await expect(page.locator('.sums')).toContainText(/1\.50 credits/);

  await page.goto('/house');
  await card.getByRole('button', { name: 'Change' }).click();
  await page.getByRole('form', { name: 'Change Back room press' }).getByLabel('In use').uncheck();
  await page.getByRole('form', { name: 'Change Back room press' }).getByRole('button', { name: 'Save' }).click();
  await expect(card).toContainText('out of use');
  noErrors();
});

test('a budget set by the lead stops a plan before it starts', async ({ page }) => {
  const noErrors = watchForErrors(page);
  await signIn(page);
  await page.goto('/house');
  const budget = page.getByLabel('Growing calendar', { exact: true });
  await budget.fill('some');
  await budget.press('Tab');
  await expect(page.locator('.budgets .wrong')).toBeVisible();
  await budget.fill('1');
  await budget.press('Tab');
  await expect(page.locator('.budgets .wrong')).toHaveCount(0);
  await planOf(page, ['Radish']);
  await page.getByLabel('Campaign', { exact: true }).selectOption({ label: 'for Growing calendar' });
  await page.getByLabel('Takes', { exact: true }).fill('2');
  await expect(page.locator('.findings')).toContainText('more than the 1 that Growing calendar may still make');
  await expect(page.getByRole('button', { name: 'Start run' })).toBeDisabled();
  await page.goto('/house');
  await expect(budget).toHaveValue('1');
  await budget.fill('');
  const kept = page.waitForResponse(r => r.url().includes('/api/budgets/') && r.request().method() === 'PUT');
  await budget.press('Tab');
  await kept;
  await planOf(page, ['Radish']);
  await page.getByLabel('Campaign', { exact: true }).selectOption({ label: 'for Growing calendar' });
  await page.getByLabel('Takes', { exact: true }).fill('2');
  await expect(page.getByRole('button', { name: 'Start run' })).toBeEnabled();
  noErrors();
});
