import { type Air } from '../air';
import { type Coat, type PanelPlan } from '../plan';
import { coat, FIRST, overGlue, overMedium, planOf, room, when } from '../testing/plans';
import { forecastOf } from '../testing/forecasts';
import { figureValues } from '../readout';
import { type CoatForecast } from './types';

/*
 * What practitioners see, as plans. Common practice, no source. Each row is a value with its tolerance or a
 * direction, and is read from the forecast of a whole plan.
 */

const coatOf = (plan: PanelPlan, id: string): CoatForecast =>
  forecastOf(plan).coats.find((c) => c.coat.id === id)!;
const figures = (plan: PanelPlan): ReturnType<typeof figureValues> => figureValues(forecastOf(plan));
const spacingMm = (plan: PanelPlan): number => (figures(plan).spacing ?? 0) * 1000;
const openingMm = (plan: PanelPlan): number => (figures(plan).opening ?? 0) * 1000;
const strength = (plan: PanelPlan): number => figures(plan).strength ?? 0;
const firstMin = (plan: PanelPlan): number => (figures(plan).firstCracks ?? Infinity) / 60;
const touchMin = (plan: PanelPlan, id: string): number => {
  const c = coatOf(plan, id);
  return ((c.open.touch ?? Infinity) - c.laidAt) / 60;
};

const DAMP: Air = room(15, 0.85);
const HOT: Air = room(30, 0.3);
const overHide = (glueUm: number, topUm: number, hours: number, air: Air = room()): PanelPlan =>
  planOf(
    [
      coat('base', 'latex', 90, FIRST),
      coat('glue', 'hide', glueUm, when('through-dry')),
      coat('top', 'chalk', topUm, { rule: 'after', wait: hours * 3600 }),
    ],
    air,
  );

interface Fact {
  readonly fact: string;
  readonly value: () => number;
  readonly from: number;
  readonly to: number;
}

