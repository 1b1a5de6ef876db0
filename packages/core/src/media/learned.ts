import { checkRange, InputError } from '../errors';
import { type Medium } from './types';

/*
 * What boards and bench teach are factors on the tables, as natural logarithms, with the covariance of what is left
 * uncertain. A forecast only reads them; a medium keeps its key, its row comes with the factors multiplied in.
 */

/** What a factor multiplies, and how far it spreads while nothing is known of it [sd of ln]; assumed. */
export const PRIOR_SPREAD = {
  /** Every evaporation: the shop's drying rate. */
  air: 0.35,
  /** How fast water moves through a medium's film. */
  dry: 0.4,
  /** The slip of a medium under a coat. */
  slip: 0.6,
  /** A film's free strain; its square the energy it stores. */
  strain: 0.3,
  /** The fracture length. */
  tough: 0.3,
  /** What a medium's boundary needs to part. */
  bond: 0.4,
  /** How deep hand and tool go. */
  wear: 0.4,
} as const;
export type FactorKind = keyof typeof PRIOR_SPREAD;
/** `air`, or a kind with the medium or the tool it is of. */
export type FactorKey = 'air' | `${Exclude<FactorKind, 'air'>}:${string}`;

/** What is believed of one coat alone, as natural logarithms. */
export interface StepFactors {
  readonly air: number;
  readonly dry: number;
  readonly thickness: number;
  /** Of the layer below under it, and of the coat itself: known of coats that crack. */
  readonly slip?: number;
  readonly strain?: number;
  readonly tough?: number;
}

/** Where the boards stood that taught how one medium cracks on another. */
export interface BoardCentre {
  /** Keys of the generic media. */
  readonly top: string;
  readonly below: string;
  /** Dry film of the cracked coat and of the one below it [m]. */
  readonly films: readonly [number, number];
  readonly humidity: number;
  /** [K] */
  readonly temperature: number;
}

/** Factors learned, with what is left uncertain of them. */
export interface Learned {
  readonly keys: readonly FactorKey[];
  /** ln, in the order of the keys. */
  readonly mean: readonly number[];
  /** ln², rows and columns in the same order. */
  readonly covariance: readonly (readonly number[])[];
  readonly steps?: Readonly<Record<string, StepFactors>>;
  readonly centre?: readonly BoardCentre[];
}

/** No factor leaves the tables by more than this [ln]: a factor of twenty. */
const MOST = { min: -3, max: 3 };

/** The door for what was learned. @throws InputError when its arrays do not match or a factor is out of range */
export function checkLearned({ keys, mean, covariance }: Learned): void {
  const square = covariance.length === keys.length && covariance.every((row) => row.length === keys.length);
  if (mean.length !== keys.length || !square) {
    throw new InputError({
      code: 'learned.covariance',
      field: 'learned.covariance',
      value: `${covariance.length} rows for ${mean.length} means`,
      allowed: `a mean, a row and a column for each of ${keys.length} factors`,
    });
  }
  keys.forEach((key, i) => checkRange(`learned.${key}`, mean[i]!, MOST, 'ln'));
}

/** A factor; 1 where nothing was learned of it. */
export function factorOf(learned: Learned | null, key: FactorKey): number {
  const at = learned?.keys.indexOf(key) ?? -1;
  return at < 0 ? 1 : Math.exp(learned!.mean[at]!);
}

/** The key a medium's factor goes by: its own where that was learned, else that of its kind. */
export const factorKeyOf = (
  learned: Learned,
  kind: Exclude<FactorKind, 'air' | 'wear'>,
  medium: Pick<Medium, 'key' | 'like'>,
): FactorKey =>
  learned.keys.includes(`${kind}:${medium.key}`) ? `${kind}:${medium.key}` : `${kind}:${medium.like}`;

/** A medium's row with what was learned of it. */
export function asLearned(medium: Medium, learned: Learned): Medium {
  const of = (kind: Exclude<FactorKind, 'air' | 'wear'>): number =>
    factorOf(learned, factorKeyOf(learned, kind, medium));
  return {
    ...medium,
    diffusivityUm2S: medium.diffusivityUm2S * of('dry'),
    slipRate: medium.slipRate * of('slip'),
    strainFactor: medium.strainFactor * of('strain'),
    fractureLengthUm: medium.fractureLengthUm * of('tough'),
    bondJM2: medium.bondJM2 * of('bond'),
  };
}
