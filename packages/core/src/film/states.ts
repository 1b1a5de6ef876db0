import { type Medium } from '../media';
import { SECONDS_PER_DAY, SECONDS_PER_HOUR } from '../units';
import { arrhenius } from './dry';
import { type DryingCurve } from './types';

/** Close packing of the solids: a consolidated skin holds this share of them (random close packing, 0.64). */
export const CLOSE_PACKING = 0.64;
/** The shine goes a little before the film gels: this much more water by volume. */
const MATTE_MARGIN = 0.06;
/** Activation energy of curing [J/mol], about twice as fast per 10 K; assumed. */
const CURE_ACTIVATION = 50000;
/** 90 % of an exponential approach takes ln 10 time constants. */
const TO_NINETY_PER_CENT = Math.LN10;

/** When a coat left open reaches its states [s after it was laid]; null when it never does in this air. */
export interface StateTimes {
  readonly matte: number | null;
  readonly tacky: number | null;
  readonly skinned: number | null;
  readonly touch: number | null;
  readonly recoat: number | null;
  readonly through: number | null;
  readonly cured: number | null;
}

/** Water evaporated when a skin of the medium's `skinUm` has consolidated [µm]. */
export function skinEvaporation(skinUm: number, solidsShare: number): number {
  return (skinUm * Math.max(CLOSE_PACKING - solidsShare, 0.02)) / solidsShare;
}

/** First moment a falling series reaches a level, interpolated between samples; null when it never does. */
export function fallsTo(curve: DryingCurve, series: Float64Array, level: number): number | null {
  for (let i = 0; i < curve.count; i++) {
    const value = series[i]!;
    if (value > level) continue;
    if (i === 0) return 0;
    const before = series[i - 1]!;
    const share = (before - level) / (before - value);
    return curve.time[i - 1]! + share * (curve.time[i]! - curve.time[i - 1]!);
  }
  return null;
}

/** First moment a rising series reaches a level; null when it never does. */
export function risesTo(curve: DryingCurve, series: Float64Array, level: number): number | null {
  for (let i = 1; i < curve.count; i++) {
    const value = series[i]!;
    if (value < level) continue;
    const before = series[i - 1]!;
    const share = value === before ? 1 : (level - before) / (value - before);
    return curve.time[i - 1]! + share * (curve.time[i]! - curve.time[i - 1]!);
  }
  return null;
}

/** A series of the curve at a moment [s after laying], linear between samples, held outside. */
export function valueAt(curve: DryingCurve, series: Float64Array, moment: number): number {
  let i = 1;
  while (i < curve.count && curve.time[i]! < moment) i++;
  if (i >= curve.count) return series[curve.count - 1]!;
  const t0 = curve.time[i - 1]!;
  const t1 = curve.time[i]!;
  const share = t1 === t0 ? 1 : Math.min(1, Math.max(0, (moment - t0) / (t1 - t0)));
  return series[i - 1]! + share * (series[i]! - series[i - 1]!);
}

/** Water at which the film's water share of volume is `share` [µm]. */
export function waterAtShare(solidsUm: number, share: number): number {
  return (solidsUm * share) / (1 - share);
}

/** Through-dry comes this much later than recoat where air hardens the film; common practice. */
const OXIDISED_THROUGH = 1.6;

/** Share of its hardening by air that a film has reached at an age [s]; 1 for films that dry without. */
export function oxidised(medium: Medium, age: number, temperature: number): number {
  if (medium.oxidationHours === 0) return 1;
  const tau = (medium.oxidationHours * SECONDS_PER_HOUR) / arrhenius(CURE_ACTIVATION, temperature);
  return 1 - Math.exp(-Math.max(0, age) / tau);
}

/** When hardening by air reaches a share [s after laying]. */
function oxidisedAt(medium: Medium, share: number, temperature: number): number {
  if (medium.oxidationHours === 0) return 0;
  const tau = (medium.oxidationHours * SECONDS_PER_HOUR) / arrhenius(CURE_ACTIVATION, temperature);
  return -tau * Math.log(1 - share);
}

const NEVER: StateTimes = {
  matte: null,
  tacky: null,
  skinned: null,
  touch: null,
  recoat: null,
  through: null,
  cured: null,
};

/**
 * When a coat reaches its states. Wet shine → matte → tacky (gelled) → skinned → touch-dry → recoat → through-dry →
 * cured to 90 %. Oils harden by air besides, never sooner than their solvent has gone; a wax laid too thick and a fat
 * never do.
 * @param temperature - air temperature while it cures [K]
 */
export function stateTimes(curve: DryingCurve, temperature: number): StateTimes {
  const { medium, solidsUm, water, evaporated } = curve;
  if (solidsUm + curve.water0Um > medium.hardensUpToUm) return NEVER;
  const later = (time: number | null, share: number): number | null =>
    time === null ? null : Math.max(time, oxidisedAt(medium, share, temperature));
  const touch = later(fallsTo(curve, water, medium.touchWater * solidsUm), medium.oxidationTouch);
  const recoat = later(fallsTo(curve, water, medium.recoatWater * solidsUm), medium.oxidationRecoat);
  const dry = fallsTo(curve, water, medium.throughWater * solidsUm);
  const through =
    dry === null
      ? null
      : Math.max(dry, OXIDISED_THROUGH * oxidisedAt(medium, medium.oxidationRecoat, temperature));
  const cure =
    (TO_NINETY_PER_CENT * medium.cureDays * SECONDS_PER_DAY) / arrhenius(CURE_ACTIVATION, temperature);
  return {
    matte: fallsTo(curve, water, waterAtShare(solidsUm, medium.gelWater + MATTE_MARGIN)),
    tacky: fallsTo(curve, water, waterAtShare(solidsUm, medium.gelWater)),
    skinned: risesTo(curve, evaporated, skinEvaporation(medium.skinUm, curve.solidsShare)),
    touch,
    recoat,
    through,
    cured: through === null ? null : through + cure,
  };
}
