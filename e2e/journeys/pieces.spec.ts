import { type Plan } from '@zaffet/contract';
import { type Locator, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';

/** Goes to a room of the open plan. */
async function go(page: Page, room: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Rooms' })
    .getByRole('link', { name: room, exact: true })
    .click();
  await page.waitForURL(new RegExp(`/${room.toLowerCase()}$`));
}

async function unfold(page: Page, kind: string, sizes: Readonly<Record<string, string>>): Promise<void> {
  await go(page, 'Piece');
  await page.getByRole('button', { name: 'From a template' }).click();
  const sheet = page.getByRole('dialog', { name: 'Which piece is it?' });
  await sheet.getByText(kind, { exact: true }).click();
  for (const [name, value] of Object.entries(sizes)) {
    await sheet.getByRole('textbox', { name }).fill(value);
    await sheet.getByRole('textbox', { name }).press('Enter');
  }
  await sheet.getByRole('button', { name: 'Unfold it' }).click();
}

/** The job sheet as it comes out: a PDF of some pages. */
async function jobSheet(page: Page): Promise<Buffer> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Job sheet' }).click(),
  ]);
  const bytes = await readFile(await download.path());
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
  return bytes;
}

async function planFile(page: Page): Promise<Plan> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Plan file' }).click(),
  ]);
  return JSON.parse(await readFile(await download.path(), 'utf8')) as Plan;
}

/** Takes one of a field's words. */
async function choose(field: Locator, name: string): Promise<void> {
  await field.click();
  await field.page().getByRole('option', { name, exact: true }).click();
}

test('a sea chest over wet glue, from nothing to its job sheet', async ({ page }) => {
  test.slow();
  const layers = new LayersPage(page);
  await new PlansPage(page).open();
  await new PlansPage(page).begin('Crackle over wet white glue');
  await page.getByRole('textbox', { name: 'Name of the plan' }).fill('Oil store chest');
  await page.getByRole('textbox', { name: 'Name of the plan' }).press('Enter');

  // Piece: five parts, what must be done first, and how it is turned.
  await unfold(page, 'Chest', { Width: '760', Height: '400', Depth: '420' });
  const front = page.getByRole('button', { name: /^Front, 760 mm by 400 mm/ });
  await expect(front).toBeVisible();
  await expect(page.getByText('Back up:')).toBeVisible();
  await front.click();
  await page.getByRole('radio', { name: 'Old gloss, not scuffed' }).click();
  const scuff = page.locator('[data-prep="scuff"]');
  await expect(scuff).toContainText('Scuff to a dull surface');
  await scuff.getByRole('checkbox').check();

  // Look: wide islands, laid that way.
  await go(page, 'Look');
  await page.locator('[data-effect="wide"]').click();
  const wanted = page.getByRole('textbox', { name: 'Wanted: Crack spacing' });
  await expect(wanted).not.toHaveValue('');
  // The glue stays: what changes is listed before it is done.
  await expect(page.getByText('Your technique can do it with these changes:')).toBeVisible();
  await expect(page.locator('.picked li').first()).toHaveText(/^White glue: \d+ µm wet/);
  await page.getByRole('button', { name: 'Change the steps so' }).click();
  const spacing = Number(await wanted.inputValue());
  await expect
    .poll(async () => Number(await page.locator('[data-want="spacingMm"] .now b').innerText()))
    .toBeGreaterThan(0.85 * spacing);

  // Layers: a second thought beside it, compared, and dropped.
  await go(page, 'Layers');
  const before = await layers.figure('spacing');
  await page.getByRole('button', { name: 'What if', exact: false }).click();
  await layers.dragBy(layers.surface('White glue'), 0, 60);
  expect(await layers.figure('spacing')).toBeLessThan(before);
  await page.getByRole('button', { name: 'Side by side' }).click();
  const beside = page.getByRole('dialog', { name: 'Side by side' });
  await expect(beside.locator('section')).toHaveCount(2);
  await expect(beside.locator('.differs').first()).toBeVisible();
  await beside.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Drop this what-if' }).click();
  expect(await layers.figure('spacing')).toBe(before);

  // Mix: one pot for all five parts, against the shelf.
  await go(page, 'Mix');
  // In the order of the timetable.
  for (const part of ['lid', 'front', 'back', 'left side', 'right side'])
    await expect(page.locator('[data-pot="Kelp"]')).toContainText(part);
  await expect(page.locator('[data-buy="White glue"]')).toContainText('from the shelf: White glue, bottle');
  await layers.saved();
  expect((await jobSheet(page)).length).toBeGreaterThan(30_000);

  await page.reload();
  await expect(page.locator('[data-pot="Kelp"]')).toBeVisible();
  const plan = await planFile(page);
  expect(plan.name).toBe('Oil store chest');
  expect(plan.piece.parts.map(({ name }) => name)).toEqual([
    'Lid',
    'Front',
    'Back',
    'Left side',
    'Right side',
  ]);
  expect(plan.piece.parts[1]!.prepared).toEqual(['scuff']);
  expect(plan.finishes.length).toBe(1);
});

