import { type Course, type StepTimes, type TopcoatWindow } from '../course';
import { type StateTimes } from '../film';
import { type Medium } from '../media';
import { type Finding } from '../notes';
import { type CrackLook, type Outcome } from '../outcome';
import { type FilmStep } from '../plan';

/** What one film does, moments in s from the plan's start. */
export interface CoatForecast {
  readonly coat: FilmStep;
  /** Index among the plan's steps. */
  readonly stepIndex: number;
  readonly medium: Medium;
  /** When it is laid; of several coats of a seal, the last. */
  readonly laidAt: number;
  readonly coveredAt: number | null;
  /** Dry film thickness, all its coats [m]. */
  readonly dryThickness: number;
  /** States if it were left open, from which its window follows. */
  readonly open: StateTimes;
  /** States as they come, the coat over it counted in. */
  readonly states: StateTimes;
  readonly window: TopcoatWindow | null;
  readonly crack: CoatCracks | null;
}

/** What a coat does to what it lies on: present on every coat that dries. */
export interface CoatCracks extends CrackLook {
  /** s from the plan's start. */
  readonly firstAt: number | null;
  readonly clearAt: number | null;
  readonly doneAt: number | null;
  /** Index among the films of the lowest one above the weakest boundary. */
  readonly boundary: number;
}

/** A whole plan's forecast, closed form; SI but for `course` and `scene`, which the core's pictures are made from. */
export interface Forecast extends Outcome {
  readonly times: readonly StepTimes[];
  /** The films, in the order laid. */
  readonly coats: readonly CoatForecast[];
  /** When the last film is through-dry and the last step done [s from the plan's start], null when never in this air. */
  readonly readyAt: number | null;
  readonly findings: readonly Finding[];
  readonly course: Course;
}
