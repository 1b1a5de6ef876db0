import { expect, type Page } from '@playwright/test';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { test } from '../pages/quiet';

async function add(page: Page, ...path: string[]): Promise<void> {
  await page.getByRole('button', { name: 'Add a step on top' }).click();
  for (const name of path) await page.getByRole('menuitem', { name, exact: true }).click();
}

const seen = async (page: Page, layer: string): Promise<number> =>
  Number(await page.locator(`[data-layer="${layer}"] .layer-share b`).first().innerText());

test('wax under paint: more of it shows more, its removal is warned for, and all of it is kept', async ({
  page,
}) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Layers brushed on nearly dry');
  await expect(page.locator('[data-layer="base coat"]')).toBeVisible();

  await add(page, 'Resist under the paint', 'Candle wax');
  await page.getByRole('radio', { name: 'All over' }).click();
  await add(page, 'Paint', 'Clay-based paint');
  await expect(layers.finding('wax-left')).toBeVisible();
  const covered = await seen(page, 'base coat');
  await add(page, 'Distress', 'Scraper');
  await expect(layers.finding('wax-left')).toBeHidden();
  const scraped = await seen(page, 'base coat');
  expect(scraped).toBeGreaterThan(covered);

  await page.getByRole('button', { name: /^Candle wax/ }).click();
  const share = page.getByRole('textbox', { name: /Covers/ });
  await share.fill('45');
  await share.press('Enter');
  await expect.poll(() => seen(page, 'base coat')).toBeGreaterThan(scraped);
  await layers.saved();

  await page.reload();
  await page.getByRole('button', { name: /^Candle wax/ }).click();
  await expect(page.getByRole('textbox', { name: /Covers/ })).toHaveValue('45');
});

test('hot air over lacquer is stopped, with what to do instead', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Chippy milk paint');
  // What comes off makes this look, so it is told first.
  await expect(page.locator('[data-figure]').first()).toHaveAttribute('data-figure', 'chips');
  await add(page, 'Clear coat between', 'Solvent lacquer');
  await add(page, 'Hot air');
  const stop = layers.finding('heat-on-solvent');
  await expect(stop).toContainText("product label's full dry time");
  await page.getByRole('radio', { name: /^Notes/ }).click();
  await expect(page.locator('[data-hazard="heat-and-solvent"]')).toBeVisible();
  await page.locator('[data-hazard="flammable-vapour"] summary').click();
  await expect(page.locator('[data-hazard="flammable-vapour"]')).toContainText('Ventilate');
});

test('a medium of one’s own changes the forecast and says where its values come from', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Crackle over wet white glue');
  const spacing = await layers.figure('spacing');
  await page.getByRole('button', { name: /^White glue/ }).click();
  await page.getByRole('button', { name: /Values of this medium/ }).click();
  const sheet = page.getByRole('dialog', { name: 'White glue' });
  await expect(sheet).toContainText('common practice');
  await sheet.getByRole('textbox', { name: 'Solids by volume' }).fill('0.2');
  await sheet.getByRole('textbox', { name: 'Your name for it' }).fill('Thin school glue');
  await sheet.getByRole('button', { name: 'Keep as my own' }).click();
  await expect(page.getByRole('button', { name: /^Thin school glue/ })).toBeVisible();
  expect(await layers.figure('spacing')).toBeLessThan(spacing);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^White glue/ })).toBeVisible();
});

test('what to mix follows the part, prices are kept, and inches are only shown', async ({ page }) => {
  const plans = new PlansPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  await page.getByRole('link', { name: 'Mix', exact: true }).click();
  const first = page.locator('[data-pot="Kelp"]');
  await expect(first).toContainText('25 mL');
  await expect(first).toContainText('1 spoon, 2 teaspoons');
  const price = page.getByRole('textbox', { name: /^Price of a litre of Kelp/ });
  await price.fill('40');
  await price.press('Enter');
  await expect(page.locator('[data-buy^="Kelp"]')).toContainText('4.80');
  await page.getByRole('radio', { name: 'inch' }).click();
  await expect(first).toContainText('fl oz');
  await expect(page.locator('.piece')).toContainText('23 5/8 × 15 3/4 in');
  await page.getByRole('link', { name: 'Layers', exact: true }).click();
  await page.getByRole('button', { name: /^Kelp/ }).click();
  await expect(page.getByRole('textbox', { name: /Wet film thickness/ })).toHaveValue('3.54');
  await page.getByRole('radio', { name: 'mm' }).click();
  await expect(page.getByRole('textbox', { name: /Wet film thickness/ })).toHaveValue('90');
});

test('the drying curves and the air are drawn, and say so to those who cannot see them', async ({ page }) => {
  const plans = new PlansPage(page);
  await plans.open();
  await plans.openPlan('Chart locker, front');
  await page.getByRole('radio', { name: 'Curves' }).click();
  await expect(page.getByRole('img', { name: /Drying curves: .*touch-dry after \d+ min/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /a wet surface loses \d+ µm an hour/ })).toBeVisible();
});

test('the Face shows what comes off: more wax under the paint, another picture', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Wax under paint, scraped');
  const before = await layers.finePicture();
  await page.getByRole('button', { name: /^Candle wax/ }).click();
  const share = page.getByRole('textbox', { name: /Covers/ });
  await share.fill('50');
  // What is half typed is taken over as the card goes, and undo is the plan's at once.
  await share.press('Escape');
  await expect
    .poll(async () => await layers.picture.getAttribute('data-fingerprint'), {
      timeout: 30_000,
    })
    .not.toBe(before);
  const after = await layers.finePicture();
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => await layers.picture.getAttribute('data-fingerprint'), {
      timeout: 30_000,
    })
    .toBe(before);
  expect(after).not.toBe(before);
});
