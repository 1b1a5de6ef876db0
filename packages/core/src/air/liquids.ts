import { WATER_MOLAR_MASS, GAS_CONSTANT } from './constants';
import { saturationPressureC, saturationSlopeC } from './vapour';

/** What leaves a film when it dries; `none` for fats and waxes that hold nothing to lose. */
export const CARRIERS = ['water', 'alcohol', 'spirit', 'thinner', 'propellant', 'none'] as const;
export type Carrier = (typeof CARRIERS)[number];

/** A liquid that evaporates. Temperatures in °C here, as in the vapour formulas. */
export interface Liquid {
  /** [kg/mol] */
  readonly molarMass: number;
  /** [kg/m³] */
  readonly density: number;
  /** Diffusivity of its vapour in air at room temperature [m²/s]. */
  readonly diffusivity: number;
  /** Vapour pressure [Pa] at a temperature [°C]. */
  readonly pressure: (temperatureC: number) => number;
  /** Its slope [Pa/K]. */
  readonly slope: (temperatureC: number) => number;
  /** Heat of evaporation [J/kg]. */
  readonly latent: (temperatureC: number) => number;
}

/** A solvent by its vapour pressure at 20 °C, carried to other temperatures by Clausius and Clapeyron. */
function solvent(p20: number, molarMass: number, latentHeat: number, density: number): Liquid {
  const k = (latentHeat * molarMass) / GAS_CONSTANT;
  const pressure = (t: number): number => p20 * Math.exp(-k * (1 / (t + 273.15) - 1 / 293.15));
  return {
    molarMass,
    density,
    diffusivity: 1.2e-5,
    pressure,
    slope: (t) => (pressure(t) * k) / (t + 273.15) ** 2,
    latent: () => latentHeat,
  };
}

/**
 * Carriers. Ethanol's vapour pressure (5.9 kPa at 20 °C) and heat of evaporation are handbook values quoted from
 * memory; white spirit, lacquer thinner and aerosol blends vary, theirs are common practice.
 */
export const LIQUIDS: Readonly<Record<Exclude<Carrier, 'none'>, Liquid>> = {
  water: {
    molarMass: WATER_MOLAR_MASS,
    density: 1000,
    diffusivity: 2.5e-5,
    pressure: saturationPressureC,
    slope: saturationSlopeC,
    latent: (t) => 2.501e6 - 2361 * t,
  },
  alcohol: solvent(5900, 0.04607, 846e3, 789),
  spirit: solvent(180, 0.14, 310e3, 780),
  thinner: solvent(3000, 0.09, 390e3, 870),
  propellant: solvent(5000, 0.06, 420e3, 750),
};
