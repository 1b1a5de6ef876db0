import { medium, metresToUm, roundsFor, SECONDS_PER_MINUTE, type Setting } from '@zaffet/core';
import { newPlan, SCHOOLS, type School } from './create';
import { LIMITS } from './limits';
import { isFilmStep, type Plan, type PlanStep } from './types';

/** A medium that needs a thicker film than this to hide is clear [µm]. */
const CLEAR_FROM = 1000;

const isPaint = (step: PlanStep, plan: Plan): boolean => {
  if (!isFilmStep(step) || step.kind !== 'coat') return false;
  const own = plan.media.find(({ key }) => key === step.medium);
  return medium(own?.like ?? step.medium).hidingUm <= CLEAR_FROM;
};

/**
 * A plan of every school on this plan's piece, in its air, in its colours: the lowest paint's below, the last one's on
 * top.
 */
export function schoolPlans(plan: Plan, nextId: () => string): { key: School; plan: Plan }[] {
  const paints = plan.steps.filter((step) => isPaint(step, plan)).filter(isFilmStep);
  const lowest = paints[0];
  const last = paints.at(-1);
  return (Object.keys(SCHOOLS) as School[]).map((key) => {
    const fresh = newPlan(key, plan.name, plan.seed, plan.startsAt, nextId);
    const own = fresh.steps.filter((step) => isPaint(step, fresh));
    const steps = fresh.steps.map((step): PlanStep => {
      if (!isFilmStep(step)) return step;
      if (lowest !== undefined && step.id === own[0]?.id)
        return { ...step, colour: lowest.colour, colourName: lowest.colourName };
      if (last !== undefined && last !== lowest && step.id === own.at(-1)?.id)
        return { ...step, colour: last.colour, colourName: last.colourName };
      return step;
    });
    return {
      key,
      plan: { ...fresh, piece: plan.piece, air: plan.air, prices: plan.prices, look: plan.look, steps },
    };
  });
}

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
  if (kind === 'share' && step.kind === 'resist')
    return { ...step, share: rounded(value, LIMITS.share.step) };
  if (kind === 'work' && step.kind === 'distress') {
    const { rounds, pressure } = roundsFor(value);
    return { ...step, rounds, pressure: rounded(pressure, LIMITS.pressure.step) };
  }
  return step;
}

/** A plan with the numbers a solver found, rounded to what a hand can set. */
export function withSettingsFiled(plan: Plan, settings: readonly Setting[]): Plan {
  return {
    ...plan,
    steps: plan.steps.map((step) =>
      settings.filter(({ stepId }) => stepId === step.id).reduce(withSetting, step),
    ),
  };
}
