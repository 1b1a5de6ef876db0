import { type LiveFigure, type LiveState, type Moment } from '@zaffet/core/live';
import { type Learned } from '@zaffet/core/media';
import { type Finding } from '@zaffet/core/notes';
import { type FollowedTask } from '@zaffet/core/schedule';

/*
 * How a run stands: what the hands are at, what comes next and when, what dries. Moments in ms since 1970 by the
 * server's clock; all of it is worked out from the run's events, nothing is kept.
 */

/** A moment as it is believed; 8 in 10 lie within the band. */
export interface Band {
  readonly at: number;
  readonly low: number;
  readonly high: number;
}

export const TASK_STATES = ['done', 'skipped', 'doing', 'next', 'later'] as const;
/** Whether something was done, is under way, is the next thing of its part, or comes after that. */
export type TaskState = (typeof TASK_STATES)[number];

/** One thing the hands do to one part. */
export interface BenchTask extends Pick<
  FollowedTask,
  'kind' | 'stepId' | 'topId' | 'prepares' | 'coat' | 'of' | 'hands' | 'sections' | 'lag' | 'late' | 'reason'
> {
  /** Of its part, step and coat: what its events are told of. */
  readonly key: string;
  readonly partId: string;
  readonly state: TaskState;
  /** When the timetable of the run's beginning had it; null for what was put in since. */
  readonly plannedAt: number | null;
  /** When it was begun, or will be. */
  readonly from: number;
  readonly until: number;
  /** When its part lets it begin, and until when: only of what is under way or next. */
  readonly opens: Band | null;
  readonly closes: Band | null;
  /** Since when it waits for `reason`. */
  readonly since: number;
  /** The film it goes on or waits for, and the state that decides; null where nothing dries. */
  readonly below: string | null;
  readonly waitsFor: LiveState | null;
  /** What speaks against doing it now; only of what is next. */
  readonly notes: readonly Finding[];
}

/** A film of a part as it dries. */
export interface BenchFilm {
  readonly partId: string;
  readonly stepId: string;
  readonly laidAt: number;
  /** When it comes into each state, for those that come; of white glue from the oldest section still open. */
  readonly states: Readonly<Partial<Record<LiveState, Band>>>;
  /** What it cracks into [m], where it is known to crack. */
  readonly figures: Readonly<Partial<Record<LiveFigure, Moment>>>;
  /** When a look at what the next task waits for tells most: of the part in hand. */
  readonly lookAt: number | null;
}

export interface BenchPart {
  readonly partId: string;
  readonly tasks: readonly BenchTask[];
  /** The film on top. */
  readonly film: BenchFilm | null;
  /** What a forecast of the part goes on with: the air of today, and the coats that were looked at. */
  readonly learned: Learned | null;
}

/** How a run stands at a moment. */
export interface Bench {
  /** When the run was begun [ms since 1970]. */
  readonly begunAt: number;
  readonly parts: readonly BenchPart[];
  /** How much quicker the shop's air dries today than expected; 1 where it is as expected. */
  readonly air: { readonly factor: number; readonly answers: number };
  /** When all is dry through as it goes now; null where a film never is. */
  readonly readyAt: number | null;
  /** Until when hands are wanted after their hours, so that no window is missed; null where they are not. */
  readonly overtime: number | null;
}
