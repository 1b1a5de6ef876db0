import AxeBuilder from '@axe-core/playwright';
import { type Page } from '@playwright/test';
import { writtenOtherwise } from '../../packages/words/src/testing/notation';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { expect, test } from '../pages/quiet';

/** What the focused element is called; empty when nothing has the focus. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement;
    return at instanceof HTMLElement || at instanceof SVGElement
      ? (at.getAttribute('aria-label') ?? at.textContent ?? '').trim()
      : '';
  });

/** Presses Tab, or Shift and Tab, until an element of that accessible name has the focus. */
async function tabTo(page: Page, name: RegExp, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
  for (let i = 0; i < 80; i++) {
    await page.keyboard.press(key);
    if (name.test(await focused(page))) return;
  }
  throw new Error(`${key} never reached ${name}`);
}

test('the keyboard alone makes a plan, thickens it, moves the top coat and undoes', async ({ page }) => {
  const layers = new LayersPage(page);
  await new PlansPage(page).open();
  await expect(page.getByRole('link', { name: "Keeper's sea chest" })).toBeVisible();
  await tabTo(page, /New plan/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'What are you going to paint?' })).toBeVisible();
  await tabTo(page, /dried medium/);
  await page.keyboard.press('ArrowDown');
  await tabTo(page, /^Begin$/);
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/layers/);
  await expect(layers.surface('White glue')).toBeVisible();

  const spacing = await layers.figure('spacing');
  await tabTo(page, /White glue, wet film thickness/);
  for (let i = 0; i < 5; i++) await page.keyboard.press('PageUp');
  expect(await layers.figure('spacing')).toBeGreaterThan(spacing);

  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Step' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Step' })).toBeHidden();

  const strength = await layers.figure('strength');
  await tabTo(page, /Sailcloth, minutes after the step before/);
  for (let i = 0; i < 4; i++) await page.keyboard.press('PageUp');
  expect(await layers.figure('strength')).toBeLessThan(strength);
  await page.keyboard.press('Control+z');
  // Zaffet works out the schedule again first: with working hours the moments come from it.
  await expect.poll(() => layers.figure('strength')).toBe(strength);
  await layers.saved();
});

/** Rooms with what stands in each once it is there. */
const ROOMS = {
  piece: 'zf-prep-list',
  look: 'zf-wants-panel',
  layers: 'zf-readout-view',
  days: 'zf-days-board',
  mix: 'zf-pot-card',
  bench: '.begin',
  shelf: '[data-item]',
} as const;
const PAGES = {
  plans: 'zf-plan-tile',
  guide: 'main h2',
  shelf: '[data-item]',
  boards: 'tbody tr',
  log: '.card',
  'log/kept': 'tbody tr',
  'log/backup': '#in',
  'log/demo-log-boot-box': 'zf-run-record tbody tr',
  'log/demo-log-boot-box/beside/demo-log-window-seat': 'ol li',
} as const;

/** @param rules - those looked at; all of them when left out */
async function nothingWrong(page: Page, rules: readonly string[] = []): Promise<void> {
  const axe = new AxeBuilder({ page });
  const { violations } = await (rules.length === 0 ? axe : axe.withRules([...rules])).analyze();
  expect(
    violations.map((violation) => `${violation.id}: ${violation.nodes.map((node) => node.html).join(' | ')}`),
  ).toEqual([]);
}

/** Everything that is read of a page: its text, and what only a screen reader or a hint says. */
const allText = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const said = ['aria-label', 'aria-valuetext', 'aria-description', 'title', 'placeholder'];
    const hidden = [...document.querySelectorAll(said.map((name) => `[${name}]`).join())].flatMap((element) =>
      said.map((name) => element.getAttribute(name) ?? ''),
    );
    const fields = [...document.querySelectorAll('input')].map(({ value }) => value);
    return [document.body.innerText, ...hidden, ...fields].join('\n');
  });

/** Asks for inches, ounces and 12 hours. */
const byTheInch = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    localStorage.setItem('zaffet.units', 'imperial');
    localStorage.setItem('zaffet.clock', '12');
  });

/** Finds no unit or hour that was not asked for. */
async function inInchesAndBy12Hours(page: Page): Promise<void> {
  expect(writtenOtherwise(await allText(page)), page.url()).toEqual([]);
}

/** Looks at a room in both schemes: the dark one changes colours and nothing else. */
async function nothingWrongLightOrDark(page: Page): Promise<void> {
  await inInchesAndBy12Hours(page);
  await nothingWrong(page, []);
  await page.emulateMedia({ colorScheme: 'dark' });
  await nothingWrong(page, ['color-contrast']);
  await page.emulateMedia({ colorScheme: 'light' });
}

test('axe finds nothing wrong in any room, light or dark; each writes in inches and by 12 hours', async ({
  page,
}) => {
  test.slow();
  await byTheInch(page);
  for (const [path, there] of Object.entries(PAGES)) {
    await page.goto(`/${path}`);
    await expect(page.locator(there).first()).toBeVisible();
    await nothingWrongLightOrDark(page);
  }
  await new PlansPage(page).open();
  await new PlansPage(page).openPlan("Keeper's sea chest");
  for (const room of Object.keys(ROOMS)) {
    await go(page, room as keyof typeof ROOMS);
    await nothingWrongLightOrDark(page);
  }
  await go(page, 'bench');
  await page.getByRole('button', { name: 'Begin a run now' }).click();
  await expect(page.locator('zf-step-card')).toBeVisible();
  await nothingWrongLightOrDark(page);
});

