import {
  arrhenius,
  CLOSE_PACKING,
  type DryingCurve,
  fallsTo,
  oxidised,
  skinEvaporation,
  type StateTimes,
  stateTimes,
  valueAt,
  waterAtShare,
} from '../film';
import {
  AFTER_CRACKING,
  BONDED_STRAIN,
  CHANNEL_Z,
  CYCLE_STRAIN,
  FIRST_FLAW,
  FLOATS_ON_UM,
  FLOW_ACTIVATION,
  HALF_BOND_MOBILITY,
  HEAT_STRAIN,
  LIQUID_SLIP_UM,
  MOST_SKINNED,
  NUCLEATION,
  PARTING,
  POROUS_HOLD,
  RELAXATION_HALVING_HUMIDITY,
  SKIN_STRAIN,
  SKINS_OVER_UM,
  TEARING_SKIN,
} from './constants';
import { type CrackLaw, type CrackTimes } from './types';

/*
 * A skin forms on the coat and wants to shrink. On a layer that lets it slip it pulls itself into islands; the more
 * slip it gathers before it is dry, the larger the islands. A medium that dissolves again creeps up into the wet
 * paint and lets thick coats slip early; white glue stops slipping once the pair has lost some water. In damp air both
 * stay wet longer, but slip does not gather for ever: the coat grows into what it slides on, and what it has gathered
 * relaxes, so that crackle comes later and stands less open (common practice).
 *
 * Symbols, after the shear-lag literature (Xia & Hutchinson 2000, J. Mech. Phys. Solids 48; from memory):
 *   C compliance gathered below [µm], s solids [µm], ℓ pull length [µm]:  ℓ² = (Z s)² + C s
 *   fc consolidated share of the coat's solids, hl its liquid part [µm], M mobility of the layer below.
 */

/** What the coat lies on and how it was brushed, beside its drying curve. */
export interface CrackInput {
  readonly curve: DryingCurve;
  /** Share of the layer below that had formed a film when the coat was laid; 1 on a substrate. */
  readonly closedBelow: number;
  readonly passes: number;
  /** Air while the coat dries: temperature [K] and relative humidity. */
  readonly temperature: number;
  readonly humidity: number;
  /** Solids of later coats on top [µm]. */
  readonly coveringUm: number;
  /** What holds the coat, and the coats it is one with, on what lies below; none where only slip counts. */
  readonly hold?: Hold;
  /** Hot air on the coat while it dried or was wet again, 0 none … 1 all through. */
  readonly heat?: number;
  /** Times it was wetted again and dried. */
  readonly cycles?: number;
  /** Factors of a calibration, or of a spread: 1 as the table stands. */
  readonly slipFactor?: number;
  readonly strainFactor?: number;
}

/** The weakest boundary under a coat: everything above it pulls on it together. */
export interface Hold {
  /** Solids of all coats above the boundary, this one included [µm]. */
  readonly solidsUm: number;
  /** Strain energy those coats store when they dry without letting go, each forced as it was [J/m²]. */
  readonly energyJM2: number;
  /** What the boundary needs to part [J/m²]. */
  readonly bondJM2: number;
}

/** What slips under a coat: the medium's own figures, or those of paint that is still soft below a solvent film. */
interface SlipLayer {
  readonly rate: number;
  readonly halfWater: number;
  readonly setWater: number;
  readonly resolubility: number;
  /** Share of the layer that is open to flow. */
  readonly open: number;
  /** Its hardening by air, not its water, says how freely it flows. */
  readonly oxidising: boolean;
  /** How long until the coat has grown into it [s]. */
  readonly fades: number;
  readonly passesWet: number;
  readonly passesDry: number;
}

/** Soft paint under a solvent coat: it does not mix, but it gives; assumed. */
const SOFT_PAINT = {
  rate: 9.4,
  halfWater: 0.4,
  setWater: Infinity,
  resolubility: 0,
  oxidising: false,
  fades: 1800,
  passesWet: 3,
  passesDry: 8,
};
/** A film that air hardens is open to half while it is soft; assumed. */
const OXIDISING_OPEN = 0.5;

