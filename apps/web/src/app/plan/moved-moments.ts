import { type Forecast } from '@zaffet/core/forecast';
import { stepTitle } from '@zaffet/words';
import { type PartPlan } from '@zaffet/workshop';
import { type Clock } from '../data/clock';

/** A step that begins within this of when it did has not moved [s]. */
const ALIKE = 60;
/** So many are named, the others counted. */
const NAMED = 2;

/**
 * What a change of the order did to the moments of the other steps, in a sentence; empty where they stay.
 * @param touched - ids of the steps that were put in, moved or taken out themselves
 */
export function movedMoments(
  before: Forecast['times'],
  after: Forecast['times'],
  touched: readonly string[],
  plan: Pick<PartPlan, 'startsAt' | 'media' | 'finish' | 'steps'>,
  clock: Clock,
): string {
  const was = new Map(before.map(({ step, from }) => [step.id, from]));
  const start = Date.parse(plan.startsAt);
  const moved = after.flatMap(({ step: { id }, from }) => {
    const then = was.get(id);
    const step = plan.steps.find((candidate) => candidate.id === id);
    if (then === undefined || step === undefined || touched.includes(id) || Math.abs(from - then) < ALIKE)
      return [];
    const [now, once] = [from, then].map((at) => new Date(start + at * 1000)) as [Date, Date];
    const told = (at: Date): string =>
      now.toDateString() === once.toDateString() ? clock.time(at) : clock.dayTime(at);
    const number = plan.finish.steps.indexOf(step) + 1;
    return [`${number}. ${stepTitle(step, plan.media)} now ${told(now)}, was ${told(once)}`];
  });
  if (moved.length === 0) return '';
  const more = moved.length - NAMED;
  return `${moved.slice(0, NAMED).join('; ')}${more > 0 ? `; ${more} more` : ''}.`;
}
