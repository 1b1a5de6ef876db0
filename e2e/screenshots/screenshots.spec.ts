import { fileURLToPath } from 'node:url';
import { test } from '@playwright/test';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';

const file = (name: string): string =>
  fileURLToPath(new URL(`../../docs/screenshots/${name}.png`, import.meta.url));

test('the main views', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await page.waitForFunction(
    () => document.querySelectorAll('canvas[data-quality="full"]').length >= 9,
    null,
    {
      timeout: 45_000,
    },
  );
  await page.screenshot({ path: file('plans') });

  await plans.openPlan("Keeper's sea chest");
  await layers.finePicture();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('layers-wet-glue') });

  await page.getByRole('link', { name: 'Piece', exact: true }).click();
  await page.waitForURL(/piece$/);
  await page.waitForTimeout(300);
  await page.screenshot({ path: file('piece') });

  await plans.open();
  await plans.openPlan('Wash stand');
  await layers.finePicture();
  await page.getByRole('button', { name: /Shoal/ }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('layers-coat') });

  await plans.open();
  await plans.openPlan('Shutters');
  await page.getByRole('radio', { name: 'Close' }).click();
  await page.getByRole('radio', { name: 'Whole plan' }).click();
  await layers.finePicture();
  await page.waitForTimeout(1200);
  await page.screenshot({ path: file('layers-close') });

  await plans.open();
  await plans.openPlan('Chart locker, front');
  await layers.finePicture();
  await page.getByRole('radio', { name: 'Whole plan' }).click();
  await page.getByRole('radio', { name: /^Notes/ }).click();
  await page.getByRole('button', { name: /^Scraper/ }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('layers-school') });

  await plans.open();
  await plans.openPlan('Flag box, side');
  await layers.finePicture();
  await page.getByRole('radio', { name: 'Curves' }).click();
  await page.locator('.layers li').last().scrollIntoViewIfNeeded();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: file('layers-curves') });

  await plans.open();
  await plans.openPlan('Oar rack, back board');
  await layers.finePicture();
  await page.getByRole('radio', { name: 'Amounts' }).click();
  await page.getByRole('button', { name: /^Cold spray, loose/ }).click();
  await page.getByRole('button', { name: /Values of this medium/ }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('medium') });

  await plans.open();
  await plans.openPlan('Flag box, side');
  await page.getByRole('button', { name: 'Paint on it' }).click();
  await page.getByRole('button', { name: 'By use …' }).click();
  await page.getByRole('menuitem', { name: /^Handled/ }).click();
  await layers.paint([0.4, 0.15], [0.55, 0.3]);
  await layers.finePicture();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: file('face-paint') });
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();

  await plans.open();
  await plans.openPlan('Wash stand');
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.getByRole('menuitem', { name: 'Shutters' }).click();
  await layers.finePicture();
  await page.waitForTimeout(1800);
  await page.screenshot({ path: file('face-compare') });

  await plans.open();
  await plans.openPlan('Wash stand');
  await page.getByRole('button', { name: /^Find other recipes/ }).click();
  await page.getByRole('button', { name: 'As this plan gives now' }).click();
  await page.getByRole('button', { name: 'Find recipes' }).click();
  await page.waitForFunction(
    () => document.querySelectorAll('zf-recipe-card canvas[data-quality="full"]').length >= 3,
    null,
    { timeout: 45_000 },
  );
  await page.screenshot({ path: file('solve') });
});
