import { forecast } from '@zaffet/core/forecast';
import { knobsOf, solve, wishOutcomes } from '@zaffet/core/solve';
import { schoolPlans, withSettingsFiled } from './recipes';
import { SCHOOL_KEYS } from './schools';
import { basisOf } from './basis';
import { type PartPlan } from './partPlan';
import { parsePlan } from '@zaffet/contract/schemas';
import { samplePart, samplePlan } from './testing/plan';

const ids = (): (() => string) => {
  let id = 0;
  return () => `r${++id}`;
};

/** The sample plan with the steps of one of its parts. */
const filedWith = ({ steps }: PartPlan): unknown => {
  const plan = samplePlan();
  return { ...plan, finishes: [{ ...plan.finishes[0]!, steps }] };
};

describe('recipes', () => {
  it('are plans of every school on the same piece, in the same air and colours', () => {
    const plan = samplePart();
    const schools = schoolPlans(plan, ids());
    expect(schools.map(({ key }) => key)).toEqual(SCHOOL_KEYS);
    for (const { key, plan: school } of schools) {
      expect(() => parsePlan(filedWith(school)))
        .withContext(key)
        .not.toThrow();
      expect(school.part).toEqual(plan.part);
      expect(school.air).toEqual(plan.air);
      const first = school.steps[0]!;
      const own = plan.steps[0]!;
      if (first.kind === 'coat' && own.kind === 'coat') expect(first.colour).toBe(own.colour);
    }
  });

  it('keep what the solver found when they are rounded to what a hand can set, and stay valid', () => {
    const schools = schoolPlans(samplePart(), ids()).map(({ key, plan }) => ({
      key,
      plan,
      basis: basisOf(plan),
    }));
    const wish = { spacing: 0.006, opening: 0.0006 };
    const recipes = solve(
      wish,
      schools.map(({ key, basis }) => ({ key, basis })),
    );
    expect(recipes[0]!.met).toBeTrue();
    for (const { key, settings, met } of recipes) {
      const school = schools.find((s) => s.key === key)!;
      expect(settings.length).toBe(knobsOf(school.basis).length);
      const filed = withSettingsFiled(school.plan, settings);
      expect(() => parsePlan(filedWith(filed)))
        .withContext(key)
        .not.toThrow();
      if (!met) continue;
      expect(wishOutcomes(forecast(basisOf(filed)), wish).misfit)
        .withContext(key)
        .toBeLessThan(1.01);
    }
  });
});
