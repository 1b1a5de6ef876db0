import { type Booking, insert, NEAR, washBetween } from './booking';
import { type Task } from './tasks';

/** What hands are wanted for. */
type Work = Pick<Task, 'brushIn' | 'brushOut' | 'wash'>;

/** Index of the first booking that begins after a moment. */
function indexAfter(hand: readonly Booking[], moment: number): number {
  let low = 0;
  let high = hand.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (hand[mid]!.from > moment) high = mid;
    else low = mid + 1;
  }
  return low;
}

/** Who is at what: each at one thing at a time, brushes cleaned between. */
export class Hands {
  readonly all: readonly Booking[][];

  /**
   * @param turn - how long turning a piece takes, before what it is turned for [s]
   * @param waits - how long a brush may wait for the same paint [s]
   */
  constructor(
    people: number,
    private readonly turn: number,
    private readonly waits: number,
  ) {
    this.all = Array.from({ length: people }, () => []);
  }

  put(booking: Booking): void {
    insert(this.all[booking.hand]!, booking);
  }

  remove(booking: Booking): void {
    const hand = this.all[booking.hand]!;
    hand.splice(hand.indexOf(booking), 1);
  }

  /** When hands begin at a booking, turning included. */
  begins(booking: Booking): number {
    return booking.from - (booking.turned ? this.turn : 0);
  }

  /** Whether the hand of a booking has time to turn the piece before it, with another put in first. */
  canTurnBefore(other: Booking, booking: Booking): boolean {
    const from = other.from - this.turn;
    const hand = this.all[other.hand]!;
    const before = hand[hand.indexOf(other) - 1];
    const ends = (one: Booking): number => one.until + washBetween(one, other, this.waits);
    if (before !== undefined && ends(before) > from) return false;
    return other.hand !== booking.hand || ends(booking) <= from;
  }

  /** A hand that is free from a moment until another, one with the right brush first; else when to try again. */
  free(
    task: Work,
    from: number,
    until: number,
    carries: (before: Booking) => boolean = () => false,
  ): { readonly hand: number; readonly carried: number } | { readonly next: number } {
    let next = Infinity;
    let best: { hand: number; saves: boolean; carried: number } | null = null;
    for (let h = 0; h < this.all.length; h++) {
      const hand = this.all[h]!;
      const i = indexAfter(hand, from);
      const before = hand[i - 1];
      const carried =
        before !== undefined && !before.carries && from - before.until < before.wash && carries(before)
          ? before.wash
          : 0;
      const at = { brushIn: task.brushIn, from, carries: carried > 0 };
      const wash = before === undefined ? 0 : washBetween(before, at, this.waits);
      if (this.fits(hand, i, task, from, until, wash, carried)) {
        const saves = before !== undefined && before.wash > 0 && wash === 0;
        if (best === null || (saves && !best.saves)) best = { hand: h, saves, carried };
      } else if (best === null) next = Math.min(next, this.nextGap(hand, i, from, until - from));
    }
    return best ?? { next };
  }

  /** Whether a stretch between a booking and the next is free. */
  private fits(
    hand: readonly Booking[],
    i: number,
    task: Work,
    from: number,
    until: number,
    wash: number,
    carried: number,
  ): boolean {
    const [before, after] = [hand[i - 1], hand[i]];
    if (before !== undefined && before.until + wash > from + NEAR) return false;
    if (after === undefined) return true;
    const same =
      carried === 0 &&
      task.brushOut !== null &&
      task.brushOut === after.brushIn &&
      after.from - until <= this.waits;
    return until + (same ? 0 : task.wash + carried) <= this.begins(after) + NEAR;
  }

  /** The next moment after one at which a hand may have so long. @param i - of the booking that comes next */
  private nextGap(hand: readonly Booking[], i: number, from: number, length: number): number {
    for (let k = Math.max(0, i - 1); k < hand.length; k++) {
      const { until, wash } = hand[k]!;
      const next = hand[k + 1];
      const ends = next === undefined ? Infinity : this.begins(next);
      // The same brush need not be cleaned first.
      for (const at of [until, until + wash]) if (at > from + NEAR && at + length <= ends + NEAR) return at;
    }
    return Infinity;
  }
}
