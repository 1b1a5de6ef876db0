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

/** What the cracks of a coat hang on beside these: the slip below it, its shrinkage and its toughness. */
export const CRACK_FACTORS = ['slip', 'strain', 'tough'] as const satisfies readonly (keyof StepFactors)[];
export type CrackFactor = (typeof CRACK_FACTORS)[number];
export type BelievedFactor = CoatFactor | CrackFactor;

/** What comes of a coat that cracks, as its moments are: logarithms, of lengths in m. */
export const LIVE_FIGURES = ['spacing', 'opening'] as const;
export type LiveFigure = (typeof LIVE_FIGURES)[number];
/** Whatever is believed of a coat. */
export type Believed = LiveState | LiveFigure;

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

/** How a moment [ln s], or a figure [ln m], hangs on the factors: a + Σ b x + ½ Σ Σ c x x, with x how far they are from the centre. */
export interface Form {
  readonly a: number;
  readonly b: readonly number[];
  readonly c: readonly (readonly number[])[];
}

/** What is believed of one coat: weighted draws of its factors, with the moments each of them means. */
export interface Belief {
  readonly stepId: string;
  /** Of states that come, whatever the factors are; by distance from the centre. */
  readonly forms: Readonly<Partial<Record<Believed, Form>>>;
  readonly centre: readonly number[];
  /** By factor, a value a draw; the last three of a coat that cracks only. */
  readonly factors: Readonly<Record<CoatFactor, Float64Array>> &
    Readonly<Partial<Record<CrackFactor, Float64Array>>>;
  /** ln of s since laid, or of m, a value a draw; none for what does not come, or comes in part of the draws only. */
  readonly moments: Readonly<Partial<Record<Believed, Float64Array>>>;
  /** Sum 1. */
  readonly weights: Float64Array;
}

/** A moment as it is believed [s since the coat was laid], or a figure [m]; 8 in 10 lie within the band. */
export interface Moment {
  readonly at: number;
  readonly low: number;
  readonly high: number;
}
