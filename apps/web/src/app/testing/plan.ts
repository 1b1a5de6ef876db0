import { type FilmPlanStep, isFilmStep, type Plan, type SavedPlan } from '@zaffet/contract';
import { forecast, type Forecast } from '@zaffet/core/forecast';
import { basisOf, newPlan, type PartPlan, partPlan, type School } from '@zaffet/workshop';

/** A plan with ids `base`, `slip`, `top`; the same each time. */
export function samplePlan(school: School = 'wet-glue'): Plan {
  const ids = ['panel', 'base', 'slip', 'top'];
  let more = 0;
  return newPlan(school, 'Sample', 7, '2026-05-12T08:00:00.000Z', () => ids.shift() ?? `more-${++more}`);
}

export function savedPlan(plan: Plan = samplePlan(), revision = 1): SavedPlan {
  return {
    id: 'plan-1',
    name: plan.name,
    revision,
    saveId: `save-${revision}`,
    savedAt: '2026-05-12T08:00:00.000Z',
    plan,
  };
}

export const samplePart = (school?: School): PartPlan => partPlan(samplePlan(school));

export function computed(plan: PartPlan): { plan: PartPlan; forecast: Forecast } {
  return { plan, forecast: forecast(basisOf(plan)) };
}

/** A step of a plan that lays a film. */
export function filmOf(plan: Pick<PartPlan, 'steps'>, index: number): FilmPlanStep {
  const step = plan.steps[index];
  if (step === undefined || !isFilmStep(step)) throw new Error(`step ${index} lays no film`);
  return step;
}
