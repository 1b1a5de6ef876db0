import { type Reading } from '@zaffet/contract';
import { normalQuantile, uniform } from '@zaffet/core/numeric';
import { type AirPoint } from '../air/hourly';

/*
 * A thermo-hygrometer that ships with Zaffet, where there is none: simulated, and always called so. It errs as cheap ones
 * do: it scatters, it drifts until somebody calibrates it, and its radio is lost now and then.
 */

/** Scatter of one reading: [°C], and relative humidity [fraction]. */
const SCATTER = { temperatureC: 0.12, humidity: 0.006 };
/** Reads damper by so much at the end of half a year, then it is calibrated [fraction, days]. */
const DRIFT = { humidity: 0.03, days: 180 };
/** Single readings are lost, and for ten minutes at a time all of them [shares]. */
const LOST = { single: 0.03, slot: 0.05, slotMs: 600_000 };
const DAY = 86_400_000;

/** What the display shows: tenths of a degree, whole per cents. */
const shown = (value: number, step: number): number => Number((Math.round(value / step) * step).toFixed(3));

/** How much damper than the air it reads at a moment [fraction]. */
export const driftAt = (at: number): number => (DRIFT.humidity * ((at / DAY) % DRIFT.days)) / DRIFT.days;

/**
 * What the instrument reads of some air: null where the reading is lost. The same for the same moment and seed.
 */
export function hygrometerReads({ at, temperatureC, humidity }: AirPoint, seed: number): Reading | null {
  const second = Math.floor(at / 1000);
  if (uniform(Math.floor(at / LOST.slotMs), seed, 11) < LOST.slot) return null;
  if (uniform(second, seed, 12) < LOST.single) return null;
  const scatter = (channel: number): number => normalQuantile(uniform(second, seed, channel));
  return {
    at: new Date(second * 1000).toISOString(),
    temperatureC: shown(temperatureC + SCATTER.temperatureC * scatter(13), 0.1),
    humidity: shown(
      Math.min(0.98, Math.max(0.05, humidity + driftAt(at) + SCATTER.humidity * scatter(14))),
      0.01,
    ),
  };
}
