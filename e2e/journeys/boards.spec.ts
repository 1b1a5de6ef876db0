import { type Page } from '@playwright/test';
import { LayersPage } from '../pages/layers.page';
import { expect, test } from '../pages/own-server';

/** What Layers foretells of the chest's first part, with its band. */
async function spacingOf(page: Page, at: string): Promise<string> {
  const layers = new LayersPage(page);
  await page.goto(`${at}/plans`);
  await page.getByRole('link', { name: /sea chest/i }).click();
  await page.waitForURL(/\/layers$/);
  await layers.figure('spacing');
  return (await page.locator('[data-figure="spacing"]').innerText()).replace(/\s+/g, ' ');
}

test('a board that was measured: what it teaches is used, everywhere, and taken back to the digit', async ({
  page,
  server,
}) => {
  test.setTimeout(120_000);
  const tables = await spacingOf(page, server.at);

  await page.goto(`${server.at}/boards`);
  const learned = page.getByRole('region', { name: 'What was learned' });
  await expect(learned).toContainText('by the tables');
  await expect(learned).toContainText(/White glue slips \d+ % more than the table; sure to within/);
  await expect(page.getByRole('row').filter({ hasText: 'Cell 1' })).toContainText('6.1 mm');

  // A cell left out moves what is learned; put back, it is as before.
  const lesson = learned.getByText(/White glue slips/);
  const all = await lesson.innerText();
  const counts = page.getByRole('checkbox', { name: /Cell 3 counts/ });
  await counts.uncheck();
  await expect(lesson).not.toHaveText(all);
  await counts.check();
  await expect(lesson).toHaveText(all);
  await page.getByRole('button', { name: /foretold by the others/ }).click();
  await expect(page.getByRole('columnheader', { name: 'By one median' })).toBeVisible({ timeout: 30_000 });

  await page.getByRole('button', { name: 'Go by this' }).click();
  await expect(learned).toContainText(/Everything goes by what 1 run taught/);
  const own = await spacingOf(page, server.at);
  expect(own).not.toBe(tables);

  // It holds for who opens Zaffet anew, and on the server too.
  await page.reload();
  expect(await spacingOf(page, server.at)).toBe(own);
  await page.goto(`${server.at}/boards`);
  await page.getByRole('button', { name: 'Go back to before' }).click();
  await expect(learned).toContainText('by the tables');
  expect(await spacingOf(page, server.at)).toBe(tables);
});

test('a board for a question: its cells are chosen, made a plan, and begun at the bench', async ({
  page,
  server,
}) => {
  test.setTimeout(120_000);
  await page.goto(`${server.at}/boards`);
  const fresh = page.getByRole('region', { name: 'A new board' });
  const part = fresh.getByRole('combobox');
  await expect(part).not.toBeEmpty();
  await part.click();
  await page.getByRole('option', { name: /chest/i }).first().click();
  await fresh.getByRole('button', { name: /^When to coat/ }).click();
  await fresh.getByRole('button', { name: '3 cells' }).click();
  await fresh.getByRole('button', { name: 'Choose the cells' }).click();
  await expect(fresh.locator('.cells li')).toHaveCount(3, { timeout: 30_000 });
  await expect(fresh).toContainText(/to within \d+ % after all 3/);
  await fresh.getByRole('button', { name: /^Make it/ }).click();
  await page.waitForURL(/\/plan\/.+\/bench$/);
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await page.waitForURL(/\/bench\//);
  await expect(page.locator('zf-step-card')).toContainText(/Step 1 of/);
  await expect(page.locator('header .part')).toHaveText(/Cell \d/);
  // Its line to the server is closed before the server is.
  await page.goto('about:blank');
});
