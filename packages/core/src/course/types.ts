import { type DryingAir } from '../air';
import { type CrackInput, type CrackLaw, type CrackPattern } from '../crack';
import { type DryingCurve, type Ground, type StateTimes } from '../film';
import { type Medium, type MediumLookup } from '../media';
import { type FilmStep, type PanelPlan, type Step } from '../plan';

/*
 * The course of a plan: when each step is done, how each film dries, and what it cracks into. Inside the core films
 * and cracks are in kernel units (µm, s from laying); what the forecast tells of them is SI.
 */

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

/** A film as it is laid and dries, before anything is said of its cracks. */
export interface FilmRun {
  readonly step: FilmStep;
  readonly stepIndex: number;
  readonly medium: Medium;
  /** When it is laid [s from the plan's start]; of several coats of a seal, the last. */
  readonly laidAt: number;
  readonly sample: DryingAir;
  /** When the first coat goes on, and the air then: what a film is laid into is met by that one. */
  readonly first: { readonly laidAt: number; readonly sample: DryingAir };
  /** What it lies on; of several coats of a seal, the first. */
  readonly ground: Ground;
  /** Film-formed share of what lies below when it was laid. */
  readonly closedBelow: number;
  /** The same at places of it that dry sooner and later, each a like part of the panel. */
  readonly closedPlaces: readonly number[];
  /** Temperature of the surface while a quick solvent leaves it [K]; null for slow carriers and water. */
  readonly solventSurface: number | null;
  /** On the slip of what lies below, as it is believed of this coat. */
  readonly slipFactor: number;
  /** Wet film of one coat [µm], and dry film of all coats of it [µm]. */
  readonly wetUm: number;
  readonly solidsUm: number;
  /** How long after laying a wax is buffed [s]; null where it is left, or is none. */
  readonly buffAfter: number | null;
  /** Drying as it comes if nothing covers it; times from laying. */
  readonly open: DryingCurve;
  /** States if it were left open [s from the plan's start]. */
  readonly openStates: StateTimes;
  readonly coveredAt: number | null;
  /** Hot air, 0 … 1, and times wetted again. */
  readonly heat: number;
  readonly cycles: number;
}

/** How a film cracks. */
export interface FilmCracks {
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

export interface Course {
  /** The plan as far as it is carried out. */
  readonly plan: PanelPlan;
  readonly media: MediumLookup;
  readonly films: readonly FilmRun[];
  readonly times: readonly StepTimes[];
  readonly air: readonly DryingAir[];
  /** By film; null where it never dries, or lies too soft or too tough to crack. */
  readonly cracks: readonly (FilmCracks | null)[];
  /** By film: its states, the coat over it counted in [s from the plan's start]. */
  readonly states: readonly StateTimes[];
  /** By film: when it takes the next one as its kind wants it. */
  readonly windows: readonly (TopcoatWindow | null)[];
}

/** Factors on what is uncertain all through a plan, 1 as the tables stand: for spreads. */
export interface Factors {
  /** On the drying rate of the shop's air. */
  readonly air?: number;
  /** On the slip a medium gives. */
  readonly slip?: number;
  /** On the strain a paint gathers. */
  readonly strain?: number;
  /** On what boundaries need to part. */
  readonly bond?: number;
  /** On how deep hand and tool go. */
  readonly wear?: number;
}
