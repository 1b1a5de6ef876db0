import { onTables } from '../basis';
import { type PanelPlan, type WorkTime } from '../plan';
import { type Job, MINUTES, type PotNeed, type Problem } from '../schedule';
import { everyDay } from './plans';

const HOUR = 3600;
/** Eight to five every day; the plan begins at eight. */
export const EIGHT_TO_FIVE: WorkTime = everyDay(8 * HOUR, 17 * HOUR, 8 * HOUR);

/** A part that gets a plan, by itself and with a pot of its own for each medium, unless told otherwise. */
export function jobOf(id: string, plan: PanelPlan, changes: Partial<Job> = {}): Job {
  const pots: Record<string, readonly PotNeed[]> = {};
  for (const step of plan.steps)
    if ('medium' in step)
      pots[step.id] = [{ recipe: `${step.medium} ${step.colour ?? ''}`, mixing: 0, rest: 0, life: 86_400 }];
  return {
    id,
    basis: onTables(plan),
    prepares: [],
    body: null,
    up: 'top',
    pots,
    notBefore: {},
    follows: [],
    ...changes,
  };
}

/** One person from eight to five, nothing else asked. */
export const problemOf = (jobs: readonly Job[], changes: Partial<Problem> = {}): Problem => ({
  jobs,
  work: EIGHT_TO_FIVE,
  people: 1,
  minutes: MINUTES,
  pins: [],
  deadline: null,
  backward: false,
  from: 0,
  ...changes,
});
