import { type BrowserContext, chromium, type Page } from '@playwright/test';
import { createHash, X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import jsQR from 'jsqr';
import { PNG } from 'pngjs';
import { BenchPage } from '../pages/bench.page';
import { expect, OwnServer } from '../pages/own-server';
import { test } from '../pages/quiet';

const PHRASE = 'five salt lamps burning';
/** What the browser itself writes of an answer that refuses, or of none. */
const REFUSED =
  /status of 401|ERR_CONNECTION_REFUSED|ERR_INTERNET_DISCONNECTED|ERR_INCOMPLETE_CHUNKED|ERR_CONNECTION_RESET|ERR_SOCKET_NOT_CONNECTED|ERR_EMPTY_RESPONSE|ERR_FAILED/;

const folder = mkdtempSync(join(tmpdir(), 'zaffet-door-'));
const phrase = join(folder, 'phrase');
writeFileSync(phrase, PHRASE);
test.afterAll(() => rmSync(folder, { recursive: true }));

/** What a camera reads in a picture on the page. */
async function readCode(page: Page, name: RegExp): Promise<string> {
  const shot = PNG.sync.read(await page.getByRole('img', { name }).screenshot({ scale: 'css' }));
  return jsQR(new Uint8ClampedArray(shot.data), shot.width, shot.height)!.data;
}

/** The server's key as a browser is told to trust it: what an authority in the device's settings does for all. */
function keyOf(server: OwnServer): string {
  const own = new X509Certificate(readFileSync(join(`${server.data}-keys`, 'server.crt')));
  return createHash('sha256')
    .update(own.publicKey.export({ type: 'spki', format: 'der' }))
    .digest('base64');
}

/** A device with a store of its own, that knows the workshop's name. @param trusted - whether it trusts its certificate */
async function device(server: OwnServer, heard: string[], trusted = true): Promise<BrowserContext> {
  const options = test.info().project.use;
  const context = await chromium.launchPersistentContext(mkdtempSync(join(folder, 'device-')), {
    executablePath: options.launchOptions!.executablePath!,
    viewport: { width: 1024, height: 768 },
    serviceWorkers: 'allow',
    args: [
      ...options.launchOptions!.args!,
      '--host-resolver-rules=MAP shop.test 127.0.0.1',
      ...(trusted ? [`--ignore-certificate-errors-spki-list=${keyOf(server)}`] : []),
    ],
  });
  context.on('console', (message) => {
    if (['error', 'warning'].includes(message.type()) && !REFUSED.test(message.text()))
      heard.push(message.text());
  });
  return context;
}

test('a tablet joins by what its camera reads, goes on without the server, is shut out and comes back; nothing is lost', async ({
  quiet,
}) => {
  test.setTimeout(300_000);
  const server = new OwnServer({
    ZAFFET_HOST: '0.0.0.0',
    ZAFFET_NAMES: 'shop.test',
    ZAFFET_PASSPHRASE_FILE: phrase,
  });
  await server.begin();
  expect(server.at).toMatch(/^https:\/\/shop\.test:/);
  const shop = await device(server, quiet);
  const [page] = shop.pages() as [Page];

  // Nobody is in yet: neither a plan nor its name is shown.
  await page.goto(`${server.at}/plans`);
  await expect(page.getByRole('heading', { name: 'Sign in to this workshop' })).toBeVisible();
  await expect(page.getByText('sea chest', { exact: false })).toHaveCount(0);
  await page.getByLabel('Name of this device').fill('Workshop');
  await page.getByLabel('Pass phrase').fill('open, door of paint');
  await page.getByRole('button', { name: 'Come in' }).click();
  await expect(page.getByRole('alert')).toHaveText('This is not the pass phrase of this workshop.');
  await page.getByLabel('Pass phrase').fill(PHRASE);
  await page.getByRole('button', { name: 'Come in' }).click();
  await page.getByRole('link', { name: /sea chest/i }).click();
  await page.waitForURL(/\/layers$/);
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await page.waitForURL(/\/bench\//);
  const run = new URL(page.url()).pathname;
  await page.getByRole('link', { name: 'Open on a tablet' }).click();
  await page.getByRole('button', { name: 'Make an invitation' }).click();
  await expect(page.getByText('goes to this run')).toBeVisible();
  const invitation = await readCode(page, /invitation/);
  expect(invitation).toBe(await page.getByLabel('Address of the invitation').inputValue());
  const trust = await readCode(page, /trust/);

  // What stands behind the first code is the way to trust, with the fingerprint that is compared.
  const stranger = await device(server, quiet, false);
  const [plain] = stranger.pages() as [Page];
  await plain.goto(trust);
  const fingerprint = (await page.locator('figure code').innerText()).replace(/\s/g, '');
  expect((await plain.locator('code').innerText()).replace(/\s/g, '')).toBe(fingerprint);
  const fetched = plain.waitForEvent('download');
  await plain.getByRole('link', { name: 'Fetch the certificate' }).click();
  const authority = new X509Certificate(readFileSync(await (await fetched).path()));
  expect(authority.fingerprint256.replaceAll(':', '')).toBe(fingerprint.replaceAll(':', ''));
  // Without it the browser lets nobody through.
  await expect(plain.goto(invitation)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
  await stranger.close();

  const tablets = await device(server, quiet);
  const [tablet] = tablets.pages() as [Page];
  await tablet.goto(invitation);
  await expect(tablet.getByRole('heading', { name: 'You are invited into this workshop' })).toBeVisible();
  await tablet.getByLabel('Name of this device').fill('Bench tablet');
  await tablet.getByRole('button', { name: 'Come in' }).click();
  await tablet.waitForURL(`**${run}`);
  expect(tablet.url()).toBe(server.at + run);
  await expect(tablet.locator('zf-step-card')).toBeVisible({ timeout: 30_000 });
  await tablet.waitForFunction(() => navigator.serviceWorker.controller !== null);

  const bench = new BenchPage(tablet);
  const note = async (text: string): Promise<void> => {
    await bench.settled();
    await bench.press(/^Tell more/);
    await tablet.getByLabel('Note').fill(text);
    await tablet.getByLabel('Note').press('Enter');
    await expect(tablet.getByLabel('Note')).toHaveCount(0);
  };
  await note('the hinge is bent');
  const toldOf = (text: string): Promise<number> =>
    page.evaluate(
      async ([path, wanted]) =>
        (await (await fetch(`/api/runs/${path}/events`)).text()).split(wanted!).length - 1,
      [run.split('/').at(-1), text],
    );
  await expect.poll(() => toldOf('the hinge is bent'), { timeout: 40_000 }).toBe(1);

  // The workshop's machine goes off: the tablet is opened anew and goes on.
  await server.end('SIGKILL');
  await tablet.reload();
  await expect(tablet.locator('.notices')).toContainText(/cannot be reached/, { timeout: 30_000 });
  await note('told while all was dark');
  await tablets.setOffline(true);
  await server.begin();
  // It is shut out before it has sent that; a key that was used lets nobody in again.
  await page.reload();
  await page.goto(`${server.at}/tablets`);
  await page.getByRole('button', { name: 'Shut Bench tablet out' }).click();
  await expect(page.getByText('Bench tablet')).toHaveCount(0);
  await tablets.setOffline(false);
  await expect(tablet.getByRole('heading', { name: 'Sign in to this workshop' })).toBeVisible({
    timeout: 60_000,
  });
  expect(await toldOf('told while all was dark')).toBe(0);
  await tablet.goto(invitation);
  await tablet.getByRole('button', { name: 'Come in' }).click();
  await expect(tablet.getByRole('alert')).toContainText('This invitation was used or is too old');
  await tablet.getByLabel('Pass phrase').fill(PHRASE);
  await tablet.getByRole('button', { name: 'Come in' }).click();
  await tablet.waitForURL(`**${run}`);
  await expect.poll(() => toldOf('told while all was dark'), { timeout: 40_000 }).toBe(1);
  expect(await toldOf('the hinge is bent')).toBe(1);

  // Out by its own hand.
  await page.getByRole('button', { name: 'Sign this device out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in to this workshop' })).toBeVisible();
  await Promise.all([tablets.close(), shop.close()]);
  await server.end();
  server.remove();
});

test('a device by plain http signs in, works, and is told what it cannot do', async ({ quiet }) => {
  test.setTimeout(180_000);
  const server = new OwnServer({
    ZAFFET_HOST: '0.0.0.0',
    ZAFFET_NAMES: 'shop.test',
    ZAFFET_PASSPHRASE_FILE: phrase,
    ZAFFET_TLS: 'off',
  });
  await server.begin();
  const context = await device(server, quiet, false);
  const [page] = context.pages() as [Page];
  await page.goto(`${server.at}/plans`);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);
  await page.getByLabel('Pass phrase').fill(PHRASE);
  await page.getByRole('button', { name: 'Come in' }).click();
  await page.getByRole('link', { name: /sea chest/i }).click();
  await page.waitForURL(/\/layers$/);
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await page.waitForURL(/\/bench\//);
  await expect(page.locator('.notices')).toContainText('without a certificate');
  await page
    .getByRole('button', { name: /^Tell more/ })
    .first()
    .click();
  await page.getByLabel('Note').fill('told in the open');
  await page.getByLabel('Note').press('Enter');
  const run = page.url().split('/').at(-1)!;
  await expect
    .poll(() => page.evaluate(async (id) => (await fetch(`/api/runs/${id}/events`)).text(), run))
    .toContain('told in the open');
  await context.close();
  await server.end();
  server.remove();
});
