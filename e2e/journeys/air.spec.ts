import { type Page } from '@playwright/test';
import { type PlanFile } from '@zaffet/contract';
import { readFile } from 'node:fs/promises';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';

const csv = (name: string, lines: readonly string[]): { name: string; mimeType: string; buffer: Buffer } => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(['time,temperature_c,humidity_percent', ...lines].join('\n')),
});

/** A copy of a demo plan, so that other journeys find theirs as it was. */
async function openCopy(page: Page, file: string, name: string, room: string): Promise<void> {
  const demo = await readFile(new URL(`../../demo/plans/${file}.json`, import.meta.url), 'utf8');
  const plans = new PlansPage(page);
  await plans.open();
  const plan = JSON.parse(demo) as PlanFile;
  await plans.bringIn('copy.json', JSON.stringify({ ...plan, name, piece: { ...plan.piece, name } }));
  await page.waitForURL(/\/layers$/);
  await page
    .getByRole('navigation', { name: 'Rooms' })
    .getByRole('link', { name: room, exact: true })
    .click();
}

test('the air: a file that is refused, one that is taken, a forecast, an instrument; what each does to the glue', async ({
  page,
  request,
}) => {
  test.slow();
  await openCopy(page, '1-sea-chest', 'Trunk in the attic', 'Days');
  await page.getByRole('radio', { name: 'The air' }).click();
  const air = page.locator('zf-air-view');
  const glue = air.locator('tr').filter({ hasText: 'next coat within' });
  await expect(air).toContainText('told by hand');
  await expect(glue).toContainText(/\d min/);
  await expect(air).toContainText(/White glue waits .* on damp days, .* on dry ones/);
  const told = async (): Promise<number> => Number.parseFloat(await glue.locator('b').innerText());
  const before = await told();

  // A file with a word and an impossible humidity: row and column are named, and the air stays.
  const file = air.getByLabel('A file of air readings');
  await file.setInputFiles(csv('bad.csv', ['2026-05-12 08:00,19,50', '2026-05-12 09:00,warm,132']));
  await expect(air.getByRole('alert')).toContainText('Row 3, temperature_c: "warm"');
  await expect(air.getByRole('alert')).toContainText('Row 3, humidity_percent: "132"');
  await expect(air).toContainText('told by hand');

  // Hot, dry days: the glue shuts sooner; undone it is as before.
  await file.setInputFiles(
    csv(
      'attic.csv',
      Array.from({ length: 72 }, (_, i) => {
        const at = new Date(Date.UTC(2026, 4, 12, i));
        return `${at.toISOString()},30,25`;
      }),
    ),
  );
  await expect(air).toContainText('from a file of readings');
  await expect.poll(told).toBeLessThan(before * 0.7);
  await page.keyboard.press('Control+z');
  await expect(air).toContainText('told by hand');
  await expect.poll(told).toBe(before);

  // What comes out is what goes in.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    air.getByRole('button', { name: 'Take the air out as a file' }).click(),
  ]);
  const lines = (await readFile(await download.path(), 'utf8')).trim().split('\r\n');
  expect(lines[0]).toBe('time,temperature_c,humidity_percent');
  expect(lines.length).toBe(6);

  // A real instrument posts; the plan takes what it read in its days.
  const read = await request.post('/api/air', {
    data: {
      source: 'attic',
      readings: Array.from({ length: 72 }, (_, i) => ({
        at: new Date(Date.UTC(2026, 4, 12, i)).toISOString(),
        temperatureC: 12,
        humidity: 0.8,
      })),
    },
  });
  expect(read.status()).toBe(201);
  await air.getByRole('button', { name: 'As it was read' }).click();
  await expect(air).toContainText('as instruments read it, then simulated');
  await expect.poll(told).toBeGreaterThan(before);

  // The forecast, plainly simulated; the stand-in for an instrument as well.
  await air.getByRole('button', { name: 'Simulated forecast' }).click();
  await expect(air.getByText(/The air: a simulated forecast/)).toBeVisible();
  await expect(air.getByRole('img', { name: /^The air over the days: / })).toBeVisible();
  await air.getByRole('checkbox', { name: 'Simulated hygrometer' }).check();
  await expect(air.locator('.now')).toContainText(/listening|°C, \d+ %/);
  await page.reload();
  await page.getByRole('radio', { name: 'The air' }).click();
  await expect(page.getByText(/The air: a simulated forecast/)).toBeVisible();
});

test('wood is read by the stand-in for a moisture meter, and called simulated', async ({ page }) => {
  await openCopy(page, '1-sea-chest', 'Trunk to measure', 'Piece');
  await page.getByRole('button', { name: 'Simulated meter' }).click();
  await expect(page.getByText(/Five places read .* Simulated, not measured/)).toBeVisible();
  await expect(page.getByText(/In this shop's air wood comes to \d+ % moisture\. At /)).toBeVisible();
});

test.describe('over the change of summer time', () => {
  test.use({ timezoneId: 'Europe/Paris' });
  test('a week keeps the hours of the clock on the wall', async ({ page }) => {
    test.slow();
    await openCopy(page, '2-wash-stand', 'Stand in March', 'Days');
    await page.getByRole('button', { name: 'The shop …' }).click();
    const shop = page.getByRole('dialog', { name: 'The shop' });
    await shop.getByLabel('Time zone').fill('Europe/Paris');
    await shop.getByLabel('Time zone').press('Tab');
    await shop.getByRole('button', { name: 'Done' }).click();
    await page
      .getByRole('navigation', { name: 'Rooms' })
      .getByRole('link', { name: 'Layers', exact: true })
      .click();
    const begins = page.getByRole('textbox', { name: 'Begins, day' });
    await begins.fill('27/03/2026');
    await begins.press('Enter');
    const time = page.getByRole('combobox', { name: 'Begins, time' });
    await time.fill('15:00');
    await time.press('Enter');
    await page
      .getByRole('navigation', { name: 'Rooms' })
      .getByRole('link', { name: 'Days', exact: true })
      .click();
    await page.getByRole('radio', { name: 'As a table' }).click();
    const rows = page.locator('zf-days-table tbody tr');
    // Clocks go forward on Sunday the 29th: work goes on at eight on Monday, not at nine.
    await expect(rows.filter({ hasText: 'Mon 08:' }).first()).toBeVisible();
    await expect(rows.filter({ hasText: /Fri 1[56]:/ }).first()).toBeVisible();
    const times = await rows.locator('td:first-child').allInnerTexts();
    for (const at of times) {
      const hour = Number(/(\d\d):/.exec(at)![1]);
      expect(hour, at).toBeGreaterThanOrEqual(8);
      expect(hour, at).toBeLessThan(17);
    }
  });
});