test('a wash stand in milk paint, its top sealed by itself, the rest of a mix kept on the shelf', async ({
  page,
}) => {
  test.slow();
  const layers = new LayersPage(page);
  await new PlansPage(page).open();
  await new PlansPage(page).begin('Chippy milk paint');
  await unfold(page, 'Side table', { Width: '600', Height: '780', Depth: '420' });
  await page.getByRole('button', { name: /^Top, 600 mm by 420 mm/ }).click();
  await choose(page.getByRole('combobox', { name: 'Finish it gets' }), 'One of its own');
  await page.getByRole('radio', { name: 'Wiped, plants' }).click();

  // Its use asks for more than wax; one press does it, on the top alone.
  await go(page, 'Layers');
  await expect(page.getByRole('textbox', { name: 'Name of the finish' })).toHaveValue('Top');
  await page.getByRole('radio', { name: /^Notes/ }).click();
  const note = layers.finding('use-wax-only');
  await note.getByRole('button', { name: /clear coats/ }).click();
  await expect(note).toBeHidden();
  await layers.saved();

  // The mix: powder and water in spoons, its body remembered, what is left put on the shelf.
  await go(page, 'Mix');
  const fog = page.locator('[data-pot="Fog"]').first();
  await expect(fog).toContainText('powder');
  await expect(fog).toContainText('Water');
  await expect(fog).toContainText(/good until/);
  await choose(fog.getByRole('combobox'), 'Like water');
  await expect(fog).toContainText('So one coat comes to lie about');
  await fog.getByRole('button', { name: 'Plan it so' }).click();
  await expect(fog).not.toContainText('So one coat comes to lie about');
  await fog.getByRole('button', { name: 'Put what is left on the shelf' }).click();
  await go(page, 'Shelf');
  const left = page.locator('[data-item="Fog, left over"]').first();
  await expect(left).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();
  await page.reload();
  await expect(left).toBeVisible();

  expect((await jobSheet(page)).length).toBeGreaterThan(30_000);
  const plan = await planFile(page);
  const [main, top] = plan.finishes;
  expect(plan.piece.parts.filter(({ finish }) => finish === top!.id).map(({ name }) => name)).toEqual([
    'Top',
  ]);
  const seals = (steps: Plan['finishes'][number]['steps']): number =>
    steps.reduce((sum, step) => sum + (step.kind === 'seal' ? step.coats : 0), 0);
  expect(seals(top!.steps)).toBeGreaterThan(seals(main!.steps));
  expect(main!.steps.some((step) => step.kind === 'coat' && step.body === 'water')).toBe(true);
});

