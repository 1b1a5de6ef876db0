import { LIMITS, type Limit, type Part, type Plan, type PlanStep } from '@zaffet/contract';

/** Pure edits of a plan; one that changes nothing returns the same plan. */

/** Brings a number into its limit and onto its step. */
export function fitted(limit: Limit, value: number): number {
  const stepped = Math.round(value / limit.step) * limit.step;
  const inside = Math.min(limit.max, Math.max(limit.min, stepped));
  return Math.round(inside * 1e6) / 1e6;
}

function same(a: object, b: object): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** Changes to a step of any kind. */
export type StepChanges = { [S in PlanStep as S['kind']]: Partial<S> }[PlanStep['kind']];

export function changeStep(plan: Plan, stepId: string, changes: StepChanges): Plan {
  const steps = plan.steps.map((step) => (step.id === stepId ? ({ ...step, ...changes } as PlanStep) : step));
  return same(steps, plan.steps) ? plan : { ...plan, steps };
}

/** Puts a step into the plan; the first always starts with it. */
export function addStep(plan: Plan, step: PlanStep, index: number): Plan {
  if (plan.steps.length >= LIMITS.steps.max) return plan;
  return withSteps(plan, [...plan.steps.slice(0, index), step, ...plan.steps.slice(index)]);
}

export function removeStep(plan: Plan, stepId: string): Plan {
  if (plan.steps.length <= 1) return plan;
  return withSteps(
    plan,
    plan.steps.filter((step) => step.id !== stepId),
  );
}

/** Moves a step later (+1, towards the eye) or earlier (−1). */
export function moveStep(plan: Plan, stepId: string, by: 1 | -1): Plan {
  const from = plan.steps.findIndex((step) => step.id === stepId);
  const to = from + by;
  const step = plan.steps[from];
  const other = plan.steps[to];
  if (step === undefined || other === undefined) return plan;
  const steps = [...plan.steps];
  // Starts belong to places in the order: each step takes over when its new place begins.
  steps[from] = { ...other, start: step.start };
  steps[to] = { ...step, start: other.start };
  return withSteps(plan, steps);
}

function withSteps(plan: Plan, steps: readonly PlanStep[]): Plan {
  return { ...plan, steps };
}

export function changeAir(
  plan: Plan,
  changes: { temperatureC?: number; humidity?: number; draughtMS?: number; altitudeM?: number },
): Plan {
  const { air } = plan;
  const temperatureBy = changes.temperatureC === undefined ? 0 : changes.temperatureC - air.temperatureC;
  const humidityBy = changes.humidity === undefined ? 0 : changes.humidity - air.humidity;
  // A warmer shop is warmer all day: the day's course moves with its beginning.
  const later = air.later.map((sample) => ({
    ...sample,
    temperatureC: fitted({ ...LIMITS.temperatureC, step: 0.1 }, sample.temperatureC + temperatureBy),
    humidity: fitted(LIMITS.humidity, sample.humidity + humidityBy),
  }));
  const next = { ...air, ...changes, later };
  return same(next, air) ? plan : { ...plan, air: next };
}

export function changePart(plan: Plan, changes: Partial<Part>): Plan {
  const part = { ...plan.piece.parts[0], ...changes };
  return same(part, plan.piece.parts[0]) ? plan : { ...plan, piece: { ...plan.piece, parts: [part] } };
}

/** Sets what a litre of a medium costs, or forgets it. */
export function changePrice(plan: Plan, medium: string, price: number | null): Plan {
  const { [medium]: _before, ...others } = plan.prices;
  const prices = price === null ? others : { ...others, [medium]: price };
  return same(prices, plan.prices) ? plan : { ...plan, prices };
}
