import { expect, type Locator, type Page } from '@playwright/test';

const MINUTE = 60_000;

/** The bench of a run, by a clock that the test moves on. */
export class BenchPage {
  readonly card: Locator;
  readonly aside: Locator;
  readonly notices: Locator;

  constructor(readonly page: Page) {
    this.card = page.locator('zf-step-card');
    this.aside = page.locator('aside');
    this.notices = page.locator('.notices');
  }

  /** The server's clock goes with the page's: both are the test's. */
  async keepClocks(at: Date): Promise<void> {
    await this.page.clock.install({ time: at });
    await this.page.route(/\/api\/(clock$|runs\/[^/]+\/events)/, async (route) => {
      try {
        const response = await route.fetch();
        const json = (await response.json()) as { now?: string };
        if (json.now !== undefined) json.now = new Date(await this.now()).toISOString();
        await route.fulfill({ response, json });
      } catch {
        await route.abort().catch(() => undefined);
      }
    });
  }

  /** By the page's clock; asked again where the page just gives way to another. */
  private async now(): Promise<number> {
    let at = 0;
    await expect(async () => {
      at = await this.page.evaluate(() => Date.now());
    }).toPass();
    return at;
  }

  async later(minutes: number): Promise<void> {
    await this.page.clock.fastForward(minutes * MINUTE);
  }

  /** What stands on the card shows all that was told. */
  async settled(): Promise<void> {
    await expect(this.page.locator('.bench')).not.toHaveClass(/busy/);
  }

  async press(name: string | RegExp): Promise<void> {
    await this.page.getByRole('button', { name }).first().click({ timeout: 15_000 });
    await this.settled();
  }

  async readCautions(): Promise<void> {
    const read = this.card.getByRole('button', { name: /^Read: / });
    while ((await read.count()) > 0) {
      const left = await read.count();
      await read.first().click();
      await expect.poll(() => read.count()).toBeLessThan(left);
    }
  }

  /** Takes a part in hand. */
  async take(part: string): Promise<void> {
    const head = this.page.locator('header .part');
    if ((await head.innerText()) !== part)
      await this.aside.getByRole('button', { name: part }).first().click();
    await expect(head).toHaveText(part);
  }

  /** Begins what the card says, and has it done so many minutes later. */
  async doIt(minutes: number): Promise<void> {
    const done = this.page.getByRole('button', { name: 'Done', exact: true });
    await this.readCautions();
    // Not "Start anyway": what has to wait is not begun by a slip.
    await this.press(/^Begin$/);
    await expect(done).toBeVisible();
    await this.later(minutes);
    await done.click();
    await expect(done).toBeHidden();
    await this.settled();
  }
}
