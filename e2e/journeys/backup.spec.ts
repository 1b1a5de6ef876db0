import { API, type PlanSummary, type RunAnswer } from '@zaffet/contract';
import { hashOf, photographOf, putPhotograph } from '../../apps/server/src/testing';
import { expect, OwnServer, test } from '../pages/own-server';

const PHOTOS = 30;
const PHOTO_BYTES = 2_000_000;

test('a backup whose server is killed in the midst of it is none; the next one is, and makes another machine the same', async ({
  page,
  server,
  quiet,
}) => {
  test.setTimeout(300_000);
  // Photographs that take a while, and a run at the bench.
  const hashes: string[] = [];
  for (let n = 0; n < PHOTOS; n++) {
    const photograph = photographOf(PHOTO_BYTES);
    expect((await putPhotograph(server.at, photograph)).status).toBe(204);
    hashes.push(photograph.hash);
  }
  await page.goto(`${server.at}/plans`);
  await page.getByRole('link', { name: /sea chest/i }).click();
  await page.waitForURL(/\/layers$/);
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await page.waitForURL(/\/bench\//);
  const run = page.url().split('/').at(-1)!;
  await expect(page.locator('zf-step-card')).toBeVisible({ timeout: 30_000 });

  // Killed once some of it is here.
  await page.goto(`${server.at}/log/backup`);
  const link = page.getByRole('link', { name: 'Save the backup' });
  const begun = page.waitForEvent('download');
  await link.click();
  const torn = await begun;
  await server.end('SIGKILL');
  expect(await torn.failure()).not.toBeNull();

  // It starts again with all there was, and makes one to its end.
  await server.begin();
  await page.goto(`${server.at}/log/backup`);
  const whole = page.waitForEvent('download');
  await link.click();
  const path = await (await whole).path();

  // On another machine, that knows nothing.
  const other = new OwnServer({ ZAFFET_DEMO: 'off' });
  await other.begin();
  await page.goto(`${other.at}/log/backup`);
  await page.getByLabel('Backup to bring in').setInputFiles(path);
  await expect(page.getByRole('row', { name: /^Photographs \d+ 0 0/ })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page.getByText('It was brought in.')).toBeVisible({ timeout: 60_000 });
  const listed = async (at: string): Promise<string[]> =>
    ((await (await fetch(at + API.plans)).json()) as PlanSummary[])
      .map(({ name, revision }) => `${name} ${revision}`)
      .sort();
  expect(await listed(other.at)).toEqual(await listed(server.at));
  const told = async (at: string): Promise<RunAnswer['events']> =>
    ((await (await fetch(at + API.runEvents(run))).json()) as RunAnswer).events;
  expect(await told(other.at)).toEqual(await told(server.at));
  for (const hash of hashes) {
    const bytes = Buffer.from(await (await fetch(other.at + API.photo(hash))).arrayBuffer());
    expect(hashOf(bytes)).toBe(hash);
  }
  await page.getByRole('link', { name: 'To the log' }).click();
  await expect(page.getByRole('link', { name: /sea chest/i }).first()).toBeVisible();
  // What the page asked of the server that was killed.
  quiet.splice(0, quiet.length, ...quiet.filter((line) => !/ERR_/.test(line)));
  await page.goto('about:blank');
  await other.end();
  other.remove();
});
