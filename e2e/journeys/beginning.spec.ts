import AxeBuilder from '@axe-core/playwright';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { Presses } from '../pages/presses';
import { expect, test } from '../pages/quiet';

test('a plan is begun in pictures, a step put in between, steps taken to another plan', async ({ page }) => {
  test.slow();
  const layers = new LayersPage(page);
  const press = new Presses(page);
  await new PlansPage(page).open();

  // Piece, way of working, begin: three decisions.
  await press.on('button', 'New plan');
  const { violations } = await new AxeBuilder({ page }).include('zf-new-plan').analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html}`)).toEqual([]);
  await press.on('radio', 'Mirror frame');
  await press.on('radio', /^Sanded over a barrier/);
  // At any time, so that nothing hangs on the hour of the day.
  await page.getByRole('radio', { name: 'Any time' }).click();
  await press.on('button', /^Begin$/);
  await page.waitForURL(/\/plan\/.+\/layers/);
  await layers.finePicture();
  await expect(page.getByRole('button', { name: /^Part in hand: Upper side/ })).toBeVisible();
  expect(press.count).toBeLessThanOrEqual(3 * 3);

  // A wait between the fourth and the fifth step: what follows moves, and that is said, with a way back.
  await press.on('radio', 'In order');
  const rows = page.locator('zf-order-list li');
  await expect(rows).toHaveCount(6);
  const rulesBefore = await rows.allInnerTexts();
  await rows.nth(3).hover();
  await press.on('button', 'Put a step in after step 4');
  await press.on('menuitem', 'Wait');
  await expect(rows).toHaveCount(7);
  await expect(rows.nth(4)).toContainText('5. Wait');
  const notice = page.locator('mat-snack-bar-container');
  await expect(notice).toContainText(/6\. .* now .*, was /);
  await notice.getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toHaveCount(6);
  // Until it is timed anew, moments are those that still hold.
  await expect.poll(() => rows.allInnerTexts()).toEqual(rulesBefore);

  // By keys as well.
  await page.getByRole('button', { name: /^Move .*step 1:/ }).focus();
  await page.keyboard.press('Insert');
  await page.getByRole('menuitem', { name: 'Wait' }).click();
  await expect(rows.nth(1)).toContainText('2. Wait');
  await press.on('button', /^Close$/);

  // Two steps, moved together, then copied into another plan.
  await press.on('button', 'Choose several');
  await press.on('checkbox', /^Choose step 5/);
  await press.on('checkbox', /^Choose step 6/);
  const [fifth, sixth] = [
    await rows.nth(4).locator('strong').innerText(),
    await rows.nth(5).locator('strong').innerText(),
  ];
  await press.on('button', 'Move the chosen steps earlier');
  await expect(rows.nth(3)).toContainText(fifth.replace(/^\d+\. /, ''));
  await expect(rows.nth(4)).toContainText(sixth.replace(/^\d+\. /, ''));
  await press.on('button', 'Copy the chosen steps');
  await layers.saved();
  await press.on('link', 'All plans');
  await page.getByRole('searchbox', { name: 'Find a plan' }).fill('chest');
  await expect(page.locator('.tiles li')).toHaveCount(1);
  await press.on('link', "Keeper's sea chest");
  await press.on('radio', 'In order');
  await expect(rows).toHaveCount(3);
  await press.on('button', 'Put 2 copied in');
  await expect(rows).toHaveCount(5);
  await expect(rows.nth(4)).toContainText(sixth.replace(/^\d+\. /, ''));
  await page.keyboard.press('Control+z');
  await expect(rows).toHaveCount(3);
});

test('several colours in a coat, a carved face and a sheen are told and seen', async ({ page }) => {
  test.slow();
  const layers = new LayersPage(page);
  await new PlansPage(page).open();
  await new PlansPage(page).begin('Sanded over a barrier');
  const plain = await layers.finePicture();
  const gloss = async (): Promise<number> =>
    Number(await page.locator('[data-figure="gloss"] .number b').innerText());
  await expect.poll(gloss).toBeGreaterThan(0);

  await page.getByRole('radio', { name: 'In order' }).click();
  await page.locator('zf-order-list li .row').last().click();
  await page.getByRole('combobox', { name: 'Sheen, as on the tin' }).click();
  await page.getByRole('option', { name: 'gloss' }).click();
  await expect.poll(gloss).toBeGreaterThan(55);
  const shining = await layers.otherPicture(plain);

  await page.locator('zf-order-list li .row').first().click();
  await page.getByRole('button', { name: 'Another colour in this coat' }).click();
  await page.getByRole('radio', { name: 'Wet in wet' }).click();
  await expect(page.getByText("The coat's own colour takes the other 75 %.")).toBeVisible();
  await page.keyboard.press('Escape');
  await layers.saved();

  await page.getByRole('link', { name: 'Piece', exact: true }).click();
  await page.getByRole('radio', { name: 'Carved' }).click();
  await page.getByRole('textbox', { name: 'Ridge to ridge' }).fill('20');
  await page.keyboard.press('Tab');
  await layers.saved();
  await page.getByRole('link', { name: 'Layers', exact: true }).click();
  await layers.otherPicture(shining);
});
