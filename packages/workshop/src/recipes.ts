import { isFilmStep, LIMITS, type PlanStep } from '@zaffet/contract';
import { isClear, medium } from '@zaffet/core/media';
import { roundsFor } from '@zaffet/core/plan';
import { type Setting } from '@zaffet/core/solve';
import { metresToUm, SECONDS_PER_MINUTE } from '@zaffet/core/units';
import { when } from './create';
import { type PartPlan, withSteps } from './partPlan';
import { SCHOOL_KEYS, SCHOOL_STEPS, type School } from './schools';

const isPaint = (step: PlanStep, plan: Pick<PartPlan, 'media'>): boolean => {
  if (!isFilmStep(step) || step.kind !== 'coat') return false;
  const own = plan.media.find(({ key }) => key === step.medium);
  return !isClear(medium(own?.like ?? step.medium));
};

/** A part done in the way of a school: in its air, in its colours, the lowest paint's below, the last one's on top. */
export function schoolPlan(plan: PartPlan, key: School, nextId: () => string): PartPlan {
  const paints = plan.steps.filter((step) => isPaint(step, plan)).filter(isFilmStep);
  const lowest = paints[0];
  const last = paints.at(-1);
  const fresh = SCHOOL_STEPS[key](nextId, when('recoat'));
  const own = fresh.filter((step) => isPaint(step, plan));
  const steps = fresh.map((step): PlanStep => {
    if (!isFilmStep(step)) return step;
    if (lowest !== undefined && step.id === own[0]?.id)
      return { ...step, colour: lowest.colour, colourName: lowest.colourName };
    if (last !== undefined && last !== lowest && step.id === own.at(-1)?.id)
      return { ...step, colour: last.colour, colourName: last.colourName };
    return step;
  });
  return { ...withSteps(plan, steps), part: { ...plan.part, maps: {} } };
}

/** A part done in the way of every school. */
export const schoolPlans = (plan: PartPlan, nextId: () => string): { key: School; plan: PartPlan }[] =>
  SCHOOL_KEYS.map((key) => ({ key, plan: schoolPlan(plan, key, nextId) }));

const rounded = (value: number, step: number): number =>
  Math.round(Math.round(value / step) * step * 1e6) / 1e6;

function withSetting(step: PlanStep, { kind, value }: Setting): PlanStep {
  if (kind === 'thickness' && isFilmStep(step))
    return { ...step, thicknessUm: rounded(metresToUm(value), LIMITS.thicknessUm.step) };
  if (kind === 'cover' && isFilmStep(step))
    return { ...step, cover: { ...step.cover, share: rounded(value, LIMITS.share.step) } };
  if (kind === 'wait' && step.start.rule === 'after')
    return {
      ...step,
      start: { rule: 'after', waitMin: rounded(value / SECONDS_PER_MINUTE, LIMITS.waitMin.step) },
    };
  if (kind === 'resist' && step.kind === 'resist')
    return { ...step, share: rounded(value, LIMITS.share.step) };
  if (kind === 'work' && step.kind === 'distress') {
    const { rounds, pressure } = roundsFor(value);
    return { ...step, rounds, pressure: rounded(pressure, LIMITS.pressure.step) };
  }
  return step;
}

/** A plan with the numbers a solver found, rounded to what a hand can set. */
export function withSettingsFiled(plan: PartPlan, settings: readonly Setting[]): PartPlan {
  return withSteps(
    plan,
    plan.steps.map((step) => settings.filter(({ stepId }) => stepId === step.id).reduce(withSetting, step)),
  );
}
