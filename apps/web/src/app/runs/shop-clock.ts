/** A trip this much longer than the shortest tells the workshop's clock less well. */
const WORSE_TRIP = 1.5;
/** Clocks drift apart by less than this in a session; more than trips explain and this, and one of them was set [ms]. */
const DRIFT = 1000;

/**
 * How far the workshop's clock is from this device's: the middle of a request is when its answer said what the time is, to
 * half the trip (the first step of the Network Time Protocol, RFC 5905 section 8, for an answer that takes no time itself).
 */
export class ShopClock {
  private bestTrip = Infinity;
  private offset: number | null;

  /** @param remembered - of a session before; null where it was never asked */
  constructor(remembered: number | null = null) {
    this.offset = remembered;
  }

  /** It was asked in this session. */
  get asked(): boolean {
    return this.bestTrip < Infinity;
  }
  /** What to add to this device's clock for the workshop's [ms]; null while that was never asked. */
  get offsetMs(): number | null {
    return this.offset;
  }

  /**
   * Takes a sample: that of the shortest trip is the truest, unless a clock was set since it was taken.
   * @param asked - by this device's clock [ms since 1970]
   * @param trip - until the answer was there [ms]
   * @param told - by the workshop's clock [ms since 1970]
   * @returns whether the offset is a new one
   */
  take(asked: number, trip: number, told: number): boolean {
    const offset = Math.round(told - (asked + trip / 2));
    const apart = Math.abs(offset - (this.offset ?? offset));
    const wasSet = apart > (trip + (this.asked ? this.bestTrip : 0)) / 2 + DRIFT;
    if (trip > this.bestTrip * WORSE_TRIP && !wasSet) return false;
    this.bestTrip = wasSet ? trip : Math.min(this.bestTrip, trip);
    this.offset = offset;
    return true;
  }
}
