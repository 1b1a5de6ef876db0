import { type Page } from '@playwright/test';
import { type Express } from 'express';
import { execFileSync } from 'node:child_process';
import { cpSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { type AddressInfo } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { buildApp } from '../../apps/server/src/app';
import { openEmbedded } from '../../apps/server/src/db/client';
import { loadDemo } from '../../apps/server/src/demo';
import { SheetMaker } from '../../apps/server/src/sheet/maker';
import { mustNotFail, scratchFolder } from '../../apps/server/src/testing';
import { expect, test } from '../pages/quiet';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const BUILT = join(ROOT, 'dist/web');
/** In the chunk of a room that is loaded only when it is opened. */
const LAZY = 'One sample board, measured';

/** A name as a file of other content has. */
const renamed = (name: string): string =>
  name.replace(/-([A-Z0-9]{8})\./, (_, hash: string) => `-${[...hash].reverse().join('')}.`);

/** The built page once more, as a newer build is: one lazy chunk is another, and so is whatever names it. */
function newerBuild(folder: string): { readonly old: string; readonly fresh: string } {
  cpSync(BUILT, folder, { recursive: true });
  const browser = join(folder, 'browser');
  const scripts = readdirSync(browser).filter((name) => name.endsWith('.js') && name !== 'sw.js');
  const texts = new Map(
    [...scripts, 'index.html'].map((name) => [name, readFileSync(join(browser, name), 'utf8')]),
  );
  const old = scripts.find((name) => texts.get(name)!.includes(LAZY))!;
  texts.set(old, texts.get(old)!.replace(LAZY, `Newer: ${LAZY}`));
  const others = [old];
  for (const other of others)
    for (const name of scripts)
      if (!others.includes(name) && texts.get(name)!.includes(other)) others.push(name);
  for (const [name, text] of texts) {
    const newText = others.reduce((all, other) => all.replaceAll(other, renamed(other)), text);
    writeFileSync(join(browser, name), newText);
    if (others.includes(name)) renameSync(join(browser, name), join(browser, renamed(name)));
  }
  execFileSync(process.execPath, ['tools/shell.mjs', browser], { cwd: ROOT });
  return { old, fresh: renamed(old) };
}

const update = (page: Page): Promise<boolean> =>
  page.evaluate(async () => {
    const registration = (await navigator.serviceWorker.getRegistration())!;
    return registration.update().then(
      () => true,
      () => false,
    );
  });

test('a newer build waits for the hand, an open page keeps its own, and files that do not fit are not taken', async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const folder = scratchFolder();
  const sheets = new SheetMaker();
  const { db, close } = await openEmbedded(join(folder.path, 'data'), mustNotFail);
  await loadDemo(db, join(ROOT, 'demo/plans'));
  const serving = (webDirectory: string): Express =>
    buildApp({ db, log: pino({ level: 'silent' }), sheets, webDirectory });
  const newer = join(folder.path, 'newer');
  const { old, fresh } = newerBuild(newer);
  let app = serving(BUILT);
  const server = createServer((request, response) => void app(request, response));
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const context = await browser.newContext({ serviceWorkers: 'allow' });
  const page = await context.newPage();
  const offer = page.getByText('A newer Zaffet is ready.');
  const boards = async (): Promise<void> => {
    await page.getByRole('link', { name: 'Boards' }).click();
    await expect(page.getByText(LAZY)).toBeVisible();
  };
  try {
    await page.goto(`${at}/plans`);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);

    // Half of the files are another build's: what is there stays in charge, and nobody is asked.
    const mixed = join(folder.path, 'mixed');
    cpSync(newer, mixed, { recursive: true });
    writeFileSync(join(mixed, 'browser', fresh), '// of yet another build');
    app = serving(mixed);
    await update(page);
    await page.waitForTimeout(3000);
    await expect(offer).toHaveCount(0);

    // The newer build is there: it waits, and the old page finds a chunk that the server has no more.
    app = serving(newer);
    expect((await page.request.get(`${at}/${old}`)).status()).toBe(404);
    await update(page);
    await expect(offer).toBeVisible({ timeout: 30_000 });
    await boards();
    await expect(page.getByText(`Newer: ${LAZY}`)).toHaveCount(0);
    await page.reload();
    await expect(page.getByText(LAZY)).toBeVisible();
    await expect(page.getByText(`Newer: ${LAZY}`)).toHaveCount(0);

    // Taken by hand: the page comes anew, all of one build, and without the server too.
    await page.getByRole('button', { name: 'Take it now' }).click();
    await expect(page.getByText(`Newer: ${LAZY}`)).toBeVisible({ timeout: 30_000 });
    await expect(offer).toHaveCount(0);
    await page.goto(`${at}/plans`);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    server.closeAllConnections();
    await new Promise((ended) => server.close(ended));
    await page.reload();
    await page.getByRole('link', { name: 'Boards' }).click();
    await expect(page.getByText(`Newer: ${LAZY}`)).toBeVisible();
  } finally {
    await context.close();
    server.close();
    await sheets.close();
    await close();
    folder.remove();
  }
});
