import { type DryingAir } from '../air';
import { type Medium, type Substrate } from '../media';

/** What a drying coat lies on. Lengths in µm, as everywhere in the film kernel. */
export type Ground =
  | { readonly kind: 'substrate'; readonly substrate: Substrate; readonly takenUpUm: number }
  | {
      readonly kind: 'layer';
      readonly medium: Medium;
      readonly solidsUm: number;
      /** Water left in the layer when the new coat goes on. */
      readonly waterUm: number;
    };

/** One coat to be dried. */
export interface FilmInput {
  readonly medium: Medium;
  /** Wet film thickness [µm]. */
  readonly wetUm: number;
  /** Litres of water stirred into a litre of the medium. */
  readonly dilution: number;
  readonly ground: Ground;
  readonly air: readonly DryingAir[];
  /** When the coat is laid [s from the plan's start]. */
  readonly laidAt: number;
  /** When the next coat covers it [s]; Infinity while it stays open. */
  readonly coveredAt: number;
}

/**
 * A coat drying: samples over time, times in s from the moment it was laid, lengths in µm.
 * The arrays are longer than `count`; only the first `count` entries hold.
 */
export interface DryingCurve {
  readonly medium: Medium;
  readonly ground: Ground;
  readonly count: number;
  readonly time: Float64Array;
  /** Water in the coat. */
  readonly water: Float64Array;
  /** Water in the layer below; 0 throughout on a substrate. */
  readonly waterBelow: Float64Array;
  /** Water given to the air since the coat was laid, by the coat and through it by the layer below. */
  readonly evaporated: Float64Array;
  /** Solids of the coat [µm], that is its dry film thickness. */
  readonly solidsUm: number;
  readonly water0Um: number;
  /** Solids by volume after dilution. */
  readonly solidsShare: number;
  /** Why the run ended. */
  readonly ended: 'dry' | 'covered' | 'in-balance' | 'horizon';
}
