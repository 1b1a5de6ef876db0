import { type AirSeries } from '../air';
import { type Learned } from '../media';
import { type PanelPlan } from '../plan';

/** What a shop has come to know of its paints, its tools and its hands, beside the tables. */
export interface ShopData {
  readonly version: 1;
  /** Factors learned from boards and at the bench; none while nothing was measured. */
  readonly learned: Learned | null;
  /** How far one board of the same plan differs from the next, by figure, where it was measured; of ln or log odds. */
  readonly scatter: Readonly<Record<string, number>>;
}

/** A shop of which nothing is known: the tables alone. */
export const NO_SHOP: ShopData = { version: 1, learned: null, scatter: {} };

/** When a timetable lets a step begin, s from the plan's start; a step's own rule where it says nothing. */
export type StepMoment = ({ readonly notBefore: number } | { readonly fixed: number }) & {
  /** When each coat of a seal is laid; none before the one below takes it, unless it was done so. */
  readonly coats?: readonly number[];
  /** When a wax is buffed. */
  readonly buffAt?: number;
  /** When the hands leave work that was cut into pieces. */
  readonly endsAt?: number;
};

/** How a step was really done. */
export interface StepDone {
  /** s from the plan's start. */
  readonly from: number;
  /** null while it is still going on. */
  readonly until: number | null;
  /** When each coat of a seal was laid, as far as they are. */
  readonly coats?: readonly number[];
  /** When a wax was buffed. */
  readonly buffAt?: number;
  /** Wet film as it was weighed or gauged [m]. */
  readonly thickness?: number;
  /** Brush passes over the same place as they were counted. */
  readonly passes?: number;
}

/** What someone at the bench said of a coat at a moment: that it is past one state, or not yet in another. */
export interface Answer {
  readonly stepId: string;
  /** s from the plan's start. */
  readonly at: number;
  /** Keys of states; either side may be open. */
  readonly after: string | null;
  readonly before: string | null;
  /** Told as it happened, not found at a look. */
  readonly now: boolean;
}

/** What is known of a run. */
export interface Known {
  /** s from the plan's start. */
  readonly now: number;
  readonly done: Readonly<Record<string, StepDone>>;
  readonly answers: readonly Answer[];
  /** Air as it was read; holds up to now, from there on the plan's air. */
  readonly air: AirSeries;
}

/**
 * All that a forecast rests on: one part's plan, what the shop knows, when the timetable has the hands free, and what
 * has been done and seen. With nothing but a plan every figure is the tables'.
 */
export interface Basis {
  readonly plan: PanelPlan;
  readonly shop: ShopData;
  /** By step. */
  readonly moments?: Readonly<Record<string, StepMoment>>;
  readonly known?: Known;
}
