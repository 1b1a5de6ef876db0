import { type Range } from '../errors';

/** Molar gas constant [J/(mol K)], CODATA 2018 (exact). */
export const GAS_CONSTANT = 8.314462618;
/** Specific gas constant of water vapour [J/(kg K)]. */
export const VAPOUR_GAS_CONSTANT = 461.52;
/** Molar mass of water [kg/mol]. */
export const WATER_MOLAR_MASS = 0.018015;
/** Ratio of the molar masses of water and dry air, as in the ASHRAE Handbook of Fundamentals. */
export const MASS_RATIO = 0.621945;
/** Standard atmosphere at sea level [Pa]. */
export const SEA_LEVEL_PRESSURE = 101325;

/** Ranges a shop's air can take; everything outside is refused at the doors. */
export const AIR_RANGES = {
  /** Air temperature [K]: 2 … 45 °C; below, water-borne films do not form, above, the drying law is untried. */
  temperature: { min: 275.15, max: 318.15 },
  /** Relative humidity [fraction]. */
  humidity: { min: 0.05, max: 0.98 },
  /** Air speed over the surface [m/s]. */
  speed: { min: 0.02, max: 5 },
  /** Height above sea level [m]. */
  altitude: { min: -400, max: 4000 },
} as const satisfies Record<string, Range>;
