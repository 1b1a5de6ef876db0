import { normalQuantile } from '../numeric/normal';
import { type Relief } from '../plan';
import { type ToolAction } from '../tools';

/*
 * Carving, flutes and beads. What is stiff takes the ridges and leaves the grounds; wax that is wiped back stays there.
 */

/**
 * How steep a relief, depth over pitch, a tool still follows into: paper under fingers well, an edge hardly. What water
 * and cloth do, they do in the grounds as well. Assumed, after common practice.
 */
const FOLLOWS: Readonly<Record<ToolAction, number>> = {
  sand: 0.06,
  cut: 0.03,
  rub: Infinity,
  soften: Infinity,
  lift: Infinity,
};
const MOST = 1.6;

/** How much a tool's depth goes with the height of a relief, of the logarithm; 0 on a plain panel. */
export const carvingFor = (action: ToolAction, relief: Relief | undefined): number =>
  relief === undefined ? 0 : Math.min(MOST, relief.depth / relief.pitch / FOLLOWS[action]);

/** Grounds as deep as this keep all the wax a cloth cannot reach [m]; assumed. */
const KEEPS_WAX = 0.6e-3;
/** Share of a relief that is ground, out of a cloth's reach; assumed. */
const GROUNDS = 0.3;

/** Share of a panel in whose grounds wax that is wiped back stays. */
export const groundsKeep = (relief: Relief | undefined): number =>
  relief === undefined ? 0 : GROUNDS * Math.min(1, relief.depth / KEEPS_WAX);

/** Heights of flutes beyond this are all ridge or all groove [standard deviations]. */
const STEEPEST = 0.985;

/**
 * Height of a flute at a place across it, in standard deviations: ridges and grooves alike, and as many places of each
 * height as a normal distribution has, as the closed form takes them.
 * @param across - in pitches
 */
export function fluteAt(across: number): number {
  const within = across - Math.floor(across);
  const rising = within < 0.5 ? 2 * within : 2 - 2 * within;
  return normalQuantile(0.5 + STEEPEST * (rising - 0.5));
}
