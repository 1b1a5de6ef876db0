import { AIR_RANGES } from '../air';
import { type Range } from '../errors';

/** Every number of a plan: allowed range in SI, and the smallest step worth setting. The one home of these limits. */
export const PLAN_RANGES = {
  /** Wet film thickness of a coat [m]. */
  thickness: { min: 4e-6, max: 1200e-6 },
  /** Water stirred in, or gone where it stood open, litres per litre. */
  dilution: { min: -0.3, max: 1 },
  /** Texture powder, litres loose per litre. */
  texture: { min: 0, max: 1 },
  /** Further colours of one coat, and what all of them may take of it. */
  otherColours: { min: 0, max: 3 },
  otherShares: { min: 0, max: 0.95 },
  passes: { min: 1, max: 8 },
  /** Wait before a coat [s]: up to fourteen days. */
  wait: { min: 0, max: 14 * 86400 },
  /** Time of day [s]. */
  clock: { min: 0, max: 86400 },
  /** Stretches of work: four a day for a year. */
  stretches: { min: 0, max: 4 * 366 },
  /** Time with the hands at work beside the layers [s]. */
  hands: { min: 0, max: 2 * 86400 },
  /** Width or height of a panel [m]. */
  side: { min: 0.02, max: 3 },
  /** Of carving and flutes [m]. */
  reliefDepth: { min: 0.2e-3, max: 20e-3 },
  reliefPitch: { min: 2e-3, max: 100e-3 },
  seed: { min: 0, max: 2147483647 },
  /** Steps of a plan. */
  steps: { min: 1, max: 40 },
  /** Layers that lie on a panel: films and resists of the steps that are done. As many as a point's bits can tell. */
  layers: { min: 0, max: 31 },
  /** Share of an area, of a dose, of what came off. */
  share: { min: 0, max: 1 },
  /** How long hot air is on a place [s]. */
  heatDuration: { min: 5, max: 3600 },
  /** Water put on to wet paint again [m]. */
  tintStrength: { min: 0.02, max: 0.6 },
  rewetAmount: { min: 5e-6, max: 200e-6 },
  /** Passes, rubs, strokes; minutes for bleach. */
  rounds: { min: 1, max: 60 },
  /** Pressure of the hand against an ordinary one. */
  pressure: { min: 0.2, max: 3 },
  /** How long ago paint was mixed [s]. */
  mixedAge: { min: 0, max: 90 * 86400 },
  /** Coats of one seal. */
  sealCoats: { min: 1, max: 6 },
  airSamples: { min: 1, max: 24 * 31 },
  temperature: AIR_RANGES.temperature,
  humidity: AIR_RANGES.humidity,
  speed: AIR_RANGES.speed,
  altitude: AIR_RANGES.altitude,
} as const satisfies Record<string, Range>;
