import { type Plan } from '@zaffet/contract';
import { lookHolds } from '@zaffet/core/solve';
import { type Schedule } from '@zaffet/core/schedule';
import { basisOf } from './basis';
import { meantFinishes, partPlan } from './partPlan';
import { type Given } from './timetable';

/**
 * How long each step may be put off until the look is another one [s], by step; nothing for a look that holds. Told on
 * the first part of each finish, in the air and at the moments of the timetable.
 * @throws InputError as `forecast`
 */
export function softEnds(
  plan: Plan,
  { moments }: Pick<Schedule, 'moments'>,
  given: Given = {},
): Readonly<Record<string, number>> {
  const ends: Record<string, number> = {};
  for (const { id, steps } of meantFinishes(plan)) {
    const part = plan.piece.parts.find(({ finish }) => finish === id);
    if (part === undefined) continue;
    const basis = basisOf(partPlan(plan, part.id, null, { ...given, moments }));
    for (const step of steps) {
      const holds = step.off ? null : lookHolds(basis, step.id);
      if (holds !== null) ends[step.id] = holds;
    }
  }
  return ends;
}