/** Goes to a room of the open plan. */
async function go(page: Page, room: keyof typeof ROOMS): Promise<void> {
  const name = `${room[0]!.toUpperCase()}${room.slice(1)}`;
  await page.getByRole('navigation', { name: 'Rooms' }).getByRole('link', { name, exact: true }).click();
  await page.waitForURL(new RegExp(`/${room}$`));
  await expect(page.locator(ROOMS[room]).first()).toBeVisible();
}

test('sheets and cards are written in inches and by 12 hours', async ({ page }) => {
  await byTheInch(page);
  await new PlansPage(page).open();
  await new PlansPage(page).openPlan("Keeper's sea chest");
  const sheets: readonly (readonly [keyof typeof ROOMS, RegExp])[] = [
    ['look', /^Find recipes for this look/],
    ['layers', /^Begin from a method/],
    ['layers', /^Worked /],
    ['layers', /^White glue/],
  ];
  let at: string | null = null;
  for (const [room, name] of sheets) {
    if (at !== room) await go(page, (at = room) as keyof typeof ROOMS);
    await page.getByRole('button', { name }).first().click();
    await expect(page.getByRole('dialog').first()).toBeVisible();
    await inInchesAndBy12Hours(page);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
});

test('every kind of step is reached by keys, and work beside the layers', async ({ page }) => {
  test.slow();
  await new PlansPage(page).open();
  await new PlansPage(page).begin('Crackle over dried medium');
  const add = page.getByRole('button', { name: 'Add a step on top' });
  /** Entries of the menu, of the one that opens from it, and what the step is called then. */
  const kinds: readonly (readonly [RegExp, RegExp | null, RegExp])[] = [
    [/^Paint$/, /^Clay/, /Clay-based paint/],
    [/^What cracks it$/, /^White glue/, /White glue/],
    [/^Primer, stain, glaze$/, /^Water-borne bonding primer/, /bonding primer/],
    [/^Clear coat between$/, /^Shellac/, /Shellac/],
    [/^Seal to finish$/, /^White wax/, /White wax/],
    [/^Resist under the paint$/, /^Petroleum jelly/, /Petroleum jelly/],
    [/^Distress$/, /^Damp cloth/, /Damp cloth/],
    [/^Hot air$/, null, /Hairdryer/],
    [/^Wet again$/, null, /Wet again/],
    [/^Wipe off dust or jelly$/, null, /Wipe off/],
    [/^Wait$/, null, /Wait/],
    [/^Work beside the layers$/, /^Tissue/, /Tissue or print/],
  ];
  for (const [entry, inner, title] of kinds) {
    await add.focus();
    await page.keyboard.press('Enter');
    await keyTo(page, entry);
    if (inner !== null) {
      await page.keyboard.press('ArrowRight');
      await keyTo(page, inner);
    }
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog', { name: 'Step' }).getByRole('heading')).toContainText(title);
    // The hand is back where it was before the next key.
    await expect(add).toBeFocused();
  }
});

/** Goes down a menu by its arrow keys until an entry of that name has the focus. */
async function keyTo(page: Page, name: RegExp): Promise<void> {
  await expect(page.getByRole('menuitem', { name })).toBeVisible();
  // A menu has the keys a moment after it is seen.
  await expect(page.getByRole('menu').last().locator(':focus')).toHaveCount(1);
  for (let i = 0; i < 24; i++) {
    const text = await page.evaluate(() => document.activeElement?.textContent.trim() ?? '');
    if (name.test(text)) return;
    await page.keyboard.press('ArrowDown');
  }
  throw new Error(`the arrow keys never reached ${name}`);
}

test('every method, template and remedy is reached by keys', async ({ page }) => {
  test.slow();
  const layers = new LayersPage(page);
  await new PlansPage(page).open();
  await new PlansPage(page).begin('Crackle over wet white glue');
  await page.getByRole('button', { name: 'Begin from a method' }).focus();
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('dialog', { name: 'Begin from a method' });
  const methods = sheet.locator('[data-method]');
  await expect(methods).toHaveCount(17);
  const reached = new Set<string>();
  for (let i = 0; i < 40 && reached.size < 17; i++) {
    const key = await page.evaluate(() => document.activeElement?.getAttribute('data-method') ?? null);
    if (key !== null) reached.add(key);
    if (reached.size < 17) await page.keyboard.press('Tab');
  }
  expect(reached.size).toBe(17);
  await page.keyboard.press('Enter');
  await expect(sheet).toBeHidden();

  // A remedy: the top coat two hours late for its glue.
  await page.keyboard.press('Control+z');
  const wait = layers.start('Sailcloth');
  await wait.focus();
  for (let i = 0; i < 14; i++) await page.keyboard.press('PageUp');
  await expect(layers.finding('glue-dried')).toBeVisible();
  await tabTo(page, /^Paint a minute after the glue/, 'Shift+Tab');
  await page.keyboard.press('Enter');
  await expect(layers.finding('glue-dried')).toBeHidden();
  await expect(layers.finding('glue-grabs')).toBeVisible();

  // Templates of pieces, by arrow keys.
  await page.getByRole('link', { name: 'Piece', exact: true }).click();
  await page.getByRole('button', { name: 'From a template' }).focus();
  await page.keyboard.press('Enter');
  const piece = page.getByRole('dialog', { name: 'Which piece is it?' });
  const kinds = piece.getByRole('radio');
  await expect(kinds.first()).toBeFocused();
  for (let i = 1; i < (await kinds.count()); i++) {
    await page.keyboard.press('ArrowDown');
    await expect(kinds.nth(i)).toBeChecked();
  }
  await piece.getByRole('button', { name: 'Unfold it' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Seat,/ })).toBeVisible();
});
