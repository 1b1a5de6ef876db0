import { expect, type Locator, type Page } from '@playwright/test';

/** The workbench, as a painter's hands know it. */
export class LayersPage {
  constructor(readonly page: Page) {}

  /** The grip of a coat's surface in the Section, by the coat's title. */
  surface(title: string): Locator {
    return this.page.getByRole('slider', { name: `${title}, wet film thickness` });
  }

  /** The grip of a coat's start in the Clock. */
  start(title: string): Locator {
    return this.page.getByRole('slider', { name: `${title}, minutes after the step before` });
  }

  /** The page draws what a hand did in its next frame. */
  private async drawn(): Promise<void> {
    await this.page.evaluate(
      () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
    );
  }

  /** A figure of the readout as a number in its shown unit. */
  async figure(key: 'spacing' | 'opening' | 'openArea' | 'strength'): Promise<number> {
    await this.drawn();
    return Number(await this.page.locator(`[data-figure="${key}"] .number b`).innerText());
  }

  finding(code: string): Locator {
    return this.page.locator(`[data-finding="${code}"]`);
  }

  /** Drags a grip; `under` runs while the pointer is still down at the end of the way. */
  async dragBy(grip: Locator, dx: number, dy: number, under?: () => Promise<void>): Promise<void> {
    const box = (await grip.locator('.handle').boundingBox())!;
    const x = box.x + box.width / 2;
    const y = box.y + box.height / 2;
    await this.page.mouse.move(x, y);
    await this.page.mouse.down();
    for (let step = 1; step <= 8; step++)
      await this.page.mouse.move(x + (dx * step) / 8, y + (dy * step) / 8);
    await under?.();
    await this.page.mouse.up();
  }

  async value(grip: Locator): Promise<number> {
    await this.drawn();
    return Number(await grip.getAttribute('aria-valuenow'));
  }

  async saved(): Promise<void> {
    await expect(this.page.getByRole('status').filter({ hasText: /^saved \d\d:\d\d$/ })).toBeVisible();
  }

  /** Waits for the fine picture and gives its fingerprint. */
  async finePicture(): Promise<string> {
    const canvas = this.page.locator('zf-face-view canvas');
    await expect(canvas).toHaveAttribute('data-quality', 'full', { timeout: 30_000 });
    return (await canvas.getAttribute('data-fingerprint'))!;
  }
}
