import { type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { drawPanel } from '../../packages/core/src/face';
import { playedFace } from '../../packages/core/src/testing/faces';
import { coat, FIRST, planOf, when } from '../../packages/core/src/testing/plans';
import { LayersPage } from '../pages/layers.page';
import { expect, test } from '../pages/own-server';

/** What Layers foretells of the chest's first part, with its band. */
async function spacingOf(page: Page, at: string): Promise<string> {
  const layers = new LayersPage(page);
  await page.goto(`${at}/plans`);
  await page.getByRole('link', { name: /sea chest/i }).click();
  await page.waitForURL(/\/layers$/);
  await layers.figure('spacing');
  return (await page.locator('[data-figure="spacing"]').innerText()).replace(/\s+/g, ' ');
}

test('a board that was measured: what it teaches is used, everywhere, and taken back to the digit', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  const tables = await spacingOf(page, server.at);

  await page.goto(`${server.at}/boards`);
  const learned = page.getByRole('region', { name: 'What was learned' });
  await expect(learned).toContainText('by the tables');
  await expect(learned).toContainText(/White glue slips \d+\s% more than the table; sure to within/);
  await expect(page.getByRole('row').filter({ hasText: 'Cell 1' })).toContainText('6.1 mm');

  // A cell left out moves what is learned; put back, it is as before.
  const lesson = learned.getByText(/White glue slips/);
  const all = await lesson.innerText();
  const counts = page.getByRole('checkbox', { name: /Cell 3 counts/ });
  await counts.uncheck();
  await expect(lesson).not.toHaveText(all);
  await counts.check();
  await expect(lesson).toHaveText(all);
  await page.getByRole('button', { name: /foretold by the others/ }).click();
  await expect(page.getByRole('columnheader', { name: 'By one median' })).toBeVisible({ timeout: 30_000 });

  await page.getByRole('button', { name: 'Go by this' }).click();
  await expect(learned).toContainText(/Everything goes by what \d+ runs taught/);
  const own = await spacingOf(page, server.at);
  expect(own).not.toBe(tables);

  // It holds for who opens Zaffet anew, and on the server too.
  await page.reload();
  expect(await spacingOf(page, server.at)).toBe(own);
  await page.goto(`${server.at}/boards`);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a file' }).click(),
  ]);
  const [readings] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the readings (CSV)' }).click(),
  ]);
  expect(readFileSync(await readings.path(), 'utf8')).toMatch(/^board,cell,reading,unit,read,tables/);
  await page.getByRole('button', { name: 'Go back to before' }).click();
  await expect(learned).toContainText('by the tables');
  expect(await spacingOf(page, server.at)).toBe(tables);

  // What one shop learned goes to another as a file; what is none says so, and changes nothing.
  await page.goto(`${server.at}/boards`);
  const bring = page.getByLabel('Calibration of another shop');
  await bring.setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{"lear') });
  await expect(page.getByRole('alert')).toContainText('not readable JSON');
  await bring.setInputFiles(await file.path());
  await expect(learned).toContainText(/Everything goes by what \d+ runs taught/);
  expect(await spacingOf(page, server.at)).toBe(own);

  // Nothing is overwritten: what held before is listed, and each of it can hold again.
  await page.goto(`${server.at}/boards`);
  await page.getByText('What held before').click();
  const earlier = learned.getByRole('listitem').filter({ hasText: 'Go back to this' });
  await expect(earlier).toHaveCount(2);
  await earlier.filter({ hasText: 'the tables' }).getByRole('button').click();
  await expect(learned).toContainText('by the tables');
});

