import { type AirSample, type AirSeries } from '../air';
import { type PanelPlan, isFilm, type Step } from '../plan';
import { type Basis, NO_SHOP, type StepMoment } from './types';

/** The basis of a plan on the tables alone. */
export const onTables = (plan: PanelPlan): Basis => ({ plan, shop: NO_SHOP });

/** When a step is to begin by the run or the timetable; undefined where its own rule tells. */
export function momentOf(basis: Basis, stepId: string): StepMoment | undefined {
  const done = basis.known?.done[stepId];
  if (done === undefined) return basis.moments?.[stepId];
  const { from, coats, buffAt } = done;
  return {
    fixed: from,
    ...(coats === undefined ? {} : { coats }),
    ...(buffAt === undefined ? {} : { buffAt }),
  };
}

/** Whether a film was weighed or gauged as it was laid. */
export const isWeighed = (basis: Basis, stepId: string): boolean =>
  basis.known?.done[stepId]?.thickness !== undefined;

/** A step as it was really done, where that is known. */
function asDone(basis: Basis, step: Step): Step {
  const done = basis.known?.done[step.id];
  if (done === undefined || !isFilm(step)) return step;
  return {
    ...step,
    thickness: done.thickness ?? step.thickness,
    passes: done.passes ?? step.passes,
  };
}

/** Air as it was read up to now, and as the plan expects it from there on. */
function airSoFar(plan: PanelPlan, read: AirSeries, now: number): AirSeries {
  const past = read.filter(({ from }) => from <= now);
  if (past.length === 0) return plan.air;
  const expected = plan.air.findLast(({ from }) => from <= now) ?? plan.air[0]!;
  const first: AirSample = { ...past[0]!, from: 0 };
  const rest = plan.air.filter(({ from }) => from > now);
  return [
    first,
    ...past.slice(1).filter(({ from }) => from > 0),
    ...(now > 0 ? [{ ...expected, from: now }] : []),
    ...rest,
  ];
}

/** The plan as it has been carried out so far: films as weighed, the air as read. */
export function planSoFar(basis: Basis): PanelPlan {
  const { plan, known } = basis;
  if (known === undefined) return plan;
  return {
    ...plan,
    steps: plan.steps.map((step) => asDone(basis, step)),
    air: airSoFar(plan, known.air, known.now),
  };
}
