import { type Facing } from '../piece';
import { nextStretch, stretchFrom, type WorkTime } from '../plan';
import { SECONDS_PER_MINUTE } from '../units';
import { type Doing, type Point, type Window } from './chain';
import { type Task } from './tasks';
import { type PotNeed, type Problem } from './types';

/*
 * The shop floor while a timetable is made: who is at what, which face of each body lies up, which pots stand there.
 * Bookings are put in and taken out again; what follows from their order (cleaning, turning) is worked out where it is
 * asked for.
 */

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
  /** The brush of the task before is cleaned after it. */
  readonly carries: boolean;
  readonly body: string;
  readonly up: Facing;
  /** When the film it laid no longer runs, and can be lain on; its end where it lays none. */
  readonly tacky: number;
  readonly lies: number;
  readonly how: Doing;
  readonly window: Window;
  /** The recipe of a pot that is mixed; null for all else. */
  readonly recipe: string | null;
  /** The piece is turned first. */
  turned: boolean;
}

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

const OPPOSITE: Readonly<Partial<Record<Facing, Facing>>> = {
  top: 'bottom',
  bottom: 'top',
  front: 'back',
  back: 'front',
  left: 'right',
  right: 'left',
};
/** How a piece stands before anything is done. */
const STANDS: Facing = 'top';
/** Windows shorter than this are met to the second, others to the minute [s]. */
const TO_THE_SECOND = 360;
/** Moments nearer than this are one [s]. */
const NEAR = 1e-3;
/** Windows shorter than this do not leave time to clean a brush first [s]. */
const WET_WINDOW = 2700;
/** Moments tried for one task. */
const MOST_MOMENTS = 600;
/** Free hands for mixing are looked for in steps of this [s]. */
const MIX_STEP = 300;

const minuteUp = (moment: number): number =>
  Math.ceil(moment / SECONDS_PER_MINUTE - 1e-9) * SECONDS_PER_MINUTE;

/** Puts a booking where it belongs by its beginning. */
function insert(list: Booking[], booking: Booking): void {
  let i = list.length;
  while (i > 0 && list[i - 1]!.from > booking.from) i -= 1;
  list.splice(i, 0, booking);
}

/** Whether the brush of the task before may lie until this is done: what must follow wet paint at once. */
const carriesBrush = (before: Booking, { job, index, task, window }: Wish): boolean =>
  before.job === job &&
  before.task === index - 1 &&
  before.recipe === null &&
  task.brushIn === null &&
  window.closes !== null &&
  window.closes - window.opens < WET_WINDOW;

/**
 * Cleaning between two bookings of one hand; none where the next wants the same brush soon, or takes it along.
 * @param waits - how long a brush may wait for the same paint [s]
 */
export function washBetween(
  before: Booking,
  next: Pick<Booking, 'brushIn' | 'from' | 'carries'>,
  waits: number,
): number {
  if (next.carries) return 0;
  const same =
    before.brushOut !== null && before.brushOut === next.brushIn && next.from - before.until <= waits;
  return same ? 0 : before.wash;
}

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

export class Floor {
  readonly hands: readonly Booking[][];
  private readonly bodies = new Map<string, Booking[]>();
  private readonly pots = new Map<string, Standing[]>();
  private readonly turn: number;
  private readonly waits: number;

  constructor(private readonly problem: Problem) {
    this.hands = Array.from({ length: problem.people }, () => []);
    this.turn = problem.minutes.turn * SECONDS_PER_MINUTE;
    this.waits = problem.minutes.brushWaits * SECONDS_PER_MINUTE;
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
    let at = tight ? earliest : minuteUp(earliest);
    if (closes !== null && at > closes && earliest <= closes) at = earliest;
    for (let n = 0; n < MOST_MOMENTS; n++) {
      if (at === Infinity) return { missedBy: Infinity };
      if (closes !== null && at > closes + 1e-6) return { missedBy: at - closes };
      const tried = this.try(wish, at);
      if (typeof tried === 'number') at = tight ? tried : minuteUp(tried);
      else return tried;
    }
    return { missedBy: Infinity };
  }

