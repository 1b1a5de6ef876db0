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

/** How far a ratio may be off in spoons: what a level spoon is true to. */
export const SPOON_TRUE = 0.05;
/** A batch is made no larger than this to keep its ratio. */
const LARGEST_BATCH = 1.6;

/** Several volumes of one mix in spoons, so that their ratio holds. */
export interface SpoonedMix {
  readonly spoons: readonly Spooned[];
  /** How far the part that is most off is off the ratio; beyond `SPOON_TRUE` it is better weighed. */
  readonly off: number;
}

/**
 * Measures a mix out in spoons: not each part rounded for itself, which turns 4 : 1 into 5 : 2, but the batch made as
 * much larger as it takes for spoons to tell the ratio.
 * @param volumes - of its parts [m³], in the ratio wanted; together they are enough
 * @throws InputError as `inSpoons`
 */
export function mixInSpoons(volumes: readonly number[], measures: Measures): SpoonedMix {
  const { teaspoon } = measures;
  const grain = HALF * teaspoon;
  const all = volumes.reduce((sum, volume) => sum + volume, 0);
  let best: { halves: number[]; off: number } | null = null;
  for (let scale = 1; scale <= LARGEST_BATCH; scale += 0.01) {
    const halves = volumes.map((volume) =>
      Math.max(volume > 0 ? 1 : 0, Math.round((scale * volume) / grain)),
    );
    const total = halves.reduce((sum, half) => sum + half, 0) * grain;
    if (total < all * (1 - 1e-9)) continue;
    const off = Math.max(
      ...volumes.map((volume, i) =>
        volume > 0 ? Math.abs((halves[i]! * grain * all) / (total * volume) - 1) : 0,
      ),
    );
    if (best === null || off < best.off - 1e-9) best = { halves, off };
    if (off <= SPOON_TRUE) break;
  }
  return {
    spoons: best!.halves.map((half) => inSpoons(half * grain, measures)),
    off: best!.off,
  };
}
