import { forecast, knobsOf, solve, wishOutcomes } from '@zaffet/core';
import { SCHOOLS } from './plan/create';
import { schoolPlans, withSettingsFiled } from './plan/recipes';
import { toModel } from './plan/toModel';
import { parsePlan } from './schemas';
import { samplePlan } from './testing/plan';

const ids = (): (() => string) => {
  let id = 0;
  return () => `r${++id}`;
};

describe('recipes', () => {
  it('are plans of every school on the same piece, in the same air and colours', () => {
    const plan = samplePlan();
    const schools = schoolPlans(plan, ids());
    expect(schools.map(({ key }) => key)).toEqual(Object.keys(SCHOOLS) as (typeof schools)[number]['key'][]);
    for (const { key, plan: school } of schools) {
      expect(parsePlan(school)).withContext(key).toEqual(school);
      expect(school.piece).toEqual(plan.piece);
      expect(school.air).toEqual(plan.air);
      const first = school.steps[0]!;
      const own = plan.steps[0]!;
      if (first.kind === 'coat' && own.kind === 'coat') expect(first.colour).toBe(own.colour);
    }
  });

  it('keep what the solver found when they are rounded to what a hand can set, and stay valid', () => {
    const schools = schoolPlans(samplePlan(), ids()).map(({ key, plan }) => ({
      key,
      plan,
      model: toModel(plan),
    }));
    const wish = { spacing: 0.006, opening: 0.0006 };
    const recipes = solve(
      wish,
      schools.map(({ key, model }) => ({ key, plan: model })),
    );
    expect(recipes[0]!.met).toBeTrue();
    for (const { key, settings, met } of recipes) {
      const school = schools.find((s) => s.key === key)!;
      expect(settings.length).toBe(knobsOf(school.model).length);
      const filed = withSettingsFiled(school.plan, settings);
      expect(parsePlan(filed)).withContext(key).toEqual(filed);
      if (!met) continue;
      expect(wishOutcomes(forecast(toModel(filed)), wish).misfit)
        .withContext(key)
        .toBeLessThan(1.01);
    }
  });
});
