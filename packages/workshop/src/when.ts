import { type Plan, type PlanStep } from '@zaffet/contract';
import { type Schedule } from '@zaffet/core/schedule';
import { beginAt } from './begin';
import { type Given, timetable } from './timetable';

const MS = 1000;
const instantOf = (ms: number): string => new Date(ms).toISOString();

/** A step and when it is planned to begin [ms since 1970]. */
interface Planned {
  readonly step: PlanStep;
  readonly at: number;
}

/** All steps of a timetable with their moments, in order; parts of one finish are worked together and told once. */
function plannedSteps(plan: Plan, { entries }: Schedule): readonly Planned[] {
  const start = Date.parse(plan.startsAt);
  const steps = new Map(
    plan.finishes.flatMap(({ steps: own }) => own.map((step) => [step.id, step] as const)),
  );
  const seen = new Map<string, Planned>();
  for (const { stepId, from } of entries) {
    const step = steps.get(stepId);
    if (step !== undefined && !seen.has(stepId)) seen.set(stepId, { step, at: start + from * MS });
  }
  return [...seen.values()];
}

/** When a timetable is through: its last film dry, or its last work done where a film never is [ms since 1970]. */
function endOf(plan: Plan, { ready, entries }: Schedule): number {
  const last = Math.max(0, ...entries.map(({ until }) => until));
  return Date.parse(plan.startsAt) + (ready ?? last) * MS;
}

/** When a plan is done: its last step ended and its last film dry through [ms since 1970]. @throws as `forecast` */
export const endsAt = (plan: Plan, given: Given = {}): number => endOf(plan, timetable(plan, given).table);

/** Hours of work and nights shift with the start: so often it is looked again. */
const TRIES = 6;

/**
 * The latest start found at which a plan is done by an instant; steps that have an instant of their own move with it.
 * @throws as `forecast`
 */
export function startToEndBy(plan: Plan, by: string, given: Given = {}): string {
  const due = Date.parse(by);
  let start = due;
  for (let i = 0; i < TRIES; i++) {
    const late = endsAt(beginAt(plan, instantOf(start)), given) - due;
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

/** How a plan stands at a moment [ms since 1970], if it goes as its timetable has it. */
export function standingAt(plan: Plan, table: Schedule, now: number): Standing {
  const begins = Date.parse(plan.startsAt);
  if (now < begins) return { kind: 'ahead', begins };
  const ends = endOf(plan, table);
  if (now > ends) return { kind: 'past' };
  return { kind: 'under-way', next: plannedSteps(plan, table).find(({ at }) => at > now) ?? null, ends };
}
