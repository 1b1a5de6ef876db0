import { type Appearance } from '../colour';
import { type CrackInput, type CrackLaw, type CrackPattern } from '../crack';
import { type DryingCurve, type StateTimes } from '../film';
import { type Medium } from '../media';
import { type FilmStep, type Step } from '../plan';
import { type Scene } from '../scene';
import { type Zone } from '../wear';
import { type Finding } from './findings/codes';

/** When a coat takes the next one the way its kind wants it; s from the plan's start. */
export interface TopcoatWindow {
  readonly opensAt: number;
  /** null where waiting longer does no harm. */
  readonly closesAt: number | null;
}

/** When a step is done, s from the plan's start. */
export interface StepTimes {
  readonly step: Step;
  readonly from: number;
  readonly until: number;
  /** False where its state never comes in this air, and the plan takes it a day later. */
  readonly comes: boolean;
}

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
  /** Drying as it comes, until covered; kernel units, times from laying. */
  readonly curve: DryingCurve;
  readonly crack: CoatCracks | null;
}

/** What a coat does to what it lies on: present on every coat that dries. */
export interface CoatCracks {
  readonly law: CrackLaw;
  readonly pattern: CrackPattern;
  /** s from the plan's start. */
  readonly firstAt: number | null;
  readonly clearAt: number | null;
  readonly doneAt: number | null;
  /** Index among the films of the lowest one above the weakest boundary. */
  readonly boundary: number;
  /** How the coat lies, so that spreads and knobs can be worked out from it. */
  readonly input: CrackInput;
}

/** Flakes that let go at one boundary. */
export interface ChipForecast {
  /** Index among the films of the lowest one that goes. */
  readonly film: number;
  /** Share of the film that lets go by itself. */
  readonly share: number;
  /** Index of the film whose pull decides. */
  readonly by: number;
  /** Mean flake [m]. */
  readonly size: number;
  readonly driveRatio: number;
}

/** What is seen where: the panel first, then every layer in the order laid. Shares add up to 1. */
export interface LayerShare {
  /** Step that laid it; `panel` for what lies below everything. */
  readonly id: string;
  readonly share: number;
  readonly zones: Readonly<Record<Zone, number>>;
}

/** What distressing and wiping do, step by step. */
export interface RemovalForecast {
  readonly stepId: string;
  /** Share of the area on which another layer comes to light. */
  readonly share: number;
  /** Median depth in the top film [m]. */
  readonly depth: number;
  /** Blade and scraper: effort against a cured film. */
  readonly effort: number | null;
}

/** What one zone of the panel, or all of it, comes to. */
export interface ZoneForecast {
  /** Of the panel's area. */
  readonly area: number;
  /** Cracks of the film whose cracks the panel shows; null where none does. */
  readonly crack: CrackPattern | null;
  /** First crack [s after the cracked coat was laid]; null where none comes while it dries. */
  readonly firstAfter: number | null;
  /** Share of the zone that chips, flakes and resists take, and that is worn through. */
  readonly chippedShare: number;
  readonly wornShare: number;
  /** Share on which nothing but clear films lies over the panel. */
  readonly bareShare: number;
  /** Mean flake [m]; null where next to nothing flakes. */
  readonly flake: number | null;
  /** Gloss at 60 degrees [GU]. */
  readonly gloss: number;
  /** All that is seen, mixed by area, `#rrggbb`. */
  readonly colour: string;
}

/** A whole plan's forecast, closed form. */
export interface Forecast {
  readonly times: readonly StepTimes[];
  /** The films, in the order laid. */
  readonly coats: readonly CoatForecast[];
  /** Index of the film whose cracks the panel shows, or null. */
  readonly crackedCoat: number | null;
  readonly chips: readonly ChipForecast[];
  readonly removals: readonly RemovalForecast[];
  /** What the panel as a whole, and each of its zones, come to. */
  readonly whole: ZoneForecast;
  readonly zones: Readonly<Record<Zone, ZoneForecast>>;
  readonly layers: readonly LayerShare[];
  /** What happens to the panel, for the field. */
  readonly scene: Scene;
  readonly appearance: Appearance;
  /** When the last film is through-dry and the last step done [s from the plan's start], null when never in this air. */
  readonly readyAt: number | null;
  readonly findings: readonly Finding[];
}
