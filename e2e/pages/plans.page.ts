import { type Page } from '@playwright/test';

/** The list of plans. */
export class PlansPage {
  constructor(readonly page: Page) {}

  async open(): Promise<void> {
    await this.page.goto('/plans');
  }

  /** Works by day and night: what comes of a journey must not depend on the hour at which it is made. */
  async begin(school: string): Promise<void> {
    await this.page.getByRole('button', { name: 'New plan', exact: true }).click();
    const sheet = this.page.getByRole('dialog', { name: 'What are you going to paint?' });
    await sheet.getByRole('radio', { name: school }).check();
    await sheet.getByRole('radio', { name: 'Any time' }).click();
    await sheet.getByRole('button', { name: 'Begin', exact: true }).click();
    await this.page.waitForURL(/\/plan\/.+\/layers/);
  }

  async openPlan(name: string): Promise<void> {
    await this.page.getByRole('link', { name }).click();
    await this.page.waitForURL(/\/plan\/.+\/layers/);
  }

  async bringIn(name: string, content: string): Promise<void> {
    await this.page
      .getByLabel('Plan file to bring in')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) });
  }
}
