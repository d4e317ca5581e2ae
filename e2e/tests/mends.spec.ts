import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { dropFiles, expectAccessible, LEAD, planOf, REVIEWER, signIn, startPlan, watchForErrors } from './helpers.ts';

/** Makes a run of a few subjects for a campaign and opens the proof of the first take of one of them. */
async function proofOf(page: Page, name: string, subjects: string[], takes: number): Promise<string> {
  await planOf(page, subjects);
  await page.getByLabel('Takes', { exact: true }).fill(String(takes));
  await page.getByLabel('Campaign', { exact: true }).selectOption({ label: 'for Market Saturdays' });
  await startPlan(page, name);
  await expect(page.locator('.take.made')).toHaveCount(subjects.length * takes, { timeout: 120_000 });
  await page.getByRole('link', { name: 'Review', exact: true }).last().click();
  await page.getByRole('button', { name: new RegExp(`${subjects[0]}, take 1`) }).click();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: `${subjects[0]}, take 1` })).toBeVisible();
  return page.url();
}

test('a proof that is nearly right is mended: asked for, retouched, varied, matched; and the plot names what stands out', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const noErrors = watchForErrors(page, [/status of 422/]);
  await signIn(page, LEAD);
  const url = await proofOf(page, 'Nearly right', ['Radish', 'Honeybee', 'Sunflower'], 2);

  await page.keyboard.press('e');
  await expect(page.getByRole('heading', { name: 'Ask for a change' })).toBeVisible();
  await expect(page.getByText('Nothing has been made from it yet.')).toBeVisible();
  await page.getByLabel('What is to change').fill('dancing shoes');
  await page.getByRole('button', { name: 'Read it back' }).click();
  await expect(page.getByText('“dancing shoes” is not understood.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make this try' })).toBeDisabled();
  await page.getByLabel('What is to change').fill('strength 0, two radishes, dancing shoes');
  await page.getByRole('button', { name: 'Read it back' }).click();
  await expect(page.getByText(/Strength goes from \d+ to 0 %/)).toBeVisible();
  await expect(page.getByText('The drawing is told: two radishes.')).toBeVisible();
  await expectAccessible(page, 'an ask read back');
  await page.getByRole('button', { name: 'Make this try' }).click();
  const thread = page.getByRole('list', { name: 'What was asked' });
  await expect(thread).toContainText('not understood: dancing shoes');
  await expect(thread.locator('img')).toHaveCount(1, { timeout: 60_000 });

  // A region is brushed by hand, and by keys.
  await page.getByRole('button', { name: 'Brush', exact: true }).click();
  const region = page.locator('zs-region canvas');
  const box = (await region.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.4);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.4, box.y + box.height * 0.42, { steps: 6 });
  await page.mouse.up();
  await region.press('ArrowRight');
  await region.press('Space');
  await expect(page.getByRole('button', { name: 'Remove it' })).toBeVisible();
  await page.getByRole('button', { name: 'One back' }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.locator('zs-region')).toHaveCount(0);
  await page.getByRole('button', { name: 'Outline', exact: true }).click();
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.5);
  await page.mouse.down();
  for (const [x, y] of [
    [0.6, 0.5],
    [0.6, 0.6],
    [0.5, 0.6],
  ])
    await page.mouse.move(box.x + box.width * x, box.y + box.height * y, { steps: 4 });
  await page.mouse.up();
  await page.getByLabel('A note for what is painted again').fill('blue');
  await page.getByRole('button', { name: 'Paint it again' }).click();

  await page.getByRole('textbox', { name: 'How far from this one' }).fill('70');
  await page.getByLabel('How many').selectOption('2');
  await page.getByRole('button', { name: 'Make them' }).click();
  await page.getByRole('button', { name: 'Match it' }).click();
  const family = page.locator('zs-family-tree li');
  await expect(family).toHaveCount(7, { timeout: 30_000 });
  await expect(page.locator('zs-family-tree img')).toHaveCount(7, { timeout: 120_000 });
  for (const how of ['as asked', 'part removed', 'part painted again', 'offshoot 70 away', 'matched to its set'])
    await expect(page.locator('zs-family-tree').getByText(how).first()).toBeVisible();
  // A message at the foot of the window may lie over the page for a while.
  await expect(page.locator('.p-toast-message')).toHaveCount(0);
  await expectAccessible(page, 'a family');
  await page.locator('zs-family-tree').getByText('part removed').click();
  await expect(page.getByRole('heading', { name: /Radish, take/ })).not.toHaveText('Radish, take 1');
  await expect(page.locator('zs-family-tree li.here')).toContainText('part removed');

  // Back in review the one without any strength stands out, and says that it was asked for.
  await page.goto(url);
  await page.getByRole('link', { name: 'Nearly right' }).click();
  await expect(page.getByText(/12 proofs/)).toBeVisible();
  await expect(page.locator('zs-drift-plot [role="img"]')).toHaveAttribute(
    'aria-label',
    /stand out from the rest: .*Radish, take 3/,
  );
  await page.keyboard.press('m');
  await expect(page.locator('button.proof.hand .kin')).toHaveText('as asked');
  await expect(page.locator('.kin', { hasText: 'retouched' })).toHaveCount(2);
  noErrors();
});

