import { ShopClock } from './shop-clock';

const MINUTE = 60_000;

describe('the workshop’s clock, as a device knows it', () => {
  /** A request that goes there in so long and back in so long, of a device whose clock is fast [ms]. */
  const ask = (clock: ShopClock, at: number, there: number, back: number, fast: number): boolean =>
    clock.take(at + fast, there + back, at + there);

  it('is not known before it was asked, and remembered from the last time', () => {
    expect([new ShopClock().offsetMs, new ShopClock().asked]).toEqual([null, false]);
    expect([new ShopClock(-420).offsetMs, new ShopClock(-420).asked]).toEqual([-420, false]);
  });

  it('is known to half the trip, whichever way took long', () => {
    for (const [there, back] of [
      [400, 0],
      [0, 400],
      [200, 200],
    ] as const) {
      const clock = new ShopClock();
      expect(ask(clock, 1e12, there, back, 7 * MINUTE)).toBeTrue();
      expect(Math.abs(clock.offsetMs! + 7 * MINUTE)).toBeLessThanOrEqual(200);
      expect(clock.asked).toBeTrue();
    }
  });

  it('is told best by the shortest trip, and not spoilt by a slow one', () => {
    const clock = new ShopClock();
    ask(clock, 1e12, 300, 20, 0);
    ask(clock, 1e12 + MINUTE, 5, 5, 0);
    expect(clock.offsetMs).toBe(0);
    expect(ask(clock, 1e12 + 2 * MINUTE, 900, 30, 0)).toBeFalse();
    expect(clock.offsetMs).toBe(0);
    // About as short as the shortest: clocks drift.
    expect(ask(clock, 1e12 + 3 * MINUTE, 6, 6, -40)).toBeTrue();
    expect(clock.offsetMs).toBe(40);
  });

  it('is asked anew where one of the clocks was set, by however slow a trip that comes out', () => {
    const clock = new ShopClock(0);
    ask(clock, 1e12, 5, 5, 0);
    expect(ask(clock, 1e12 + MINUTE, 800, 800, 7 * MINUTE)).toBeTrue();
    expect(Math.abs(clock.offsetMs! + 7 * MINUTE)).toBeLessThanOrEqual(800);
    // And is told better by the next that is faster.
    ask(clock, 1e12 + 2 * MINUTE, 5, 5, 7 * MINUTE);
    expect(clock.offsetMs).toBe(-7 * MINUTE);
    // Remembered from before the clock was set: as if it had been asked.
    const later = new ShopClock(0);
    ask(later, 1e12, 600, 600, 7 * MINUTE);
    expect(Math.abs(later.offsetMs! + 7 * MINUTE)).toBeLessThanOrEqual(600);
  });
});
