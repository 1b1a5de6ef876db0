import { ZERO_CELSIUS } from '../units';
import { GAS_CONSTANT } from './constants';
import { THERMAL_DIFFUSIVITY } from './convection';
import { type Liquid } from './liquids';

/** Free-surface evaporation and the temperature the wet surface settles at. */
export interface Evaporation {
  /** Liquid lost from a free surface [m/s]; never negative. */
  readonly rate: number;
  /** Temperature of the wet surface [K]. */
  readonly surfaceTemperature: number;
}

/** Hot air from a tool, where it meets the surface. */
export interface HotJet {
  /** [K] */
  readonly temperature: number;
  /** Heat transfer it forces [W/(m² K)]. */
  readonly convective: number;
}

export interface SurfaceInput {
  readonly liquid: Liquid;
  /** Partial pressure of the liquid's vapour in the air [Pa]. */
  readonly vapour: number;
  /** [Pa] */
  readonly pressure: number;
  /** Air over the surface [°C]: the room's, or a jet's. */
  readonly jetC: number;
  readonly roomC: number;
  /** Heat transfer [W/(m² K)] by how much cooler the surface is than the air [K]. */
  readonly convective: (cooling: number) => number;
}

const AIR_HEAT_CAPACITY = 1006;
const DRY_AIR_GAS_CONSTANT = 287.05;
/** Radiative coefficient 4 ε σ T³ at room temperature with ε 0.94 [W/(m² K)]. */
const RADIATIVE = 5.4;
/** Transient conductance into wood under a drying film [W/(m² K)]; assumed. */
const INTO_WOOD = 6;

/**
 * Settles the balance of a wet surface:
 * hc (Tj − Ts) + (hr + Us)(Ta − Ts) = Lv g (p(Ts) − e), by Newton's method; g from hc by the Lewis analogy.
 * The input was checked at the doors.
 */
export function wetSurface(input: SurfaceInput): Evaporation {
  let cooling = 4;
  let settled = balance(input, input.convective(cooling));
  // The free convection hangs on the cooling, and that on it: with a fourth root three rounds are plenty.
  for (let round = 0; round < 3; round++) {
    cooling = input.jetC + ZERO_CELSIUS - settled.surfaceTemperature;
    settled = balance(input, input.convective(cooling));
  }
  return settled;
}

function balance(input: SurfaceInput, convective: number): Evaporation {
  const { liquid, vapour, pressure, jetC, roomC } = input;
  const jet = jetC + ZERO_CELSIUS;
  const density = pressure / (DRY_AIR_GAS_CONSTANT * jet);
  // Thin air conducts as well but diffuses faster: Dv and α both go with 1/p, so the Lewis number stays.
  const lewis = THERMAL_DIFFUSIVITY / liquid.diffusivity;
  const massTransfer = convective / (density * AIR_HEAT_CAPACITY * lewis ** (2 / 3));
  const perPascal = (massTransfer * liquid.molarMass) / (GAS_CONSTANT * jet);
  const still = RADIATIVE + INTO_WOOD;

  let surfaceC = roomC - 3;
  for (let step = 0; step < 60; step++) {
    const surplus =
      liquid.latent(surfaceC) * perPascal * (liquid.pressure(surfaceC) - vapour) -
      convective * (jetC - surfaceC) -
      still * (roomC - surfaceC);
    const slope = liquid.latent(surfaceC) * perPascal * liquid.slope(surfaceC) + convective + still;
    const move = Math.max(-15, Math.min(15, surplus / slope));
    surfaceC -= move;
    if (Math.abs(move) < 1e-7) break;
  }
  const rate = (perPascal * (liquid.pressure(surfaceC) - vapour)) / liquid.density;
  return { rate: Math.max(0, rate), surfaceTemperature: surfaceC + ZERO_CELSIUS };
}
