/** Air at room temperature: kinematic viscosity and thermal diffusivity [m²/s], conductivity [W/(m K)], mean temperature [K]. */
const VISCOSITY = 1.52e-5;
export const THERMAL_DIFFUSIVITY = 2.2e-5;
const CONDUCTIVITY = 0.0257;
const ROOM = 294;
const GRAVITY = 9.81;
const PRANDTL = VISCOSITY / THERMAL_DIFFUSIVITY;
/**
 * The air of a shop is never laminar: people, doors and heating stir it, which exchanges two to three times what a
 * smooth plate does in a wind tunnel; common practice, fitted to how paint dries at 0.1 m/s.
 */
const STIRRED = 2.3;
/** Side of a plate where nobody says how large it is [m]. */
export const USUAL_PLATE = 0.49;
/** Plates are taken as no smaller or larger than these [m]: sizes of parts of furniture. */
const PLATE = { min: 0.05, max: 1.5 };
/** A surface as warm as the air still moves it a little [K]. */
const LEAST_COOLING = 0.2;

/**
 * Heat transfer between a plate and the air along it.
 *
 * Forced: Nu = 0.664 Re^½ Pr^⅓, laminar plate. Free: Nu = 0.54 Ra^¼. Combined: Nu³ = Nu_f³ + Nu_n³ (Churchill 1977,
 * AIChE Journal 23, the power for a plate; all from memory).
 * @param speed - of the air [m/s]
 * @param cooling - how much cooler the surface is than the air [K]
 * @param plate - side of the plate [m]
 * @returns [W/(m² K)]
 */
export function convection(speed: number, cooling: number, plate: number): number {
  const side = Math.min(PLATE.max, Math.max(PLATE.min, plate));
  const forced = 0.664 * Math.sqrt((speed * side) / VISCOSITY) * Math.cbrt(PRANDTL);
  const rayleigh =
    ((GRAVITY / ROOM) * Math.max(LEAST_COOLING, Math.abs(cooling)) * side ** 3) /
    (VISCOSITY * THERMAL_DIFFUSIVITY);
  const free = 0.54 * rayleigh ** 0.25;
  return (STIRRED * CONDUCTIVITY * Math.cbrt(forced ** 3 + free ** 3)) / side;
}