test('a lamp shelf sanded over a barrier: places worked otherwise, colours from a palette, in order, in hours', async ({
  page,
}) => {
  test.slow();
  const layers = new LayersPage(page);
  await new PlansPage(page).open();
  await new PlansPage(page).begin('Sanded over a barrier');
  await unfold(page, 'Shelf', { Length: '700', Depth: '200' });
  await page.getByRole('button', { name: /^Upper face,/ }).click();
  await page.getByRole('button', { name: 'Add a place' }).click();
  await page.getByRole('combobox', { name: 'Kind of place' }).click();
  await page.getByRole('option', { name: 'Pull' }).click();

  // Colours out of a palette file, one onto the top coat.
  await go(page, 'Look');
  await page.getByLabel('Palette file to bring in').setInputFiles({
    name: 'harbour.gpl',
    mimeType: 'text/plain',
    buffer: Buffer.from('GIMP Palette\nName: Harbour\n#\n201 190 160\tDune\n 34  80  92\tDeep water\n'),
  });
  await page.getByRole('button', { name: 'Take Dune for Gannet' }).click();
  await expect(page.getByRole('radio', { name: 'Colour for Dune' })).toBeVisible();
  await page.getByLabel('Palette file to bring in').setInputFiles({
    name: 'broken.gpl',
    mimeType: 'text/plain',
    buffer: Buffer.from('no palette'),
  });
  await expect(page.getByRole('alert')).toContainText('Its first line must be');

  // Round the pull it shall be worn more than elsewhere: the sandpaper is told so, there alone.
  await page.getByRole('button', { name: 'Round the pulls' }).click();
  const worn = page.getByRole('textbox', { name: 'Wanted: Worn through' });
  await worn.fill('40');
  await worn.press('Enter');
  await page.getByRole('button', { name: 'Work it so, just here' }).click();
  await expect(page.getByText(/Worn through: \d+ %, by sand, 150 grit\./)).toBeVisible();
  const now = page.locator('[data-want="worn"] .now b');
  await expect.poll(async () => Number(await now.innerText())).toBeGreaterThan(35);
  await page.getByRole('button', { name: 'All of it' }).click();
  await expect.poll(async () => Number(await now.innerText())).toBeLessThan(33);

  // In order: the seal is left out, brought to another place by keys, and done again.
  await go(page, 'Layers');
  await page.getByRole('radio', { name: 'In order' }).click();
  const rows = page.locator('zf-order-list li');
  await expect(rows).toHaveCount(6);
  await page.getByRole('checkbox', { name: /^Do step 6/ }).uncheck();
  await expect(rows.nth(5)).toContainText('left out');
  await page.getByRole('button', { name: /^Move .*step 6/ }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(rows.nth(4)).toContainText('left out');
  await page.keyboard.press('ArrowDown');
  await page.getByRole('checkbox', { name: /^Do step 6/ }).check();
  // By hand: the second coat above the first, and back by undo.
  const handle = page.getByRole('button', { name: /^Move Marram/ });
  const box = (await handle.boundingBox())!;
  const target = (await rows.nth(2).boundingBox())!;
  await page.mouse.move(box.x + 10, box.y + 15);
  await page.mouse.down();
  await page.mouse.move(box.x + 10, box.y + 40, { steps: 5 });
  await page.mouse.move(box.x + 10, target.y + target.height - 4, { steps: 10 });
  await page.mouse.up();
  await expect(rows.nth(2)).toContainText('Marram');
  await page.keyboard.press('Control+z');
  await expect(rows.nth(1)).toContainText('Marram');

  // Hours: what falls into the night is done next morning.
  const night = async (): Promise<number> =>
    (await rows.allInnerTexts()).filter((text) => /\b(2[0-3]|0[0-6]):\d\d/.test(text)).length;
  await page.getByRole('button', { name: /^Worked at any hour/ }).click();
  const shop = page.getByRole('dialog', { name: 'The shop' });
  await shop.getByRole('checkbox', { name: /^The shop has hours/ }).check();
  await shop.getByRole('button', { name: 'Done' }).click();
  await expect.poll(night).toBe(0);
  await layers.saved();
  expect((await jobSheet(page)).length).toBeGreaterThan(30_000);
  const plan = await planFile(page);
  expect(plan.work!.zone).toBe('Europe/Lisbon');
  expect(plan.work!.week.mon).toEqual([
    { opensMin: 480, closesMin: 720 },
    { opensMin: 780, closesMin: 1020 },
  ]);
  expect(Object.keys(plan.piece.parts[0]!.maps).length).toBe(1);
});
