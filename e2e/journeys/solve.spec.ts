import AxeBuilder from '@axe-core/playwright';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';

test('other ways to the same look are found, shown, taken over and undone', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  const spacing = await layers.figure('spacing');
  await page.getByRole('button', { name: /^Find other recipes/ }).click();
  const sheet = page.getByRole('dialog', { name: 'What do you want to see?' });
  await sheet.getByRole('radio', { name: /^Anything/ }).check();
  await sheet.getByRole('button', { name: 'As this plan gives now' }).click();
  await sheet.getByRole('button', { name: 'Find recipes' }).click();
  await expect(sheet.getByRole('status')).toHaveText(/^\d+ of 17 techniques give what you want\.$/, {
    timeout: 30_000,
  });
  // The plan's own way is among them, and so is another school.
  await expect(sheet.locator('[data-school="dried-medium"]')).toHaveAttribute('data-met', 'true');
  await expect(sheet.locator('[data-school="hide-glue"]')).toHaveAttribute('data-met', 'true');
  const missing = sheet.locator('[data-met="false"]').last();
  await expect(missing).toContainText('Cannot give it.');
  await expect(missing.getByRole('button')).toHaveCount(0);
  const axe = await new AxeBuilder({ page }).include('zf-solve-sheet').analyze();
  expect(axe.violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);

  await sheet.locator('[data-school="hide-glue"]').getByRole('button', { name: 'Use this recipe' }).click();
  await expect(page.getByRole('button', { name: /^Liquid hide glue/ })).toBeVisible();
  expect(await layers.figure('spacing')).toBeGreaterThan(0.8 * spacing);
  expect(await layers.figure('spacing')).toBeLessThan(1.25 * spacing);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Crackle medium/ })).toBeVisible();
  expect(await layers.figure('spacing')).toBe(spacing);
});

test('a look that cannot be had is said to be so, with what comes nearest', async ({ page }) => {
  const plans = new PlansPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  await page.getByRole('button', { name: /^Find other recipes/ }).click();
  const sheet = page.getByRole('dialog', { name: 'What do you want to see?' });
  for (const [name, value] of [
    ['Crack spacing', '90'],
    ['Crack opening', '0.02'],
    ['All dry within', '30'],
  ] as const) {
    await sheet.getByRole('textbox', { name }).fill(value);
    await sheet.getByRole('textbox', { name }).press('Enter');
  }
  await sheet.getByRole('button', { name: 'Find recipes' }).click();
  await expect(sheet.getByRole('status')).toHaveText(
    /^What is on the shelf cannot give all of it at once\. .+ comes nearest\./,
    {
      timeout: 30_000,
    },
  );
  await expect(sheet.getByText(/(more|less) than the (90|0\.02) mm you want/).first()).toBeVisible();
});
