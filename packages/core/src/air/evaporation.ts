import { checkRange } from '../errors';
import { ZERO_CELSIUS } from '../units';
import { AIR_RANGES, GAS_CONSTANT, WATER_MOLAR_MASS } from './constants';
import { pressureAtAltitude, saturationPressureC, saturationSlopeC } from './vapour';

/** Air over the work at one moment, SI. */
export interface Air {
  /** [K] */
  readonly temperature: number;
  /** Relative humidity [fraction]. */
  readonly humidity: number;
  /** Air speed over the surface [m/s]. */
  readonly speed: number;
  /** Height above sea level [m]. */
  readonly altitude: number;
}

/** Free-surface evaporation and the temperature the wet surface settles at. */
export interface Evaporation {
  /** Water lost from a free surface [m/s] of liquid water; never negative. */
  readonly rate: number;
  /** Temperature of the wet surface [K]. */
  readonly surfaceTemperature: number;
}

/** Diffusivity of vapour in air [m²/s] near room temperature, at sea level. */
const VAPOUR_DIFFUSIVITY = 2.5e-5;
/** Thermal diffusivity of air [m²/s]. */
const THERMAL_DIFFUSIVITY = 2.2e-5;
const AIR_HEAT_CAPACITY = 1006;
const DRY_AIR_GAS_CONSTANT = 287.05;
/** Radiative coefficient 4 ε σ T³ at room temperature with ε 0.94 [W/(m² K)]. */
const RADIATIVE = 5.4;
/** Transient conductance into wood under a drying film [W/(m² K)]; assumed. */
const INTO_WOOD = 6;
const LIQUID_DENSITY = 1000;

/** Throws when a field of the air is outside `AIR_RANGES`. */
export function checkAir(air: Air): void {
  checkRange('air.temperature', air.temperature, AIR_RANGES.temperature, 'K');
  checkRange('air.humidity', air.humidity, AIR_RANGES.humidity, '');
  checkRange('air.speed', air.speed, AIR_RANGES.speed, 'm/s');
  checkRange('air.altitude', air.altitude, AIR_RANGES.altitude, 'm');
}

/**
 * How fast a wet surface loses water to the air, and how cool it gets doing so.
 *
 * Balance of the surface: hc (Ta − Ts) + (hr + Us)(Ta − Ts) = Lv g (pSat(Ts) − e), solved by Newton's method;
 * g from hc by the Lewis analogy. hc = 5.6 + 3.9 v: Jürges/McAdams, smooth plate.
 *
 * @throws InputError naming the field of the air that is out of range
 * @remarks Lies between Uno's formula at air and at surface temperature in ordinary shops (evaporation.spec.ts).
 * @example evaporation({ temperature: 294.15, humidity: 0.5, speed: 0.1, altitude: 0 }).rate // ≈ 2.8e-8 m/s
 */
export function evaporation(air: Air): Evaporation {
  checkAir(air);
  const airC = air.temperature - ZERO_CELSIUS;
  const vapour = air.humidity * saturationPressureC(airC);
  const pressure = pressureAtAltitude(air.altitude);
  const density = pressure / (DRY_AIR_GAS_CONSTANT * air.temperature);
  const convective = 5.6 + 3.9 * air.speed;
  // Thin air conducts as well but diffuses faster: Dv and α both go with 1/p, so the Lewis number stays.
  const lewis = THERMAL_DIFFUSIVITY / VAPOUR_DIFFUSIVITY;
  const massTransfer = convective / (density * AIR_HEAT_CAPACITY * lewis ** (2 / 3));
  const perPascal = (massTransfer * WATER_MOLAR_MASS) / (GAS_CONSTANT * air.temperature);
  const conductance = convective + RADIATIVE + INTO_WOOD;

  let surfaceC = airC - 3;
  let step = 0;
  for (; step < 30; step++) {
    const latent = 2.501e6 - 2361 * surfaceC;
    const surplus =
      latent * perPascal * (saturationPressureC(surfaceC) - vapour) - conductance * (airC - surfaceC);
    const slope = latent * perPascal * saturationSlopeC(surfaceC) + conductance;
    const move = surplus / slope;
    surfaceC -= move;
    if (Math.abs(move) < 1e-7) break;
  }
  const rate = (perPascal * (saturationPressureC(surfaceC) - vapour)) / LIQUID_DENSITY;
  return { rate: Math.max(0, rate), surfaceTemperature: surfaceC + ZERO_CELSIUS };
}
