import { checkRange } from '../errors';

/** What a painter measures with [m³]; level spoons. */
export interface Measures {
  readonly dish: number;
  readonly spoon: number;
  readonly teaspoon: number;
}

/** A volume as whole dishes and spoons, teaspoons to the half. */
export interface Spooned {
  readonly dishes: number;
  readonly spoons: number;
  readonly teaspoons: number;
  /** What they hold together [m³]: never less than asked for. */
  readonly volume: number;
}

/** From this many spoons a dish is filled first. */
const HALF = 0.5;
/** A spoon that holds less is no spoon [m³]. */
const MEASURE_RANGE = { min: 1e-7, max: 5e-3 };

/**
 * Measures a volume out in dishes and spoons, rounded up to half a teaspoon, so that it is enough.
 * @param volume - [m³]
 * @throws InputError `measures.*` when a measure holds next to nothing
 * @example inSpoons(40e-6, { dish: 100e-6, spoon: 15e-6, teaspoon: 5e-6 }) // 2 spoons, 2 teaspoons
 */
export function inSpoons(volume: number, { dish, spoon, teaspoon }: Measures): Spooned {
  checkRange('measures.dish', dish, MEASURE_RANGE, 'm³');
  checkRange('measures.spoon', spoon, MEASURE_RANGE, 'm³');
  checkRange('measures.teaspoon', teaspoon, MEASURE_RANGE, 'm³');
  let left = volume * (1 - 1e-9);
  const dishes = Math.floor(left / dish);
  left -= dishes * dish;
  let spoons = Math.floor(left / spoon);
  left -= spoons * spoon;
  let teaspoons = Math.ceil(left / teaspoon / HALF) * HALF;
  // What the spoons come to may fill the next larger measure.
  if (teaspoons * teaspoon >= spoon) {
    spoons++;
    teaspoons = 0;
  }
  return { dishes, spoons, teaspoons, volume: dishes * dish + spoons * spoon + teaspoons * teaspoon };
}