test('a board for a question: its cells are chosen, made a plan, and begun at the bench', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${server.at}/boards`);
  const fresh = page.getByRole('region', { name: 'A new board' });
  const part = fresh.getByRole('combobox');
  await expect(part).not.toBeEmpty();
  await part.click();
  await page.getByRole('option', { name: /chest/i }).first().click();
  await fresh.getByRole('button', { name: /^When to coat/ }).click();
  await fresh.getByRole('button', { name: '3 cells' }).click();
  await fresh.getByRole('button', { name: 'Choose the cells' }).click();
  await expect(fresh.locator('.cells li')).toHaveCount(3, { timeout: 30_000 });
  await expect(fresh).toContainText(/to within \d+ % after all 3/);
  await fresh.getByRole('button', { name: /^Make it/ }).click();
  await page.waitForURL(/\/plan\/.+\/bench$/);
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await page.waitForURL(/\/bench\//);
  await expect(page.locator('zf-step-card')).toContainText(/Step 1 of/);
  await expect(page.locator('header .part')).toHaveText(/Cell \d/);

  // It is printed with the frame it will be photographed in.
  await page.goto(`${server.at}/boards`);
  const made = page.getByRole('region', { name: 'Boards that were made' });
  const [sheet] = await Promise.all([
    page.waitForEvent('download'),
    made.getByRole('link', { name: 'Sheet and frame (PDF)' }).click(),
  ]);
  expect(sheet.suggestedFilename()).toMatch(/-board-sheet\.pdf$/);
  await expect(made.getByRole('link', { name: 'Upper left piece' })).toBeVisible();
});

test('a board is read whole from the simulated camera, a cell put right by hand, and learned from', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${server.at}/bench/demo-board-glue`);
  await page.getByRole('button', { name: /^Read all cells/ }).click();
  const sheet = page.getByRole('dialog');

  // What is no photograph of a board says what to do, and nothing is lost.
  const file = sheet.getByLabel('Photograph of the board in its frame');
  const blank = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [800, 600];
    return canvas.toDataURL('image/png').split(',')[1]!;
  });
  const put = (name: string, bytes: Buffer): Promise<void> =>
    file.setInputFiles({ name, mimeType: 'image/png', buffer: bytes });
  await put('blank.png', Buffer.from(blank, 'base64'));
  await expect(sheet.getByRole('alert')).toContainText('marks of the frame is 0 of 12', { timeout: 30_000 });
  await put('notes.png', Buffer.from('no picture at all'));
  await expect(sheet.getByRole('alert')).toContainText('cannot be opened');
  const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(64)]);
  await put('photo.heic', heic);
  await expect(sheet.getByRole('alert')).toContainText('HEIC');

  // The camera can be stopped, and begun again.
  await sheet.getByRole('button', { name: 'Simulated camera' }).click();
  await sheet.getByRole('button', { name: 'Stop' }).click();
  await expect(sheet.getByRole('status')).toHaveCount(0);
  await sheet.getByRole('button', { name: 'Simulated camera' }).click();
  const figures = sheet.locator('.figures dl');
  await expect(figures).toContainText(/Cracks apart [\d.]+ mm, \d+ % either way/, { timeout: 120_000 });

  // By the keys: a stroke over the middle of the second cell, and back.
  const second = sheet.getByRole('button', { name: 'Cell 2' });
  await second.click();
  // Its figures come as it is in hand.
  await expect(second).toHaveAttribute('aria-pressed', 'true');
  const before = await figures.innerText();
  await sheet.getByRole('button', { name: 'Wipe out a crack' }).click();
  const canvas = sheet.getByRole('img', { name: /^Cell 2.*arrow keys/ });
  await canvas.focus();
  for (const key of ['Enter', ...Array.from({ length: 6 }, () => 'Shift+ArrowRight'), 'Enter'])
    await canvas.press(key);
  const back = sheet.getByRole('button', { name: 'Take back the last stroke' });
  await expect(back).toBeEnabled({ timeout: 30_000 });
  await expect(figures).not.toHaveText(before);
  await back.click();
  await expect(back).toHaveCount(0, { timeout: 30_000 });
  await expect.poll(() => figures.innerText()).toBe(before);

  await sheet.getByRole('checkbox', { name: /take Cell 5/ }).uncheck();
  await sheet.getByRole('button', { name: 'Take the figures of 4 cells' }).click();
  await expect(sheet).toHaveCount(0);
  const first = page.getByLabel('Cracks apart').first();
  await expect(first).not.toHaveValue('6.1');
  const own = await first.inputValue();

  await expect
    .poll(async () => (await page.request.get(`${server.at}/api/runs`)).text())
    .toContain('"upTo":83');
  await page.goto(`${server.at}/boards`);
  const row = page.getByRole('row').filter({ hasText: 'Cell 1' });
  await expect(row).toContainText(
    `${Number(own)
      .toPrecision(2)
      .replace(/\.?0+$/, '')}`,
  );
  await expect(page.getByRole('region', { name: 'What was learned' })).toContainText(/White glue slips/);
});

