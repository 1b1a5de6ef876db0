import AxeBuilder from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';

test('jelly painted on the panel by pointer works there and nowhere else, is undone, saved and kept', async ({
  page,
}) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Jelly under paint, wiped');
  const allOver = await layers.figure('chips');
  await page.getByRole('button', { name: 'Paint on it' }).click();
  await expect(page.getByRole('combobox', { name: 'What is painted on the panel' })).toContainText(
    'Petroleum jelly',
  );
  const plain = await layers.finePicture();
  await layers.paint([0.1, 0.2], [0.1, 0.8]);
  const first = await layers.otherPicture(plain);
  // Where jelly lay alike all over it now lies in one stroke.
  expect(await layers.figure('chips')).toBeLessThan(allOver);
  const once = await layers.figure('chips');
  const [left, middle, right] = [
    await layers.part(0.02, 0.1, 0.25, 0.9),
    await layers.part(0.35, 0.1, 0.6, 0.9),
    await layers.part(0.7, 0.1, 0.98, 0.9),
  ];

  await layers.paint([0.85, 0.2], [0.85, 0.8]);
  await layers.otherPicture(first);
  expect(await layers.figure('chips')).toBeGreaterThan(once);
  expect(await layers.part(0.02, 0.1, 0.25, 0.9)).toBe(left);
  expect(await layers.part(0.35, 0.1, 0.6, 0.9)).toBe(middle);
  expect(await layers.part(0.7, 0.1, 0.98, 0.9)).not.toBe(right);

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => layers.picture.getAttribute('data-fingerprint'), { timeout: 30_000 }).toBe(first);
  expect(await layers.figure('chips')).toBe(once);
  await layers.saved();

  await page.reload();
  await expect(page.locator('[data-figure="chips"]')).toBeVisible();
  expect(await layers.figure('chips')).toBe(once);
  await page.getByRole('button', { name: 'Paint on it' }).click();
  await expect.poll(() => layers.picture.getAttribute('data-fingerprint'), { timeout: 30_000 }).toBe(first);
});

test('the keyboard paints as well: brush down, along, up, and undone as one stroke', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Wax under paint, scraped');
  await page.getByRole('button', { name: 'Paint on it' }).click();
  const before = await layers.figure('chips');
  await page.getByRole('slider', { name: 'How broad the brush is' }).press('End');
  const surface = page.getByRole('application', { name: /^Painting surface/ });
  await surface.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Enter');
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowDown');
  await expect(surface).toHaveAttribute(
    'aria-description',
    'brush down, 40 % from the left, 62 % from above',
  );
  await page.keyboard.press('Enter');
  const painted = await layers.figure('chips');
  expect(painted).not.toBe(before);
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press(' ');
  await expect.poll(() => layers.figure('chips')).toBeGreaterThanOrEqual(painted);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(() => layers.figure('chips')).toBe(before);

  // Zones and uses without a pointer: menus open and choose by keys.
  await page.getByRole('button', { name: 'Fill …' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: 'Edges and corners with 100 %' }).focus();
  await page.keyboard.press('Enter');
  await expect.poll(() => layers.figure('chips')).not.toBe(before);
  await expect(page.getByRole('button', { name: 'Alike all over' })).toBeEnabled();

  const axe = await new AxeBuilder({ page }).analyze();
  expect(axe.violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
});

test('every mode of the picture says what its colours stand for', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  let last = await layers.finePicture();
  const legend = page.locator('zf-face-legend');
  await expect(legend).toHaveCount(0);
  for (const [mode, words] of [
    ['Layer on top', /top coat.*base coat/],
    ['Film thickness', /0 µm\s*[\d.]+ µm/],
    ['Crack width', /0 mm\s*[\d.]+ mm/],
    ['When it cracked', /[\d.]+ (s|min) after brushing\s*[\d.]+ min after brushing/],
  ] as const) {
    await page.getByRole('combobox', { name: 'What the picture shows' }).click();
    await page.getByRole('option', { name: mode }).click();
    last = await layers.otherPicture(last);
    await expect(legend).toHaveText(words);
  }
});

test('two plans are compared under a bar or side by side, looked at closely, and taken out as a picture', async ({
  page,
}) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.openPlan('Wash stand');
  await layers.finePicture();
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.getByRole('menuitem', { name: 'Shutters' }).click();
  const other = page.getByRole('img', { name: 'How Shutters will look' });
  await expect(other).toHaveAttribute('data-quality', 'full', { timeout: 30_000 });
  const bar = page.getByRole('slider', { name: 'Bar between the two plans' });
  await expect(bar).toHaveAttribute('aria-valuenow', '50');
  await bar.press('ArrowLeft');
  await expect(bar).toHaveAttribute('aria-valuenow', '48');
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.getByRole('menuitem', { name: 'Side by side' }).click();
  await expect(bar).toHaveCount(0);
  await expect(other).toBeVisible();

  await page.getByRole('button', { name: 'Loupe' }).click();
  const glass = page.getByRole('application', { name: /^Loupe/ });
  await glass.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('zf-loupe canvas')).toBeVisible();

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Picture as a file, with its scale' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Wash stand.png');
  const bytes = readFileSync(await download.path());
  expect(bytes.subarray(1, 4).toString()).toBe('PNG');
  // Width and height stand in the header: the picture and the strip with its scale.
  const box = (await layers.picture.boundingBox())!;
  expect(bytes.readUInt32BE(16)).toBe(Math.round(box.width));
  expect(bytes.readUInt32BE(20)).toBe(Math.round(box.height) + 46);
});

test('a crackle over everything is flagged; wear by use is found natural', async ({ page }) => {
  const plans = new PlansPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  await expect(page.locator('[data-natural="crackle-everywhere"]')).toBeVisible({ timeout: 30_000 });
  await plans.open();
  await plans.begin('Wiped back while re-soluble');
  await expect(page.locator('.natural .note')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Paint on it' }).click();
  await page.getByRole('combobox', { name: 'What is painted on the panel' }).click();
  await page.getByRole('option', { name: 'Damp cloth' }).last().click();
  for (const cause of ['Handled', 'Knocked']) {
    await page.getByRole('button', { name: 'By use …' }).click();
    await page.getByRole('menuitem', { name: new RegExp(`^${cause}`) }).click();
  }
  await expect(page.locator('[data-natural="natural"]')).toBeVisible({ timeout: 30_000 });
});
