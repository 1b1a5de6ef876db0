import { filePlan, type Plan, type PlanStep } from '@zaffet/contract';
import { newDistress, newPlan } from '@zaffet/workshop';
import { type Page } from '@playwright/test';
import { after } from '../../packages/workshop/src/create';
import { BenchPage } from '../pages/bench.page';
import { expect, test } from '../pages/quiet';

const MONDAY = new Date('2026-11-30T08:00:00Z');

/** A plan of some steps, for as many parts of one size. */
function planOf(
  name: string,
  steps: (base: PlanStep) => readonly PlanStep[],
  parts: readonly string[],
): Plan {
  let next = 0;
  const plan = newPlan('wet-distress', name, 3, MONDAY.toISOString(), () => `${name}-${++next}`);
  const [part] = plan.piece.parts;
  const [finish] = plan.finishes;
  return {
    ...plan,
    timing: { ...plan.timing, prepares: false },
    piece: { ...plan.piece, parts: parts.map((label, i) => ({ ...part!, id: `part-${i}`, name: label })) },
    finishes: [{ ...finish!, steps: steps(finish!.steps[0]!) }],
  };
}

/** The bench of a new run of a plan. */
async function benchOf(page: Page, plan: Plan): Promise<BenchPage> {
  const bench = new BenchPage(page);
  await bench.keepClocks(MONDAY);
  const stored = await page.request.post('/api/plans', { data: filePlan(plan) });
  const { id } = (await stored.json()) as { id: string };
  await page.goto(`/plan/${id}/bench`);
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await expect(bench.card).toBeVisible({ timeout: 30_000 });
  return bench;
}

test('a job of 30, 30 and 60 minutes cannot be pressed through', async ({ page }) => {
  const waits = [30, 30, 60];
  const plan = planOf(
    'Waits',
    (base) => [base, ...waits.map((minutes, i) => newDistress(`waits-w${i}`, 'cloth', after(minutes)))],
    ['Lid'],
  );
  const bench = await benchOf(page, plan);
  const start = bench.card.getByRole('button', { name: /^(Begin|Start anyway)$/ });
  await bench.doIt(6);
  for (const minutes of waits) {
    await expect(bench.card.getByRole('heading', { level: 1 })).toHaveText(
      minutes === 60 ? 'Wait 1 h' : `Wait ${minutes} min`,
    );
    await bench.readCautions();
    await expect(bench.card.locator('.early')).toContainText(/too early/);
    await expect(start).toHaveText(/Start anyway/);
    await bench.later(minutes - 2);
    await expect(start).toHaveText(/Start anyway/);
    await bench.later(3);
    await expect(start).toHaveText('Begin');
    await bench.doIt(2);
  }
  await expect(page.getByRole('button', { name: 'Finish the run' })).toBeVisible();
});

test('two parts of one size have each the window of what was put on it', async ({ page }) => {
  const plan = planOf('Twins', (base) => [base, newDistress('twins-wipe', 'cloth', after(30))], [
    'Left cheek',
    'Right cheek',
  ]);
  const bench = await benchOf(page, plan);
  const title = bench.card.getByRole('heading', { level: 1 });
  await bench.take('Left cheek');
  await bench.doIt(6);
  await bench.later(20);
  await bench.take('Right cheek');
  await bench.doIt(6);
  // The left one is ready, the right one began to wait just now.
  await bench.take('Right cheek');
  await expect(title).toHaveText('Wait 30 min');
  await bench.take('Left cheek');
  await bench.later(5);
  await expect(title).not.toHaveText('Wait 30 min');
  await bench.take('Right cheek');
  await expect(title).toHaveText('Wait 30 min');
});
