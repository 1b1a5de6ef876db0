import { expect, test as base } from '@playwright/test';

/** The page's own worker is kept out of journeys that do not want it. */
const BLOCKED = /^Service Worker registration blocked/;

/** A test that fails on any error or warning the page writes to its console. */
export const test = base.extend<{ quiet: string[] }>({
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
