import { fileURLToPath } from 'node:url';
import { BenchPage } from '../pages/bench.page';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { test } from '../pages/quiet';

const file = (name: string): string =>
  fileURLToPath(new URL(`../../docs/screenshots/${name}.png`, import.meta.url));

test('the main views', async ({ page }) => {
  test.setTimeout(480_000);
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

  await page.getByRole('button', { name: 'New plan' }).click();
  await page.getByRole('radio', { name: 'Chest', exact: true }).check();
  await page.waitForFunction(
    () => document.querySelectorAll('zf-new-plan canvas[data-quality="full"]').length >= 9,
    null,
    { timeout: 90_000 },
  );
  await page.screenshot({ path: file('new-plan') });
  await page.getByRole('button', { name: 'Cancel' }).click();

  await plans.openPlan("Keeper's sea chest");
  await layers.finePicture();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('layers-wet-glue') });

  await page.getByRole('link', { name: 'Piece', exact: true }).click();
  await page.waitForURL(/piece$/);
  await page.waitForTimeout(300);
  await page.getByRole('radio', { name: 'As it will look' }).click();
  await page.waitForFunction(
    () => document.querySelectorAll('zf-unfolded-sheet canvas[data-quality="full"]').length >= 5,
    null,
    { timeout: 90_000 },
  );
  await page.screenshot({ path: file('piece') });

  await page.getByRole('link', { name: 'Look', exact: true }).click();
  await page.waitForFunction(
    () => document.querySelectorAll('zf-look-page canvas[data-quality="full"]').length >= 12,
    null,
    { timeout: 90_000 },
  );
  await page.waitForTimeout(1500);
  await page.screenshot({ path: file('look') });
  await page.getByRole('link', { name: 'Days', exact: true }).click();
  await page.getByRole('button', { name: /^Leave it standing/ }).waitFor();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: file('days') });
  await page.getByRole('radio', { name: 'The air' }).click();
  await page.getByRole('button', { name: 'Simulated forecast' }).click();
  await page.getByText(/The air: a simulated forecast/).waitFor();
  await page.waitForTimeout(4000);
  await page.screenshot({ path: file('air') });
  await page.keyboard.press('Control+z');
  await page.waitForTimeout(2000);

  await plans.open();
  await plans.openPlan('Flag box, side');
  await page.getByRole('link', { name: 'Mix', exact: true }).click();
  await page.waitForTimeout(800);
  await page.getByRole('link', { name: 'Shelf', exact: true }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('shelf') });

  await plans.open();
  await plans.openPlan('Wash stand');
  await layers.finePicture();
  await page.getByRole('button', { name: /Shoal/ }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('layers-coat') });

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
  await page.getByRole('link', { name: 'Mix', exact: true }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('mix') });

  await plans.open();
  await plans.openPlan('Wash stand');
  await page.getByRole('button', { name: /^Find other recipes/ }).click();
  await page.getByRole('button', { name: 'As this plan gives now' }).click();
  await page.getByRole('button', { name: 'Find recipes' }).click();
  await page.waitForFunction(
    () => document.querySelectorAll('zf-recipe-card canvas[data-quality="full"]').length >= 3,
    null,
    { timeout: 90_000 },
  );
  await page.screenshot({ path: file('solve') });
});

test('the bench on a tablet', async ({ page }) => {
  test.setTimeout(120_000);
  await page.setViewportSize({ width: 1024, height: 768 });
  const bench = new BenchPage(page);
  const plans = new PlansPage(page);
  await bench.keepClocks(new Date('2026-11-30T08:00:00Z'));
  await plans.open();
  await plans.openPlan("Keeper's sea chest");
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await bench.card.waitFor();
  await bench.take('Lid');
  await bench.doIt(6);
  await bench.later(45);
  await bench.take('Lid');
  await bench.doIt(8);
  await bench.take('Front');
  await bench.doIt(12);
  await bench.take('Lid');
  await bench.later(25);
  await bench.press('Still shiny');
  await page.waitForFunction(() => document.querySelectorAll('canvas[data-quality]').length > 0);
  await page.waitForTimeout(2500);
  await page.screenshot({ path: file('bench') });

  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/boards');
  await page.getByRole('row').filter({ hasText: 'Cell 1' }).waitFor();
  await page.waitForTimeout(2500);
  await page.screenshot({ path: file('boards') });

  await page.goto('/log');
  await page.getByRole('link', { name: /Peg rail/ }).waitFor();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: file('log') });
  await page.getByRole('link', { name: /Boot box/ }).click();
  await page.getByRole('row', { name: /^Crack spacing/ }).waitFor();
  await page.waitForTimeout(800);
  await page.screenshot({ path: file('log-entry') });
});
