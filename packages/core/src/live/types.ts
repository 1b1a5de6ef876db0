import { type StepFactors } from '../media';

/** States of a coat that can be seen at the bench, and the first cracks in it. */
export const LIVE_STATES = [
  'matte',
  'tacky',
  'skinned',
  'touch',
  'recoat',
  'through',
  'first-cracks',
] as const;
export type LiveState = (typeof LIVE_STATES)[number];

/** What a coat's moments hang on, as natural logarithms on the tables. */
export const COAT_FACTORS = ['air', 'dry', 'thickness'] as const satisfies readonly (keyof StepFactors)[];
export type CoatFactor = (typeof COAT_FACTORS)[number];

/** Something believed: its mean and standard deviation. */
export interface Spread {
  readonly mean: number;
  readonly sd: number;
}
/** What is believed of a coat before anybody has looked at it. */
export type Prior = Readonly<Record<CoatFactor, Spread>>;

/** What somebody saw of a coat. */
export interface Look {
  /** s since it was laid. */
  readonly since: number;
  /** Past this state, not yet in that one; either side may be open. */
  readonly after: LiveState | null;
  readonly before: LiveState | null;
  /** Told as the state `after` came, not found at a look. */
  readonly now: boolean;
}

/** How a moment [ln s] hangs on the factors: a + Σ b x + ½ Σ Σ c x x, with x how far they are from the centre. */
export interface Form {
  readonly a: number;
  readonly b: readonly number[];
  readonly c: readonly (readonly number[])[];
}

/** What is believed of one coat: weighted draws of its factors, with the moments each of them means. */
export interface Belief {
  readonly stepId: string;
  /** Of states that come, whatever the factors are; by distance from the centre. */
  readonly forms: Readonly<Partial<Record<LiveState, Form>>>;
  readonly centre: readonly number[];
  /** By factor, a value a draw. */
  readonly factors: Readonly<Record<CoatFactor, Float64Array>>;
  /** ln of s since laid, a value a draw; none for states that do not come, or come in part of the draws only. */
  readonly moments: Readonly<Partial<Record<LiveState, Float64Array>>>;
  /** Sum 1. */
  readonly weights: Float64Array;
}

/** A moment as it is believed [s since the coat was laid]; 8 in 10 lie within the band. */
export interface Moment {
  readonly at: number;
  readonly low: number;
  readonly high: number;
}