function slipLayer(input: CrackInput): SlipLayer | null {
  const { ground, medium } = input.curve;
  if (ground.kind === 'substrate') return null;
  const below = ground.medium;
  const soft = 1 - input.closedBelow;
  if (below.slipRate > 0) {
    return {
      rate: below.slipRate,
      halfWater: below.slipHalfWater,
      setWater: below.slipSetWater,
      resolubility: below.resolubility,
      open:
        below.oxidationHours > 0 ? OXIDISING_OPEN * soft : 1 - (1 - below.resolubility) * input.closedBelow,
      oxidising: below.oxidationHours > 0,
      fades: (below.slipFades * ground.solidsUm) / (below.wetFilmUm * below.volumeSolids),
      passesWet: below.passesWet,
      passesDry: below.passesDry,
    };
  }
  const solventOverWater = below.carrier === 'water' && medium.carrier !== 'water' && soft > 0;
  return solventOverWater ? { ...SOFT_PAINT, open: soft } : null;
}

/** How freely a layer flows at a water content, per its solids: 0 … 1. */
const mobility = ({ open, halfWater, oxidising }: SlipLayer, water: number): number =>
  oxidising ? open : (open * water) / (water + halfWater);

interface Slip {
  /** Mobility of the layer below at the gel point. */
  readonly atGel: number;
  /** Compliance gathered at each sample of the curve [µm]. */
  readonly gathered: Float64Array;
  readonly touchAt: number | null;
  readonly gelAt: number | null;
  readonly mixing: number;
}

/**
 * Film-formed share of a layer left open for a while: how much of it no longer dissolves into a coat laid then. From
 * its skin on it grows with the logarithm of time, and is whole when the layer is touch-dry: one clock for what a
 * finger finds and for what the next coat does.
 * @param states - of the layer, counted from its laying, where they are known already
 */
export function closedShare(
  curve: DryingCurve,
  age: number,
  temperature: number,
  { skinned, touch }: Pick<StateTimes, 'skinned' | 'touch'> = stateTimes(curve, temperature),
): number {
  const { medium } = curve;
  if (medium.oxidationHours > 0) {
    return Math.min(1, oxidised(medium, age, temperature) / medium.oxidationTouch);
  }
  if (touch !== null && age >= touch) return 1;
  const skinE = skinEvaporation(medium.skinUm, curve.solidsShare);
  const e = valueAt(curve, curve.evaporated, age);
  const c0 = medium.closedFromStart;
  if (e < skinE || skinned === null) return c0 * Math.min(1, e / skinE) ** 2;
  if (touch === null || touch <= skinned) return c0;
  return c0 + (1 - c0) * Math.min(1, Math.max(0, Math.log(age / skinned) / Math.log(touch / skinned)));
}

/** How clean the brush leaves the boundary: 1 / (1 + (passes/n)⁴), n from wet to dry as the layer has closed. */
function mixingOf(input: CrackInput): number {
  const layer = slipLayer(input);
  if (layer === null) return 1;
  const { passesWet, passesDry } = layer;
  const n = passesWet + (passesDry - passesWet) * input.closedBelow;
  return 1 / (1 + (input.passes / n) ** 4);
}

function consolidated(curve: DryingCurve, i: number): number {
  const rest = curve.solidsUm * (1 / CLOSE_PACKING - 1);
  const range = curve.water0Um - rest;
  if (range <= 0) return 1;
  return Math.min(1, Math.max(0, (curve.water0Um - curve.water[i]!) / range));
}

/** Follows the slip below the coat from laying to the end of its curve. */
function gatherSlip(input: CrackInput): Slip {
  const { curve } = input;
  const { ground, medium, solidsUm: s } = curve;
  const gelWater = waterAtShare(s, medium.gelWater);
  const gelAt = fallsTo(curve, curve.water, gelWater);
  const touchAt = fallsTo(curve, curve.water, medium.touchWater * s);
  const gathered = new Float64Array(curve.count);
  const mixing = mixingOf(input);
  const layer = slipLayer(input);
  if (layer === null || ground.kind === 'substrate') return { atGel: 0, gathered, touchAt, gelAt, mixing };

  const sb = ground.solidsUm;
  const factor =
    layer.rate * mixing * arrhenius(FLOW_ACTIVATION, input.temperature) * (input.slipFactor ?? 1);
  const set = layer.setWater * sb;
  const integrand = (i: number): number => {
    const liquid = (1 - consolidated(curve, i)) * (curve.water[i]! + s);
    const flowing = set === Infinity ? 1 : Math.exp(-curve.evaporated[i]! / set);
    // The longer both are wet the more the coat has grown into what it slides on.
    const apart = Math.exp(-curve.time[i]! / layer.fades);
    return (
      mobility(layer, curve.waterBelow[i]! / sb) *
      sb *
      (1 + (layer.resolubility * liquid) / LIQUID_SLIP_UM) *
      flowing *
      apart
    );
  };
  let before = integrand(0);
  for (let i = 1; i < curve.count; i++) {
    const here = integrand(i);
    const t0 = curve.time[i - 1]!;
    let dt = curve.time[i]! - t0;
    if (touchAt !== null) dt = Math.max(0, Math.min(dt, touchAt - t0));
    gathered[i] = gathered[i - 1]! + factor * 0.5 * (before + here) * dt;
    before = here;
  }
  const atGel = gelAt === null ? 0 : mobility(layer, valueAt(curve, curve.waterBelow, gelAt) / sb);
  return { atGel, gathered, touchAt, gelAt, mixing };
}

