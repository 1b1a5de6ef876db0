import { launch, type Launched, scratchFolder } from '../../apps/server/src/testing';
import { expect, test as base } from './quiet';

/** A server of the test's own, that can be killed and begun again at the same address. */
export class OwnServer {
  private readonly folder = scratchFolder();
  private running: Launched | null = null;
  at = '';

  constructor(private readonly env: Readonly<Record<string, string>> = {}) {}

  get data(): string {
    return this.folder.path;
  }

  async begin(): Promise<void> {
    const port = this.at === '' ? '0' : new URL(this.at).port;
    this.running = launch({ ZAFFET_DATA: this.folder.path, PORT: port, ZAFFET_DEMO: 'on', ...this.env });
    this.at = (await this.running.url).replace(/\/$/, '');
    expect(this.at).not.toBe('');
  }

  async end(signal: 'SIGKILL' | 'SIGTERM' = 'SIGTERM'): Promise<void> {
    this.running?.child.kill(signal);
    await this.running?.ended;
    this.running = null;
  }

  remove(): void {
    this.folder.remove();
  }
}

export const test = base.extend<{ server: OwnServer }>({
  server: async ({ page }, use) => {
    const server = new OwnServer();
    await server.begin();
    await use(server);
    // A page that still asks would tell its console that nobody answers.
    await page.goto('about:blank');
    await server.end();
    server.remove();
  },
});

export { expect };