  /** Takes bookings out again. */
  remove(bookings: readonly Booking[]): void {
    for (const booking of bookings) {
      const hand = this.hands[booking.hand]!;
      hand.splice(hand.indexOf(booking), 1);
      if (booking.recipe !== null) {
        const pots = this.pots.get(booking.recipe)!;
        pots.splice(
          pots.findIndex(({ mixed }) => mixed === booking),
          1,
        );
        continue;
      }
      const body = this.bodies.get(booking.body)!;
      body.splice(body.indexOf(booking), 1);
      this.tellTurns(body);
    }
  }

  /** A booking at a moment, or the next moment to try. */
  private try(wish: Wish, at: number): { made: readonly Booking[]; after: Point } | number {
    const { task, body, up } = wish;
    const how = wish.doing(at);
    const on = this.bodies.get(body) ?? [];
    const turned = this.upBefore(on, at) !== up;
    const pre = turned ? this.turn : 0;
    if (at - pre < this.problem.from - NEAR) return this.problem.from + pre;
    const carries = (before: Booking): boolean => carriesBrush(before, wish);
    const inTime = this.inTime(task, at - pre, at, how.until + task.wash);
    if (inTime > at) return inTime;
    const free = this.bodyFree(on, up, at, pre);
    if (free > at) return free;
    const fits = this.freeHand(task, at - pre, how.until, carries);
    if ('next' in fits) return Math.max(at + 1, fits.next + pre);
    const blocked = this.blockedLater(on, up, at, how.until);
    if (blocked > at) return blocked;
    const after = wish.after(at, how);
    const film = after.laid.films.at(-1);
    const lays = task.brushIn !== null && film !== undefined;
    const booking: Booking = {
      job: wish.job,
      task: wish.index,
      hand: fits.hand,
      from: at,
      until: how.until,
      wash: task.wash + fits.carried,
      brushIn: task.brushIn,
      brushOut: task.brushOut,
      carries: fits.carried > 0,
      body,
      up,
      tacky: lays ? (film.openStates.tacky ?? Infinity) + after.shift : how.until,
      lies: lays ? (film.openStates.recoat ?? Infinity) + after.shift : how.until,
      how,
      window: wish.window,
      recipe: null,
      turned,
    };
    const later = this.laterOnBody(on, booking);
    if (later > at) return later;
    this.put(booking);
    const mixed = this.mixFor(task.pots, booking);
    if (mixed === null) {
      this.remove([booking]);
      return at + MIX_STEP;
    }
    return { made: [...mixed, booking], after };
  }

  private put(booking: Booking): void {
    insert(this.hands[booking.hand]!, booking);
    if (booking.recipe !== null) return;
    let on = this.bodies.get(booking.body);
    if (on === undefined) this.bodies.set(booking.body, (on = []));
    insert(on, booking);
    this.tellTurns(on);
  }

  private tellTurns(on: readonly Booking[]): void {
    let up = STANDS;
    for (const booking of on) {
      booking.turned = booking.up !== up;
      ({ up } = booking);
    }
  }

