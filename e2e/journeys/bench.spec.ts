import { type RunAnswer, type RunEvent } from '@zaffet/contract';
import { type Browser, type Page } from '@playwright/test';
import { BenchPage } from '../pages/bench.page';
import { expect, test } from '../pages/own-server';

const MONDAY = new Date('2026-11-30T08:00:00Z');

/** A tablet, with its own clock and its own store. */
async function tablet(browser: Browser): Promise<BenchPage> {
  const context = await browser.newContext({
    viewport: { width: 1024, height: 768 },
    timezoneId: 'Europe/Lisbon',
    serviceWorkers: 'allow',
  });
  const bench = new BenchPage(await context.newPage());
  await bench.keepClocks(MONDAY);
  return bench;
}

test('a lid over wet glue: told late, answered, the server killed, overbrushed, mended, and nothing lost', async ({
  browser,
  server,
}) => {
  test.setTimeout(300_000);
  const bench = await tablet(browser);
  const { page, card, notices } = bench;
  await page.goto(`${server.at}/plans`);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await page.getByRole('link', { name: /sea chest/i }).click();
  await page.waitForURL(/\/layers$/);
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'First comes' })).toBeVisible();
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await page.waitForURL(/\/bench\//);
  const runId = page.url().split('/').at(-1)!;

  // Preparation, its rest, and the base coat: cautions first, and done twelve minutes before it was told.
  await expect(card).toBeVisible();
  await bench.take('Lid');
  await bench.doIt(6);
  await bench.later(45);
  await bench.take('Lid');
  await expect(card.getByRole('heading', { level: 1 })).toHaveText('Kelp, base coat');
  // What concerns later use is said, and holds nothing.
  await expect(card).toContainText('Keep water and tints out of drinking cups');
  await bench.press('Begin');
  // A finger slips: what was told last is seen, and taken back at once.
  const last = card.locator('zf-told-last');
  await expect(last).toContainText(/Began Kelp.* on the lid/);
  await last.getByRole('button', { name: 'Take back' }).click();
  await expect(last).toContainText('Took something back');
  await bench.take('Lid');
  await bench.press(/^Begin$/);
  await bench.later(18);
  await bench.press(/^Tell more/);
  await page.getByRole('dialog').getByRole('button', { name: '12 min ago' }).click();
  await bench.take('Lid');
  await expect(card.getByRole('heading', { level: 1 })).toHaveText('Wait until it takes a coat');
  await expect(card).toContainText(/opens in/);

  // Two answers move the window, and say so.
  await bench.later(25);
  await bench.press('Still shiny');
  await expect(notices).toContainText(/The window opens at \d\d:\d\d, not \d\d:\d\d\./);
  const told = (await notices.innerText()).match(/\d\d:\d\d/g)!;
  expect(told[0]! > told[1]!).toBe(true);
  await bench.later(12);
  await bench.press('Going just now');
  await expect(notices).not.toContainText(`at ${told[0]!}, not ${told[1]!}`);

  // The server dies; the page is opened anew without it, and the work goes on.
  await expect.poll(() => notices.innerText()).not.toMatch(/cannot be reached/);
  await server.end('SIGKILL');
  await page.reload();
  await expect(card).toBeVisible({ timeout: 30_000 });
  await expect(notices).toContainText(/cannot be reached/, { timeout: 30_000 });
  await bench.later(240);
  await bench.take('Lid');
  await bench.readCautions();
  await bench.press(/^Glue/);
  await bench.later(1);
  await expect(page.locator('zf-section-tiles')).toContainText(/paint within/);
  await bench.press(/^Paint/);
  await page.getByRole('button', { name: '6', exact: true }).click();
  await expect(card).toContainText('leave it now');
  for (const section of [2, 3]) {
    await bench.press(/^Glue (section|one more)/);
    await bench.later(1);
    await bench.press(`Paint section ${section}`);
    await bench.later(1);
  }
  await bench.press('All painted');
  await bench.take('Lid');
  await expect(card).toContainText(/By all that was told it will not crack/);
  await expect(notices).toContainText(/\d+ things wait here/);

  // The browser loses its database, as it does on a full disk: what waits is in the journal, and waits again.
  await page.evaluate(
    () =>
      new Promise<void>((gone) => {
        const asked = indexedDB.deleteDatabase('zaffet-runs');
        asked.onsuccess = (): void => gone();
      }),
  );
  // It is back: everything is sent, and a second tablet knows it all.
  await server.begin();
  await page.reload();
  await expect(card).toBeVisible({ timeout: 30_000 });
  await bench.later(1);
  await expect(notices).not.toContainText(/cannot be reached/, { timeout: 40_000 });
  const second = await tablet(browser);
  await second.page.goto(`${server.at}/bench/${runId}`);
  await expect(second.card).toBeVisible({ timeout: 30_000 });
  await second.take('Lid');
  await second.press(/^Tell more/);
  await second.page.getByLabel('Note').fill('the rim was missed');
  await second.page.getByLabel('Note').press('Enter');
  await bench.press('What was told');
  await expect(bench.aside).toContainText('the rim was missed', { timeout: 20_000 });

  // It went wrong: too many strokes is what the run speaks for, and the way out becomes part of it.
  await bench.take('Lid');
  await bench.press('It went wrong');
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'No cracks come' }).click();
  await expect(sheet.locator('li').first()).toContainText('brushed too often');
  await expect(sheet.locator('li').first()).toContainText('speaks for it');
  await sheet.getByRole('button', { name: 'Put it into this run' }).first().click();
  await bench.settled();
  await expect(card).toContainText(/Then: Sand|Sand,/);

  // The record: all that was told, each once, counted without a gap.
  await expect
    .poll(async () => {
      const answer = await page.request.get(`${server.at}/api/runs/${runId}/events`);
      return ((await answer.json()) as RunAnswer).events.filter(({ event }) => event.kind === 'put-in')
        .length;
    })
    .toBe(3);
  const answer = (await (
    await page.request.get(`${server.at}/api/runs/${runId}/events`)
  ).json()) as RunAnswer;
  const events = answer.events.map(({ event }) => event);
  expect(answer.events.map(({ seq }) => seq)).toEqual(events.map((_, i) => i + 1));
  expect(new Set(events.map(({ id }) => id)).size).toBe(events.length);
  const count = (kind: RunEvent['kind']): number => events.filter((event) => event.kind === kind).length;
  expect(count('run-begun')).toBe(1);
  expect(count('seen')).toBe(2);
  expect(count('passes')).toBe(1);
  expect(events.filter((event) => event.kind === 'section' && event.painted).length).toBe(3);
  expect(events.find((event) => event.kind === 'done' && event.minutesAgo === 12)).toBeTruthy();
  // A browser that lost its database counts anew under another name.
  expect(new Set(events.map(({ device }) => device)).size).toBe(3);
  await page.context().close();
  await second.page.context().close();
});

