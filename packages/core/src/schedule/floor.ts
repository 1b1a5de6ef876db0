import { type Facing } from '../piece';
import { atWork, nextStretch, stretchFrom, type WorkTime } from '../plan';
import { SECONDS_PER_MINUTE } from '../units';
import { type Begun, type Doing, type Point, type Window } from './chain';
import { type Booking, NEAR } from './booking';
import { Bodies } from './bodies';
import { Hands } from './hands';
import { type Task } from './tasks';
import { type DelayCause, type PotNeed, type Problem } from './types';

/*
 * The shop floor while a timetable is made: who is at what, which face of each body lies up, which pots stand there.
 * Bookings are put in and taken out again; what follows from their order (cleaning, turning) is worked out where it is
 * asked for.
 */

/** A pot that stands there. */
interface Standing {
  readonly need: PotNeed;
  readonly mixed: Booking;
}

/** What is to be put on the floor, at a moment that is still open. */
export interface Wish {
  readonly job: number;
  readonly index: number;
  readonly task: Task;
  readonly body: string;
  readonly up: Facing;
  readonly window: Window;
  /** It comes when it can, though its window has closed. */
  readonly late: boolean;
  readonly notBefore: number;
  readonly doing: (at: number) => Doing;
  readonly after: (at: number, how: Doing) => Point;
}

/** The next moment to try, and why the one before does not do. */
interface Later {
  readonly at: number;
  readonly cause: DelayCause;
}

/** Windows shorter than this are met to the second, others to the minute [s]. */
const TO_THE_SECOND = 360;
/** Windows shorter than this do not leave time to clean a brush first [s]. */
const WET_WINDOW = 2700;
/** Moments tried for one task. */
const MOST_MOMENTS = 600;
/** Free hands for mixing are looked for in steps of this [s]. */
const MIX_STEP = 300;

const minuteUp = (moment: number): number =>
  Math.ceil(moment / SECONDS_PER_MINUTE - 1e-9) * SECONDS_PER_MINUTE;

/** Whether this task cannot wait until the brush used before is washed: its window closes soon. */
const isUrgent = ({ window }: Wish): boolean =>
  window.closes !== null && window.closes - window.opens < WET_WINDOW;

function bookingOf(
  { job, index, task, body, up, window }: Wish,
  from: number,
  how: Doing,
  by: { readonly hand: number; readonly carried: number },
  { laid, shift }: Point,
  turned: boolean,
  delay: DelayCause | null = null,
): Booking {
  const film = laid.films.at(-1);
  const lays = task.brushIn !== null && film !== undefined;
  return {
    job,
    task: index,
    hand: by.hand,
    from,
    until: how.until,
    wash: task.wash + by.carried,
    brushIn: task.brushIn,
    brushOut: task.brushOut,
    carries: by.carried > 0,
    body,
    up,
    tacky: lays ? (film.openStates.tacky ?? Infinity) + shift : how.until,
    lies: lays ? (film.openStates.recoat ?? Infinity) + shift : how.until,
    how,
    window,
    delay,
    recipe: null,
    turned,
  };
}

export class Floor {
  readonly hands: Hands;
  private readonly bodies: Bodies;
  private readonly pots = new Map<string, Standing[]>();
  private readonly turn: number;

  constructor(private readonly problem: Problem) {
    const { people, minutes, work } = problem;
    this.turn = minutes.turn * SECONDS_PER_MINUTE;
    this.hands = new Hands(people, this.turn, minutes.brushWaits * SECONDS_PER_MINUTE);
    this.bodies = new Bodies(this.turn, (other, booking) => {
      const from = other.from - this.turn;
      return (work === undefined || atWork(from, work)) && this.hands.canTurnBefore(other, booking);
    });
  }

