/**
 * What a coat does to what it lies on while it dries. Kernel units: µm, s; strains and shares 0 … 1.
 * These are also the field simulation's inputs: one law, two speeds.
 */
export interface CrackLaw {
  /** Solids of the cracking coat, its dry thickness [µm]. */
  readonly thicknessUm: number;
  /** Slip compliance gathered below it by touch-dry, E/ks [µm]. */
  readonly complianceUm: number;
  /** Pull length ℓ: how far the stress takes to build up from a crack [µm]. */
  readonly pullLengthUm: number;
  /** Strain the film would shrink by if it were free, less what has relaxed. */
  readonly strain: number;
  /** Strength over stress, q; below 1 the film can break. */
  readonly strengthRatio: number;
  /** Fracture toughness over stiffness, λ [µm]. */
  readonly fractureLengthUm: number;
  /** Brush mixing, 1 clean … 0 mush. */
  readonly mixing: number;
  /** Share of the opening a later coat leaves, 1 without one. */
  readonly fillLeft: number;
  /** Share of free strain that relaxation leaves. */
  readonly relaxation: number;
  /** How freely the coat slides at the gel point, 0 … 1. */
  readonly mobilityAtGel: number;
  /** Drive over bond of the weakest boundary below; above 1 it tends to let go. */
  readonly driveRatio: number;
}

/** The pattern the law gives, in closed form. Lengths in µm, times in s from the coat's laying. */
export interface CrackPattern {
  /** Share of the film that cracks at all. */
  readonly crackedShare: number;
  /** Mean line intercept of the islands. */
  readonly spacingUm: number;
  readonly openingUm: number;
  /** Share of the area that stands open. */
  readonly openArea: number;
  /** How well the crackle reads, 0 none … 1 full. */
  readonly strength: number;
}

/** When the cracks come, s from the coat's laying; null when they do not. */
export interface CrackTimes {
  readonly first: number | null;
  /** When the pattern reads clearly. */
  readonly clear: number | null;
  /** Touch-dry: the opening has come to its end. */
  readonly done: number | null;
}
