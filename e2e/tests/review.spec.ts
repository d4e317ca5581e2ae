import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, LEAD, planOf, REVIEWER, signIn, startPlan, watchForErrors } from './helpers.ts';

/** Makes a run of two takes each of two subjects, and opens its review. */
async function reviewOf(page: Page, name: string): Promise<string> {
  await planOf(page, ['Radish', 'Honeybee']);
  await page.getByLabel('Takes', { exact: true }).fill('2');
  await startPlan(page, name);
  await expect(page.locator('.take.made')).toHaveCount(4, { timeout: 90_000 });
  await page.getByRole('link', { name: 'Review', exact: true }).last().click();
  await expect(page.getByRole('region', { name: 'In hand' })).toBeVisible();
  return page.url();
}

test('a set is judged by two people, a comment is pinned, answered and closed, and the lead signs the round off', async ({
  browser,
  page,
}) => {
  const noErrors = watchForErrors(page, [/status of 409/]);
  await signIn(page, LEAD);
  const url = await reviewOf(page, 'Two rounds');
  await expect(page.getByText('Round 1 opens with the next decision.')).toBeVisible();

  const other = await (await browser.newContext()).newPage();
  await signIn(other, REVIEWER);
  await other.goto(url);
  await other.getByRole('button', { name: /Radish, take 1/ }).click();
  await other.keyboard.press('d');
  await expect(other.getByText('4 proofs, 0 kept, 3 without a decision')).toBeVisible();
  await other.keyboard.press('Enter');
  await expect(other.getByRole('heading', { name: 'Comments' })).toBeVisible();
  await other.keyboard.press('c');
  await other.keyboard.press('ArrowRight');
  await expect(other.locator('.pin.new')).toBeVisible();
  await other.getByLabel('Of the place that is marked').fill('The root is <b>cut</b>.');
  await other.getByRole('button', { name: 'Say it' }).click();
  await expect(other.locator('.pinned .pin')).toHaveText('1');
  await expect(other.locator('zs-comments .words')).toHaveText('The root is <b>cut</b>.');
  await other.getByRole('button', { name: 'Say it' }).click();
  await expect(other.locator('zs-comments').getByRole('alert')).toContainText('Write what you want to say');
  await expectAccessible(other, 'a proof with comments');

  await page.getByRole('button', { name: /Radish, take 1/ }).click();
  await page.keyboard.press('k');
  await expect(page.locator('.talk')).toHaveText('in dispute, 1 said');
  await page.getByLabel('What is shown').selectOption({ label: 'in dispute' });
  await expect(page.locator('button.proof.faint')).toHaveCount(3);
  await page.getByLabel('What is shown').selectOption({ label: 'all proofs' });
  await expect(page.getByText('kept by Ines Okafor-Lindqvist; dropped by Odile Prentiss')).toBeVisible();
  await page.getByRole('link', { name: 'One open comment' }).click();
  await page.getByRole('button', { name: 'Answer', exact: true }).click();
  await page.getByLabel('Answer to comment 1').fill('It is meant so.');
  await page.getByRole('button', { name: 'Answer', exact: true }).click();
  await expect(page.locator('zs-comments .answer.words')).toHaveText('It is meant so.');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByText('closed by Ines Okafor-Lindqvist')).toBeVisible();

  await page.goto(url);
  const groups = page.getByRole('region', { name: 'The set' }).getByRole('rowheader');
  await expect(groups).toHaveText([/Radish\s+1 kept/, /Honeybee\s+nothing kept/]);
  for (let i = 0; i < 3; i++) await page.keyboard.press('r');
  await expect(page.getByLabel('Rows by (R)')).toHaveValue('decision');
  await expect(groups).toHaveText([/Without a decision\s+3 proofs, 0 kept/, /Kept\s+1 proof, 1 kept/]);
  await page.getByRole('button', { name: /Radish, take 2/ }).click();
  await page.keyboard.press('k');
  // What was judged stays where the hand is, until the set is grouped anew.
  await expect(groups).toHaveText([/Without a decision\s+3 proofs, 1 kept/, /Kept\s+1 proof, 1 kept/]);
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('heading', { name: /Honeybee, .*, take 1/ })).toBeVisible();
  await page.getByRole('button', { name: 'Group anew' }).click();
  await expect(groups).toHaveText([/Without a decision\s+2 proofs, 0 kept/, /Kept\s+2 proofs, 2 kept/]);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('r');
  await expect(groups.first()).toHaveText(/Drift 0\.\d to \d\.\d/);
  await page.keyboard.press('r');
  await expect(groups).toHaveText([/Radish\s+1 kept/, /Honeybee\s+nothing kept/]);
  await page.getByRole('button', { name: 'Sign off' }).click();
  await expect(page.getByText('Round 1 is signed off, with 3 proofs undecided.')).toBeVisible();
  await page.getByRole('button', { name: /Honeybee, take 1/ }).click();
  await page.keyboard.press('k');
  await expect(page.getByText(/A decision could not be kept. Round 1 of this run is signed off/)).toBeVisible();
  await expect(page.getByText('4 proofs, 1 kept, 3 without a decision')).toBeVisible();
  await page.getByRole('button', { name: 'Open again' }).click();
  await page.getByLabel('Why it is opened again').fill('The bees are missing');
  await page.getByRole('button', { name: 'Open round 2' }).click();
  await expect(page.getByText('Round 2, open: The bees are missing')).toBeVisible();
  await page.getByRole('button', { name: /Honeybee, take 1/ }).click();
  await page.keyboard.press('k');
  await page.getByLabel('What is shown').selectOption({ label: 'changed since round 1' });
  await expect(page.locator('button.proof.faint')).toHaveCount(3);
  await expectAccessible(page, 'a second round');
  await other.context().close();
  noErrors();
});

