import { ERRORS, type PlanSummary } from '@zaffet/contract';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';
import { type Page } from '@playwright/test';

const idOf = (page: Page): string => /plan\/([^/]+)/.exec(page.url())![1]!;
const revisionOf = async (page: Page, id: string): Promise<number> => {
  const plans = (await (await page.request.get('/api/plans')).json()) as PlanSummary[];
  return plans.find((plan) => plan.id === id)?.revision ?? 0;
};

/** A new plan, saved, in the Layers. */
async function begun(page: Page): Promise<LayersPage> {
  const plans = new PlansPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  const layers = new LayersPage(page);
  await layers.saved();
  return layers;
}
const thicken = async (layers: LayersPage): Promise<void> => {
  await layers.surface('Sailcloth').focus();
  await layers.page.keyboard.press('PageUp');
};

test('what is edited just before a plan is left, or its window closed, is saved', async ({
  page,
  context,
}) => {
  const layers = await begun(page);
  const id = idOf(page);
  await thicken(layers);
  await page.getByRole('navigation').getByText('All plans').click();
  await expect.poll(() => revisionOf(page, id)).toBe(2);

  const closing = await context.newPage();
  await closing.goto(`/plan/${id}/layers`);
  await thicken(new LayersPage(closing));
  await closing.close({ runBeforeUnload: true });
  await expect.poll(() => revisionOf(page, id)).toBe(3);
});

test('two windows that cannot save keep what is theirs, and neither loses it', async ({
  page,
  context,
  quiet,
}) => {
  const layers = await begun(page);
  const other = new LayersPage(await context.newPage());
  await other.page.goto(page.url());
  await expect(other.surface('Sailcloth')).toBeVisible();
  await context.route('**/api/plans/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await thicken(layers);
  await expect(page.getByText('not saved yet, kept in this browser')).toBeVisible();
  const mine = await layers.value(layers.surface('Sailcloth'));
  await other.surface('Kelp').focus();
  await other.page.keyboard.press('PageUp');
  await other.page.keyboard.press('PageUp');
  await expect(other.page.getByText('not saved yet, kept in this browser')).toBeVisible();
  const theirs = await other.value(other.surface('Kelp'));

  await page.reload();
  await expect.poll(() => layers.value(layers.surface('Sailcloth'))).toBe(mine);
  expect(await layers.value(layers.surface('Kelp'))).not.toBe(theirs);
  expect(await other.value(other.surface('Kelp'))).toBe(theirs);
  await context.unroute('**/api/plans/*');
  await layers.saved();
  // The second one's save now meets the first one's, and its person is asked.
  await expect(other.page.getByRole('alertdialog')).toContainText('changed elsewhere');
  await other.page.getByRole('button', { name: 'Keep both' }).click();
  await expect(other.page.getByLabel('Name of the plan')).toHaveValue('One panel (mine)');
  expect(await other.value(other.surface('Kelp'))).toBe(theirs);
  quiet.splice(0, quiet.length, ...quiet.filter((line) => !/ERR_FAILED|409/.test(line)));
});

test('what the server will not take is shown with its reason, and can be mended or taken out', async ({
  page,
  quiet,
}) => {
  const layers = await begun(page);
  let asked = 0;
  await page.route('**/api/plans/*', (route) => {
    if (route.request().method() !== 'PUT') return route.continue();
    asked++;
    const { status, message } = ERRORS['plan.invalid'];
    const fields = [
      { path: 'name', message: 'name is "Shelf "; it must be without blanks before or after.' },
    ];
    return route.fulfill({ status, json: { code: 'plan.invalid', message, fields } });
  });
  await thicken(layers);
  const notice = page.getByRole('alert').filter({ hasText: 'cannot be saved as it is' });
  await expect(notice).toContainText('without blanks before or after');
  await expect(page.getByText('cannot be saved so, kept in this browser')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    notice.getByRole('button', { name: 'Take it out as a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('One panel.zaffet.json');
  await page.waitForTimeout(1000);
  expect(asked).toBe(1);
  await page.unroute('**/api/plans/*');
  await thicken(layers);
  await layers.saved();
  await expect(notice).toBeHidden();
  quiet.splice(0, quiet.length, ...quiet.filter((line) => !line.includes('400')));
});

test('a plan that was removed in another window can be kept as a new one', async ({ page, quiet }) => {
  const layers = await begun(page);
  const id = idOf(page);
  await page.request.delete(`/api/plans/${id}`);
  await thicken(layers);
  const mine = await layers.value(layers.surface('Sailcloth'));
  await expect(page.getByRole('alertdialog')).toContainText('removed elsewhere');
  await page.getByRole('button', { name: 'Keep mine as a new plan' }).click();
  await expect(page.getByLabel('Name of the plan')).toHaveValue('One panel (mine)');
  expect(await layers.value(layers.surface('Sailcloth'))).toBe(mine);
  expect(idOf(page)).not.toBe(id);
  quiet.splice(0, quiet.length, ...quiet.filter((line) => !line.includes('404')));
});

test('a plan that cannot be read stands in the list as what it is, and leaves it as a file', async ({
  page,
  quiet,
}) => {
  await begun(page);
  const id = idOf(page);
  await page.route(`**/api/plans/${id}`, (route) => {
    const { status, message } = ERRORS['plan.unreadable'];
    const fields = [
      { path: 'seed', message: 'seed is "x"; it must be a whole number from 0 to 2147483647.' },
    ];
    return route.fulfill({ status, json: { code: 'plan.unreadable', message, fields } });
  });
  await page.goto('/plans');
  const tile = page.getByRole('listitem').filter({ hasText: 'cannot be read' });
  await expect(tile).toContainText('seed is "x"; it must be a whole number');
  await expect(page.getByRole('link', { name: 'Lamp shelf, front rail' })).toBeVisible();
  await expect(tile.getByRole('link', { name: 'Take it out as a file' })).toHaveAttribute(
    'href',
    `/api/plans/${id}/file`,
  );
  quiet.splice(0, quiet.length, ...quiet.filter((line) => !line.includes('422')));
});
