import { type RunAnswer } from '@zaffet/contract';
import { type Browser, type Page, test } from '@playwright/test';
import { chance } from '../../packages/workshop/src/testing/random';
import { LossyLink } from '../pages/lossy-link';
import { OwnServer } from '../pages/own-server';

/** How many notes each tablet tells. */
const EACH = Number(process.env['ZAFFET_CHAOS_NOTES'] ?? 100);
/** Share of packets that are lost between tablets and server. */
const LOSS = Number(process.env['ZAFFET_CHAOS_LOSS'] ?? 0);
const SEED = 20261201;
const FAST_MS = 7 * 60_000;
/** Further than trips to a busy server explain [ms]. */
const FARTHEST_MS = 5000;
/** A reload at every so many notes; a kill so often, and gone for so long [ms]. */
const RELOAD_EVERY = 12;
const KILL_EVERY = 9000;
const AWAY = 2500;
const OPENED_AT_MOST = 10;

/** A browser of its own whose clock goes wrong by so much [ms]. */
async function tablet(browser: Browser, fastMs: number): Promise<Page> {
  const context = await browser.newContext({ serviceWorkers: 'allow' });
  await context.addInitScript((by) => {
    const Right = Date;
    const late = (): number => Right.now() + by;
    globalThis.Date = new Proxy(Right, {
      construct: (of, args) => new of(...((args.length === 0 ? [late()] : args) as [number])),
      get: (of, name) => (name === 'now' ? late : (Reflect.get(of, name) as unknown)),
    });
  }, fastMs);
  context.setDefaultTimeout(60_000);
  return context.newPage();
}

/** Opens an address as a person does: once more where the link broke before the page was there. */
async function open(page: Page, address: string, sign: string): Promise<void> {
  for (let tries = 0; ; tries++) {
    try {
      await page.goto(address);
      await page.locator(sign).first().waitFor();
      return;
    } catch (error) {
      if (tries === OPENED_AT_MOST) throw error;
    }
  }
}

/** Waits until the page opens without the server; its files may need several tries on a bad link. */
const isStored = (page: Page): Promise<unknown> =>
  page.waitForFunction(() => navigator.serviceWorker.controller !== null, null, { timeout: 600_000 });

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

test('two tablets, one seven minutes fast, tell notes while pages are reloaded and the server is killed', async ({
  browser,
}) => {
  const server = new OwnServer();
  await server.begin();
  const link = new LossyLink(server.at, LOSS, chance(SEED));
  await link.begin();
  const [first, second] = [await tablet(browser, 0), await tablet(browser, FAST_MS)];
  await open(first, `${link.at}/plans`, 'zf-plan-tile');
  await first.getByRole('link', { name: /sea chest/i }).click();
  await first.getByRole('link', { name: 'Bench', exact: true }).click();
  await first.getByRole('button', { name: 'Begin a run now' }).click();
  await first.waitForURL(/bench\//);
  const run = first.url().split('/').at(-1)!;
  await first.locator('zf-step-card').waitFor();
  await isStored(first);

  const told = new Map<string, number>();
  const troubles: string[] = [];
  const counts = { kills: 0, reloads: 0 };
  const work = async (page: Page, who: string): Promise<void> => {
    for (let n = 0; n < EACH; n++) {
      try {
        if (n % RELOAD_EVERY === RELOAD_EVERY - 1) {
          counts.reloads++;
          await page.reload();
        }
        if (!(await page.getByLabel('Note').isVisible()))
          await page
            .getByRole('button', { name: /^Tell more/ })
            .first()
            .click();
        const text = `${who} said ${n}`;
        await page.getByLabel('Note').fill(text);
        const at = Date.now();
        await page.getByLabel('Note').press('Enter');
        await page.getByLabel('Note').waitFor({ state: 'detached', timeout: 20_000 });
        told.set(text, at);
      } catch (error) {
        troubles.push(`${who} ${n}: ${String(error).split('\n')[0]}`);
        await page.goto(`${link.at}/bench/${run}`).catch(() => undefined);
      }
    }
  };
  await open(second, `${link.at}/bench/${run}`, 'zf-step-card');
  await isStored(second);
  let over = false;
  const killer = (async (): Promise<void> => {
    for (;;) {
      for (let waited = 0; waited < KILL_EVERY && !over; waited += 100) await rest(100);
      if (over) return;
      await server.end('SIGKILL');
      counts.kills++;
      await rest(AWAY);
      await server.begin();
    }
  })();
  await Promise.all([work(first, 'A'), work(second, 'B')]);
  over = true;
  await killer;

  type Told = RunAnswer['events'][number];
  const events = async (): Promise<Told[]> => {
    const all: Told[] = [];
    for (;;) {
      const answer = await fetch(`${server.at}/api/runs/${run}/events?after=${all.length}`);
      const { events: more } = (await answer.json()) as RunAnswer;
      if (more.length === 0) return all;
      all.push(...more);
    }
  };
  const textsOf = (all: readonly Told[]): string[] =>
    all.flatMap(({ event }) => (event.kind === 'note' ? [event.text] : []));
  let all = await events();
  for (let i = 0; i < 90 && textsOf(all).length < told.size; i++) {
    await rest(1000);
    all = await events();
  }
  const texts = textsOf(all);
  /** How far the moments as told are from when they were, by the server's clock [ms]. */
  const off = all.flatMap(({ event }) =>
    event.kind === 'note' && told.has(event.text)
      ? [Math.abs(Date.parse(event.at) + event.offsetMs - told.get(event.text)!)]
      : [],
  );
  const report = {
    ...counts,
    loss: LOSS,
    told: told.size,
    kept: texts.length,
    lost: [...told.keys()].filter((text) => !texts.includes(text)),
    doubled: texts.length - new Set(texts).size,
    others: all.length - texts.length - 1,
    gaps: all.filter(({ seq }, i) => seq !== i + 1).length,
    farthestMs: Math.max(...off),
    troubles,
  };
  process.stdout.write(`${JSON.stringify(report)}\n`);
  link.end();
  await server.end();
  server.remove();
  test.expect(report.lost).toEqual([]);
  test.expect(report.farthestMs).toBeLessThan(FARTHEST_MS);
  test.expect([report.doubled, report.gaps, report.others]).toEqual([0, 0, 0]);
});
