import { type PlaywrightTestConfig } from '@playwright/test';
import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const CHROMIUM = [
  process.env['CHROME_BIN'],
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];

/** Zaffet on a new database with its demo data, and Debian's Chromium before it. */
export function zaffetConfig(port: number, changes: PlaywrightTestConfig): PlaywrightTestConfig {
  const baseURL = `http://127.0.0.1:${port}`;
  // Workers load the configuration too: the folder is made once and handed on.
  const data = (process.env['ZAFFET_E2E_DATA'] ??= join(mkdtempSync(join(tmpdir(), 'zaffet-e2e-')), 'data'));
  return {
    reporter: 'list',
    workers: 1,
    timeout: 120_000,
    expect: { timeout: 15_000 },
    use: {
      baseURL,
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
    webServer: {
      command: 'node --import tsx apps/server/src/main.ts',
      cwd: '..',
      url: `${baseURL}/api/health`,
      reuseExistingServer: false,
      timeout: 90_000,
      env: { PORT: String(port), ZAFFET_DATA: data, ZAFFET_BACKUPS: 'off' },
      gracefulShutdown: { signal: 'SIGTERM', timeout: 8000 },
    },
    ...changes,
  };
}
