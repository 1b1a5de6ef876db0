import { type Plan, type PlanStep } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { basisOf } from './basis';
import { beginAt } from './begin';
import { partPlan } from './partPlan';

const MS = 1000;
const instantOf = (ms: number): string => new Date(ms).toISOString();

/** A step and when it is planned to begin [ms since 1970]. */
interface Planned {
  readonly step: PlanStep;
  readonly at: number;
}

/** All steps of all parts with their moments, in order; parts of one finish are worked together and told once. */
function plannedSteps(plan: Plan): { readonly steps: readonly Planned[]; readonly endsAt: number } {
  const start = Date.parse(plan.startsAt);
  let endsAt = start;
  const steps = new Map<string, Planned>();
  for (const { id } of plan.piece.parts) {
    const part = partPlan(plan, id);
    const { times, coats } = forecast(basisOf(part));
    times.forEach(({ from, until }, i) => {
      const step = part.steps[i]!;
      const known = steps.get(step.id);
      const at = start + from * MS;
      if (known === undefined || at < known.at) steps.set(step.id, { step, at });
      endsAt = Math.max(endsAt, start + until * MS);
    });
    // A piece is done when it can be touched.
    const touch = coats.at(-1)?.states.touch;
    if (touch != null) endsAt = Math.max(endsAt, start + touch * MS);
  }
  return { steps: [...steps.values()].sort((a, b) => a.at - b.at), endsAt };
}

/** When a plan is done: its last step ended and its last film dry to the touch [ms since 1970]. @throws as `forecast` */
export const endsAt = (plan: Plan): number => plannedSteps(plan).endsAt;

/** Hours of work and nights shift with the start: so often it is looked again. */
const TRIES = 6;

/**
 * The latest start found at which a plan is done by an instant; steps that have an instant of their own move with it.
 * @throws as `forecast`
 */
export function startToEndBy(plan: Plan, by: string): string {
  const due = Date.parse(by);
  let start = due;
  for (let i = 0; i < TRIES; i++) {
    const late = endsAt(beginAt(plan, instantOf(start))) - due;
    if (late <= 0) break;
    start -= late;
  }
  return instantOf(start);
}

/** How a plan stands by the clock. */
export type Standing =
  | { readonly kind: 'ahead'; readonly begins: number }
  | { readonly kind: 'under-way'; readonly next: Planned | null; readonly ends: number }
  | { readonly kind: 'past' };

/** How a plan stands at a moment [ms since 1970], if it goes as planned. @throws as `forecast` */
export function standingAt(plan: Plan, now: number): Standing {
  const begins = Date.parse(plan.startsAt);
  if (now < begins) return { kind: 'ahead', begins };
  const { steps, endsAt: ends } = plannedSteps(plan);
  if (now > ends) return { kind: 'past' };
  return { kind: 'under-way', next: steps.find(({ at }) => at > now) ?? null, ends };
}
