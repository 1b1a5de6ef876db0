import { normalCdf } from '../numeric/normal';
import {
  CLEAR_OPENING_UM,
  INTERCEPT_OF_AREA,
  JUNCTION_SHARE,
  MAX_STRENGTH_RATIO,
  meanOfLargestByStrength,
  meanOfLargestByToughness,
  NUCLEATION,
  openingShare,
  STRENGTH_SCATTER,
  TOUGHNESS_SCATTER,
} from './constants';
import { type CrackLaw, type CrackPattern } from './types';

/** How sharply the two limits of the spacing give way to each other. */
const BLEND = 12;
const MAX_TOUGHNESS_RATIO = 0.97;

/**
 * Largest fragment that strength leaves whole, in pull lengths: 2 acosh(1/(1 − q)).
 * @see Cox 1952, Brit. J. Appl. Phys. 3 (shear lag; from memory)
 */
export function largestByStrength(strengthRatio: number): number {
  return 2 * Math.acosh(1 / (1 - Math.min(strengthRatio, MAX_STRENGTH_RATIO)));
}

/**
 * Largest fragment in which a new crack would not pay for itself, in pull lengths.
 * Energy of a crack in the middle of a fragment s: ε² ℓ E (2 tanh(s/4) − tanh(s/2)) = 2 t³/(1 + t²), t = tanh(s/4).
 * @param toughnessRatio - 3λ/(ε² ℓ), below 1
 */
export function largestByToughness(toughnessRatio: number): number {
  const beta = Math.min(toughnessRatio, MAX_TOUGHNESS_RATIO);
  let t = Math.cbrt(beta / 2);
  for (let step = 0; step < 20; step++) {
    const move = (2 * t ** 3 - beta * (1 + t * t)) / (6 * t * t - 2 * beta * t);
    t = Math.min(t - move, 1 - 1e-9);
    if (Math.abs(move) < 1e-12) break;
  }
  return 4 * Math.atanh(t);
}

/**
 * Closed form of the pattern a coat cracks into: the mean of what the field simulation grows from the same law.
 *
 * Spacing: strength and toughness each leave a largest fragment; the larger of the two governs, and the mean is a
 * measured share of it. Whether cracks run at all: strain against √(3 λ/ℓ). Opening: what the pull length lets the
 * islands gather, ε L tanh(y)/y with y = L/2ℓ, less dead ends.
 *
 * @remarks Spacing is the mean line intercept, (π/4) · 2 area / crack length, as the field and a photo measure it.
 *   Agrees with the field within its bands over a grid of plans (forecast.spec.ts).
 */
export function crackPattern(law: CrackLaw): CrackPattern {
  const { strain, pullLengthUm: pull, strengthRatio } = law;
  if (!(strain > 0)) return { crackedShare: 0, spacingUm: 0, openingUm: 0, openArea: 0, strength: 0 };
  const toughnessRatio = (NUCLEATION * law.fractureLengthUm) / (strain * strain * pull);
  const runs = normalCdf((-0.5 * Math.log(toughnessRatio)) / TOUGHNESS_SCATTER);
  const breaks = normalCdf(-Math.log(strengthRatio) / STRENGTH_SCATTER);
  const crackedShare = runs * breaks;
  const q = Math.min(strengthRatio, MAX_STRENGTH_RATIO);
  const beta = Math.min(toughnessRatio, MAX_TOUGHNESS_RATIO);
  const byStrength = meanOfLargestByStrength(q) * largestByStrength(q);
  const byToughness = meanOfLargestByToughness(beta) * largestByToughness(beta);
  const areaSpacing = pull * (byStrength ** BLEND + byToughness ** BLEND) ** (1 / BLEND);
  const half = areaSpacing / (2 * pull);
  const opening = openingShare(half) * strain * areaSpacing * (Math.tanh(half) / half) * law.fillLeft;
  const strength =
    crackedShare *
    law.mixing *
    law.fillLeft *
    law.relaxation *
    // Islands stand free where they slid, or where the boundary below has let go.
    Math.min(1, Math.max(Math.sqrt(2 * law.mobilityAtGel), law.driveRatio)) *
    Math.min(1, opening / CLEAR_OPENING_UM);
  return {
    crackedShare,
    spacingUm: INTERCEPT_OF_AREA * areaSpacing,
    openingUm: opening,
    // Crack length per area is 2/L.
    openArea: Math.min(0.95, (JUNCTION_SHARE * 2 * opening * crackedShare) / areaSpacing),
    strength,
  };
}

/** A film that cracks on less than this of itself is told by the law of the places where it does. */
const IN_PLACES = 0.85;

/** The law of the places where a film cracks: of one that hardly does, those it strains most. */
export function lawWhereItCracks(law: CrackLaw): CrackLaw {
  const strained = (factor: number): CrackLaw => ({
    ...law,
    strain: law.strain * factor,
    strengthRatio: law.strengthRatio / factor,
  });
  const cracks = (factor: number): boolean => crackPattern(strained(factor)).crackedShare >= IN_PLACES;
  if (cracks(1)) return law;
  let low = 1;
  let high = 4;
  for (let step = 0; step < 24; step++) {
    const mid = Math.sqrt(low * high);
    if (cracks(mid)) high = mid;
    else low = mid;
  }
  return strained(high);
}