const FACTS: readonly Fact[] = [
  {
    fact: 'chalk-type paint is touch-dry in about 30 min',
    value: () => touchMin(planOf([coat('a', 'chalk', 80, FIRST)]), 'a'),
    from: 22,
    to: 40,
  },
  {
    fact: 'thin crackle medium is dry in about 30 min',
    value: () => touchMin(overMedium(70, 60), 'medium'),
    from: 22,
    to: 38,
  },
  {
    fact: 'over dry medium a thin top coat shows its first cracks by about 10 min',
    value: () => firstMin(overMedium(70, 60)),
    from: 1,
    to: 10.5,
  },
  {
    fact: 'over dry medium a thick top coat shows them sooner (ratio)',
    value: () => firstMin(overMedium(70, 200)) / firstMin(overMedium(70, 60)),
    from: 0.1,
    to: 0.9,
  },
  {
    fact: 'over wet glue crazing begins within minutes',
    value: () => firstMin(overGlue(110, 90, 120)),
    from: 1.5,
    to: 8,
  },
  {
    fact: 'over wet glue a thick top coat crazes later than an ordinary one (ratio)',
    value: () => firstMin(overGlue(110, 200, 120)) / firstMin(overGlue(110, 90, 120)),
    from: 1.05,
    to: 4,
  },
  {
    fact: 'over wet glue the cracks go on for long after they begin, min',
    value: () => {
      const c = coatOf(overGlue(110, 90, 120), 'top').crack!;
      return (c.doneAt! - c.firstAt!) / 60;
    },
    from: 15,
    to: 120,
  },
  {
    fact: 'white glue stays open for a few minutes',
    value: () => {
      const c = coatOf(overGlue(110, 90, 120), 'glue');
      return (c.window!.closesAt! - c.laidAt) / 60;
    },
    from: 2,
    to: 8,
  },
  {
    fact: 'thin over thin crackle medium gives cracks 1 to 2 mm apart',
    value: () => spacingMm(overMedium(55, 55)),
    from: 1,
    to: 2,
  },
  {
    fact: 'thick over thick crackle medium gives 15 to 25 mm',
    value: () => spacingMm(overMedium(250, 250)),
    from: 15,
    to: 25,
  },
  {
    fact: 'thin over thin they are hairlines, mm',
    value: () => openingMm(overMedium(55, 55)),
    from: 0.05,
    to: 0.25,
  },
  {
    fact: 'thick over thick they gape 1 to 3 mm',
    value: () => openingMm(overMedium(250, 250)),
    from: 1,
    to: 3,
  },
  {
    fact: 'thin over thin glue gives 1 to 2 mm',
    value: () => spacingMm(overGlue(55, 55, 180)),
    from: 1,
    to: 2,
  },
  {
    fact: 'thick over thick glue gives 15 to 25 mm',
    value: () => spacingMm(overGlue(250, 250, 180)),
    from: 15,
    to: 25,
  },
  {
    fact: 'a thin coat on a small piece is dry in about an hour',
    value: () => {
      const c = coatOf(planOf([coat('a', 'chalk', 60, FIRST)]), 'a');
      return (c.open.through! - c.laidAt) / 60;
    },
    from: 45,
    to: 75,
  },
  {
    fact: 'hide glue cures in up to 12 h',
    value: () => {
      const c = coatOf(overHide(90, 60, 12), 'glue');
      return (c.open.through! - c.laidAt) / 3600;
    },
    from: 4,
    to: 12,
  },
  {
    fact: 'over cured hide glue the web forms within seconds',
    value: () => firstMin(overHide(90, 60, 12)) * 60,
    from: 5,
    to: 90,
  },
  {
    fact: 'and reads at about 3 min',
    value: () => {
      const c = coatOf(overHide(90, 60, 12), 'top');
      return (c.crack!.clearAt! - c.laidAt) / 60;
    },
    from: 1.5,
    to: 4.5,
  },
  {
    fact: 'glue painted at once or after a minute both work well',
    value: () => Math.min(strength(overGlue(110, 90, 20)), strength(overGlue(110, 90, 60))),
    from: 0.7,
    to: 1,
  },
  {
    fact: 'glue that has dried gives next to nothing',
    value: () => strength(overGlue(110, 90, 4 * 3600)),
    from: 0,
    to: 0.05,
  },
  { fact: 'dried medium works', value: () => strength(overMedium(70, 60)), from: 0.6, to: 1 },
  {
    fact: 'wet medium mixes instead of cracking',
    value: () =>
      strength(
        planOf([
          coat('base', 'latex', 90, FIRST),
          coat('m', 'crackle', 70, when('through-dry')),
          coat('top', 'chalk', 60, { rule: 'after', wait: 20 }),
        ]),
      ),
    from: 0,
    to: 0.2,
  },
  { fact: 'soft hide glue gives little', value: () => strength(overHide(90, 60, 0.02)), from: 0, to: 0.25 },
  {
    fact: 'paint on paint does not crack',
    value: () => strength(planOf([coat('a', 'latex', 90, FIRST), coat('b', 'latex', 90, when('recoat'))])),
    from: 0,
    to: 0.02,
  },
  {
    fact: 'a second top coat closes the crackle (share of strength left)',
    value: () => {
      const p = overMedium(70, 60);
      const c = coat('second', 'chalk', 80, when('recoat'));
      return coatOf({ ...p, steps: [...p.steps, c] }, 'top').crack!.strength / strength(p);
    },
    from: 0,
    to: 0.3,
  },
];

/** One knob turned; the figure must rise or fall. */
interface Direction {
  readonly fact: string;
  readonly figure: (plan: PanelPlan) => number;
  readonly from: PanelPlan;
  readonly to: PanelPlan;
  readonly goes: 'up' | 'down';
}

