import { type Locator, type Page } from '@playwright/test';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, test } from '../pages/own-server';
import { launch, scratchFolder } from '../../apps/server/src/testing';

const PHOTOS = fileURLToPath(new URL('../../demo/photos/', import.meta.url));
const photo = (): string => `${PHOTOS}${readdirSync(PHOTOS).sort()[0]}`;

/** One that nothing in the demo shows. */
const PICTURE = fileURLToPath(new URL('../../docs/screenshots/look.png', import.meta.url));

const entries = (page: Page): Locator => page.getByRole('region', { name: 'Entries' }).getByRole('link');
const search = (page: Page): Locator => page.getByRole('searchbox', { name: 'What was said' });

test('a year of entries: found by word, slip of the pen, colour and figure; read beside what was foretold', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${server.at}/plans`);
  await page.getByRole('link', { name: 'Log' }).click();
  await expect(page.getByRole('status')).toHaveText('13 entries');

  await search(page).fill('candle');
  await expect(entries(page)).toHaveCount(2);
  await search(page).fill('barnacle');
  await expect(page.getByText('Nothing like that was written down')).toBeVisible();
  // Another form of the word, and a slip of the pen.
  await search(page).fill('skinning');
  await expect(entries(page)).toHaveCount(1);
  await expect(entries(page)).toContainText('the far corner had skinned before the brush came back');
  await search(page).fill('parchmnet');
  await expect(entries(page)).toHaveCount(1);
  await expect(entries(page)).toContainText('Tide clock case');
  await page.getByRole('button', { name: 'Look for anything' }).click();

  await page.getByRole('button', { name: 'Like Iron stain' }).click();
  await expect(entries(page).first()).toContainText('its colour is 0 ΔE off');
  await expect(entries(page).first()).toContainText('Flag box, inner side');
  await page.getByRole('button', { name: 'Look for anything' }).click();
  await page.getByRole('textbox', { name: 'Cracks apart, from' }).fill('3');
  await page.getByRole('textbox', { name: 'Cracks apart, from' }).press('Enter');
  await expect(page.getByRole('status')).toHaveText('3 entries found');
  for (const card of await entries(page).all())
    await expect(card).toContainText(/cracks (?!1|2)[\d.]+ mm apart/);

  // What is looked for stays while one goes in and out.
  await entries(page).filter({ hasText: 'Boot box' }).click();
  await expect(page.getByRole('heading', { name: 'Boot box, lid' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'Boot box, lid' })).toBeVisible();
  const spacing = page.getByRole('row', { name: /^Crack spacing/ });
  await expect(spacing).toContainText(/mm \([\d.]+ to [\d.]+ mm\)/);
  await expect(spacing).toContainText(/4 mm\s+inside/);
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Cracks apart, from' })).toHaveValue('3');

  await page.getByRole('link', { name: 'How well it was foretold' }).click();
  await expect(
    page.getByText(/^Of \d+ figures that were foretold and measured, \d+ came out inside/),
  ).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByRole('row', { name: /^Crack spacing/ })).toContainText(/\d+ of \d+/);

  const [list] = await Promise.all([
    page.waitForEvent('download'),
    page.goto(`${server.at}/log`).then(() => page.getByRole('link', { name: 'List (CSV)' }).click()),
  ]);
  const lines = readFileSync(await list.path(), 'utf8').split('\r\n');
  expect(lines[0]).toMatch(/^name,piece,parts,begun,finished,way,/);
  expect(lines.length).toBe(14);
});

test('a piece done before is written down with a photograph, found, told more of, and laid beside another', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${server.at}/log`);
  await page.getByRole('button', { name: 'Write down a piece done before' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Keep it' }).click();
  await expect(sheet.getByRole('alert')).toHaveText('Give it a name, so that it is found again.');
  await sheet.getByRole('textbox', { name: 'What it was' }).fill('Signal box');
  await sheet.getByRole('textbox', { name: 'Done on' }).fill('5 Aug 2022');
  await sheet.getByRole('textbox', { name: 'Done on' }).press('Tab');
  await sheet
    .getByRole('textbox', { name: 'What there is to say of it' })
    .fill('Beeswax under the latch only.');
  await sheet.getByLabel('Photograph of the piece').setInputFiles(photo());
  await expect(sheet.getByRole('img')).toBeVisible();
  await sheet.getByRole('button', { name: 'Keep it' }).click();

  await page.waitForURL(/\/log\/[0-9a-f]+$/);
  await expect(page.getByRole('heading', { name: 'Signal box' })).toBeVisible();
  await expect(page.getByText('5 August 2022')).toBeVisible();
  await expect(page.getByText('Nobody has told yet')).toContainText('how it is liked');
  await page.getByRole('button', { name: 'Just right' }).click();
  await page.getByRole('textbox', { name: 'Next time' }).fill('more wax');
  await page.getByRole('textbox', { name: 'Next time' }).blur();
  await page.getByRole('textbox', { name: 'For whom' }).fill('the harbour master');
  await page.getByRole('textbox', { name: 'For whom' }).blur();
  await page.getByRole('button', { name: 'given away' }).click();
  await expect(page.getByText('the harbour master, given away')).toBeVisible();

  await page.getByRole('combobox', { name: 'Another entry to lay beside' }).click();
  await page.getByRole('option', { name: 'Window seat, front' }).click();
  await expect(page.getByRole('heading', { name: 'Side by side' })).toBeVisible();
  await expect(page.getByText('Say how wide what each photograph shows is')).toBeVisible();
  const own = page.getByRole('region', { name: 'Signal box' });
  await own.getByRole('textbox', { name: 'It shows, across' }).fill('120');
  await own.getByRole('textbox', { name: 'It shows, across' }).press('Enter');
  await expect(page.getByText('Both photographs at one scale')).toBeVisible();
  const widthOf = async (name: string): Promise<number> =>
    (await page.getByRole('region', { name }).getByRole('img').boundingBox())!.width;
  expect((await widthOf('Window seat, front')) / (await widthOf('Signal box'))).toBeCloseTo(2, 1);

  // The workshop has it all, whoever asks.
  await page.goto(`${server.at}/log`);
  await search(page).fill('harbour latch');
  await expect(entries(page)).toHaveCount(1);
  await expect(entries(page)).toContainText('Signal box');
  await expect(entries(page).getByRole('img')).toHaveJSProperty('complete', true);
  expect(
    await entries(page)
      .getByRole('img')
      .evaluate((img: HTMLImageElement) => img.naturalWidth),
  ).toBeGreaterThan(0);
});