test('a kept proof leads its campaign, its set is followed, and an exported picture lands on its proof again', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const noErrors = watchForErrors(page);
  await signIn(page, LEAD);
  const url = await proofOf(page, 'One that leads', ['Beetroot', 'Greenhouse'], 1);
  const id = url.split('/').pop()!;
  await page.getByRole('button', { name: 'Look for leak, echo and lettering' }).click();
  await expect(page.locator('zs-findings p').first()).toBeVisible();
  await page.getByRole('link', { name: 'One that leads' }).click();
  await expect(page.getByText('2 proofs, 0 kept, 2 without a decision')).toBeVisible();
  await page.getByRole('button', { name: /Beetroot, take 1/ }).click();
  await page.keyboard.press('k');
  await expect(page.getByText('2 proofs, 1 kept, 1 without a decision')).toBeVisible();
  await page.getByLabel('A note to this decision').fill('The roundest of them');
  await page.getByLabel('A note to this decision').press('Enter');
  await page.getByRole('button', { name: 'Look closer at Beetroot' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('“The roundest of them”')).toBeVisible();
  await page.getByRole('button', { name: 'Let it lead Market Saturdays' }).click();
  await expect(page.getByRole('button', { name: 'Leads Market Saturdays' })).toBeVisible();

  // The coverage of the campaign, from the page of reviews.
  await page.getByRole('link', { name: 'Review', exact: true }).first().click();
  await page.getByRole('link', { name: 'Market Saturdays' }).click();
  await expect(page.getByRole('heading', { name: 'Market Saturdays', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Leads the campaign: Beetroot' })).toBeVisible();
  await expect(
    page
      .getByRole('row', { name: /Greenhouse/ })
      .or(page.getByRole('listitem').filter({ hasText: 'Greenhouse' }))
      .first(),
  ).toContainText('not decided');
  await page.getByLabel('only what is open').check();
  await expect(page.getByText('Beetroot', { exact: true })).toHaveCount(0);
  await expectAccessible(page, 'coverage');
  await page.getByRole('link', { name: 'What gets kept' }).click();
  await expect(page.getByRole('heading', { name: 'What gets kept', level: 1 })).toBeVisible();
  await page.getByRole('tab', { name: 'By subject' }).click();
  await page.getByRole('button', { name: /Beetroot/ }).click();
  await expectAccessible(page, 'what gets kept');
  await page.locator('.proofs a').first().click();
  await expect(page.getByRole('heading', { name: 'Beetroot, take 1' })).toBeVisible();

  // An exported picture is dropped on the window.
  const { pictureSha, runId } = (await (await page.request.get(`/api/proofs/${id}`)).json()) as {
    pictureSha: string;
    runId: string;
  };
  const bytes = await (await page.request.get(`/api/pictures/${pictureSha}/working`)).body();
  await page.goto('/runs');
  await dropFiles(page, page.locator('main'), [{ name: 'beetroot.png', type: 'image/png', bytes }]);
  await expect(page).toHaveURL(new RegExp(id));
  await expect(page.getByText('This is one of our proofs, pixel for pixel.')).toBeVisible();

  // The next set follows it.
  await page.getByRole('link', { name: 'A set that follows it' }).click();
  await expect(page.getByLabel('What the set follows')).toContainText('follows Beetroot, take 1');

  // Another house's picture, dropped while that plan is open: the plan becomes that of its recipe.
  const zip = await (await page.request.get(`/api/runs/${runId}/export.zip`)).body();
  const start = zip.indexOf(Buffer.from([0x89, 0x50, 0x4e, 0x47]));
  const png = zip.subarray(start, zip.indexOf('IEND', start) + 8);
  const xmp = String((await sharp(png).metadata()).xmp).replace('&#34;seed&#34;:', '&#34;seed&#34;:9');
  const foreign = await sharp(png).resize(200).withXmp(xmp).png().toBuffer();
  await dropFiles(page, page.locator('main'), [{ name: 'theirs.png', type: 'image/png', bytes: foreign }]);
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Beetroot, from a recipe');
  await expect(page.getByRole('list', { name: 'What', exact: true }).locator('[aria-pressed=true]')).toHaveText([/Beetroot/]);
  noErrors();
});

test('reviewers judge and read, and are offered nothing that they may not do', async ({ page }) => {
  await signIn(page, REVIEWER);
  const runs = (await (await page.request.get('/api/runs')).json()) as { items: { id: string; made: number }[] };
  await page.goto(`/review/${runs.items.find(r => r.made > 0)!.id}`);
  await expect(page.getByRole('button', { name: /Mend it/ })).toBeDisabled();
  // The size of the pictures goes round by key.
  const size = page.getByLabel(/Size of the pictures/);
  await page.keyboard.press('z');
  await expect(size).toHaveValue('small');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Comments' })).toBeVisible();
  await expect(page.getByRole('tab', { name: /Mend it/ })).toHaveCount(0);
  await page.keyboard.press('e');
  await expect(page.getByRole('heading', { name: 'Ask for a change' })).toHaveCount(0);
});