test('proofs are laid together: one zoom for all, wiped and subtracted, with what their tickets differ in', async ({ page }) => {
  const noErrors = watchForErrors(page);
  await signIn(page);
  await reviewOf(page, 'For the light table');
  await page.getByRole('button', { name: /Radish, take 1/ }).click();
  await page.keyboard.press('g');
  await page.getByRole('button', { name: /Radish, take 2/ }).click();
  await page.keyboard.press('g');
  await page.getByRole('button', { name: /Honeybee, take 1/ }).click();
  await page.keyboard.press('g');
  await page.keyboard.press('l');
  await expect(page.locator('zs-pane')).toHaveCount(3);
  const table = page.getByRole('table', { name: 'What their tickets differ in' });
  await expect(table.getByRole('row', { name: /^Subject/ })).toContainText('Honeybee');
  await expect(table.getByRole('row', { name: /^Take/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /^Strength/ })).toHaveCount(0);

  const widths = async (): Promise<number[]> =>
    page.locator('zs-pane img').evaluateAll(list => list.map(i => i.getBoundingClientRect().width));
  const [before] = await widths();
  await page.keyboard.press('+');
  await expect.poll(async () => (await widths()).every(w => Math.abs(w - before * 1.25) < 1)).toBeTruthy();
  await page.keyboard.press('t');
  await expect.poll(async () => (await widths()).every(w => Math.abs(w - 320) < 1)).toBeTruthy();
  await page.keyboard.press('w');
  await expect(page.locator('zs-pane')).toHaveCount(1);
  await expect(page.locator('zs-pane img')).toHaveCount(2);
  const clip = (): Promise<string> =>
    page
      .locator('zs-pane img')
      .last()
      .evaluate(i => getComputedStyle(i).clipPath);
  const half = await clip();
  await page.keyboard.press('ArrowRight');
  await expect.poll(clip).not.toBe(half);
  await page.keyboard.press('d');
  await expect(page.locator('zs-pane img').last()).toHaveCSS('mix-blend-mode', 'difference');
  await page.keyboard.press('n');
  await expect(page.getByText(/Radish, .* take 1 − Honeybee/)).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByAltText(/Radish, .* take 1, 32 pixels wide/)).toHaveCSS('width', '32px');
  await expectAccessible(page, 'laid together');
  noErrors();
});

test('decisions made without a connection wait, and arrive once, in their order', async ({ page, context }) => {
  await signIn(page);
  await reviewOf(page, 'In the tunnel');
  await page.getByRole('button', { name: /Radish, take 1/ }).click();
  await context.setOffline(true);
  await page.keyboard.press('k');
  await page.keyboard.press('d');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('h');
  await expect(page.getByText('3 decisions wait for the connection')).toBeVisible();
  await expect(page.getByText('4 proofs, 0 kept, 2 without a decision')).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText(/for the connection/)).toHaveCount(0);
  await page.reload();
  await expect(page.getByText('4 proofs, 0 kept, 2 without a decision')).toBeVisible();
  await page.getByRole('button', { name: /Radish, take 1/ }).click();
  await page.keyboard.press('Enter');
  const decisions = page.locator('.pane ol').last().getByRole('listitem');
  await expect(decisions).toHaveCount(2);
  await expect(decisions.first()).toContainText('keep');
  await expect(decisions.last()).toContainText('drop');
});
