import { type PlaywrightTestConfig } from '@playwright/test';
import { existsSync } from 'node:fs';

const CHROMIUM = [
  process.env['CHROME_BIN'],
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];

/** Debian's Chromium before a Zaffet that the tests start themselves (see pages/quiet.ts). */
export function zaffetConfig(changes: PlaywrightTestConfig): PlaywrightTestConfig {
  return {
    reporter: 'list',
    // One journey keeps two processors busy with its pages and the server: two at a time take longer than one by one.
    workers: 1,
    timeout: 120_000,
    expect: { timeout: 15_000 },
    use: {
      viewport: { width: 1280, height: 800 },
      // A kept page would hide what is answered for a test; the bench's journey allows it.
      serviceWorkers: 'block',
      timezoneId: 'Europe/Lisbon',
      locale: 'en-GB',
      launchOptions: {
        executablePath: CHROMIUM.find((path) => path !== undefined && existsSync(path)),
        args: [
          '--no-sandbox',
          '--disable-gpu',
          '--disable-quic',
          '--disable-background-networking',
          '--disable-component-update',
          '--disable-sync',
        ],
      },
    },
    ...changes,
  };
}
