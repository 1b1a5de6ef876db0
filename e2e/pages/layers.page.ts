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

  /** A figure of the readout as a number in its shown unit, once it is that of the plan as it stands. */
  async figure(key: 'spacing' | 'opening' | 'openArea' | 'strength' | 'chips' | 'worn'): Promise<number> {
    await this.drawn();
    await expect(this.page.locator('zf-readout-view:not([aria-busy])')).toBeVisible();
    return Number(await this.page.locator(`[data-figure="${key}"] .number b`).innerText());
  }

  /** The plan's own picture on the Face. */
  get picture(): Locator {
    return this.page.locator('zf-face-view .own canvas').first();
  }

  /** Waits until the fine picture is another one than before. */
  async otherPicture(before: string): Promise<string> {
    await expect
      .poll(
        async () =>
          (await this.picture.getAttribute('data-quality')) === 'full' &&
          (await this.picture.getAttribute('data-fingerprint')) !== before,
        { timeout: 30_000 },
      )
      .toBe(true);
    return (await this.picture.getAttribute('data-fingerprint'))!;
  }

  /** What a part of the picture holds, by shares of its width and height, as a sum of its bytes. */
  part(u0: number, v0: number, u1: number, v1: number): Promise<number> {
    return this.picture.evaluate(
      (canvas: HTMLCanvasElement, [u0, v0, u1, v1]) => {
        const { width, height } = canvas;
        const [x, y] = [Math.round(u0 * width), Math.round(v0 * height)];
        const size = [Math.round((u1 - u0) * width), Math.round((v1 - v0) * height)] as const;
        const copy = document.createElement('canvas');
        copy.width = width;
        copy.height = height;
        const context = copy.getContext('2d', { willReadFrequently: true })!;
        context.drawImage(canvas, 0, 0);
        const { data } = context.getImageData(x, y, ...size);
        return data.reduce((hash, byte) => (hash * 31 + byte) % 1_000_000_007, 7);
      },
      [u0, v0, u1, v1] as const,
    );
  }

  /** Paints a stroke on the Face, by shares of the picture. */
  async paint(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    const box = (await this.page.getByRole('application', { name: /^Painting surface/ }).boundingBox())!;
    const at = ([u, v]: readonly [number, number]): [number, number] => [
      box.x + u * box.width,
      box.y + v * box.height,
    ];
    await this.page.mouse.move(...at(from));
    await this.page.mouse.down();
    await this.page.mouse.move(...at(to), { steps: 12 });
    await this.drawn();
    await this.page.mouse.up();
  }

  finding(code: string): Locator {
    return this.page.locator(`zf-readout-view [data-finding="${code}"]`);
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
    const canvas = this.picture;
    await expect(canvas).toHaveAttribute('data-quality', 'full', { timeout: 30_000 });
    return (await canvas.getAttribute('data-fingerprint'))!;
  }
}
