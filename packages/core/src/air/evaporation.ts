import { checkRange } from '../errors';
import { ZERO_CELSIUS } from '../units';
import { AIR_RANGES } from './constants';
import { convection, USUAL_PLATE } from './convection';
import { type Carrier, LIQUIDS } from './liquids';
import { pressureAtAltitude, saturationPressureC } from './vapour';
import { type Evaporation, type HotJet, wetSurface } from './wetSurface';

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
 * Balance of the surface as in `wetSurface`, with free and forced convection over the plate.
 *
 * @param plate - side of the panel [m]
 * @throws InputError naming the field of the air that is out of range
 * @remarks Lies between Uno's formula at air and at surface temperature in ordinary shops (evaporation.spec.ts).
 * @example evaporation({ temperature: 294.15, humidity: 0.5, speed: 0.1, altitude: 0 }).rate // ≈ 2.8e-8 m/s
 */
export function evaporation(air: Air, plate = USUAL_PLATE): Evaporation {
  checkAir(air);
  return evaporationOf('water', air, plate);
}

/** The same for any carrier, and for a jet of hot air in place of the room's; the air was checked. */
export function evaporationOf(
  carrier: Exclude<Carrier, 'none'>,
  air: Air,
  plate: number,
  jet?: HotJet,
): Evaporation {
  const liquid = LIQUIDS[carrier];
  const airC = air.temperature - ZERO_CELSIUS;
  return wetSurface({
    liquid,
    // A jet is room air heated: it carries the room's vapour.
    vapour: carrier === 'water' ? air.humidity * saturationPressureC(airC) : 0,
    pressure: pressureAtAltitude(air.altitude),
    jetC: jet === undefined ? airC : jet.temperature - ZERO_CELSIUS,
    roomC: airC,
    convective: jet === undefined ? (cooling) => convection(air.speed, cooling, plate) : () => jet.convective,
  });
}
