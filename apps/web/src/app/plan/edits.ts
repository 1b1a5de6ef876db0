import { type CoatStep, LIMITS, type Limit, type Part, type Plan } from '@zaffet/contract';

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

export function changeCoat(plan: Plan, coatId: string, changes: Partial<CoatStep>): Plan {
  const steps = plan.steps.map((step) => (step.id === coatId ? { ...step, ...changes } : step));
  return same(steps, plan.steps) ? plan : { ...plan, steps };
}

/** Puts a coat into the stack; the first coat always starts with the plan. */
export function addCoat(plan: Plan, coat: CoatStep, index: number): Plan {
  if (plan.steps.length >= LIMITS.coats.max) return plan;
  return withSteps(plan, [...plan.steps.slice(0, index), coat, ...plan.steps.slice(index)]);
}

export function removeCoat(plan: Plan, coatId: string): Plan {
  if (plan.steps.length <= 1) return plan;
  return withSteps(
    plan,
    plan.steps.filter((step) => step.id !== coatId),
  );
}

/** Moves a coat up (+1, towards the eye) or down (−1). */
export function moveCoat(plan: Plan, coatId: string, by: 1 | -1): Plan {
  const from = plan.steps.findIndex((step) => step.id === coatId);
  const to = from + by;
  const coat = plan.steps[from];
  const other = plan.steps[to];
  if (coat === undefined || other === undefined) return plan;
  const steps = [...plan.steps];
  // Starts belong to places in the stack: each coat takes over when its new place begins.
  steps[from] = { ...other, start: coat.start };
  steps[to] = { ...coat, start: other.start };
  return withSteps(plan, steps);
}

function withSteps(plan: Plan, steps: readonly CoatStep[]): Plan {
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