/** Free strain of the film before relaxation. */
function freeStrain(input: CrackInput, slip: Slip): number {
  const { medium, ground } = input.curve;
  const bond = slip.atGel / (slip.atGel + HALF_BOND_MOBILITY);
  const porosity = ground.kind === 'substrate' ? ground.substrate.porosity : 0;
  const shrinkage = 1 - (1 - medium.gelWater) ** (1 / 3);
  const held = bond + (1 - bond) * BONDED_STRAIN * (1 - POROUS_HOLD * porosity);
  return shrinkage * held * (0.25 + 0.75 * slip.mixing) * (input.strainFactor ?? 1) * medium.strainFactor;
}

/**
 * Factor on the strain of a film by hot air, 0 … 1, and by times it was wetted and dried again. A thick film skins over
 * under hot air while it is wet below, and strains most.
 */
export const forcedStrain = (heat: number, cycles: number, solidsUm: number): number =>
  (1 + HEAT_STRAIN * heat * (1 + Math.min(MOST_SKINNED, solidsUm / SKINS_OVER_UM))) *
  (1 + CYCLE_STRAIN * cycles);

/** Drive over bond of the weakest boundary below; a coat that slides has little to drive it. */
function driveRatio(input: CrackInput, slip: Slip): number {
  if (input.hold === undefined) return 0;
  const drive = input.hold.energyJM2 * (1 - slip.atGel) * (input.strainFactor ?? 1) ** 2;
  return drive / input.hold.bondJM2;
}

/** Compliance of a boundary that begins to part [µm]: nothing while it holds, much once it gives. */
function partingCompliance(input: CrackInput, slip: Slip): number {
  if (input.hold === undefined) return 0;
  const r4 = driveRatio(input, slip) ** 4;
  const bond = slip.atGel / (slip.atGel + HALF_BOND_MOBILITY);
  return ((1 - bond) * PARTING * r4) / (1 + r4);
}

function relaxationLeft(input: CrackInput, slip: Slip): number {
  if (slip.gelAt === null || slip.touchAt === null) return 0;
  // A film in damp air holds more water and relaxes sooner.
  const time =
    input.curve.medium.relaxationTime * 2 ** (-(input.humidity - 0.5) / RELAXATION_HALVING_HUMIDITY);
  return 1 / (1 + (slip.touchAt - slip.gelAt) / time);
}

/**
 * The law's numbers for one coat on its ground: what it slips, shrinks and needs to break.
 * @returns null when the coat never becomes touch-dry in this air, so that nothing can be said of its end
 */
export function crackLaw(input: CrackInput): CrackLaw | null {
  const { curve } = input;
  const slip = gatherSlip(input);
  if (slip.touchAt === null || slip.gelAt === null) return null;
  const compliance = valueAt(curve, slip.gathered, slip.touchAt);
  const relaxation = relaxationLeft(input, slip);
  const strain =
    freeStrain(input, slip) * relaxation * forcedStrain(input.heat ?? 0, input.cycles ?? 0, curve.solidsUm);
  const s = curve.solidsUm;
  const all = input.hold?.solidsUm ?? s;
  const parting = partingCompliance(input, slip);
  return {
    thicknessUm: s,
    complianceUm: compliance,
    pullLengthUm: Math.sqrt((CHANNEL_Z * all) ** 2 + compliance * s + parting * all),
    strain,
    strengthRatio: (curve.medium.breakStrain / strain) * relaxation ** AFTER_CRACKING,
    fractureLengthUm: curve.medium.fractureLengthUm,
    mixing: slip.mixing,
    fillLeft: Math.exp(-input.coveringUm / s),
    relaxation,
    mobilityAtGel: slip.atGel,
    driveRatio: driveRatio(input, slip),
  };
}

