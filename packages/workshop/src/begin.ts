import { type Plan, type PlanStep } from '@zaffet/contract';

/** A plan begun at another instant: steps that have an instant of their own move with it. */
export function beginAt(plan: Plan, startsAt: string): Plan {
  const by = Date.parse(startsAt) - Date.parse(plan.startsAt);
  if (by === 0) return plan;
  const moved = (step: PlanStep): PlanStep =>
    step.start.rule === 'at'
      ? { ...step, start: { rule: 'at', at: new Date(Date.parse(step.start.at) + by).toISOString() } }
      : step;
  return {
    ...plan,
    startsAt,
    finishes: plan.finishes.map((finish) => ({ ...finish, steps: finish.steps.map(moved) })),
  };
}
