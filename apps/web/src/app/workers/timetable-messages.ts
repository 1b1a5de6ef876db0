import { type Plan } from '@zaffet/contract';
import { type Pin, type Schedule } from '@zaffet/core/schedule';
import { type AirEffects, type Given, type OtherWay, type Standing } from '@zaffet/workshop';

/** What the list shows of a plan's timetable. */
export interface Listed {
  readonly standing: Standing;
  readonly moments: Schedule['moments'];
}

/** What the timetable's thread is asked; `given` is what the shop knows. */
export interface TimetableWorker {
  /** When everything is done. */
  time(plan: Plan, given: Given): Schedule;
  /** Takes a timetable to drag from: its parts are gone through once for all that follows. */
  hold(plan: Plan, table: Schedule, given: Given): void;
  /** The same order with work put to other moments. */
  drag(pins: readonly Pin[]): Schedule;
  /** How long each step may be put off until the look is another one [s], by step. */
  holds(plan: Plan, table: Schedule, given: Given): Readonly<Record<string, number>>;
  /** What the air does to coats and windows. */
  air(plan: Plan, table: Schedule, given: Given): AirEffects;
  /** What else could be done, each with what it gains and costs. */
  others(plan: Plan, table: Schedule, given: Given): readonly OtherWay[];
  /** The latest start that is done by an instant. */
  startToEndBy(plan: Plan, by: string, given: Given): string;
  /** When a plan is done [ms since 1970]. */
  endsAt(plan: Plan, given: Given): number;
  /** How a plan of the list stands at a moment [ms since 1970], and when its steps begin. */
  listed(plan: Plan, now: number, given: Given): Listed;
}