test('a photograph of a cell is measured, and what is too thin in it is not told', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${server.at}/bench/demo-board-glue`);
  const { result, panel } = playedFace(
    planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#2f4c50' }),
      coat('medium', 'crackle', 190, when('through-dry')),
      coat('top', 'chalk', 150, when('touch-dry'), { colour: '#e2d9c3' }),
    ]),
    'close',
    900,
  );
  const { columns, rows, rgba } = drawPanel(result.scene, panel, { raking: -0.25 });
  /** The cell askew in a larger picture, as many times smaller. */
  const photograph = (smaller: number): Promise<string> =>
    page.evaluate(
      ({ columns, rows, bytes, smaller }) => {
        const cell = document.createElement('canvas');
        [cell.width, cell.height] = [columns, rows];
        const data = Uint8ClampedArray.from(atob(bytes), (c) => c.charCodeAt(0));
        cell.getContext('2d')!.putImageData(new ImageData(data, columns, rows), 0, 0);
        const photo = document.createElement('canvas');
        [photo.width, photo.height] = [1200 / smaller, 1000 / smaller];
        const context = photo.getContext('2d')!;
        context.fillStyle = '#6b5233';
        context.fillRect(0, 0, photo.width, photo.height);
        context.drawImage(cell, 120 / smaller, 120 / smaller, 900 / smaller, 600 / smaller);
        return photo.toDataURL('image/png').split(',')[1]!;
      },
      { columns, rows, bytes: Buffer.from(rgba.buffer).toString('base64'), smaller },
    );
  await page
    .getByRole('button', { name: /Measure from a photograph/ })
    .first()
    .click();
  const sheet = page.getByRole('dialog');
  const measured = async (smaller: number): Promise<void> => {
    await sheet.getByLabel('Photograph to measure').setInputFiles({
      name: 'cell.png',
      mimeType: 'image/png',
      buffer: Buffer.from(await photograph(smaller), 'base64'),
    });
    await expect(sheet.getByRole('button', { name: /^Upper left corner/ })).toBeVisible();
    // By the keys: from an eighth in to where the cell lies, coarse steps first.
    const put = async (corner: string, x: number, y: number): Promise<void> => {
      const handle = sheet.getByRole('button', { name: new RegExp(`^${corner} corner`) });
      await handle.focus();
      const go = async (key: string, by: number): Promise<void> => {
        const steps = Math.round(Math.abs(by) * 1000);
        for (let n = 0; n < Math.floor(steps / 10); n++) await handle.press(`Shift+${key}`);
        for (let n = 0; n < steps % 10; n++) await handle.press(key);
      };
      await go(x < 0 ? 'ArrowLeft' : 'ArrowRight', x);
      await go(y < 0 ? 'ArrowUp' : 'ArrowDown', y);
    };
    await put('Upper left', -0.02, 0);
    await put('Upper right', -0.03, 0);
    await put('Lower right', -0.03, -0.16);
    await put('Lower left', -0.02, -0.16);
    await sheet.getByLabel('Across').fill('60');
    await sheet.getByLabel('Down').fill('40');
    await sheet.getByRole('button', { name: 'Measure', exact: true }).click();
    await expect(sheet.getByText('In the picture')).toBeVisible({ timeout: 30_000 });
  };
  await measured(6);
  await expect(sheet).toContainText(/go nearer/);
  await expect(sheet.getByRole('button', { name: 'Take these figures' })).toBeDisabled();
  await measured(1);
  await expect(sheet).toContainText(/Cracks apart\s*about [78](\.\d)? mm/);
  await sheet.getByRole('button', { name: 'Take these figures' }).click();
  await expect(sheet).toBeHidden();
  await expect(page.getByLabel('Cracks apart').first()).toHaveValue(/^[78](\.\d+)?$/);
  await expect(page.getByLabel('Cracks open').first()).toHaveValue(/^(0\.9\d*|1(\.0\d*|\.1\d*)?)$/);

  // The same picture as a wish: so shall the chest look.
  await page.goto(`${server.at}/plans`);
  await page.getByRole('link', { name: /sea chest/i }).click();
  await page.waitForURL(/\/layers$/);
  await page.goto(page.url().replace(/layers$/, 'look'));
  await page.getByRole('button', { name: /^Measure a picture of it/ }).click();
  await measured(1);
  await sheet.getByRole('button', { name: 'Take these figures' }).click();
  await expect(page.getByLabel('Wanted: Crack spacing')).toHaveValue(/^[78](\.\d)?$/);
  await expect(page.getByLabel('Wanted: Crack opening')).toHaveValue(/^(0\.9\d?|1(\.[01]\d?)?)$/);
});
