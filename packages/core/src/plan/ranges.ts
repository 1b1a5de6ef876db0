import { AIR_RANGES } from '../air';
import { type Range } from '../errors';

/** Every number of a plan: allowed range in SI, and the smallest step worth setting. The one home of these limits. */
export const PLAN_RANGES = {
  /** Wet film thickness of a coat [m]. */
  thickness: { min: 10e-6, max: 600e-6 },
  /** Water stirred in, litres per litre. */
  dilution: { min: 0, max: 1 },
  passes: { min: 1, max: 8 },
  /** Wait before a coat [s]: up to fourteen days. */
  wait: { min: 0, max: 14 * 86400 },
  /** Width or height of a panel [m]. */
  side: { min: 0.02, max: 3 },
  seed: { min: 0, max: 2147483647 },
  coats: { min: 1, max: 20 },
  airSamples: { min: 1, max: 24 * 31 },
  temperature: AIR_RANGES.temperature,
  humidity: AIR_RANGES.humidity,
  speed: AIR_RANGES.speed,
  altitude: AIR_RANGES.altitude,
} as const satisfies Record<string, Range>;
