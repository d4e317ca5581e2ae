import { expect, test } from '@playwright/test';
import {
  alerts,
  expectAccessible,
  findReference,
  lookLike,
  REVIEWER,
  signIn,
  untilLibraryIsFull,
  watchForErrors,
} from './helpers.ts';

test.beforeAll(({ browser }) => untilLibraryIsFull(browser));

test('a wrong password is told at the field, and the way asked for is kept', async ({ page }) => {
  await page.goto('/mix');
  await expect(page).toHaveURL(/sign-in\?to=%2Fmix/);
  await page.getByLabel('Address').fill('ines@marrow-vane.example');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(alerts(page)).toContainText('The address or the password is not right');
  await expect(page.getByLabel('Address')).toHaveValue('ines@marrow-vane.example');
  await expectAccessible(page, 'sign in');
  await page.getByLabel('Password').fill('furrow-and-frost');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveURL(/\/mix$/);
  await expect(page.getByRole('heading', { name: 'An empty bench' })).toBeVisible();
});

test('a reviewer looks and judges but is offered nothing that makes', async ({ page }) => {
  await signIn(page, REVIEWER);
  await expect(page.getByText('Add pictures')).toHaveCount(0);
  await page.getByRole('link', { name: 'Runs' }).click();
  await expect(page.getByRole('link', { name: 'Plan a run' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Wording' }).click();
  await expect(page.getByRole('button', { name: /Save version/ })).toBeDisabled();
  await page.getByRole('link', { name: 'House' }).click();
  await expect(page.getByText('never to be seen')).toBeVisible();
  await expectAccessible(page, 'house');
});

test('search jumps to anything by keyboard', async ({ page }) => {
  await signIn(page);
  await page.keyboard.press('/');
  await page.keyboard.type('furrow');
  await expect(page.getByRole('option', { name: /Furrow block reference/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Furrow block', level: 1 })).toBeVisible();
  await expect(page.getByText('few inks')).toBeVisible();
  await expectAccessible(page, 'reference');
});

test('the slip finds by words and sorts by nearness', async ({ page }) => {
  await signIn(page);
  await lookLike(page, 'Furrow block');
  const names = page.locator('.references b');
  await expect(names.nth(0)).toHaveText('Furrow block');
  // The nearest thing to a block print is another block print.
  await expect(names.nth(1)).toHaveText(/block|furrows/);
  await expect(page.getByText('distance 0.00')).toBeVisible();
  await page.getByLabel('Things called').fill('no such thing');
  await expect(page.getByRole('heading', { name: 'Nothing on the shelf fits this slip' })).toBeVisible();
  await page.getByRole('button', { name: 'Clear the slip' }).click();
  await expect(page.locator('zs-look-card').first()).toBeVisible();
});

test('the slip finds by colour, grade and use; a reference is graded on its own page', async ({ page }) => {
  await signIn(page);
  await page.getByLabel('used', { exact: true }).selectOption({ label: 'in none' });
  await findReference(page, 'Market cloth');
  await expect(page.getByRole('link', { name: /Market cloth/ })).toBeVisible();
  await findReference(page, 'Furrow block');
  await expect(page.getByRole('link', { name: /Furrow block/ })).toHaveCount(0);
  await findReference(page, 'Market cloth');
  await page.getByRole('link', { name: /Market cloth/ }).click();
  await page.getByRole('group', { name: 'Grade' }).getByRole('button', { name: '7' }).click();
  await expect(page.getByRole('group', { name: 'Grade' }).getByRole('button', { name: '7' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.getByRole('link', { name: 'Shelf', exact: true }).click();
  await findReference(page, 'cloth');
  await page.getByLabel('used', { exact: true }).selectOption({ label: 'in none' });
  const cloths = await page.locator('.references li').count();
  await page.getByLabel('graded').selectOption({ label: '7 or more' });
  await expect(page.getByRole('link', { name: /Market cloth/ })).toBeVisible();
  expect(await page.locator('.references li').count()).toBeLessThan(cloths);
  await page.getByLabel('graded').selectOption({ label: 'or not' });
  await findReference(page, '');
  await page.getByLabel('holding').selectOption({ label: 'beet' });
  await expect(page.locator('.references li').first()).toBeVisible();
  expect(await page.locator('.references li').count()).toBeLessThan(20);
  await expectAccessible(page, 'slip');
});

test('parts and facets are proposed from how well pictures agree, with the reasons, and taken back', async ({ page }) => {
  await signIn(page);
  for (const name of ['Furrow block', 'Hedge block', 'Market cloth']) {
    await findReference(page, name);
    await page.getByRole('button', { name: `Carry ${name} in the galley` }).click();
  }
  await page.getByRole('button', { name: 'Mix these 3' }).click();
  await expect(page.getByText('12 parts')).toBeVisible();
  await page.getByRole('button', { name: 'Propose parts and facets' }).click();
  await expect(page.locator('.why')).toContainText('Market cloth agrees with the others in nothing');
  await expect(page.getByRole('button', { name: 'texture from Market cloth' })).toHaveAttribute('aria-pressed', 'false');
  await expect(page.getByRole('button', { name: 'texture from Furrow block' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'As it was' }).click();
  await expect(page.getByText('12 parts')).toBeVisible();
  await expect(page.getByRole('button', { name: 'texture from Market cloth' })).toHaveAttribute('aria-pressed', 'true');
});

test('a page whose data cannot be fetched says so and tries again', async ({ page }) => {
  await signIn(page);
  await page.route('**/api/runs', route =>
    route.fulfill({
      status: 503,
      contentType: 'application/problem+json',
      body: JSON.stringify({ type: 'x', title: 'x', status: 503, code: 'databaseGone', detail: 'The database does not answer.' }),
    }),
  );
  await page.reload();
  await page.getByRole('link', { name: 'Runs' }).click();
  await expect(alerts(page)).toContainText('The runs could not be fetched');
  await page.unroute('**/api/runs');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByText('First Frost, pilot')).toBeVisible();
});

test('a mix that someone else saved meanwhile is told, and nothing in hand is lost', async ({ page }) => {
  await signIn(page);
  await page.locator('zs-look-card', { hasText: 'Graver' }).click();
  await expect(page.getByRole('heading', { name: 'Graver', level: 1 })).toBeVisible();
  const id = page.url().split('/').pop()!;
  const look = (await (await page.request.get(`/api/looks/${id}`)).json()) as {
    latest: { version: number; sources: object[]; words: string[]; avoid: string[] };
  };
  const { version, sources, words, avoid } = look.latest;
  const other = await page.request.post(`/api/looks/${id}/versions`, {
    headers: { 'if-match': `"${version}"` },
    data: { sources, words, avoid, strength: 50, note: 'theirs' },
  });
  expect(other.status()).toBe(201);
  await page.getByLabel('Style words').fill('my own words');
  await page.getByLabel('What is new in this version').fill('mine');
  await page.getByRole('button', { name: 'Save version 2' }).click();
  await expect(alerts(page)).toContainText('newer version');
  await expect(page.getByLabel('Style words')).toHaveValue('my own words');
  await expect(page.locator('.versions').getByText('theirs')).toBeVisible();
  await page.getByRole('button', { name: 'Save version 3' }).click();
  await expect(page.locator('.versions').getByText('mine')).toBeVisible();
  await expect(alerts(page)).toHaveCount(0);
});

test('pages hold at 1024 wide, and no page is empty or broken', async ({ page }) => {
  const noErrors = watchForErrors(page);
  await page.setViewportSize({ width: 1024, height: 768 });
  await signIn(page);
  for (const path of [
    '/shelf',
    '/mix',
    '/wording',
    '/wording/styles',
    '/runs',
    '/runs/new',
    '/review',
    '/deliver',
    '/house',
    '/nowhere',
  ]) {
    await page.goto(path);
    await page.waitForLoadState('networkidle');
    await expect(page.locator('main')).not.toBeEmpty();
    const wider = await page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth);
    expect(wider, path).toBe(false);
  }
  noErrors();
});

test('an empty house asks for its first lead and opens', async ({ page }) => {
  const base = `http://127.0.0.1:${process.env.ZINC_E2E_EMPTY}`;
  await page.goto(base);
  await expect(page.getByRole('heading', { name: 'Open the house' })).toBeVisible();
  await page.getByLabel('Name of the house').fill('Quoin Street');
  await page.getByLabel('Your name').fill('Mara Thrift');
  await page.getByLabel('Address').fill('mara@quoin.example');
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Open the house' }).click();
  await expect(alerts(page)).toContainText('at least 10 characters');
  await expect(page.getByLabel('Your name')).toHaveValue('Mara Thrift');
  await page.getByLabel('Password').fill('long enough to sign in');
  await page.getByRole('button', { name: 'Open the house' }).click();
  await expect(page.getByRole('heading', { name: 'An empty shelf' })).toBeVisible();
  await page.getByRole('link', { name: 'Runs' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing has been made yet' })).toBeVisible();
  await page.getByRole('link', { name: 'Plan a run' }).click();
  await expect(page.getByRole('heading', { name: 'A run needs a look and subjects' })).toBeVisible();
  await expectAccessible(page, 'empty house');
});
