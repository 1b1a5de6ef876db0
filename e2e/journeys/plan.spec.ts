import { readFileSync } from 'node:fs';
import { type Plan, type PlanSummary, type StoredPlan } from '@zaffet/contract';
import { readFile } from 'node:fs/promises';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';

test('a painter lays a stack over wet glue, drags it right, and finds it again', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  const topCoatWindow = page.locator('.window-text', { hasText: 'top coat' });
  await plans.open();
  await expect(page.getByRole('link', { name: "Keeper's sea chest" })).toBeVisible();
  await plans.begin('Crackle over wet white glue');
  await layers.saved();
  const firstPicture = await layers.finePicture();

  // A thicker glue: the cracks come wider apart and wider open, and the window stays open longer.
  const spacing = await layers.figure('spacing');
  const opening = await layers.figure('opening');
  const windowBefore = await topCoatWindow.textContent();
  await layers.dragBy(layers.surface('White glue'), 0, -60);
  const glue = await layers.value(layers.surface('White glue'));
  expect(glue).toBeGreaterThan(130);
  expect(await layers.figure('spacing')).toBeGreaterThan(spacing);
  expect(await layers.figure('opening')).toBeGreaterThan(opening);
  await expect(topCoatWindow).toBeVisible();
  await expect.poll(() => layers.finePicture()).not.toBe(firstPicture);

  // The top coat much later: the crackle fades, and the plan says why.
  await expect(layers.finding('glue-grabs')).toBeVisible();
  const strength = await layers.figure('strength');
  await layers.dragBy(layers.start('Sailcloth'), 260, 0);
  expect(await layers.figure('strength')).toBeLessThan(strength);
  await expect(layers.finding('glue-closing')).toBeVisible();
  const wait = await layers.value(layers.start('Sailcloth'));
  expect(wait).toBeGreaterThan(8);

  // Damper air: the window moves.
  const humidity = page.getByRole('slider', { name: 'Relative humidity' });
  await humidity.focus();
  await expect(humidity).toHaveAttribute('aria-valuetext', '50 per cent');
  for (let i = 0; i < 20; i++) await humidity.press('ArrowRight');
  expect(await topCoatWindow.textContent()).not.toBe(windowBefore);

  await layers.saved();
  const figures = [
    await layers.figure('spacing'),
    await layers.figure('opening'),
    await layers.figure('strength'),
  ];
  await page.reload();
  await layers.finePicture();
  expect(await layers.value(layers.surface('White glue'))).toBe(glue);
  expect(await layers.value(layers.start('Sailcloth'))).toBe(wait);
  expect([
    await layers.figure('spacing'),
    await layers.figure('opening'),
    await layers.figure('strength'),
  ]).toEqual(figures);
});

test('the two schools want opposite moments', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  await expect(layers.finding('medium-ready')).toBeVisible();
  const dry = await layers.figure('strength');
  // Onto wet medium: what if, by its rules alone; as it is planned hands need some minutes from one to the other.
  await page.getByRole('button', { name: 'What if', exact: false }).click();
  await layers.start('Sailcloth').focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('PageDown');
  await expect(layers.finding('medium-wet')).toBeVisible();
  await expect.poll(() => layers.figure('strength')).toBeLessThan(0.4 * dry);
});

test('a drag is one step to undo, and undo brings the figures back', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Crackle over wet white glue');
  const before = await layers.figure('spacing');
  const wet = await layers.value(layers.surface('Sailcloth'));
  // Section, readout, Clock and Face move while the pointer is still down.
  const crackMark = page.locator('zf-clock-view g:has(> .crack)');
  const firstCracks = await crackMark.getAttribute('transform');
  const canvas = page.locator('zf-face-view canvas');
  await layers.finePicture();
  await layers.dragBy(layers.surface('Sailcloth'), 0, -40, async () => {
    expect(await layers.value(layers.surface('Sailcloth'))).toBeGreaterThan(wet);
    expect(await layers.figure('spacing')).toBeGreaterThan(before);
    expect(await crackMark.getAttribute('transform')).not.toBe(firstCracks);
    await expect(canvas).toHaveAttribute('data-quality', 'coarse');
  });
  await layers.finePicture();
  expect(await layers.figure('spacing')).toBeGreaterThan(before);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(await layers.value(layers.surface('Sailcloth'))).toBe(wet);
  expect(await layers.figure('spacing')).toBe(before);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await page.keyboard.press('Control+y');
  expect(await layers.figure('spacing')).toBeGreaterThan(before);
});

