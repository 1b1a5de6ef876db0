import { expect, test as base } from '@playwright/test';
import { launch, scratchFolder } from '../../apps/server/src/testing';

/** The page's own worker is kept out of journeys that do not want it. */
const BLOCKED = /^Service Worker registration blocked/;

/**
 * A test that fails on any error or warning the page writes to its console. Each process of tests has a Zaffet of its
 * own, with a new database and the demo data.
 */
export const test = base.extend<{ quiet: string[] }, { address: string }>({
  address: [
    async ({}, use) => {
      const folder = scratchFolder();
      const server = launch({ ZAFFET_DATA: folder.path, ZAFFET_DEMO: 'on', TZ: 'Europe/Lisbon' });
      await use(await server.url);
      server.child.kill('SIGTERM');
      await server.ended;
      folder.remove();
    },
    { scope: 'worker', timeout: 90_000 },
  ],
  baseURL: ({ address }, use) => use(address),
  quiet: [
    async ({ page }, use) => {
      const heard: string[] = [];
      page.on('console', (message) => {
        if (BLOCKED.test(message.text())) return;
        if (['error', 'warning'].includes(message.type())) heard.push(message.text());
      });
      page.on('pageerror', (error) => heard.push(error.message));
      await use(heard);
      expect(heard).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };
