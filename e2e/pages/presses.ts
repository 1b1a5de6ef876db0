import { type Page } from '@playwright/test';

/** Presses and typings that a job takes, counted. */
export class Presses {
  count = 0;
  constructor(private readonly page: Page) {}

  async on(
    role: 'button' | 'radio' | 'menuitem' | 'checkbox' | 'link',
    name: string | RegExp,
  ): Promise<void> {
    this.count++;
    await this.page.getByRole(role, { name }).first().click();
  }

  /** Chooses from a list: one press to open it, one for the word. */
  async choose(list: string, word: string | RegExp): Promise<void> {
    this.count += 2;
    await this.page.getByRole('combobox', { name: list }).click();
    await this.page.getByRole('option', { name: word }).click();
  }

  async type(field: string, text: string): Promise<void> {
    this.count++;
    await this.page.getByRole('textbox', { name: field }).fill(text);
    await this.page.keyboard.press('Tab');
  }

  /** A row of the steps in their order: its card opens. */
  async onStep(number: number): Promise<void> {
    this.count++;
    await this.page
      .locator('zf-order-list li .row')
      .nth(number - 1)
      .click();
  }

  /** Puts a step in after another: the plus between two rows, then the menu's words. */
  async putIn(after: number, ...words: readonly (string | RegExp)[]): Promise<void> {
    await this.page
      .locator('zf-order-list li')
      .nth(after - 1)
      .hover();
    await this.on('button', `Put a step in after step ${after}`);
    for (const word of words) await this.on('menuitem', word);
  }
}