test('a plan file goes out and comes in as the same plan', async ({ page }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.openPlan('Wash stand');
  await layers.finePicture();
  const spacing = await layers.figure('spacing');
  const fingerprint = await layers.finePicture();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Plan file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('wash-stand.zaffet.json');
  const text = await readFile(await download.path(), 'utf8');
  const plan = JSON.parse(text) as Plan;
  expect(plan.format).toBe('zaffet-plan');

  await plans.open();
  await plans.bringIn('in.json', text);
  await page.waitForURL(/\/plan\/.+\/layers/);
  expect(await layers.finePicture()).toBe(fingerprint);
  expect(await layers.figure('spacing')).toBe(spacing);
});

test('a malformed file is refused with the field and what is allowed, and nothing changes', async ({
  page,
  quiet,
}) => {
  const plans = new PlansPage(page);
  await plans.open();
  await expect(page.getByRole('link', { name: 'Lamp shelf, front rail' })).toBeVisible();
  const count = await page.getByRole('listitem').count();
  await plans.bringIn('cut.json', '{"format": "zaffet-plan", ');
  await expect(page.getByRole('alert')).toContainText('not readable JSON');
  const [listed] = (await (await page.request.get('/api/plans')).json()) as PlanSummary[];
  const good = (await (await page.request.get(`/api/plans/${listed!.id}`)).json()) as StoredPlan;
  const bad = { ...good.plan, air: { ...good.plan.air, temperatureC: 400 } };
  await plans.bringIn('bad.json', JSON.stringify(bad));
  await expect(page.getByRole('alert')).toContainText(
    'air.temperatureC is 400; it must be a number from 2 to 45 °C.',
  );
  await expect(page.getByRole('alert')).toContainText('Nothing was changed');
  await page.reload();
  await expect(page.getByRole('link', { name: 'Lamp shelf, front rail' })).toBeVisible();
  expect(await page.getByRole('listitem').count()).toBe(count);
  // The refusal itself is a failed request, which the browser notes.
  quiet.splice(0, quiet.length, ...quiet.filter((line) => !line.includes('400')));
});

test('a save from a stale window is refused and the person chooses', async ({ page, context, quiet }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Crackle over wet white glue');
  await layers.saved();
  const other = new LayersPage(await context.newPage());
  await other.page.goto(page.url());
  await other.surface('Sailcloth').focus();
  await other.page.keyboard.press('PageUp');
  await other.saved();
  const theirs = await other.value(other.surface('Sailcloth'));

  await layers.surface('White glue').focus();
  await page.keyboard.press('PageUp');
  await expect(page.getByRole('alertdialog')).toContainText('changed elsewhere');
  const mine = await layers.value(layers.surface('White glue'));
  await page.getByRole('button', { name: 'Keep both' }).click();
  await expect(page.getByLabel('Name of the plan')).toHaveValue('One panel (mine)');
  expect(await layers.value(layers.surface('White glue'))).toBe(mine);
  await other.page.reload();
  expect(await other.value(other.surface('Sailcloth'))).toBe(theirs);
  quiet.splice(0, quiet.length, ...quiet.filter((line) => !line.includes('409')));
});

test('what the server could not take is kept in the browser and saved later', async ({ page, quiet }) => {
  const plans = new PlansPage(page);
  const layers = new LayersPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  await layers.saved();
  await page.route('**/api/plans/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await layers.surface('Sailcloth').focus();
  await page.keyboard.press('PageUp');
  const wet = await layers.value(layers.surface('Sailcloth'));
  await expect(page.getByText('not saved yet, kept in this browser')).toBeVisible();
  await page.reload();
  await expect.poll(() => layers.value(layers.surface('Sailcloth'))).toBe(wet);
  await page.unroute('**/api/plans/*');
  await layers.saved();
  quiet.splice(0, quiet.length, ...quiet.filter((line) => !line.includes('ERR_FAILED')));
});

test('a job sheet is taken to the bench as a PDF', async ({ page }) => {
  const plans = new PlansPage(page);
  await plans.open();
  await plans.openPlan('Chart locker, front');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Job sheet' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('chart-locker-front-job-sheet.pdf');
  expect(
    readFileSync(await download.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
});

test('a step is done once more, and undone', async ({ page }) => {
  const plans = new PlansPage(page);
  await plans.open();
  await plans.begin('Crackle over dried medium');
  await page.getByRole('button', { name: /^Kelp/ }).click();
  await page.getByRole('button', { name: 'Once more, after this' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Kelp/ })).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Kelp/ })).toHaveCount(1);
});