/** A run of a demo plan, begun on a Monday morning. */
async function runOf(page: Page, plan: RegExp): Promise<BenchPage> {
  const bench = new BenchPage(page);
  await bench.keepClocks(MONDAY);
  await page.goto('/plans');
  await page.getByRole('link', { name: plan }).click();
  await page.waitForURL(/\/layers$/);
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await expect(bench.card).toBeVisible({ timeout: 30_000 });
  return bench;
}

/** Goes through what comes first, days at a time where it dries, until a card of a name is there. */
async function until(bench: BenchPage, title: RegExp): Promise<void> {
  const head = bench.card.getByRole('heading', { level: 1 });
  const anyway = bench.page.getByRole('button', { name: 'Start anyway' });
  const ready = bench.page.getByRole('button', { name: /^(Read: |Begin$|Start anyway)/ });
  for (let n = 0; n < 20; n++) {
    await expect(ready.first()).toBeVisible();
    // Read before the title: a card that comes meanwhile is met by its name.
    const waits = await anyway.isVisible();
    if (title.test(await head.innerText())) return;
    if (waits) {
      await bench.later(24 * 60);
      await expect(anyway).toBeHidden();
    } else await bench.doIt(6);
  }
  throw new Error(`${title} never came`);
}

test('milk paint on a sealer that grabs in some places: nothing chips, wet and warm air, look again, stop', async ({
  page,
}) => {
  test.slow();
  const bench = await runOf(page, /oar rack/i);
  const { card } = bench;
  await until(bench, /Wait until it grabs/);

  // Place by place: in none, then in some.
  await bench.later(30);
  await bench.press('Gone before');
  await expect(card).toContainText('Does it grab?');
  await bench.press('In no place');
  await bench.later(20);
  await bench.press('In some places');
  await until(bench, /coat 2|second|Sponge|Wet sponge|Wait until it is dry through/);

  // Nothing chips: wet patches and warm air come into the run, with what they would do, and a caution of their own.
  await bench.press('It went wrong');
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Nothing chips' }).click();
  await expect(sheet.getByText('Wet patches and warm air')).toBeVisible();
  await expect(sheet.locator('.effect').first()).toHaveText(/chipped|stay as they are/);
  await sheet.getByRole('button', { name: 'Put it into this run' }).first().click();
  await bench.settled();
  await until(bench, /Wet again/);
  await expect(card).toContainText('Wait, look, and wet again only where nothing gives.');
  await bench.doIt(3);
  await until(bench, /Hairdryer/);
  await expect(card).toContainText(/Keep it moving|keep it moving/);
  await bench.doIt(3);
  await bench.press('What was told');
  await expect(bench.aside).toContainText('Put in Wet again');
  await expect(bench.aside).toContainText('Does it grab? In some places');

  // Told by mistake, taken back: it counts no more.
  const line = bench.aside.locator('li').filter({ hasText: 'In some places' });
  await line.getByRole('button', { name: 'Take back' }).click();
  await expect(line).toHaveClass(/gone/);
});

