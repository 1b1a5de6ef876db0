import { onTables } from '../basis';
import { forecastOf } from '../testing/forecasts';
import { PLAN_RANGES, roundsFor } from '../plan';
import { chanceFrom } from '../testing/chance';
import { after, coat, distress, FIRST, overGlue, overMedium, planOf, resist, when } from '../testing/plans';
import { knobsOf, withSettings } from './settings';
import { solve, solveStepwise, wishValues } from './solve';
import { type Candidate, type Wish } from './types';

const CANDIDATES: readonly Candidate[] = [
  { key: 'medium', basis: onTables(overMedium(110, 120)) },
  { key: 'glue', basis: onTables(overGlue(130, 120, 120)) },
  {
    key: 'milk',
    basis: onTables(
      planOf([
        coat('base', 'latex', 90, FIRST, { colour: '#3a2d24' }),
        coat('sealer', 'polyW', 80, when('through-dry', 86400)),
        coat('top', 'milk', 75, after(1200), { colour: '#a9bcb6', passes: 1 }),
        distress('s', 'sponge', after(7200), { rounds: 4 }),
      ]),
    ),
  },
  {
    key: 'wax',
    basis: onTables(
      planOf([
        coat('a', 'latex', 90, FIRST, { colour: '#34505c' }),
        resist('w', 'candle', 0.3, when('through-dry')),
        coat('b', 'latex', 90, after(60), { colour: '#d8cdb2' }),
        distress('s', 'scrape', when('through-dry'), { rounds: 1, pressure: 0.3 }),
      ]),
    ),
  },
  {
    key: 'sanded',
    basis: onTables(
      planOf([
        coat('a', 'chalk', 90, FIRST, { colour: '#2f3d46' }),
        coat('b', 'chalk', 80, when('through-dry', 3600), { colour: '#ddd6c4' }),
        distress('s', 'sand', after(43200), { grit: 150, rounds: 8 }),
      ]),
    ),
  },
];

describe('solver', () => {
  it('finds a recipe for at least nine in ten looks that can be had', () => {
    const chance = chanceFrom(99);
    let met = 0;
    const tries = 20;
    for (let k = 0; k < tries; k++) {
      const { basis } = CANDIDATES[k % CANDIDATES.length]!;
      const { plan } = basis;
      const settings = knobsOf(basis).map(({ stepId, kind, low, high }) => ({
        stepId,
        kind,
        value: low * (high / low) ** (0.15 + 0.7 * chance()),
      }));
      const { spacing, opening, chips, worn, under } = wishValues(forecastOf(withSettings(plan, settings)));
      const wish: Wish = {
        ...(spacing === null || opening === null ? {} : { spacing, opening }),
        chips: chips!,
        worn: worn!,
        under: under!,
      };
      const recipes = solve(wish, CANDIDATES);
      // What it says is met is met, worked out anew.
      const best = recipes.find((recipe) => recipe.met);
      if (best === undefined) continue;
      met++;
      const values = wishValues(forecastOf(best.plan));
      if (spacing !== null) expect(Math.abs(values.spacing! / spacing - 1)).toBeLessThan(0.151);
      expect(Math.abs(values.under! - under!)).toBeLessThan(0.0501);
    }
    expect(met / tries).toBeGreaterThanOrEqual(0.9);
  });

  it('says of every school how near it comes, the best first, and the same twice', () => {
    const wish: Wish = { spacing: 0.006, opening: 0.0006 };
    const recipes = solve(wish, CANDIDATES);
    expect(recipes.map(({ key }) => key).sort()).toEqual(CANDIDATES.map(({ key }) => key).sort());
    expect(recipes[0]!.met).toBeTrue();
    expect(['medium', 'glue']).toContain(recipes[0]!.key);
    expect(recipes.at(-1)!.outcomes.spacing!.met).toBeFalse();
    expect(solve(wish, CANDIDATES).map(({ settings }) => settings)).toEqual(
      recipes.map(({ settings }) => settings),
    );
  });

  it('says plainly when a wish cannot be had, and what comes nearest', () => {
    const recipes = solve({ spacing: 0.09, opening: 0.0001 }, CANDIDATES);
    expect(recipes.some((recipe) => recipe.met)).toBeFalse();
    const misfits = recipes.map(({ misfit }) => Math.min(9, misfit));
    expect(misfits[0]).toBeLessThan(1.05 * Math.min(...misfits));
  });

  it('keeps every number within what a hand and the plan allow', () => {
    for (const { plan, settings } of solve({ chips: 0.4, under: 0.5 }, CANDIDATES)) {
      for (const knob of knobsOf(onTables(plan))) {
        const set = settings.find(({ stepId, kind }) => stepId === knob.stepId && kind === knob.kind);
        expect(set).toBeDefined();
      }
      for (const step of plan.steps) {
        if (step.kind !== 'distress') continue;
        expect(Number.isInteger(step.rounds)).toBeTrue();
        expect(step.pressure).toBeLessThanOrEqual(PLAN_RANGES.pressure.max);
      }
    }
    expect(roundsFor(0.3)).toEqual({ rounds: 1, pressure: 0.3 });
    expect(roundsFor(14.6).rounds * roundsFor(14.6).pressure).toBeCloseTo(14.6, 9);
  });

  it('leaves out what is not dry in time, and can be stopped between schools', () => {
    expect(solve({ under: 0.2 }, CANDIDATES, 6 * 3600).every(({ total }) => total! <= 6 * 3600)).toBeTrue();
    const steps = solveStepwise({ under: 0.2 }, CANDIDATES);
    expect(steps.next().value).toEqual({ done: 0, of: CANDIDATES.length });
    expect(steps.next().value).toEqual({ done: 1, of: CANDIDATES.length });
  });

  it('put what must be bought, and what comes off unasked, behind what does as well without', () => {
    const wish = { spacing: 0.006, opening: 0.0006 };
    const order = (candidates: readonly Candidate[]): string[] =>
      solve(wish, candidates).map(({ key }) => key);
    const twins = [
      { ...CANDIDATES[0]!, key: 'bought', handicap: 0.5 },
      { ...CANDIDATES[0]!, key: 'there' },
    ];
    expect(order(twins)).toEqual(['there', 'bought']);
    const all = solve(wish, CANDIDATES);
    for (const recipe of all) {
      const { chips, worn } = wishValues(forecastOf(recipe.plan));
      expect(recipe.unasked).toBeCloseTo((chips ?? 0) + (worn ?? 0), 9);
    }
    expect(solve({ ...wish, chips: 0.3 }, CANDIDATES).every(({ unasked }) => unasked < 1)).toBeTrue();
  });
});