  /**
   * Puts a task where it can begin soonest.
   * @returns the bookings made, the task's own last; or by how much its window is missed [s]; Infinity where there is no
   * time for it at all
   */
  place(
    wish: Wish,
  ): { readonly made: readonly Booking[]; readonly after: Point } | { readonly missedBy: number } {
    const { opens } = wish.window;
    const closes = wish.late ? null : wish.window.closes;
    const earliest = Math.max(opens, wish.notBefore);
    const tight = closes !== null && closes - opens < TO_THE_SECOND;
    let longest: { delay: number; cause: DelayCause | null } = {
      delay: Math.max(0, earliest - opens),
      cause: earliest > opens ? 'order' : null,
    };
    let at = tight ? earliest : minuteUp(earliest);
    if (closes !== null && at > closes && earliest <= closes) at = earliest;
    for (let n = 0; n < MOST_MOMENTS; n++) {
      if (at === Infinity) return { missedBy: Infinity };
      if (closes !== null && at > closes + 1e-6) return { missedBy: at - closes };
      const tried = this.try(wish, at, longest.cause);
      if (!('cause' in tried)) return tried;
      const next = tight ? tried.at : minuteUp(tried.at);
      const delay = next - at;
      if (delay > longest.delay) longest = { delay, cause: tried.cause };
      at = next;
    }
    return { missedBy: Infinity };
  }

  /** Puts a task where it was really begun, whoever else was at it, and the pots there that it took. */
  took(wish: Wish, { from: at, goes }: Begun): { readonly made: readonly Booking[]; readonly after: Point } {
    const { task, body, up, notBefore } = wish;
    const told = wish.doing(at);
    const how = goes ? { ...told, until: Math.max(told.until, notBefore) } : told;
    const after = wish.after(at, how);
    const free = this.hands.free(task, at, how.until);
    const by = 'hand' in free ? free : { hand: 0, carried: 0 };
    const booking = bookingOf(wish, at, how, by, after, this.bodies.upBefore(body, at) !== up);
    this.put(booking);
    for (const need of task.pots)
      if (need.mixing > 0 && !this.stands(need, booking))
        this.stand(need, { ...booking, from: at - need.rest, until: at - need.rest, recipe: need.recipe });
    return { made: [booking], after };
  }

  /** Takes bookings out again. */
  remove(bookings: readonly Booking[]): void {
    for (const booking of bookings) {
      this.hands.remove(booking);
      if (booking.recipe !== null) {
        const pots = this.pots.get(booking.recipe)!;
        pots.splice(
          pots.findIndex(({ mixed }) => mixed === booking),
          1,
        );
        continue;
      }
      this.bodies.remove(booking);
    }
  }

  /** A booking at a moment, or the next moment to try. */
  private try(
    wish: Wish,
    at: number,
    delay: DelayCause | null,
  ): { made: readonly Booking[]; after: Point } | Later {
    const { task, body, up } = wish;
    const how = wish.doing(at);
    const turned = this.bodies.upBefore(body, at) !== up;
    const pre = turned ? this.turn : 0;
    if (at - pre < this.problem.from - NEAR) return { at: this.problem.from + pre, cause: 'order' };
    const waits = this.problem.minutes.brushWaits * SECONDS_PER_MINUTE;
    const carries = (before: Booking): boolean =>
      isUrgent(wish) && before.recipe === null && how.until - before.until <= waits;
    const inTime = this.inTime(task, at - pre, at, how.until + task.wash);
    if (inTime > at) return { at: inTime, cause: 'hours' };
    const free = this.bodies.free(body, up, at, pre);
    if (free > at) return { at: free, cause: 'piece' };
    const fits = this.hands.free(task, at - pre, how.until, carries);
    if ('next' in fits) return { at: Math.max(at + 1, fits.next + pre), cause: 'hands' };
    const cleaned = this.inTime(task, at - pre, at, how.until + task.wash + fits.carried);
    if (cleaned > at) return { at: cleaned, cause: 'hours' };
    const blocked = this.bodies.blockedLater(body, up, at, how.until);
    if (blocked > at) return { at: blocked, cause: 'piece' };
    const after = wish.after(at, how);
    const booking = bookingOf(wish, at, how, fits, after, turned, delay);
    const later = this.bodies.later(booking);
    if (later > at) return { at: later, cause: 'piece' };
    this.put(booking);
    const mixed = this.mixFor(task.pots, booking);
    if (mixed === null) {
      this.remove([booking]);
      return { at: at + MIX_STEP, cause: 'pot' };
    }
    return { made: [...mixed, booking], after };
  }

