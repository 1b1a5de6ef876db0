import { hash3, uniform } from '../numeric/hash';
import { noiseValue } from '../numeric/noise';
import { MAP_RANGE, type PanelMap, type PanelSize } from '../plan';
import { changedBy } from './paint';

/*
 * Where use wears a panel. Each cause is an intensity over the panel, greatest where the cause works, in shares of the
 * panel so that it fits any size; what makes it look caused and not stamped is that nothing happens twice alike: a
 * hand's wander and the wood's hard and soft spots scatter the intensity by a lognormal noise of two sizes. Shapes are
 * common practice among painters, read off worn furniture; no published figures are known.
 */

/** What happens to a panel over the years. */
export const WEAR_CAUSES = ['handled', 'hung-on', 'knocked', 'stood-on', 'sun', 'damp'] as const;
export type WearCause = (typeof WEAR_CAUSES)[number];

/** A place that is touched, as shares of the panel's width and height. */
export interface Touch {
  readonly u: number;
  readonly v: number;
}

/** Where a cause usually works when nobody says. */
export const USUAL_TOUCHES: Readonly<Record<WearCause, readonly Touch[]>> = {
  handled: [
    { u: 0.93, v: 0.5 },
    { u: 0.05, v: 0.62 },
  ],
  'hung-on': [
    { u: 0.3, v: 0.04 },
    { u: 0.66, v: 0.04 },
  ],
  knocked: [],
  'stood-on': [
    { u: 0.36, v: 0.55 },
    { u: 0.68, v: 0.42 },
  ],
  sun: [],
  damp: [],
};

/** Scatter of the intensity, of its logarithm, and the sizes of its blotches [m]. */
const SCATTER = 0.75;
const BLOTCHES = [
  { size: 0.032, weight: 0.8 },
  { size: 0.009, weight: 0.6 },
];
/** Greatest intensity before the scatter, as a factor on the step. */
const PEAK = 1.7;
/** Knocks a side of a metre of lower edge gathers. */
const KNOCKS_PER_METRE = 16;

/**
 * Proposes where a panel is worn by a cause: added to what the map holds already, the greater of the two.
 * @param map - cells to fill; values as factors on the step
 * @param touches - places that are touched; the usual ones when empty
 * @param most - no value above this: 1 for a resist, which cannot cover more than all
 */
export function wearByUse(
  map: PanelMap,
  cause: WearCause,
  touches: readonly Touch[],
  size: PanelSize,
  seed: number,
  most = MAP_RANGE.max,
): PanelMap {
  const at = touches.length > 0 ? touches : USUAL_TOUCHES[cause];
  const small = Math.min(size.width, size.height);
  const knocks = cause === 'knocked' ? knocksOf(size, at, seed) : [];
  const intensity = (x: number, y: number): number => {
    switch (cause) {
      case 'handled':
        // A palm rests and fingers curl round the edge: a blot drawn out along the nearest edge.
        return Math.max(
          0,
          ...at.map((touch, k) => {
            const dx = x - touch.u * size.width;
            const dy = y - touch.v * size.height;
            const alongSide = Math.min(touch.u, 1 - touch.u) < Math.min(touch.v, 1 - touch.v);
            const long = (0.2 + 0.06 * uniform(k, seed, 3)) * small;
            const short = 0.11 * small;
            return alongSide ? bell(dx / short, dy / long) : bell(dx / long, dy / short);
          }),
        );
      case 'hung-on':
        // What hangs rubs below its hook, in a streak that widens and fades downwards.
        return Math.max(
          0,
          ...at.map((touch, k) => {
            const down = (y - touch.v * size.height) / small;
            if (down < -0.04) return 0;
            const swing = 0.05 * (uniform(k, seed, 5) - 0.5);
            const dx = (x - touch.u * size.width) / small - swing * down;
            const wide = 0.022 + 0.09 * Math.max(0, down);
            return bell(dx / wide, 0) * Math.exp(-Math.max(0, down) / 0.3);
          }),
        );
      case 'knocked':
        return knocks.reduce(
          (all, knock) => Math.max(all, knock.depth * bell((x - knock.x) / knock.r, (y - knock.y) / knock.r)),
          0,
        );
      case 'stood-on':
        // Feet and bases turn a little where they stand: worn most at a ring.
        return Math.max(
          0,
          ...at.map((touch, k) => {
            const r = Math.hypot(x - touch.u * size.width, y - touch.v * size.height) / small;
            const ring = 0.1 + 0.05 * uniform(k, seed, 7);
            return Math.max(0.5 * bell(r / ring, 0), bell((r - ring) / 0.022, 0));
          }),
        );
      case 'sun':
        // It comes in from above and from one side.
        return (
          0.9 *
          Math.exp(-y / (0.5 * size.height)) *
          (0.55 + 0.45 * (seed & 1 ? x / size.width : 1 - x / size.width))
        );
      case 'damp': {
        // It rises from below to a line that wanders, and leaves most at the line.
        const tide = (0.2 + 0.1 * noiseValue(x / (0.16 * size.width), 0.5, seed ^ 0xda)) * size.height;
        const above = size.height - y - tide;
        return above > 0
          ? Math.exp(-above / (0.05 * size.height))
          : 0.55 + 0.45 * Math.exp(above / (0.1 * size.height));
      }
    }
  };
  return changedBy(map, size, (x, y, before) => {
    const cause = intensity(x, y);
    if (cause < 0.02) return before;
    const noise = BLOTCHES.reduce(
      (sum, { size: blotch, weight }, k) =>
        sum + weight * noiseValue(x / blotch + 3.3 * k, y / blotch, seed ^ (0x51 + k)),
      0,
    );
    return Math.min(most, Math.max(before, PEAK * cause * Math.exp(SCATTER * noise)));
  });
}

const bell = (a: number, b: number): number => Math.exp(-0.5 * (a * a + b * b));

/** Knocks gather at the lower edge, at corners and round the touches; few are deep, most are slight. */
function knocksOf(
  size: PanelSize,
  touches: readonly Touch[],
  seed: number,
): { x: number; y: number; r: number; depth: number }[] {
  const count = Math.max(5, Math.round(KNOCKS_PER_METRE * (size.width + 0.6 * size.height)));
  return Array.from({ length: count }, (_, k) => {
    const id = hash3(k, seed, 0x6e);
    const chance = (channel: number): number => uniform(id, seed, channel);
    const where = chance(1);
    const touch = touches[Math.floor(chance(2) * touches.length)];
    let x = chance(3) * size.width;
    let y = size.height * (1 - 0.05 * chance(4));
    if (touch !== undefined && where < 0.5) {
      x = (touch.u + 0.12 * (chance(5) - 0.5)) * size.width;
      y = (touch.v + 0.12 * (chance(6) - 0.5)) * size.height;
    } else if (where > 0.55) {
      // Sides, low down more than high up.
      x = chance(7) < 0.5 ? 0.04 * chance(8) * size.width : size.width * (1 - 0.04 * chance(8));
      y = size.height * Math.sqrt(chance(9));
    }
    const depth = 0.35 + 0.65 * chance(10) ** 2;
    return { x, y, r: 0.003 + 0.006 * chance(11) * depth, depth };
  });
}