const DIRECTIONS: readonly Direction[] = [
  {
    fact: 'thicker glue, wider spacing',
    figure: spacingMm,
    from: overGlue(80, 90, 120),
    to: overGlue(180, 90, 120),
    goes: 'up',
  },
  {
    fact: 'thicker top coat over glue, wider spacing',
    figure: spacingMm,
    from: overGlue(110, 70, 120),
    to: overGlue(110, 160, 120),
    goes: 'up',
  },
  {
    fact: 'thicker medium, wider spacing',
    figure: spacingMm,
    from: overMedium(60, 80),
    to: overMedium(160, 80),
    goes: 'up',
  },
  {
    fact: 'thicker top coat over medium, wider spacing',
    figure: spacingMm,
    from: overMedium(80, 60),
    to: overMedium(80, 160),
    goes: 'up',
  },
  {
    fact: 'thicker glue, wider cracks',
    figure: openingMm,
    from: overGlue(80, 90, 120),
    to: overGlue(180, 90, 120),
    goes: 'up',
  },
  {
    fact: 'thicker medium, wider cracks',
    figure: openingMm,
    from: overMedium(60, 80),
    to: overMedium(160, 80),
    goes: 'up',
  },
  {
    fact: 'diluted hide glue, finer',
    figure: spacingMm,
    from: overHide(90, 60, 12),
    to: {
      ...overHide(90, 60, 12),
      steps: overHide(90, 60, 12).steps.map((c) => (c.id === 'glue' ? ({ ...c, dilution: 0.5 } as Coat) : c)),
    },
    goes: 'down',
  },
  {
    fact: 'hot and dry: medium ready sooner',
    figure: (p) => touchMin(p, 'medium'),
    from: overMedium(70, 60),
    to: overMedium(70, 60, HOT),
    goes: 'down',
  },
  {
    fact: 'damp and cold: medium ready later',
    figure: (p) => touchMin(p, 'medium'),
    from: overMedium(70, 60),
    to: overMedium(70, 60, DAMP),
    goes: 'up',
  },
  {
    fact: 'hot and dry: first cracks sooner over medium',
    figure: firstMin,
    from: overMedium(70, 60),
    to: overMedium(70, 60, HOT),
    goes: 'down',
  },
  {
    fact: 'damp and cold: first cracks later over medium',
    figure: firstMin,
    from: overMedium(70, 60),
    to: overMedium(70, 60, DAMP),
    goes: 'up',
  },
  {
    fact: 'damp and cold: first cracks later over glue',
    figure: firstMin,
    from: overGlue(110, 90, 120),
    to: overGlue(110, 90, 120, DAMP),
    goes: 'up',
  },
  {
    fact: 'damp and cold: weaker over medium',
    figure: strength,
    from: overMedium(70, 60),
    to: overMedium(70, 60, DAMP),
    goes: 'down',
  },
  {
    fact: 'damp and cold: weaker over glue',
    figure: strength,
    from: overGlue(110, 90, 120),
    to: overGlue(110, 90, 120, DAMP),
    goes: 'down',
  },
  {
    fact: 'moving air: medium ready sooner',
    figure: (p) => touchMin(p, 'medium'),
    from: overMedium(70, 60),
    to: overMedium(70, 60, room(21, 0.5, 1)),
    goes: 'down',
  },
  {
    fact: 'glue: later in the window is weaker',
    figure: strength,
    from: overGlue(110, 90, 120),
    to: overGlue(110, 90, 900),
    goes: 'down',
  },
  {
    fact: 'glue: top coat later, finer',
    figure: spacingMm,
    from: overGlue(110, 90, 120),
    to: overGlue(110, 90, 900),
    goes: 'down',
  },
  {
    fact: 'five passes spoil a crackle over glue',
    figure: strength,
    from: overGlue(110, 90, 120),
    to: overGlue(110, 90, 120, room(), { passes: 5 }),
    goes: 'down',
  },
  {
    fact: 'five passes spoil a crackle over medium',
    figure: strength,
    from: overMedium(70, 60),
    to: overMedium(70, 60, room(), { passes: 5 }),
    goes: 'down',
  },
];

describe('facts of the trade', () => {
  for (const { fact, value, from, to } of FACTS) {
    it(`${fact} [${from} … ${to}]`, () => {
      expect(value()).toBeGreaterThanOrEqual(from);
      expect(value()).toBeLessThanOrEqual(to);
    });
  }

  for (const { fact, figure, from, to, goes } of DIRECTIONS) {
    it(fact, () => {
      const ratio = figure(to) / figure(from);
      if (goes === 'up') expect(ratio).toBeGreaterThan(1.02);
      else expect(ratio).toBeLessThan(0.98);
    });
  }

  it("names the glue's stronger lever as the glue, the medium's as the top coat", () => {
    const glueLever = spacingMm(overGlue(250, 90, 120)) / spacingMm(overGlue(50, 90, 120));
    const glueTop = spacingMm(overGlue(110, 250, 120)) / spacingMm(overGlue(110, 50, 120));
    expect(glueLever).toBeGreaterThan(glueTop);
    const mediumLever = spacingMm(overMedium(250, 90)) / spacingMm(overMedium(50, 90));
    const mediumTop = spacingMm(overMedium(90, 250)) / spacingMm(overMedium(90, 50));
    expect(mediumTop).toBeGreaterThan(mediumLever);
  });

  it('spoils a crackle step by step with every pass over three', () => {
    const byPasses = [1, 2, 3, 4, 5, 6].map((passes) => strength(overGlue(110, 90, 120, room(), { passes })));
    expect([...byPasses].sort((a, b) => b - a)).toEqual(byPasses);
    expect(byPasses[2]! / byPasses[0]!).toBeGreaterThan(0.6);
    expect(byPasses[5]! / byPasses[0]!).toBeLessThan(0.25);
  });
});