test('a piece is done again on one twice as large, by what was done, with what was said at its steps', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${server.at}/log/demo-log-lamp-oil-rack`);
  await page.getByRole('button', { name: 'Do it again' }).click();
  const sheet = page.getByRole('dialog');
  for (const name of ['As wide as', 'As high as']) {
    await sheet.getByRole('textbox', { name }).fill('200');
    await sheet.getByRole('textbox', { name }).press('Enter');
  }
  await expect(sheet).toContainText('480 mm × 300 mm, now 960 mm × 600 mm');
  await sheet.getByRole('button', { name: 'Make the plan' }).click();
  await page.waitForURL(/\/plan\/[0-9a-f-]+\/layers$/);
  await expect(page.getByRole('textbox', { name: 'Name of the plan' })).toHaveValue(
    'Lamp oil rack, back, again',
  );
  const plan = (await (
    await page.request.get(page.url().replace('/layers', '/file').replace('/plan/', '/api/plans/'))
  ).json()) as {
    piece: { parts: { widthMm: number; heightMm: number }[] };
    finishes: { steps: { medium: string; thicknessUm: number; note?: string }[] }[];
  };
  expect(plan.piece.parts[0]).toMatchObject({ widthMm: 960, heightMm: 600 });
  const [base, medium] = plan.finishes[0]!.steps;
  // The medium was weighed thinner than it was meant.
  expect(medium!.thicknessUm).toBeLessThan(100);
  expect(base!.note).toBe('the same again');
});

test('a backup is brought into an empty workshop, and everything is there: its own backup is the same', async ({
  page,
  server,
  quiet,
}) => {
  test.setTimeout(180_000);
  const folder = scratchFolder();
  const other = launch({ ZAFFET_DATA: folder.path, PORT: '0', ZAFFET_DEMO: 'off' });
  try {
    const at = (await other.url).replace(/\/$/, '');
    await page.goto(`${server.at}/log/backup`);
    const [saved] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Save the backup' }).click(),
    ]);
    const path = await saved.path();

    await page.goto(`${at}/plans`);
    await expect(page.getByText('No plans yet')).toBeVisible();
    await page.goto(`${at}/log/backup`);
    await page.getByLabel('Backup to bring in').setInputFiles({
      name: 'cut.zip',
      mimeType: 'application/zip',
      buffer: readFileSync(path).subarray(0, 5000),
    });
    await expect(page.getByRole('alert')).toContainText('cut short or damaged. Nothing was changed.');
    // A browser writes down by itself that something was refused.
    expect(quiet.splice(0)).toEqual([expect.stringContaining('400')]);
    await page.getByLabel('Backup to bring in').setInputFiles(path);
    await expect(page.getByRole('row', { name: /^Plans/ })).toContainText(/Plans\s*9\s*0\s*0/);
    await expect(page.getByRole('row', { name: /^Runs/ })).toContainText(/entries\s*13\s*0\s*0/);
    await page.getByRole('button', { name: 'Bring it in' }).click();
    await expect(page.getByText('It was brought in.')).toBeVisible({ timeout: 60_000 });
    const again = await page.request.get(`${at}/api/backup`);
    expect(Buffer.compare(await again.body(), readFileSync(path))).toBe(0);

    await page.getByRole('link', { name: 'To the log' }).click();
    await expect(page.getByRole('status')).toHaveText('13 entries');
    await page.goto(`${at}/plans`);
    await expect(page.getByRole('link', { name: /sea chest/i })).toBeVisible();
    await page.goto('about:blank');
  } finally {
    other.child.kill('SIGTERM');
    await other.ended;
    folder.remove();
  }
});

test('what a run used comes off the shelf, what is left over goes on it, and its photograph is kept', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  const tins = async (): Promise<{ kind: string; name: string; medium: string; amountMl: number }[]> =>
    ((await (await page.request.get(`${server.at}/api/shelf`)).json()) as { items: never[] }).items;
  const kelp = async (): Promise<number> =>
    (await tins()).find(({ kind, name }) => kind === 'tin' && name === 'Kelp, latex')!.amountMl;
  const before = await kelp();
  await page.goto(`${server.at}/bench/demo-board-glue`);
  const used = page.getByRole('textbox', { name: 'Used of Kelp, latex' });
  await expect(used).not.toHaveValue('');
  const amount = Number(await used.inputValue());
  expect(amount).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Take it off Kelp, latex' }).click();
  await expect(page.getByText(`${amount} mL taken off Kelp, latex`)).toBeVisible();
  await expect.poll(kelp).toBe(before - amount);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect.poll(kelp).toBe(before);
  const left = page.getByRole('textbox', { name: 'Left over, mixed, of Kelp' });
  await left.fill('40');
  await left.press('Enter');
  await expect(page.getByText('40 mL of Kelp stand on the shelf now.')).toBeVisible();
  await expect
    .poll(async () => (await tins()).some(({ kind, amountMl }) => kind === 'pot' && amountMl === 40))
    .toBeTruthy();

  await page.getByLabel('Photograph of the piece').setInputFiles(PICTURE);
  const picture = page.getByRole('img', { name: /^Dry/ });
  await expect(picture).toBeVisible();
  // From the workshop, once it has it.
  await expect(picture).toHaveAttribute('src', /\/api\/photos\/[0-9a-f]{64}\/screen$/);
  await page.reload();
  await expect(page.getByRole('img', { name: /^Dry/ })).toBeVisible();
  await page.getByRole('button', { name: /^Take back the photograph/ }).click();
  await expect(page.getByRole('img', { name: /^Dry/ })).toHaveCount(0);
  // What was taken back can be cleared away for good.
  await expect
    .poll(async () => (await page.request.get(`${server.at}/api/photos/unshown`)).json())
    .toMatchObject({ count: 1 });
  await page.goto(`${server.at}/log/backup`);
  await expect(page.getByText(/One photograph was taken back and still takes [\d.]+ MB/)).toBeVisible();
  await page.getByRole('button', { name: 'Clear them away for good' }).click();
  await expect(page.getByText(/was taken back/)).toHaveCount(0);

  // A tin says when it is to be bought again, and until when it is good.
  await page.goto(`${server.at}/shelf`);
  const [list] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'List (CSV)' }).click(),
  ]);
  expect(readFileSync(await list.path(), 'utf8')).toMatch(/\r\ntin,"?Kelp, latex/);
  const row = page.locator('[data-item="Kelp, latex"]');
  await expect(row.getByText('buy again')).toHaveCount(0);
  await row.getByRole('button', { name: 'More of Kelp, latex' }).click();
  await row.getByRole('textbox', { name: 'Buy again when no more is left than' }).fill('5000');
  await row.getByRole('textbox', { name: 'Buy again when no more is left than' }).press('Enter');
  await expect(row.getByText('buy again', { exact: true })).toBeVisible();
  await row.getByRole('textbox', { name: 'Price of Kelp, latex' }).fill('31');
  await row.getByRole('textbox', { name: 'Price of Kelp, latex' }).press('Enter');
  await expect(row.getByText(/A litre cost 24\.00 from .*, 31\.00 from/)).toBeVisible();
});
