import { type Facing } from '../piece';
import { type Doing, type Window } from './chain';
import { type DelayCause } from './types';

/** Hands at something. */
export interface Booking {
  /** Index among the jobs, and of the task; a pot that is mixed has none. */
  readonly job: number;
  readonly task: number;
  readonly hand: number;
  readonly from: number;
  readonly until: number;
  readonly wash: number;
  readonly brushIn: string | null;
  readonly brushOut: string | null;
  /** The brush used before is washed after it. */
  readonly carries: boolean;
  readonly body: string;
  readonly up: Facing;
  /** When the film it laid no longer runs, and can be lain on; its end where it lays none. */
  readonly tacky: number;
  readonly lies: number;
  readonly how: Doing;
  readonly window: Window;
  /** What put it off longest after its own part allowed it; null where nothing did. */
  readonly delay: DelayCause | null;
  /** The recipe of a pot that is mixed; null for all else. */
  readonly recipe: string | null;
  /** The piece is turned first. */
  turned: boolean;
}

/** Moments nearer than this are one [s]. */
export const NEAR = 1e-3;

/** Puts a booking where it belongs by its beginning. */
export function insert(list: Booking[], booking: Booking): void {
  let i = list.length;
  while (i > 0 && list[i - 1]!.from > booking.from) i -= 1;
  list.splice(i, 0, booking);
}

/**
 * Cleaning between two bookings of one hand; none where the next wants the same brush soon, or takes it along. A brush that
 * was taken along is not left longer.
 * @param waits - how long a brush may wait for the same paint [s]
 */
export function washBetween(
  before: Booking,
  next: Pick<Booking, 'brushIn' | 'from' | 'carries'>,
  waits: number,
): number {
  if (next.carries) return 0;
  const same =
    !before.carries &&
    before.brushOut !== null &&
    before.brushOut === next.brushIn &&
    next.from - before.until <= waits;
  return same ? 0 : before.wash;
}
