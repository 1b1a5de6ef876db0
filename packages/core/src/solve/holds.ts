import { type Basis, type StepMoment } from '../basis';
import { forecast } from '../forecast';
import { SECONDS_PER_HOUR, SECONDS_PER_MINUTE } from '../units';
import { offWish, wishValues } from './solve';
import { WISH_KEYS, type WishKey } from './types';

/** Delays that are tried, each so much longer than the one before; then halved to a share of their size. */
const FIRST = SECONDS_PER_MINUTE;
const LONGER = 1.6;
const NEAR = 0.08;
/** Longer than this nobody waits for the look alone [s]. */
const LONGEST_HOLD = 24 * SECONDS_PER_HOUR;

/** A moment that comes so much later, with all that hangs on it. */
function later(moment: StepMoment, by: number): StepMoment {
  const { coats, buffAt, endsAt } = moment;
  return {
    ...('fixed' in moment ? { fixed: moment.fixed + by } : { notBefore: moment.notBefore + by }),
    ...(coats === undefined ? {} : { coats: coats.map((at) => at + by) }),
    ...(buffAt === undefined ? {} : { buffAt: buffAt + by }),
    ...(endsAt === undefined ? {} : { endsAt: endsAt + by }),
  };
}

/**
 * How long a step may be put off until the look is another one: until a figure that can be wished for leaves the
 * tolerance in which a wish counts as met, all that follows coming as much later. A soft end: nothing fails there.
 *
 * Delays are tried from one minute on, each 1.6 times the one before; a look that goes and comes back ends where it first
 * goes.
 * @param basis - with the moments of a timetable
 * @returns [s], to about a twelfth; null where the look holds for a day and more, and for what is done first
 * @throws InputError as `forecast`
 */
export function lookHolds(basis: Basis, stepId: string): number | null {
  const { moments } = basis;
  const order = basis.plan.steps.map(({ id }) => id);
  const at = order.indexOf(stepId);
  if (moments === undefined || at <= 0 || moments[stepId] === undefined) return null;
  const planned = wishValues(forecast(basis));
  const others = (delay: number): boolean => {
    const put = Object.fromEntries(
      Object.entries(moments).map(([id, moment]) => [
        id,
        order.indexOf(id) >= at ? later(moment, delay) : moment,
      ]),
    );
    const values = wishValues(forecast({ ...basis, moments: put }));
    return WISH_KEYS.some((key) => leaves(key, values[key], planned[key]));
  };
  let holds = 0;
  let gone = FIRST;
  while (!others(gone)) {
    holds = gone;
    if (gone >= LONGEST_HOLD) return null;
    gone = Math.min(LONGEST_HOLD, gone * LONGER);
  }
  while (gone - holds > NEAR * gone) {
    const mid = (gone + holds) / 2;
    if (others(mid)) gone = mid;
    else holds = mid;
  }
  return holds;
}

/** Whether a figure is another one than was planned. */
function leaves(key: WishKey, value: number | null, planned: number | null): boolean {
  if (planned === null || value === null) return planned !== value;
  return Math.abs(offWish(key, value, planned)) > 1;
}
