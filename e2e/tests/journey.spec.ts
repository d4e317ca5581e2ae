import { readFileSync } from 'node:fs';
import { MIXER_VERSION, PAINTER_VERSION } from '@zinc/core';
import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { fromBuffer, type Entry } from 'yauzl';
import { alerts, canvasHash, dropFiles, expectAccessible, misbehave, picture, signIn, watchForErrors } from './helpers.ts';

/** The whole work in one sitting, as the lead: from three pictures on the shelf to a ZIP. */
test.describe.serial('from pictures to delivery', () => {
  let page: Page;
  let noErrors: () => void;
  test.beforeAll(async ({ browser }) => {
    page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    noErrors = watchForErrors(page, [/status of (415|503)/]);
    await signIn(page);
  });
  test.afterAll(() => page.close());

  test('1: three pictures dropped on the shelf arrive measured; a broken one among them is refused by name', async () => {
    await dropFiles(page, page.locator('zs-shelf'), [
      { name: 'Spring_leaves.jpg', type: 'image/jpeg', bytes: await picture(1, 'jpeg') },
      { name: 'Autumn leaves.png', type: 'image/png', bytes: await picture(2, 'png') },
      { name: 'torn.png', type: 'image/png', bytes: (await picture(9, 'png')).subarray(0, 900) },
      { name: 'Winter leaves.webp', type: 'image/webp', bytes: await picture(3, 'webp') },
    ]);
    await expect(page.getByRole('heading', { name: /Just arrived/ })).toBeVisible();
    const ledge = page.locator('.ledges');
    for (const name of ['Spring leaves', 'Autumn leaves', 'Winter leaves']) {
      const item = ledge.getByRole('listitem').filter({ hasText: name });
      await expect(item).toBeVisible();
      await expect(item.getByRole('img', { name: /^Palette: #/ })).toBeVisible();
    }
    await expect(page.getByRole('list', { name: 'Arriving' })).toContainText('torn.png: It is cut short');
    await page.getByRole('button', { name: 'All right' }).click();
    await expectAccessible(page, 'shelf');
  });

  test('2: they are mixed by parts and facets, painted while a divider is dragged, and saved as version 1', async () => {
    for (const name of ['Spring leaves', 'Autumn leaves', 'Winter leaves']) {
      const carry = page.getByRole('button', { name: `Carry ${name} in the galley` });
      await carry.focus();
      await carry.press('Enter');
    }
    await page.getByRole('button', { name: 'Mix these 3' }).click();
    await expect(page.getByText(/painted in/)).toBeVisible({ timeout: 60_000 });
    const large = page.locator('zs-yardstick .large canvas').first();
    const first = await canvasHash(large);
    expect(first).not.toBe(0);
    for (const canvas of await page.locator('zs-yardstick .small canvas').all()) expect(await canvasHash(canvas)).not.toBe(0);

    const divider = page.getByRole('slider', { name: /Parts of Spring leaves against Autumn leaves/ });
    const box = (await divider.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + 1);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y - 150, { steps: 6 });
    // Still held down: the picture has changed already.
    await expect.poll(() => canvasHash(large)).not.toBe(first);
    await page.mouse.up();
    await expect(divider).not.toHaveAttribute('aria-valuenow', '4');

    await page.getByRole('button', { name: 'colour from Winter leaves' }).click();
    await expect(page.getByRole('button', { name: 'colour from Winter leaves' })).toHaveAttribute('aria-pressed', 'false');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'colour from Winter leaves' })).toHaveAttribute('aria-pressed', 'true');
    await page.getByRole('button', { name: 'Redo' }).click();

    await page.getByLabel('Parts of Winter leaves', { exact: true }).fill('lots');
    await page.getByLabel('Parts of Winter leaves', { exact: true }).press('Tab');
    await expect(alerts(page)).toContainText('whole numbers from 0 to 99');
    await page.getByLabel('Parts of Winter leaves', { exact: true }).fill('2');
    await page.getByLabel('Parts of Winter leaves', { exact: true }).press('Tab');
    await expect(alerts(page)).toHaveCount(0);

    const strength = page.getByRole('slider', { name: 'Strength' });
    await strength.focus();
    for (let i = 0; i < 6; i++) await strength.press('ArrowRight');
    await expect(page.getByText('Strength 86 %')).toBeVisible();
    await page.getByLabel('Avoid').fill('shading');
    await page.getByLabel('Name of the look').fill('Three leaves');
    await page.getByLabel('What is new in this version').fill('The first mix');
    await expect(page.getByText(/painted in/)).toBeVisible({ timeout: 60_000 });
    await expectAccessible(page, 'mix');
    await page.getByRole('button', { name: 'Save version 1' }).click();
    await expect(page.getByRole('heading', { name: 'Three leaves', level: 1 })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Save version 2' })).toBeDisabled();
    await expect(page.getByText('The first mix')).toBeVisible();
  });

  test('3: a template with a slot and an avoid line, and ten pasted subjects, two with pictures', async () => {
    await page.getByRole('link', { name: 'Wording' }).click();
    await page.getByRole('button', { name: 'New template' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Packet front');
    await page.getByLabel('Sentence', { exact: true }).fill('One {{subjct}} on a packet');
    await expect(page.getByText(/uses \{\{subjct\}\}/)).toBeVisible();
    await page.getByLabel('Sentence', { exact: true }).fill('One {{subject}} on a seed packet');
    await page.locator('#t-avoid').fill('hands, price tags');
    await page.locator('#t-avoid').press('Tab');
    await page.getByRole('button', { name: 'Save version 1' }).click();
    await expect(page.getByRole('button', { name: 'Save version 2' })).toBeDisabled();

    await page.getByRole('button', { name: 'Paste subjects' }).click();
    const box = page.getByLabel('One subject a line: label; wording');
    await box.fill('Breakfast radish; breakfast radish\nBreakfast radish; again');
    await expect(alerts(page).filter({ hasText: 'Line 2 repeats' })).toBeVisible();
    await box.fill(
      [
        'Breakfast radish; breakfast radish',
        'Violet artichoke; globe artichoke',
        'Tall sunflower; tall sunflower',
        'Field bee; honeybee',
        'Long can; watering can',
        'Lean-to; small greenhouse',
        'Striped beet; beetroot',
        'Packet mark; the co-operative’s mark',
        'Stall crate; crate of carrots',
        'Trowel photo; hand trowel',
      ].join('\n'),
    );
    await page.getByRole('button', { name: 'Add 10 subjects' }).click();
    await expect(page.getByText('One breakfast radish on a seed packet')).toBeVisible();
    for (const [label, file] of [
      ['Stall crate', { name: 'crate.jpg', mimeType: 'image/jpeg', buffer: await picture(21, 'jpeg', 900) }],
      ['Trowel photo', { name: 'trowel.webp', mimeType: 'image/webp', buffer: await picture(22, 'webp', 180) }],
    ] as const) {
      const row = page.getByRole('listitem').filter({ hasText: label });
      await row.locator('input[type=file]').setInputFiles(file);
      await expect(row.getByRole('img', { name: `Picture of ${label}` })).toBeVisible();
    }
    await expectAccessible(page, 'wording');
  });

  test('4: the plan shows 30 texts, count, time and what preflight finds, and says bad values at the field', async () => {
    await page.getByRole('link', { name: 'Runs' }).click();
    await page.getByRole('link', { name: 'Plan a run' }).click();
    await page.getByLabel('Words', { exact: true }).selectOption({ label: 'Packet front' });
    const where = page.getByRole('list', { name: 'Where' });
    await where.getByRole('button', { name: /Square 320/ }).click();
    await where.getByRole('button', { name: /Square 768/ }).click();
    const looks = page.getByRole('list', { name: 'How' });
    for (const pressed of await looks.locator('button[aria-pressed=true]').all()) await pressed.click();
    await looks.getByRole('button', { name: /Three leaves/ }).click();
    await expect(page.getByText(/Tandem bicycle: the press cannot draw it/)).toBeVisible();
    await expect(page.getByRole('button', { name: 'Start run' })).toBeDisabled();
    await page.getByRole('button', { name: /Leave all \d out that cannot be drawn/ }).click();
    await expect(page.getByText(/the press cannot draw it/)).toHaveCount(0);
    await page.getByRole('button', { name: 'Take them back in' }).click();

    const subjects = page.getByRole('list', { name: 'What' });
    for (const label of [
      'Radish',
      'Globe artichoke',
      'Sunflower',
      'Honeybee',
      'Watering can',
      'Greenhouse',
      'Beetroot',
      'The mark',
      'Rocket',
      'Tandem bicycle',
    ])
      await subjects.getByRole('button', { name: label, exact: true }).click();
    await expect(page.getByText('10 of 20 subjects')).toBeVisible();
    await expect(page.locator('.sums')).toContainText('30 images');
    await expect(page.locator('.sums')).toContainText(/\d+ (s|min) at the press’s pace/);
    await expect(page.getByText(/Trowel photo: its picture is 180 × 180/)).toBeVisible();

    await page.getByLabel('Takes', { exact: true }).fill('0');
    await expect(alerts(page)).toContainText('at least 1 take');
    await page.getByLabel('Takes', { exact: true }).fill('100000');
    await expect(alerts(page)).toContainText('At most 12');
    await expect(page.getByRole('button', { name: 'Start run' })).toBeDisabled();
    await page.getByLabel('Takes', { exact: true }).fill('3');
    await expect(page.locator('.sums')).toContainText('30 images');

    await page.getByRole('button', { name: /Lean-to in Three leaves/ }).click();
    await expect(page.getByText('9 of 10 subjects will be made; left out: Lean-to.')).toBeVisible();
    await expect(page.locator('.sums')).toContainText('27 images');
    await page.getByRole('button', { name: 'Take them back in' }).click();
    await expect(page.locator('.sums')).toContainText('30 images');

    await page.getByRole('button', { name: /Read all 30 texts/ }).click();
    const texts = page.getByRole('list', { name: 'Final texts' }).getByRole('listitem');
    await expect(texts).toHaveCount(30);
    await expect(texts.first()).toContainText('One breakfast radish on a seed packet');
    await expect(texts.first()).toContainText(/take 1, seed \d+, avoid hands, price tags, shading, lettering, violet/);
    await expectAccessible(page, 'plan');
  });

  test('5: the run fills live; what failed says why and is repeated with one action', async () => {
    await misbehave('error', 10_000);
    await page.getByLabel('Name', { exact: true }).fill('Packets, first try');
    await page.getByRole('button', { name: 'Start run' }).click();
    await expect(page.getByRole('heading', { name: 'Packets, first try' })).toBeVisible();
    await expect(page.getByText(/did not come back/)).toBeVisible({ timeout: 90_000 });
    await expect(page.locator('.take.failed').first()).toContainText('told to fail');
    const repeat = page.getByRole('button', { name: 'Try the 30 failed again' });
    await expect(repeat).toBeVisible({ timeout: 120_000 });
    await misbehave('error', 0);
    await repeat.click();
    // It fills in while it is watched: no reload in between.
    await expect(page.locator('.take.made').first()).toBeVisible({ timeout: 60_000 });
    const early = await page.locator('.take.made').count();
    await expect.poll(() => page.locator('.take.made').count(), { timeout: 60_000 }).toBeGreaterThan(early);
    await page.getByRole('button', { name: 'Pause' }).click();
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect(page.locator('.take.made')).toHaveCount(30, { timeout: 180_000 });
    await expect(page.locator('.progress')).toContainText('30 of 30 made');
    await expectAccessible(page, 'run');
  });

  test('6: the set is reviewed by keyboard', async () => {
    await page.locator('main').getByRole('link', { name: 'Review' }).click();
    const hand = page.getByRole('region', { name: 'In hand' });
    await expect(hand.getByRole('heading', { level: 2 })).toHaveText(/Breakfast radish, Three leaves, take 1/);
    await expect(page.getByText('Nothing kept yet for 10 subjects.')).toBeVisible();
    await expect(hand.locator('zs-facet-gauges')).toContainText(/colour\s*\d\.\d\d/);
    await expect(page.locator('zs-drift-plot svg')).toBeVisible();
    await page.keyboard.press('k');
    await expect(page.locator('.proof.hand .said')).toHaveText('kept');
    await page.keyboard.press('7');
    await expect(page.locator('.proof.hand .g')).toHaveText('7');
    await page.keyboard.press('ArrowRight');
    await expect(hand.getByRole('heading', { level: 2 })).toHaveText(/take 2/);
    await page.keyboard.press('h');
    await expect(page.locator('.proof.hand .said')).toHaveText('held');
    await page.keyboard.press('ArrowDown');
    await expect(hand.getByRole('heading', { level: 2 })).toHaveText(/Violet artichoke.*take 2/);
    await page.keyboard.press('d');
    await expect(page.locator('.proof.hand .said')).toHaveText('dropped');
    await page.getByRole('button', { name: 'off palette' }).click();
    await expect(page.getByRole('button', { name: 'off palette' })).toHaveAttribute('aria-pressed', 'true');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('o');
    await expect(page.locator('.proof.hand .said')).toHaveText('kept once mended');
    await page.keyboard.press('Control+z');
    await expect(page.locator('.proof.hand .said')).toHaveCount(0);
    await page.keyboard.press(' ');
    await expect(page.getByRole('dialog', { name: 'Closer' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog', { name: 'Closer' })).toHaveCount(0);
    await page.keyboard.press('n');
    await expect(hand.getByRole('heading', { level: 2 })).toHaveText(/Tall sunflower.*take 1/);
    for (let i = 0; i < 8; i++) {
      await page.keyboard.press('k');
      await expect(page.locator('.proof.hand .said')).toHaveText('kept');
      await page.keyboard.press('n');
    }
    await expect(page.getByText('Nothing kept yet for Violet artichoke.')).toBeVisible();
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('Next subject with nothing kept');
    await page.keyboard.press('Escape');
    await page.reload();
    await expect(page.getByText('30 proofs, 9 kept, 19 without a decision')).toBeVisible();
    await expectAccessible(page, 'review');
  });

  test('7: a proof shows its complete ticket and is made again to the same bytes', async () => {
    await page.locator('.proof').first().click();
    await page.keyboard.press('Enter');
    const ticket = page.getByRole('region', { name: 'Ticket' });
    for (const words of [
      'breakfast radish',
      'hands, price tags, shading, lettering, violet',
      'Three leaves',
      'Spring leaves gives',
      '86 %',
      '320 × 320',
      'House press 1.0.0',
      `painter ${PAINTER_VERSION}`,
      `mixer ${MIXER_VERSION}`,
    ])
      await expect(ticket).toContainText(words);
    await page.getByRole('button', { name: 'Make it again' }).click();
    await expect(page.getByText('The same, byte for byte')).toBeVisible({ timeout: 60_000 });
    await page.getByRole('button', { name: 'The whole ticket' }).click();
    await expect(page.locator('pre')).toContainText('"ticket": 1');
    await expectAccessible(page, 'proof');
  });

  test('8: the kept ones are exported as a ZIP with everything inside', async () => {
    await page.getByRole('link', { name: 'Packets, first try' }).click();
    await page.getByRole('region', { name: 'The set' }).getByRole('link', { name: 'Deliver' }).click();
    await expect(page.getByText('Nothing is kept for Violet artichoke.')).toBeVisible();
    await page.getByLabel('Naming rule', { exact: true }).fill('{{subject}}-{{colour}}');
    await expect(alerts(page)).toContainText('{{colour}}');
    await page.getByLabel('Naming rule', { exact: true }).fill('{{subject}}-{{take}}');
    await expectAccessible(page, 'deliver');
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Download 9 images as ZIP' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('packets-first-try.zip');
    const files = await unzip(readFileSync(await download.path()));
    expect([...files.keys()].filter(n => n.endsWith('.png')).length).toBe(9);
    expect(files.has('manifest.csv')).toBe(true);
    const manifest = JSON.parse(files.get('manifest.json')!.toString()) as {
      images: { file: string; subject: string; ticketHash: string }[];
    };
    for (const image of manifest.images) {
      const meta = await sharp(files.get(image.file)).metadata();
      expect([meta.width, meta.height]).toEqual([320, 320]);
      const xmp = meta.xmp!.toString();
      expect(xmp).toContain(image.ticketHash);
      expect(xmp).toContain(
        image.subject === 'Stall crate' || image.subject === 'Trowel photo' ? 'algorithmicallyEnhanced' : 'algorithmicMedia',
      );
    }
    noErrors();
  });
});

function unzip(bytes: Buffer): Promise<Map<string, Buffer>> {
  return new Promise((resolve, reject) => {
    fromBuffer(bytes, { lazyEntries: true }, (error, zip) => {
      if (error) return reject(error);
      const files = new Map<string, Buffer>();
      zip.on('entry', (entry: Entry) =>
        zip.openReadStream(entry, (fault, stream) => {
          if (fault) return reject(fault);
          const parts: Buffer[] = [];
          stream.on('data', (p: Buffer) => parts.push(p));
          stream.on('end', () => {
            files.set(entry.fileName, Buffer.concat(parts));
            zip.readEntry();
          });
        }),
      );
      zip.on('end', () => resolve(files));
      zip.readEntry();
    });
  });
}
