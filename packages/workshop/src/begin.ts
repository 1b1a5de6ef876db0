import { type Plan, type PlanStep } from '@zaffet/contract';

/** A plan begun at another instant: steps that have an instant of their own move with it, and so does what was dragged. */
export function beginAt(plan: Plan, startsAt: string): Plan {
  const by = Date.parse(startsAt) - Date.parse(plan.startsAt);
  if (by === 0) return plan;
  const later = (at: string): string => new Date(Date.parse(at) + by).toISOString();
  const moved = (step: PlanStep): PlanStep =>
    step.start.rule === 'at' ? { ...step, start: { rule: 'at', at: later(step.start.at) } } : step;
  return {
    ...plan,
    startsAt,
    timing: { ...plan.timing, pins: plan.timing.pins.map((pin) => ({ ...pin, at: later(pin.at) })) },
    finishes: plan.finishes.map((finish) => ({ ...finish, steps: finish.steps.map(moved) })),
  };
}
