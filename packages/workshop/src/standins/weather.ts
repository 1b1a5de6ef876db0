import { AIR_RANGES, saturationVapourPressure } from '@zaffet/core/air';
import { normalQuantile, uniform } from '@zaffet/core/numeric';
import { celsiusToKelvin } from '@zaffet/core/units';
import { type AirPoint } from '../air/hourly';

/*
 * A weather service that ships with Zaffet, where there is none: simulated, and always called so. Days follow each other
 * as they do on a temperate coast; none of it is measured.
 */

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Mean of the year, how far summer and winter go from it, and the coldest day of the year [°C, °C, day]. */
const YEAR = { mean: 10.5, swing: 7, coldest: 20 };
/** How much of a warm or cold spell is left on the next day, and how much comes new each day [°C]. */
const SPELL = { stays: 0.72, comes: 2.1, days: 14 };
/** From the coldest to the warmest hour: under cloud, and how much more under a clear sky [°C]. */
const RANGE = { cloudy: 3, clear: 9 };
/** The dew point stays near the coldest of the night; so much below it on a clear, windy day [°C]. */
const DRYNESS = 2.5;
/** Hour of the warmest air; the coldest is half a day off: a plain course of a day. */
const WARMEST = 15;

const dayOfYear = (at: number): number => {
  const date = new Date(at);
  return (at - Date.UTC(date.getUTCFullYear(), 0, 1)) / DAY;
};

/** A day's mean temperature, how clear its sky is, and how damp its air. */
function dayOf(day: number, seed: number): { mean: number; clear: number; dry: number } {
  const season = Math.cos((2 * Math.PI * (dayOfYear(day * DAY) - YEAR.coldest)) / 365.25);
  let spell = 0;
  for (let before = SPELL.days; before >= 0; before--)
    spell = SPELL.stays * spell + SPELL.comes * normalQuantile(uniform(day - before, seed, 1));
  return {
    mean: YEAR.mean - YEAR.swing * season + spell,
    clear: uniform(day, seed, 2),
    dry: uniform(day, seed, 3),
  };
}

/**
 * The weather of every hour from one instant on: the same for the same seed, whenever it is asked.
 *
 * Temperature is a day's mean with a daily course around it, joined smoothly from day to day; the vapour is that of a dew
 * point near the night's coldest, as FAO Irrigation and Drainage Paper 56 (Allen et al. 1998, eq. 48) takes it.
 * @param from - [ms since 1970], taken to its full hour
 * @param zoneMin - how far the place's noon is ahead of UTC's [min]
 */
export function simulatedWeather(from: number, hours: number, seed: number, zoneMin = 0): AirPoint[] {
  const start = Math.floor(from / HOUR) * HOUR;
  return Array.from({ length: hours }, (_, i) => {
    const at = start + i * HOUR;
    const local = at + zoneMin * 60_000;
    // Days meet at noon, so that no midnight has a step in it.
    const noon = local / DAY - 0.5;
    const day = Math.floor(noon);
    const [a, b] = [dayOf(day, seed), dayOf(day + 1, seed)];
    const share = noon - day;
    const mix = (of: (one: typeof a) => number): number => of(a) * (1 - share) + of(b) * share;
    const range = mix(({ clear }) => RANGE.cloudy + RANGE.clear * clear);
    const hour = (local % DAY) / HOUR;
    const temperatureC =
      mix(({ mean }) => mean) + (range / 2) * Math.cos((2 * Math.PI * (hour - WARMEST)) / 24);
    const dew = mix(({ mean }) => mean) - range / 2 - DRYNESS * mix(({ dry }) => dry);
    const humidity =
      saturationVapourPressure(celsiusToKelvin(dew)) /
      saturationVapourPressure(celsiusToKelvin(temperatureC));
    return {
      at,
      temperatureC: Number(temperatureC.toFixed(2)),
      humidity: Number(
        Math.min(AIR_RANGES.humidity.max, Math.max(AIR_RANGES.humidity.min, humidity)).toFixed(4),
      ),
    };
  });
}
