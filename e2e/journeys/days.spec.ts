import { type Locator, type Page } from '@playwright/test';
import ICAL from 'ical.js';
import { readFile } from 'node:fs/promises';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';

async function days(page: Page): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Rooms' })
    .getByRole('link', { name: 'Days', exact: true })
    .click();
  await expect(page.getByRole('heading', { level: 1, name: /^Ready / })).toBeVisible();
}

/** Minutes of the day that a line of the board begins with. */
async function clockOf(page: Page, text: RegExp): Promise<number> {
  const line = page.locator('zf-days-board .work').filter({ hasText: text }).first();
  const [hours, minutes] = (await line.locator('.at').innerText()).split(':').map(Number);
  return hours! * 60 + minutes!;
}

/** Where something is once it no longer moves: a board takes its size, and its lines, a moment after it opens. */
async function still(line: Locator): Promise<{ x: number; y: number }> {
  let before = await line.boundingBox();
  await expect
    .poll(
      async () => {
        const [last, now] = [before, await line.boundingBox()];
        before = now;
        return now !== null && last?.x === now.x && last.y === now.y;
      },
      { intervals: [400] },
    )
    .toBe(true);
  return before!;
}

test('a chest over two days: the morning, a deadline, a drag, an impossible week, a calendar', async ({
  page,
}) => {
  test.slow();
  const plans = new PlansPage(page);
  await plans.open();
  await page.getByRole('link', { name: /sea chest/i }).click();
  await page.waitForURL(/\/layers$/);
  await days(page);

  // The morning: what first, and what dries over night; the next day a press away.
  const card = page.locator('zf-morning-card');
  await expect(card.getByRole('heading', { name: 'Tuesday, 12 May' })).toBeVisible();
  await expect(card).toContainText(/things to do, .* of work between 13:00 and/);
  await expect(card).toContainText(/Over night .* drying/);
  await page.getByRole('button', { name: /^Wednesday, 13 May/ }).click();
  await expect(card.getByRole('heading', { name: 'Wednesday, 13 May' })).toBeVisible();

  // The same as a table, by keys: held where it is, and let go again.
  await page.getByRole('radio', { name: 'As a table' }).click();
  const row = page.locator('zf-days-table tbody tr').filter({ hasText: 'Kelp' }).first();
  await row.focus();
  await page.keyboard.press('p');
  await expect(row.getByRole('button', { name: /^Let go/ })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Control+z');
  await expect(row.getByRole('button', { name: /^Hold where it is/ })).toBeVisible();
  await page.getByRole('radio', { name: 'Side by side' }).click();

  // Dragged an hour down: it stays there, and what follows comes later; undone it is as before.
  const before = await clockOf(page, /Kelp, base coat: right side/);
  const line = page
    .getByRole('region', { name: 'Tuesday, 12 May' })
    .locator('.work')
    .filter({ hasText: /Kelp, base coat: right side/ });
  const box = await still(line);
  await page.mouse.move(box.x + 60, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 30, { steps: 4 });
  await page.mouse.move(box.x + 60, box.y + 60, { steps: 6 });
  await expect(page.locator('.telling')).toContainText(/^Tue/);
  await page.mouse.up();
  await expect(line.locator('mat-icon')).toBeVisible();
  await expect.poll(() => clockOf(page, /Kelp, base coat: right side/)).toBeGreaterThan(before + 30);
  await page.keyboard.press('Control+z');
  await expect.poll(() => clockOf(page, /Kelp, base coat: right side/)).toBe(before);

  // A deadline that is missed says by how much, and another way meets it sooner.
  const due = page.getByRole('textbox', { name: 'Has to be ready by, day' });
  await due.fill('12/05/2026');
  await due.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: /too late$/ })).toBeVisible();
  const standing = page.getByRole('button', { name: /^Leave it standing/ });
  await expect(standing).toContainText(/sooner/);
  await standing.click();
  await expect(page.getByText(/^You look at Leave it standing: ready .* sooner/)).toBeVisible();
  await page.getByRole('button', { name: 'Back to the plan' }).click();
  await page.getByRole('button', { name: 'No deadline' }).click();

  // A week in which nothing can be done says what is in the way; undone there is a timetable again.
  await page.getByRole('button', { name: 'The shop …' }).click();
  const shop = page.getByRole('dialog', { name: 'The shop' });
  const away = shop.getByRole('button', { name: /^Take out this stretch/ });
  const stretches = await away.count();
  for (let left = stretches; left > 0; left--) {
    await away.first().click();
    await expect(away).toHaveCount(left - 1);
  }
  await shop.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('alert')).toContainText(
    /There is no timetable: There is no time for .* Give the week more hours/,
  );
  for (let i = 0; i < stretches; i++) await page.keyboard.press('Control+z');
  await expect(page.getByRole('alert')).toHaveCount(0);
  // Which day the card keeps meanwhile hangs on which weeks were timed on the way.
  await page.getByRole('button', { name: /^Tuesday, 12 May/ }).click();
  await expect(card.getByRole('heading', { name: 'Tuesday, 12 May' })).toBeVisible();

  // What is said in Mix is what is done here; turning it comes first.
  const kelp = await clockOf(page, /Kelp, base coat/);
  await page
    .getByRole('navigation', { name: 'Rooms' })
    .getByRole('link', { name: 'Mix', exact: true })
    .click();
  const [hours, minutes] = /(\d\d):(\d\d)/
    .exec(await page.locator('[data-pot="Kelp"]').innerText())!
    .slice(1)
    .map(Number);
  expect(Math.abs(hours! * 60 + minutes! - kelp)).toBeLessThanOrEqual(3);
  await days(page);

  // Into a calendar, read by another reader.
  await page.getByRole('button', { name: 'Take out …' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Calendar with alarms' }).click(),
  ]);
  const calendar = new ICAL.Component(ICAL.parse(await readFile(await download.path(), 'utf8')) as unknown[]);
  const events = calendar.getAllSubcomponents('vevent').map((event) => new ICAL.Event(event));
  expect(events.length).toBeGreaterThan(10);
  expect(events.some(({ summary }) => summary === 'Kelp, base coat: lid')).toBeTruthy();
});

test('what comes first, and what is not in the house: told, kept and let go', async ({ page }) => {
  test.slow();
  await new PlansPage(page).open();
  await page.getByRole('link', { name: /Shutters/ }).click();
  await page.waitForURL(/\/layers$/);
  await days(page);
  await page.getByRole('button', { name: 'What first …' }).click();
  const sheet = page.getByRole('dialog', { name: 'What has to come first' });
  await sheet.getByRole('button', { name: 'Keep this order' }).click();
  await expect(sheet).toContainText(/is done before/);
  await sheet.getByRole('button', { name: 'It comes tomorrow morning' }).click();
  await sheet.getByRole('button', { name: 'Done' }).click();
  await expect(page.locator('zf-days-board .delivery').first()).toBeAttached();
  await expect(page.getByRole('button', { name: /^Any order of parts/ })).toContainText(/sooner/);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.locator('zf-days-board .delivery')).toHaveCount(0);
});