/**
 * When the first crack shows, when the pattern reads, when it is done.
 *
 * First crack: toughness, strength and a skin that can tear the coat must all be met; interpolated between samples.
 */
export function crackTimes(input: CrackInput): CrackTimes {
  const { curve } = input;
  const { medium, solidsUm: s } = curve;
  const slip = gatherSlip(input);
  const strain = freeStrain(input, slip);
  const skinE = skinEvaporation(medium.skinUm, curve.solidsShare);
  const gelWater = waterAtShare(s, medium.gelWater);
  const older = Math.max(0, (input.hold?.solidsUm ?? s) - s);
  const parting = partingCompliance(input, slip);
  /** Share of the strain the drying film carries at a sample. */
  const carried = (i: number): number => {
    const lost = curve.water0Um - curve.water[i]!;
    return 1 - (1 - SKIN_STRAIN * (1 - Math.exp(-lost / skinE))) * Math.min(1, curve.water[i]! / gelWater);
  };
  const layer = slipLayer(input);
  const sb = curve.ground.kind === 'layer' ? curve.ground.solidsUm : 0;
  /** What the layer below holds against: on a thick one that still flows the coat floats. */
  const grip = (i: number): number =>
    layer === null ? 1 : 1 / (1 + (mobility(layer, curve.waterBelow[i]! / sb) * sb) / FLOATS_ON_UM);
  /** The least of the three margins; 0 or more when a crack can show. */
  const margin = (i: number): number => {
    const g = carried(i) * grip(i);
    const fc = consolidated(curve, i);
    const skin = fc * s;
    const pull = Math.sqrt((CHANNEL_Z * (skin + older)) ** 2 + slip.gathered[i]! * skin + parting * skin);
    const toughness = ((g * strain) ** 2 * pull) / (FIRST_FLAW * NUCLEATION * medium.fractureLengthUm) - 1;
    return Math.min(toughness, fc / TEARING_SKIN - 1, (g * strain) / (SKIN_STRAIN * medium.breakStrain) - 1);
  };

  let first: number | null = null;
  let atFirst = 0;
  let before = margin(0);
  for (let i = 1; i < curve.count && first === null; i++) {
    const here = margin(i);
    if (here >= 0) {
      const share = before >= 0 ? 0 : -before / (here - before);
      first = curve.time[i - 1]! + share * (curve.time[i]! - curve.time[i - 1]!);
      atFirst = carried(i - 1) + share * (carried(i) - carried(i - 1));
    }
    before = here;
  }
  if (first === null) return { first: null, clear: null, done: null };

  const clearAt = atFirst + 0.4 * (1 - atFirst);
  let clear: number | null = null;
  for (let i = 1; i < curve.count && clear === null; i++) {
    const here = carried(i);
    if (curve.time[i]! < first || here < clearAt) continue;
    const previous = Math.max(carried(i - 1), atFirst);
    const share = here > previous ? (clearAt - previous) / (here - previous) : 1;
    const t0 = Math.max(curve.time[i - 1]!, first);
    clear = t0 + Math.max(0, share) * (curve.time[i]! - t0);
  }
  return { first, clear, done: slip.touchAt };
}

/**
 * How far the cracks have opened over time: 0 at the first crack, 1 at touch-dry.
 * @returns pairs of time [s after laying] and share, at the samples of the curve
 */
export function openingHistory(input: CrackInput): { readonly time: number[]; readonly share: number[] } {
  const { curve } = input;
  const times = crackTimes(input);
  if (times.first === null) return { time: [0], share: [0] };
  const skinE = skinEvaporation(curve.medium.skinUm, curve.solidsShare);
  const gelWater = waterAtShare(curve.solidsUm, curve.medium.gelWater);
  const carried = (water: number): number =>
    1 - (1 - SKIN_STRAIN * (1 - Math.exp(-(curve.water0Um - water) / skinE))) * Math.min(1, water / gelWater);
  const start = carried(valueAt(curve, curve.water, times.first));
  const end = carried(
    times.done === null ? curve.water[curve.count - 1]! : valueAt(curve, curve.water, times.done),
  );
  const time: number[] = [times.first];
  const share: number[] = [0];
  for (let i = 0; i < curve.count; i++) {
    const t = curve.time[i]!;
    if (t <= times.first || (times.done !== null && t > times.done)) continue;
    time.push(t);
    share.push(Math.min(1, Math.max(0, (carried(curve.water[i]!) - start) / (end - start || 1))));
  }
  return { time, share };
}
