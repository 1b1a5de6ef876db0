import { expect, test as base } from '@playwright/test';

/** A test that fails on any error or warning the page writes to its console. */
export const test = base.extend<{ quiet: string[] }>({
  quiet: [
    async ({ page }, use) => {
      const heard: string[] = [];
      page.on('console', (message) => {
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
