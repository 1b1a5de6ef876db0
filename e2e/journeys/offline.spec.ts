import { type PlanSummary } from '@zaffet/contract';
import { LayersPage } from '../pages/layers.page';
import { expect, test } from '../pages/own-server';

test('while the server is away plans are listed, opened and changed, every page says what waits, and all of it is sent', async ({
  browser,
  server,
}) => {
  const context = await browser.newContext({ serviceWorkers: 'allow' });
  const page = await context.newPage();
  await page.goto(`${server.at}/plans`);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  const tile = page.getByRole('link', { name: 'Oar rack, back board' });
  await tile.click();
  const layers = new LayersPage(page);
  await layers.saved();
  await server.end();

  await page.goto(`${server.at}/plans`);
  await expect(page.getByText('These are the plans that this device has')).toBeVisible();
  await tile.click();
  const surface = page.getByRole('slider').first();
  await surface.focus();
  await page.keyboard.press('PageUp');
  const sign = page.getByRole('region', { name: 'Not on the server yet' });
  await expect(sign).toContainText('1 thing waits to be sent.', { timeout: 15_000 });
  // On a page that has nothing to do with plans as well.
  await page.goto(`${server.at}/shelf`);
  await expect(sign).toContainText('1 thing waits to be sent.', { timeout: 15_000 });

  await server.begin();
  await expect(sign).toBeHidden({ timeout: 30_000 });
  const plans = (await (await page.request.get(`${server.at}/api/plans`)).json()) as PlanSummary[];
  expect(plans.find(({ name }) => name === 'Oar rack, back board')!.revision).toBe(2);
  await context.close();
});
