import { type Plan } from '@zaffet/contract';
import { expect, test } from '../pages/quiet';

test('a new plan goes by working hours, and is begun on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/plans');
  await page.getByRole('button', { name: 'New plan' }).click();
  const sheet = page.getByRole('dialog', { name: 'What are you going to paint?' });
  await expect(sheet).toContainText('Mon to Fri 08:00 to 12:00, 13:00 to 17:00');

  // Pieces stand above looks, and nothing is too narrow to be read or met.
  const [pieces, looks] = [sheet.locator('.pieces'), sheet.locator('.methods')];
  const [above, below] = [(await pieces.boundingBox())!, (await looks.boundingBox())!];
  expect(above.y + above.height).toBeLessThanOrEqual(below.y);
  for (const choice of await sheet.locator('.kind, .way').all())
    expect((await choice.boundingBox())!.width).toBeGreaterThan(80);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

  await sheet.getByRole('button', { name: 'Begin', exact: true }).click();
  await page.waitForURL(/\/plan\/.+\/layers/);
  const id = /plan\/([^/]+)/.exec(page.url())![1]!;
  const { plan } = (await (await page.request.get(`/api/plans/${id}`)).json()) as { plan: Plan };
  expect(plan.work!.zone).toBe('Europe/Lisbon');
  expect(plan.work!.week.sat).toEqual([]);
  await page.request.delete(`/api/plans/${id}`);
});
