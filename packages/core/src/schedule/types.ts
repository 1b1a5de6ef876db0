import { type Basis, type StepMoment } from '../basis';
import { type Facing } from '../piece';
import { type PrepStep, type WorkTime } from '../plan';
import { type Minutes } from './minutes';

/*
 * The timetable of a piece: what is done when, over all parts, by whom. Moments and times in s, moments from the plan's
 * start.
 */

/** A stage of preparation of one part. */
export interface PrepWork {
  readonly step: PrepStep;
  readonly hands: number;
  /** What it rests afterwards. */
  readonly rest: number;
}

/** Something a step takes out of a pot. */
export interface PotNeed {
  /** Uses of one recipe may come out of one pot. */
  readonly recipe: string;
  /** With the hands, for a new pot; 0 where it comes out of the tin as it is. */
  readonly mixing: number;
  /** Between mixing and using it. */
  readonly rest: number;
  /** How long a pot serves, in a refrigerator where that helps. */
  readonly life: number;
}

/** A part of the piece that is worked on. */
export interface Job {
  readonly id: string;
  /** Its plan, what the shop knows and what was done already, without moments. */
  readonly basis: Basis;
  readonly prepares: readonly PrepWork[];
  /** What is turned as a whole; parts of no body lie by themselves. */
  readonly body: string | null;
  /** Which face of the body lies up while this part is worked on. */
  readonly up: Facing;
  /** By step. */
  readonly pots: Readonly<Record<string, readonly PotNeed[]>>;
  /** By step: not before what it needs is in the house. */
  readonly notBefore: Readonly<Record<string, number>>;
  /** Parts that are done first, by id. */
  readonly follows: readonly string[];
}

/** Work that begins no earlier than it was put, and is placed before all else. */
export interface Pin {
  readonly partId: string;
  readonly stepId: string;
  /** Coat of a seal, from 0. */
  readonly coat: number;
  readonly at: number;
}

/** What a timetable is asked. */
export interface Problem {
  readonly jobs: readonly Job[];
  /** Day and night when left out. */
  readonly work?: WorkTime;
  /** When colour and wear can be judged; whenever there is work when left out. */
  readonly daylight?: WorkTime;
  /** People, each at one thing at a time: 1 … 3. */
  readonly people: number;
  readonly minutes: Minutes;
  readonly pins: readonly Pin[];
  readonly deadline: number | null;
  /** Begin as late as the deadline allows. */
  readonly backward: boolean;
  /** Nothing is done before. */
  readonly from: number;
}

export const TASK_KINDS = ['prepare', 'step', 'coat', 'piece', 'buff', 'sections'] as const;
/**
 * What one stretch of hands is: preparation between two rests, a step, one of several coats of a seal, a piece of long
 * work, the buffing of a wax, glue with the coat over it.
 */
export type TaskKind = (typeof TASK_KINDS)[number];
export type EntryKind = TaskKind | 'turn' | 'mix' | 'clean';

export const WAIT_REASONS = ['state', 'minutes', 'rest', 'moment', 'supply'] as const;
/**
 * What a task waits for after the one before it: a state of the film below, the minutes that the plan sets, the rest of
 * preparation, a moment of its own, something that is not in the workshop yet.
 */
export type WaitReason = (typeof WAIT_REASONS)[number];

export const DELAY_CAUSES = ['hours', 'hands', 'piece', 'pot', 'order'] as const;
/**
 * What puts a task off although its own part allows it: nobody works then, everybody is busy, the piece lies otherwise or
 * is wet, its pot cannot be mixed earlier, something else is to come first (a pinned time, another part).
 */
export type DelayCause = (typeof DELAY_CAUSES)[number];

/** Something hands are at. */
export interface Entry {
  readonly kind: EntryKind;
  /** The part it is for; of a pot the first that uses it. */
  readonly partId: string;
  /** Of preparation the stages; else the step. */
  readonly stepId: string;
  readonly prepares: readonly PrepStep[];
  /** Which coat of a seal or piece of long work, from 0, and of how many. */
  readonly coat: number;
  readonly of: number;
  readonly from: number;
  readonly until: number;
  /** Who does it, from 0. */
  readonly hand: number;
  /** Glue and the coat over it: how many sections, and how far the second brush is behind the first [s]. */
  readonly sections: number;
  readonly lag: number;
  /** Earliest its own part allows. */
  readonly opens: number;
  /** Why it comes later than its own part allows; null where nothing puts it off. */
  readonly delay: DelayCause | null;
  /** Latest start; null where waiting does no harm. */
  readonly closes: number | null;
  /** How much later it may begin before something else, or the whole, is late; Infinity where nothing waits for it. */
  readonly float: number;
  /** The recipe of a pot that is mixed; null for all else. */
  readonly recipe: string | null;
  /** The face that lies up. */
  readonly up: Facing;
  /** What is turned. */
  readonly body: string;
}

/** When a pot is mixed, by its recipe and the first use that comes out of it. */
export interface MixedAt {
  readonly recipe: string;
  readonly partId: string;
  readonly stepId: string;
  readonly at: number;
}

/** What stands in the way of any timetable. */
export interface Obstacle {
  readonly reason: 'too-long' | 'no-time';
  readonly partId: string;
  readonly stepId: string;
  /** How long it takes, and the longest stretch there is. */
  readonly needs: number;
  readonly longest: number;
}

export interface Schedule {
  readonly outcome: 'found' | 'impossible';
  /** By the clock. */
  readonly entries: readonly Entry[];
  /** What the parts' forecasts take from it. */
  readonly moments: Readonly<Record<string, Readonly<Record<string, StepMoment>>>>;
  readonly mixes: readonly MixedAt[];
  /** When the last work is done and the last film dry through; null where one never is. */
  readonly ready: number | null;
  /** By part. */
  readonly readyOf: Readonly<Record<string, number | null>>;
  /** Where it lies in eight of ten airs that differ from what is expected. */
  readonly band: readonly [number, number] | null;
  /** No timetable is ready sooner. */
  readonly bound: number;
  /** Work whose window could not be kept. */
  readonly missed: readonly Entry[];
  readonly obstacle: Obstacle | null;
  /** The order it was made in, and where parts were kept together: where to go on from. */
  readonly order: Order;
  /** Timetables that were made to find it. */
  readonly builds: number;
}

/** In which order clusters of tasks are placed: the n-th mention of a job stands for its n-th cluster. */
export interface Order {
  readonly jobs: readonly number[];
  /** Tasks that are placed together with the one their window hangs on, by job and task. */
  readonly joined: readonly string[];
  /** Latest starts that forecasts taught, s after the task before, by job and task. */
  readonly learned: Readonly<Record<string, number>>;
}

/** How hard to look. */
export interface Effort {
  /** Timetables tried; more of them where there are few tasks. */
  readonly tries: number;
  readonly seed: number;
}
export const USUAL_EFFORT: Effort = { tries: 60, seed: 1 };
