import { type FilmPlanStep, isFilmStep, type PlanStep, type StartRuleFile } from '@zaffet/contract';
import { stepTimes } from '@zaffet/core/forecast';
import { isOf, type Medium, mediumLookup } from '@zaffet/core/media';
import { basisOf } from './basis';
import { after, when } from './create';
import { type PartPlan, withSteps } from './partPlan';

const isDone = ({ off }: PlanStep): boolean => !off;

/** When a coat or seal must go over a film that is special below it; null where any rule does. Common practice. */
function startOverSpecial(below: Medium | undefined, above: Medium): StartRuleFile | null {
  if (below === undefined || below.kind === above.kind) return null;
  switch (below.kind) {
    case 'wet-glue':
      return after(1);
    case 'cured-glue':
      return when('through-dry');
    case 'crackle-medium':
      return when('touch-dry');
    case 'clear':
      return isOf(above, 'casein') ? when('tacky') : null;
    default:
      return null;
  }
}

const usualStart = (kind: FilmPlanStep['kind']): StartRuleFile =>
  when(kind === 'seal' ? 'through-dry' : 'recoat');

/** Whether a step must come soon after the film below it: it has a window that a step between would use up. */
const isBound = ({ start }: PlanStep): boolean =>
  start.rule === 'after' || (start.rule === 'state' && start.state === 'tacky');

/** When each step of a part begins, by its own rules alone [s from the plan's start]. */
function beginnings(plan: PartPlan, steps: readonly PlanStep[]): ReadonlyMap<string, number> {
  const times = stepTimes(basisOf(withSteps(plan, steps.filter(isDone))));
  return new Map(times.map(({ step, from }) => [step.id, from]));
}

const inserted = (steps: readonly PlanStep[], step: PlanStep, index: number): readonly PlanStep[] => [
  ...steps.slice(0, index),
  step,
  ...steps.slice(index),
];

/**
 * When a new step begins at its place in a finish: by what lies below it. Over glue or a tacky sealer that is inside its
 * window, before the step that follows.
 * @param index - where it goes among the finish's steps
 */
export function startFor(plan: PartPlan, step: PlanStep, index: number): StartRuleFile {
  const { steps } = plan.finish;
  const next = steps.slice(index).find(isDone);
  if (step.kind === 'wait') return step.start;
  if (isFilmStep(step)) {
    if (next !== undefined && isFilmStep(next) && isBound(next)) return next.start;
    const media = mediumLookup(plan.media);
    const below = steps.slice(0, index).filter(isFilmStep).findLast(isDone);
    const under = below === undefined ? undefined : media(below.medium);
    return startOverSpecial(under, media(step.medium)) ?? usualStart(step.kind);
  }
  if (next === undefined || !isBound(next)) return step.start;
  const due = beginnings(plan, steps).get(next.id) ?? Infinity;
  const begins = beginnings(plan, inserted(steps, step, index)).get(step.id) ?? Infinity;
  return begins < due ? step.start : after(0);
}

/**
 * A finish's steps with another put in. The step that follows keeps its meaning: over a new film it begins by what lies
 * below it now; minutes that were counted from the step before are counted so that it begins when it did.
 */
export function withStepIn(plan: PartPlan, step: PlanStep, index: number): readonly PlanStep[] {
  const { steps } = plan.finish;
  const all = inserted(steps, step, index);
  const next = steps.slice(index).find(isDone);
  if (next === undefined || next.start.rule === 'at' || step.off || step.kind === 'wait') return all;
  const begin = (start: StartRuleFile): readonly PlanStep[] =>
    all.map((other) => (other === next ? { ...next, start } : other));
  if (isFilmStep(step) && isFilmStep(next)) {
    const media = mediumLookup(plan.media);
    const special = startOverSpecial(media(step.medium), media(next.medium));
    // A rule that goes by what lies below goes by the new film now, with the wait it has.
    return special === null && !isBound(next) ? all : begin(special ?? usualStart(next.kind));
  }
  if (isFilmStep(step) || next.start.rule !== 'after') return all;
  const due = beginnings(plan, steps).get(next.id);
  const atOnce = begin(after(0));
  const earliest = beginnings(plan, atOnce).get(next.id);
  if (due === undefined || earliest === undefined) return all;
  return begin(after(Math.max(0, Math.round((due - earliest) / 60))));
}
