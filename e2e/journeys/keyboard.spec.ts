import AxeBuilder from '@axe-core/playwright';
import { type Page } from '@playwright/test';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';

/** Presses Tab until an element of that accessible name has the focus. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 80; i++) {
    await page.keyboard.press('Tab');
    const focused = page.locator(':focus');
    const label =
      (await focused.getAttribute('aria-label').catch(() => null)) ??
      (await focused.innerText().catch(() => ''));
    if (name.test(label)) return;
  }
  throw new Error(`Tab never reached ${name}`);
}

test('the keyboard alone makes a plan, thickens it, moves the top coat and undoes', async ({ page }) => {
  const layers = new LayersPage(page);
  await new PlansPage(page).open();
  await expect(page.getByRole('link', { name: "Keeper's sea chest" })).toBeVisible();
  await tabTo(page, /New plan/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menu')).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/layers/);
  await expect(layers.surface('White glue')).toBeVisible();

  const spacing = await layers.figure('spacing');
  await tabTo(page, /White glue, wet film thickness/);
  for (let i = 0; i < 5; i++) await page.keyboard.press('PageUp');
  expect(await layers.figure('spacing')).toBeGreaterThan(spacing);

  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Step' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Step' })).toBeHidden();

  const strength = await layers.figure('strength');
  await tabTo(page, /Sailcloth, minutes after the step before/);
  for (let i = 0; i < 4; i++) await page.keyboard.press('PageUp');
  expect(await layers.figure('strength')).toBeLessThan(strength);
  await page.keyboard.press('Control+z');
  expect(await layers.figure('strength')).toBe(strength);
  await layers.saved();
});

for (const path of ['/plans', 'piece', 'layers'] as const) {
  for (const colorScheme of ['light', 'dark'] as const) {
    test(`axe finds nothing wrong: ${path}, ${colorScheme}`, async ({ page }) => {
      await page.emulateMedia({ colorScheme });
      await new PlansPage(page).open();
      await expect(page.getByRole('link', { name: "Keeper's sea chest" })).toBeVisible();
      if (path !== '/plans') {
        await new PlansPage(page).openPlan("Keeper's sea chest");
        await page.getByRole('link', { name: path === 'piece' ? 'Piece' : 'Layers', exact: true }).click();
        await page.waitForURL(new RegExp(`/${path}$`));
        await expect(page.locator(path === 'piece' ? 'zf-piece-page' : 'zf-readout-view')).toBeVisible();
      }
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(
        violations.map(
          (violation) => `${violation.id}: ${violation.nodes.map((node) => node.html).join(' | ')}`,
        ),
      ).toEqual([]);
    });
  }
}