test('glue that cures over night: stopped, rung for the next morning, finished and judged', async ({
  page,
}) => {
  test.slow();
  const bench = await runOf(page, /lamp shelf/i);
  const { card, notices } = bench;
  await until(bench, /Wait/);
  await bench.later(24 * 60);
  await expect(notices).toContainText(/is ready for/);
  await until(bench, /Sailcloth|Hide glue|glue/i);
  await bench.doIt(8);

  // Stopped over night nothing rings; in the morning it goes on where it stood.
  await bench.press('Stop for now');
  await expect(page.getByRole('heading', { name: 'Stopped for now' })).toBeVisible();
  await bench.later(14 * 60);
  await expect(notices).toHaveText('');
  await page.reload();
  await bench.press('Go on');
  await expect(card).toBeVisible();

  const saved = page.waitForEvent('download');
  await bench.press('Alarms as a calendar file');
  expect((await saved).suggestedFilename()).toMatch(/bench.*\.ics$/i);

  for (let n = 0; n < 8 && (await card.isVisible()); n++) {
    if (await page.getByRole('button', { name: 'Finish the run' }).isVisible()) break;
    if (await page.getByRole('button', { name: 'Start anyway' }).isVisible()) await bench.later(24 * 60);
    else await bench.doIt(6);
  }
  await bench.press('Finish the run');
  await expect(page.getByRole('heading', { name: 'Finished' })).toBeVisible();
  const record = page.locator('zf-run-record');
  await expect(record.getByRole('row')).not.toHaveCount(1);
  await expect(record).toContainText(/later|sooner/);
  await record.getByRole('button', { name: 'Just right' }).click();
  await expect(record.getByRole('button', { name: 'Just right' })).toHaveAttribute('aria-pressed', 'true');
  await record.getByLabel('Cracks apart').fill('4.2');
  await record.getByLabel('Cracks apart').press('Enter');
  await bench.press('What was told');
  await expect(bench.aside).toContainText('Measured the front rail');
  await page.reload();
  await expect(record.getByLabel('Cracks apart')).toHaveValue('4.2');
  await expect(record.getByRole('button', { name: 'Just right' })).toHaveAttribute('aria-pressed', 'true');
  await bench.press('Go on with it');
  await expect(page.getByRole('button', { name: 'Finish the run' })).toBeVisible();
});

test('an alarm comes though the browser has put its page to sleep, by the clock that pages share', async ({
  browser,
  server,
}) => {
  const context = await browser.newContext({ serviceWorkers: 'allow', permissions: ['notifications'] });
  const page = await context.newPage();
  await page.goto(`${server.at}/plans`);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  const notices = (of: Page): Promise<string[]> =>
    of.evaluate(async () => {
      const registration = await navigator.serviceWorker.getRegistration();
      return (await registration!.getNotifications()).map(({ body, tag }) => `${tag}: ${body}`);
    });
  // As the bench does: it tells the shared clock what it wants rung.
  await page.evaluate(async () => {
    const listed = await (await fetch('/sw.js')).text();
    const files = [...listed.matchAll(/\/worker-[A-Z0-9]+\.js/g)].map(([address]) => address);
    const texts = await Promise.all(files.map(async (file) => (await fetch(file)).text()));
    const clock = files[texts.findIndex((text) => text.includes('/__ring'))]!;
    const { port } = new SharedWorker(clock, { type: 'module' });
    const ring = (id: string, after: number): object => ({
      ...{ id, at: Date.now() + after, text: `${id} now`, to: '/plans' },
    });
    port.postMessage({
      kind: 'wanted',
      runId: 'r',
      rings: [ring('go', 500), ring('told', 600), ring('later', 60_000)],
    });
    port.postMessage({ kind: 'rung', runId: 'r', ids: [] });
    setTimeout(() => port.postMessage({ kind: 'rung', runId: 'r', ids: ['told'] }), 700);
    await new Promise((go) => setTimeout(go, 1200));
  });
  const session = await context.newCDPSession(page);
  await session.send('Page.setWebLifecycleState', { state: 'frozen' });
  const other = await context.newPage();
  await other.goto(`${server.at}/plans`);
  await expect.poll(() => notices(other), { timeout: 15_000 }).toEqual(['go: go now']);
  await context.close();
});