  private put(booking: Booking): void {
    this.hands.put(booking);
    if (booking.recipe === null) this.bodies.put(booking);
  }

  /** The moment itself where work from `from` to `until` lies in one stretch, else the next to try. */
  private inTime(task: Task, from: number, at: number, until: number): number {
    const { work, daylight } = this.problem;
    const inOne = (time: WorkTime | undefined, begins: number, ends: number): number => {
      if (time === undefined) return at;
      const stretch = nextStretch(time, begins);
      if (stretch === null) return Infinity;
      if (stretch.opens > begins) return stretch.opens + (at - begins);
      if (ends <= stretch.closes) return at;
      const next = time[stretchFrom(time, begins) + 1];
      return next === undefined ? Infinity : next.opens + (at - begins);
    };
    const worked = inOne(work, from, until);
    return worked > at || !task.byEye ? worked : inOne(daylight, at, until - task.wash);
  }

  /** Mixes what a booking needs and no pot holds, as late as there are hands; null where there are none. */
  private mixFor(needs: readonly PotNeed[], use: Booking): Booking[] | null {
    const made: Booking[] = [];
    for (const need of needs) {
      if (need.mixing === 0 || this.stands(need, use)) continue;
      const mixed = this.mixBefore(need, this.hands.begins(use) - need.rest, use);
      if (mixed === null) {
        this.remove(made);
        return null;
      }
      made.push(mixed);
    }
    return made;
  }

  private stand(need: PotNeed, mixed: Booking): void {
    const pots = this.pots.get(need.recipe);
    if (pots === undefined) this.pots.set(need.recipe, [{ need, mixed }]);
    else pots.push({ need, mixed });
  }

  private stands(need: PotNeed, use: Booking): boolean {
    return (this.pots.get(need.recipe) ?? []).some(
      ({ mixed }) => mixed.until + need.rest <= use.from + 1e-6 && use.until <= mixed.until + need.life,
    );
  }

  private mixBefore(need: PotNeed, by: number, use: Booking): Booking | null {
    const { work, from: first } = this.problem;
    const task = { brushIn: null, brushOut: null, wash: 0 };
    let until = by;
    for (let n = 0; n < MOST_MOMENTS && use.until - until < need.life; n++) {
      let from = until - need.mixing;
      if (work !== undefined) {
        const i = stretchFrom(work, from);
        const stretch = work[i];
        const inside = stretch !== undefined && stretch.opens <= from && until <= stretch.closes;
        if (!inside) {
          // The latest stretch that ends by then.
          const before = work[stretch !== undefined && stretch.closes <= until ? i : i - 1];
          if (before === undefined) return null;
          until = Math.min(until - 1, before.closes);
          from = until - need.mixing;
          if (from < before.opens) {
            until = before.opens;
            continue;
          }
        }
      }
      if (from < first) return null;
      const free = this.hands.free(task, from, until);
      if ('hand' in free) {
        const mixed: Booking = {
          job: use.job,
          task: use.task,
          hand: free.hand,
          from,
          until,
          ...task,
          carries: false,
          body: use.body,
          up: use.up,
          tacky: until,
          lies: until,
          how: { until, sections: 1, lag: 0, glued: null },
          window: { opens: from, reason: null, closes: null, opener: -1 },
          delay: null,
          recipe: need.recipe,
          turned: false,
        };
        this.put(mixed);
        this.stand(need, mixed);
        return mixed;
      }
      until -= SECONDS_PER_MINUTE;
    }
    return null;
  }
}
