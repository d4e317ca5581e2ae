import { expect, test, type Locator, type Page } from '@playwright/test';
import {
  alerts,
  canvasHash,
  dropFiles,
  expectAccessible,
  findReference,
  lookLike,
  picture,
  signIn,
  untilLibraryIsFull,
  watchForErrors,
} from './helpers.ts';

/** Draws with the pointer over a part of a picture; places are parts of its width and height. */
async function draw(page: Page, on: Locator, places: [number, number][]): Promise<void> {
  const box = (await on.boundingBox())!;
  const at = ([x, y]: [number, number]): [number, number] => [box.x + x * box.width, box.y + y * box.height];
  await page.mouse.move(...at(places[0]));
  await page.mouse.down();
  for (const p of places.slice(1)) await page.mouse.move(...at(p), { steps: 5 });
  await page.mouse.up();
}

async function openReference(page: Page, name: string): Promise<void> {
  await findReference(page, name);
  await page
    .getByRole('link', { name: new RegExp(name) })
    .first()
    .click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

test.beforeAll(({ browser }) => untilLibraryIsFull(browser));

test('the shelf forgives typing errors, and finds what looks like a picture that is not kept', async ({ page }) => {
  const noErrors = watchForErrors(page, [/status of 415/]);
  await signIn(page);
  await findReference(page, 'tomatto bnch');
  await expect(page.getByRole('link', { name: /Tomato bench/ })).toBeVisible();
  await expect(page.locator('.references li')).toHaveCount(1);
  await findReference(page, '');
  await page.getByRole('button', { name: 'anything', exact: true }).click();
  const chooser = page.getByLabel('Any picture, dropped here or chosen');
  await chooser.setInputFiles({ name: 'torn.png', mimeType: 'image/png', buffer: (await picture(5, 'png')).subarray(0, 700) });
  await expect(alerts(page)).toContainText('cut short');
  await chooser.setInputFiles({ name: 'scrap.png', mimeType: 'image/png', buffer: await picture(5, 'png') });
  await expect(page.getByRole('heading', { name: /Like scrap\.png/ })).toBeVisible();
  const distances = (await page.locator('.references span.clip').allTextContents()).map(t =>
    Number(/distance ([\d.]+)/.exec(t)![1]),
  );
  expect(distances.length).toBeGreaterThan(10);
  expect(distances).toEqual([...distances].sort((p, q) => p - q));
  const order = (await page.locator('.references b').allTextContents()).join();
  // By one facet alone another order comes of it.
  for (const f of ['light', 'line', 'texture']) await page.getByRole('button', { name: `compare ${f}` }).click();
  await expect.poll(async () => (await page.locator('.references b').allTextContents()).join()).not.toBe(order);
  await page.getByRole('button', { name: 'Like anything' }).click();
  await lookLike(page, 'Pond study');
  await expect(page.locator('.references b').first()).toHaveText('Pond study');
  await expectAccessible(page, 'alike');
  noErrors();
});

test('shelves and what stands on them keep the order given by hand', async ({ page }) => {
  await signIn(page);
  await findReference(page, 'block');
  const names = page.locator('.references b');
  const before = await names.allTextContents();
  expect(before.length).toBeGreaterThan(4);
  // With the keys: the third goes one place to the left.
  const third = page.getByRole('link', { name: new RegExp(before[2]) });
  await third.focus();
  await page.keyboard.press(',');
  await expect(names.nth(1)).toHaveText(before[2]);
  // By hand: the last is set down before the first.
  const last = page.locator('.references li', { hasText: before[4] });
  await last.dragTo(page.locator('.references li', { hasText: before[0] }));
  await expect(names.first()).toHaveText(before[4]);
  await page.reload();
  await findReference(page, 'block');
  await expect(names.first()).toHaveText(before[4]);
  await findReference(page, 'Dye test');
  await expect(page.locator('.shelf-head')).toHaveCount(2);
  await page.locator('.shelf-head', { hasText: 'Washes' }).hover();
  await page.getByRole('button', { name: 'Move Washes up' }).click();
  await page.getByRole('button', { name: 'Rename' }).last().click();
  const field = page.getByLabel('Name of the shelf');
  const old = await field.inputValue();
  await field.fill(`${old}, all of them`);
  await field.press('Enter');
  await expect(page.getByRole('heading', { name: new RegExp(`${old}, all of them`) })).toBeVisible();
});

test('a variant is cropped, cut, painted out, recoloured and treated, compared with other trials, and kept beside its original', async ({
  page,
}) => {
  const noErrors = watchForErrors(page, [/status of 40[09]/]);
  await signIn(page);
  await openReference(page, 'Furrow block');
  await page.getByRole('link', { name: 'Prepare a variant' }).click();
  const stage = page.locator('zs-picture-stage .frame');
  const canvas = stage.locator('canvas').first();
  await expect.poll(() => canvasHash(canvas)).not.toBe(0);
  const keep = page.getByRole('button', { name: 'Keep the variant' });
  await expect(keep).toBeDisabled();

  await draw(page, stage, [
    [0.1, 0.1],
    [0.9, 0.85],
  ]);
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('80');
  await page.getByRole('tab', { name: 'Cut out' }).click();
  const before = await canvasHash(canvas);
  await page.getByLabel('Cut the background away').check();
  await expect.poll(() => canvasHash(canvas)).not.toBe(before);
  await page.getByRole('button', { name: 'Brush: stays' }).click();
  await draw(page, stage, [
    [0.2, 0.9],
    [0.4, 0.9],
  ]);
  await expect(page.getByText('1 strokes')).toBeVisible();
  await page.getByRole('tab', { name: 'Paint out' }).click();
  await draw(page, stage, [
    [0.13, 0.2],
    [0.18, 0.26],
  ]);
  await expect(page.getByText('1 strokes')).toBeVisible();
  await page.getByRole('tab', { name: 'Recolour' }).click();
  await page.getByRole('button', { name: 'Beet' }).click();
  await stage.click({ position: { x: 200, y: 180 } });
  await expect(page.getByRole('button', { name: 'Take this back' })).toBeVisible();
  await page.getByRole('button', { name: 'Set this trial aside' }).click();

  await page.getByRole('tab', { name: 'Treat' }).click();
  await page.getByRole('textbox', { name: 'Dry roller' }).fill('140');
  await page.getByRole('textbox', { name: 'Dry roller' }).press('Tab');
  await expect(alerts(page)).toContainText('from 0 to 100');
  await page.getByRole('textbox', { name: 'Dry roller' }).fill('40');
  await page.getByRole('textbox', { name: 'Dry roller' }).press('Tab');
  const plate = page.getByRole('slider', { name: 'Worn plate' });
  await plate.focus();
  for (let i = 0; i < 8; i++) await plate.press('ArrowRight');
  await expect(page.getByRole('textbox', { name: 'Worn plate' })).toHaveValue('8');
  await page.getByLabel('Name of the treatment').fill('Spring roller');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('button', { name: 'Spring roller', exact: true })).toBeVisible();

  // Original, what is in hand and the trial set aside stand side by side, each on the five subjects.
  const trials = page.getByRole('list', { name: 'Trials side by side' }).getByRole('listitem');
  await expect(trials).toHaveCount(3);
  for (const trial of await trials.all())
    for (const subject of await trial.locator('zs-yardstick-strip canvas').all())
      await expect.poll(() => canvasHash(subject), { timeout: 60_000 }).not.toBe(0);
  await expectAccessible(page, 'prepare');

  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.getByLabel('Keep as variant').fill('Furrow block, spring');
  await keep.click();
  await expect(page.getByRole('heading', { name: 'Furrow block', level: 1 })).toBeVisible({ timeout: 60_000 });
  const family = page.getByRole('list', { name: 'Variants side by side' });
  await expect(family).toContainText('Furrow block, spring');
  await family.getByRole('link', { name: /Furrow block, spring/ }).click();
  await expect(
    page.getByText(/A variant of Furrow block, painted out, recoloured, cut out, cropped, dry roller 40 %, worn plate 8 %/),
  ).toBeVisible();

  // The kept treatment serves another picture; a crop of nothing is told plainly and nothing is lost.
  await page.goto('/shelf');
  await openReference(page, 'Hedge block');
  await page.getByRole('link', { name: 'Prepare a variant' }).click();
  await page.getByRole('tab', { name: 'Treat' }).click();
  await page.getByRole('button', { name: 'Spring roller', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Dry roller' })).toHaveValue('40');
  await page.getByRole('tab', { name: 'Crop' }).click();
  await page.getByLabel('Width', { exact: true }).fill('0');
  await page.getByLabel('Width', { exact: true }).press('Tab');
  await expect(alerts(page)).toContainText('The crop would leave 0 ×');
  await page.getByRole('button', { name: 'The whole picture' }).click();
  await expect(alerts(page)).toHaveCount(0);
  await expect(page.getByRole('tab', { name: 'Treat' }).getByLabel('in use')).toBeVisible();
  noErrors();
});

test('a reference shows where each facet comes from, and drafts words that a person crosses out and keeps', async ({ page }) => {
  await signIn(page);
  await openReference(page, 'Kale at noon');
  await expect(page.getByText('Line width')).toBeVisible();
  await page.getByRole('button', { name: 'line', exact: true }).click();
  const map = page.getByRole('img', { name: 'Where line comes from' });
  await expect(map).toBeVisible();
  const line = await canvasHash(map);
  await page.getByRole('button', { name: 'colour', exact: true }).click();
  await expect.poll(() => canvasHash(page.getByRole('img', { name: 'Where colour comes from' }))).not.toBe(line);
  await page.getByRole('button', { name: 'Draft words from the picture' }).click();
  await expect(page.getByText(/Probably thick paint, \d+ % sure/)).toBeVisible();
  const looks = page.getByLabel('How it looks');
  await expect(looks).toHaveValue(/thick paint/);
  await page.locator('.chips').getByRole('button', { name: 'thick paint' }).click();
  await expect(looks).not.toHaveValue(/thick paint/);
  await expect(page.getByLabel('What it shows')).toHaveValue('');
  await page.getByLabel('What it shows').fill('kale at noon');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.reload();
  await expect(page.getByLabel('What it shows')).toHaveValue('kale at noon');
  await expect(looks).not.toHaveValue(/thick paint/);
  await expectAccessible(page, 'reference with words');
});

test('word styles are found by purpose, changed, shown beside no style, and taken out and in as files', async ({ page }) => {
  const noErrors = watchForErrors(page, [/status of 40[09]/]);
  await signIn(page);
  await page.getByRole('link', { name: 'Wording' }).click();
  await page.getByRole('link', { name: 'Word styles' }).click();
  await expect(page.getByText('No style')).toBeVisible();
  await page.getByLabel('Words good for').fill('early tlks');
  await expect(page.getByRole('button', { name: /Early talk/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Market loud/ })).toHaveCount(0);
  await page.getByLabel('Words good for').fill('');
  await page.getByRole('button', { name: 'One at random' }).click();
  await expect(page.locator('.list .here')).toHaveCount(1);
  await page.getByRole('button', { name: 'New word style' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Frost labels');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(alerts(page)).toContainText('at least one phrase');
  await page.getByLabel('After the subject').fill('woodcut, sparkling');
  await page.getByLabel('After the subject').press('Tab');
  await expect(page.getByText('Only in the text, for no marks are known for: sparkling')).toBeVisible();
  await page.getByLabel('On by default').check();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.locator('.list').getByText('on by default')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV' }).click();
  expect((await download).suggestedFilename()).toBe('word-styles.csv');
  await page.getByLabel('Bring in').setInputFiles({
    name: 'more.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,after,grade\nSlate,chalky,5\nToo good,flat,12\n'),
  });
  await expect(alerts(page)).toContainText('Row 3, Too good: Grades go from 0 to 9');
  await expect(page.getByRole('button', { name: /Slate/ })).toBeVisible();
  await expectAccessible(page, 'word styles');

  // What is on by default stands on every new bench, in view, and can be taken out.
  await page.getByRole('link', { name: 'Mix', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Frost labels' })).toBeVisible();
  await expect(page.getByText('On by default in new looks: Frost labels')).toBeVisible();
  await page.getByRole('button', { name: 'Take Frost labels out' }).click();
  await expect(page.getByRole('heading', { name: 'An empty bench' })).toBeVisible();
  await page.goto('/wording/styles');
  await page.getByRole('button', { name: /Frost labels/ }).click();
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByRole('button', { name: /Frost labels/ })).toHaveCount(0);
  noErrors();
});

test('the bench warns with one-click mends, shows any subject or none of the style, and compares any two versions', async ({
  page,
}) => {
  const noErrors = watchForErrors(page, [/status of 400/]);
  await signIn(page);
  await page.locator('zs-look-card', { hasText: 'Paper Frost' }).getByRole('button').click();
  await expect(page.getByText(/painted in/)).toBeVisible({ timeout: 60_000 });
  const large = page.locator('zs-yardstick .large canvas').first();
  const styled = await canvasHash(large);
  await page.getByRole('button', { name: 'No style' }).click();
  await expect.poll(() => canvasHash(large)).not.toBe(styled);
  await page.keyboard.press('b');
  await expect.poll(() => canvasHash(large), { timeout: 30_000 }).toBe(styled);
  await page.getByLabel('On the bench').selectOption({ label: 'Sunflower' });
  await expect(page.getByRole('img', { name: 'Sunflower in this look' })).toBeVisible();
  await expect.poll(() => canvasHash(large), { timeout: 30_000 }).not.toBe(styled);
  await page.getByLabel('A photo').setInputFiles({ name: 'stall.png', mimeType: 'image/png', buffer: await picture(8, 'png') });
  await expect(page.getByRole('img', { name: 'stall.png in this look' })).toBeVisible();

  const warning = page.locator('.warning', { hasText: 'says what Frost window already gives' });
  await warning.getByRole('button', { name: 'Drop the word' }).click();
  await expect(warning).toHaveCount(0);
  await expect(page.getByLabel('Style words')).toHaveValue('');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Style words')).toHaveValue('cut paper');

  await page.getByRole('button', { name: 'Add from the shelf' }).click();
  await page.getByRole('button', { name: 'colours', exact: true }).click();
  await page.getByRole('button', { name: 'Own colours' }).click();
  await page.getByRole('button', { name: 'word styles', exact: true }).click();
  await page.getByRole('button', { name: /Old seed packet/ }).click();
  await page.getByRole('button', { name: 'Mix in' }).click();
  await expect(page.getByLabel('Own colour 1')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Old seed packet' })).toBeVisible();
  await expect(page.getByText('12 parts')).toBeVisible();

  const versions = page.locator('zs-versions');
  await versions.getByRole('button', { name: 'Lay beside' }).nth(1).click();
  await expect(versions.locator('dl')).toContainText('Own colours');
  await versions.getByLabel('Version 1 beside').selectOption({ label: 'version 2' });
  await expect(page.getByText('Version 2 in place of yours')).toBeVisible();
  await expect(versions.locator('dl')).not.toContainText('Own colours');
  await expect(versions.locator('dl')).toContainText('Acorn frieze');
  await page.getByRole('button', { name: 'Back to yours' }).click();

  await versions.getByRole('button', { name: 'Recommend a range' }).click();
  await versions.getByLabel('From').fill('90');
  await versions.getByLabel('to', { exact: true }).fill('70');
  await versions.getByLabel('Good for').fill('round subjects');
  await versions.getByRole('button', { name: 'Keep it' }).click();
  await expect(alerts(page)).toContainText('at least the lower one');
  await versions.getByLabel('From').fill('60');
  await versions.getByRole('button', { name: 'Keep it' }).click();
  await expect(versions).toContainText('60 to 70 % for round subjects');
  await expect(page.locator('.track .range')).toHaveCount(1);
  await expectAccessible(page, 'bench with versions');
  await versions.getByRole('link', { name: 'Begin a new look from it' }).nth(1).click();
  await expect(page.getByText('Begun from Paper Frost, version 1.')).toBeVisible();
  await page.getByLabel('Name of the look').fill('Paper Frost, begun again');
  await page.getByRole('button', { name: 'Save version 1' }).click();
  await expect(page.getByRole('heading', { name: 'Paper Frost, begun again', level: 1 })).toBeVisible();
  await expect(page.getByText('Begun from Paper Frost, version 1.')).toBeVisible();
  noErrors();
});

test('framing is taken from a mounted picture or left, and says what it is', async ({ page }) => {
  const noErrors = watchForErrors(page);
  await signIn(page);
  await openReference(page, 'Fair cloth');
  await expect(page.getByText('clear margins, round corners')).toBeVisible();
  const looks = (await (await page.request.get('/api/looks')).json()) as { items: { id: string; name: string }[] };
  await page.goto(`/mix/${looks.items.find(l => l.name === 'Fair Day')!.id}`);
  await expect(page.getByText(/painted in/)).toBeVisible({ timeout: 60_000 });
  const large = page.locator('zs-yardstick .large canvas').first();
  /** How many colours stand along the upper edge of the painting. */
  const edgeColours = (): Promise<number> =>
    large.evaluate((c: HTMLCanvasElement) => {
      const { data } = c.getContext('2d')!.getImageData(0, 2, c.width, 6);
      return new Set(Array.from({ length: data.length / 4 }, (_, i) => data.slice(i * 4, i * 4 + 3).join())).size;
    });
  expect(await edgeColours()).toBe(1);
  const framing = page.getByRole('button', { name: 'framing from Fair cloth' });
  await expect(framing).toHaveAttribute('aria-pressed', 'true');
  await framing.click();
  await expect(framing).toHaveAttribute('aria-pressed', 'false');
  await expect.poll(edgeColours, { timeout: 30_000 }).toBeGreaterThan(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(edgeColours, { timeout: 30_000 }).toBe(1);
  await framing.click();
  await page.locator('zs-versions').getByRole('button', { name: 'Lay beside' }).first().click();
  await expect(page.locator('zs-versions dl')).toContainText('texture, framing');
  noErrors();
});

test('an ended licence stops a run until a lead says why it is used all the same', async ({ page }) => {
  await signIn(page);
  await openReference(page, 'Dye test 9');
  await page.getByLabel('The licence ends').fill('2021-03-01');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const looks = (await (await page.request.get('/api/looks')).json()) as { items: { id: string; name: string }[] };
  await page.goto(`/runs/new?looks=${looks.items.find(l => l.name === 'Almanac Wash')!.id}`);
  const finding = page.locator('.findings li', { hasText: 'The licence of Dye test 9 ended on 1 March 2021' });
  await finding.getByRole('button', { name: 'Use it all the same' }).click();
  await finding.getByRole('button', { name: 'Keep the reason' }).click();
  await expect(alerts(page)).toContainText('Say why');
  await finding.getByRole('textbox').fill('Renewed by word of the printer');
  await finding.getByRole('button', { name: 'Keep the reason' }).click();
  await expect(page.locator('.findings')).toContainText('used all the same: “Renewed by word of the printer”');
  await expectAccessible(page, 'licence override');
});

test('dropping files while a slip asks for something still brings them', async ({ page }) => {
  await signIn(page);
  await findReference(page, 'brought in late');
  await expect(page.getByRole('heading', { name: 'Nothing on the shelf fits this slip' })).toBeVisible();
  await dropFiles(page, page.locator('zs-shelf'), [
    { name: 'Brought in late.png', type: 'image/png', bytes: await picture(33, 'png') },
  ]);
  await expect(page.getByRole('link', { name: /Brought in late/ })).toBeVisible();
});
