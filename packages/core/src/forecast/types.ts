import { type CrackInput, type CrackLaw, type CrackPattern } from '../crack';
import { type DryingCurve, type StateTimes } from '../film';
import { type Coat } from '../plan';

/** When a coat takes the next one the way its kind wants it; s from the plan's start. */
export interface TopcoatWindow {
  readonly opensAt: number;
  /** null where waiting longer does no harm. */
  readonly closesAt: number | null;
}

/** What one coat does, moments in s from the plan's start. */
export interface CoatForecast {
  readonly coat: Coat;
  readonly laidAt: number;
  readonly coveredAt: number | null;
  /** Dry film thickness [m]. */
  readonly dryThickness: number;
  /** States if it were left open, from which its window follows. */
  readonly open: StateTimes;
  /** States as they come, the coat over it counted in. */
  readonly states: StateTimes;
  readonly window: TopcoatWindow | null;
  /** Drying as it comes, until covered; kernel units, times from laying. */
  readonly curve: DryingCurve;
  readonly crack: CoatCracks | null;
}

/** What a coat does to what it lies on: present on every coat that lies on another. */
export interface CoatCracks {
  readonly law: CrackLaw;
  readonly pattern: CrackPattern;
  /** s from the plan's start. */
  readonly firstAt: number | null;
  readonly clearAt: number | null;
  readonly doneAt: number | null;
  /** How the coat lies, so that spreads and knobs can be worked out from it. */
  readonly input: CrackInput;
}

/** Something the plan says about itself; `findingWords` in the contract says it in words. */
export interface Finding {
  readonly code: FindingCode;
  readonly level: 'stop' | 'warn' | 'tip' | 'good';
  readonly coatId: string;
  /** Numbers the sentence needs, SI. */
  readonly values: Readonly<Record<string, number>>;
}

export const FINDING_CODES = [
  'glue-still-open',
  'glue-grabs',
  'glue-closing',
  'glue-dried',
  'medium-wet',
  'medium-ready',
  'hide-not-cured',
  'hide-ready',
  'base-not-dry',
  'overworked',
  'second-coat-closes',
  'too-thin',
  'never-dry',
  'crackle-missing',
  'weak-crackle',
  'paint-before-paint',
  'damp-air',
  'start-never',
] as const;
export type FindingCode = (typeof FINDING_CODES)[number];

/** A whole plan's forecast, closed form. */
export interface Forecast {
  readonly coats: readonly CoatForecast[];
  /** Index of the coat whose cracks the panel shows, or null. */
  readonly crackedCoat: number | null;
  /** When the last coat is through-dry [s from the plan's start], null when never in this air. */
  readonly readyAt: number | null;
  readonly findings: readonly Finding[];
}
