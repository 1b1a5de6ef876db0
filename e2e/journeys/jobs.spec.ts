import { type Plan, type PlanStep } from '@zaffet/contract';
import { type Page } from '@playwright/test';
import { LayersPage } from '../pages/layers.page';
import { PlansPage } from '../pages/plans.page';
import { Presses } from '../pages/presses';
import { expect, test } from '../pages/quiet';

/** What a painter decides, in as few presses as it takes. */
type Decision = (press: Presses, page: Page) => Promise<void>;

interface Job {
  readonly name: string;
  readonly piece: string;
  readonly way: RegExp;
  /** Beside the piece and the way. */
  readonly decides: readonly Decision[];
  /** What the plan then says. */
  readonly says: (steps: readonly PlanStep[]) => void;
  /** What it comes to: a figure that is told. */
  readonly shows: 'spacing' | 'chips' | 'worn' | null;
}

const onCard =
  (step: number, act: (press: Presses) => Promise<void>): Decision =>
  async (press, page) => {
    await press.onStep(step);
    await act(press);
    await page.keyboard.press('Escape');
    press.count++;
  };
const putIn =
  (after: number, ...words: readonly (string | RegExp)[]): Decision =>
  async (press, page) => {
    await press.putIn(after, ...words);
    await page.keyboard.press('Escape');
  };
const of = <K extends PlanStep['kind']>(
  steps: readonly PlanStep[],
  kind: K,
): Extract<PlanStep, { kind: K }>[] =>
  steps.filter((step): step is Extract<PlanStep, { kind: K }> => step.kind === kind);

/** One of each main way of working. */
const JOBS: readonly Job[] = [
  {
    name: 'a chest cracked over dried medium, its top coat brushed crosswise',
    piece: 'Chest',
    way: /^Crackle over dried medium/,
    decides: [onCard(3, (press) => press.on('radio', 'Crosswise'))],
    says: (steps) => expect(of(steps, 'coat').at(-1)).toMatchObject({ strokes: 'crosswise' }),
    shows: 'spacing',
  },
  {
    name: 'a leaf cracked over wet glue, the pull left out',
    piece: 'Door or shutter leaf',
    way: /^Crackle over wet white glue/,
    decides: [onCard(2, (press) => press.on('button', 'Pull'))],
    says: (steps) => expect(of(steps, 'coat')[1]).toMatchObject({ medium: 'pva', except: ['Pull'] }),
    shows: 'spacing',
  },
  {
    name: 'a shelf in a fine web over hide glue thinned by a third',
    piece: 'Shelf',
    way: /^Crackle over cured hide glue/,
    decides: [onCard(2, (press) => press.type('Water stirred in', '33'))],
    says: (steps) => expect(of(steps, 'coat')[1]).toMatchObject({ medium: 'hide', dilution: 0.33 }),
    shows: 'spacing',
  },
  {
    name: 'a bracket in chippy milk paint on a tacky sealer, sponged at its corners',
    piece: 'Bracket',
    way: /^Chippy milk paint/,
    decides: [
      onCard(4, (press) => press.type('Bonding additive, of the full dose', '25')),
      onCard(5, (press) => press.on('radio', 'Corners only')),
    ],
    says: (steps) => {
      expect(of(steps, 'coat').at(-1)).toMatchObject({ medium: 'milk', bonding: 0.25 });
      expect(of(steps, 'distress')[0]).toMatchObject({ tool: 'sponge', where: 'corners' });
    },
    shows: 'chips',
  },
  {
    name: 'a frame on brittle ground, wax dabbed on, a sponge with tea in its water',
    piece: 'Mirror frame',
    way: /^Brittle chalk ground/,
    decides: [
      putIn(5, 'Resist under the paint', 'Candle wax'),
      onCard(9, (press) => press.on('checkbox', 'Tea or stain in the water')),
    ],
    says: (steps) => {
      expect(steps[5]).toMatchObject({ kind: 'resist', agent: 'candle' });
      expect(steps[8]).toMatchObject({ kind: 'distress', tool: 'sponge', tint: { name: 'Strong tea' } });
    },
    shows: 'chips',
  },
  {
    name: 'a chest of drawers with jelly at its edges, wiped',
    piece: 'Chest of drawers',
    way: /^Jelly under paint/,
    decides: [onCard(3, (press) => press.on('radio', 'Edges and corners'))],
    says: (steps) => expect(of(steps, 'resist')[0]).toMatchObject({ agent: 'jelly', where: 'edges' }),
    shows: 'chips',
  },
  {
    name: 'a bench with salt craters and tissue on top',
    piece: 'Bench',
    way: /^Salt craters/,
    decides: [putIn(6, 'Work beside the layers', 'Tissue or print')],
    says: (steps) => expect(steps[6]).toMatchObject({ kind: 'companion', print: { holds: 'clear' } }),
    shows: 'chips',
  },
  {
    name: 'a cabinet softened with bleach, much of it smeared back',
    piece: 'Cabinet with two leaves',
    way: /^Softened with bleach/,
    decides: [onCard(3, (press) => press.type('Smeared back', '60'))],
    says: (steps) => expect(of(steps, 'distress')[0]).toMatchObject({ tool: 'bleach', smear: 0.6 }),
    shows: 'worn',
  },
  {
    name: 'a framed leaf with a thick base, its field left to the blade',
    piece: 'Framed leaf, panel apart',
    way: /^Thick base and blade/,
    decides: [onCard(4, (press) => press.on('radio', 'Field only'))],
    says: (steps) => expect(of(steps, 'distress')[0]).toMatchObject({ tool: 'blade', where: 'field' }),
    shows: 'worn',
  },
  {
    name: 'a round top in three colours, wiped back wet with a sponge pressed and turned',
    piece: 'Round table',
    way: /^Wiped back while re-soluble/,
    decides: [onCard(5, (press) => press.choose('With', 'Sponge pressed and turned'))],
    says: (steps) => expect(of(steps, 'distress')[1]).toMatchObject({ tool: 'press' }),
    shows: 'worn',
  },
];

// A smaller Face is drawn sooner: what is looked at here is the way there.
test.use({ viewport: { width: 1024, height: 700 } });

for (const { name, piece, way, decides, says, shows } of JOBS) {
  test(`built in few presses: ${name}`, async ({ page }) => {
    const press = new Presses(page);
    const layers = new LayersPage(page);
    await new PlansPage(page).open();
    await press.on('button', 'New plan');
    await press.on('radio', piece);
    await press.on('radio', way);
    // No decision of the painter's: what comes of it must not depend on the hour of the day.
    await page.getByRole('radio', { name: 'Any time' }).click();
    await press.on('button', /^Begin$/);
    await page.waitForURL(/\/plan\/.+\/layers/);
    await page.getByRole('radio', { name: 'In order' }).click();
    press.count++;
    for (const decide of decides) await decide(press, page);
    // The piece and the way are decisions too.
    expect(press.count).toBeLessThanOrEqual(3 * (decides.length + 2));

    await layers.saved();
    const id = /plan\/([^/]+)/.exec(page.url())![1]!;
    const { plan } = (await (await page.request.get(`/api/plans/${id}`)).json()) as { plan: Plan };
    says(plan.finishes[0]!.steps);
    if (shows !== null) expect(await layers.figure(shows)).toBeGreaterThan(0);
    await page.request.delete(`/api/plans/${id}`);
  });
}