  private upBefore(on: readonly Booking[], at: number): Facing {
    return on.findLast(({ from }) => from <= at)?.up ?? STANDS;
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

  /** The moment itself where the body can lie so, else the next to try. */
  private bodyFree(on: readonly Booking[], up: Facing, at: number, pre: number): number {
    let free = at;
    for (const other of on) {
      if (other.up === up) continue;
      if (other.from <= at) free = Math.max(free, this.turnsAfter(other, up) + pre);
    }
    return free;
  }

  /** When a body can be turned so that another face lies up. */
  private turnsAfter(laid: Booking, up: Facing): number {
    return Math.max(laid.until, OPPOSITE[laid.up] === up ? laid.lies : laid.tacky);
  }

  /** The moment itself where the hands are gone before anything on another face, else the next to try. */
  private blockedLater(on: readonly Booking[], up: Facing, at: number, until: number): number {
    for (const other of on)
      if (other.from > at && other.up !== up && until > other.from - this.turn)
        return this.turnsAfter(other, up) + this.turn;
    return at;
  }

  /** The moment itself where what comes later on the body still can, else the next to try. */
  private laterOnBody(on: readonly Booking[], booking: Booking): number {
    const first = on.find(({ from }) => from > booking.from);
    for (const other of on) {
      if (other.from <= booking.from || other.up === booking.up) continue;
      if (this.turnsAfter(booking, other.up) > other.from - this.turn)
        return this.turnsAfter(other, booking.up) + this.turn;
      if (other === first && !other.turned && !this.canTurnBefore(other, booking))
        return this.turnsAfter(other, booking.up) + this.turn;
    }
    return booking.from;
  }

  /** Whether the hand of a booking has time to turn the piece before it. */
  private canTurnBefore(other: Booking, booking: Booking): boolean {
    const from = other.from - this.turn;
    const { work } = this.problem;
    if (work !== undefined && !((nextStretch(work, from)?.opens ?? Infinity) <= from)) return false;
    const hand = this.hands[other.hand]!;
    const before = hand[hand.indexOf(other) - 1];
    const ends = (one: Booking): number => one.until + washBetween(one, other, this.waits);
    if (before !== undefined && ends(before) > from) return false;
    return other.hand !== booking.hand || ends(booking) <= from;
  }

  private begins(booking: Booking): number {
    return booking.from - (booking.turned ? this.turn : 0);
  }

  /** A hand that is free from a moment until another, one with the right brush first; else when to try again. */
  private freeHand(
    task: Pick<Task, 'brushIn' | 'brushOut' | 'wash'>,
    from: number,
    until: number,
    carries: (before: Booking) => boolean = () => false,
  ): { readonly hand: number; readonly carried: number } | { readonly next: number } {
    let next = Infinity;
    let best: { hand: number; saves: boolean; carried: number } | null = null;
    for (let h = 0; h < this.hands.length; h++) {
      const hand = this.hands[h]!;
      const i = indexAfter(hand, from);
      const before = hand[i - 1];
      const carried =
        before !== undefined && from - before.until < before.wash && carries(before) ? before.wash : 0;
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
    task: Pick<Task, 'brushOut' | 'wash'>,
    from: number,
    until: number,
    wash: number,
    carried: number,
  ): boolean {
    const [before, after] = [hand[i - 1], hand[i]];
    if (before !== undefined && before.until + wash > from + NEAR) return false;
    if (after === undefined) return true;
    const same =
      task.brushOut !== null && task.brushOut === after.brushIn && after.from - until <= this.waits;
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

  /** Mixes what a booking needs and no pot holds, as late as there are hands; null where there are none. */
  private mixFor(needs: readonly PotNeed[], use: Booking): Booking[] | null {
    const made: Booking[] = [];
    for (const need of needs) {
      if (need.mixing === 0 || this.stands(need, use)) continue;
      const mixed = this.mixBefore(need, this.begins(use) - need.rest, use);
      if (mixed === null) {
        this.remove(made);
        return null;
      }
      made.push(mixed);
    }
    return made;
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
      const free = this.freeHand(task, from, until);
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
          window: { opens: from, closes: null, opener: -1 },
          recipe: need.recipe,
          turned: false,
        };
        this.put(mixed);
        const pots = this.pots.get(need.recipe);
        if (pots === undefined) this.pots.set(need.recipe, [{ need, mixed }]);
        else pots.push({ need, mixed });
        return mixed;
      }
      until -= SECONDS_PER_MINUTE;
    }
    return null;
  }
}
