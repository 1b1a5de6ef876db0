import { InputError } from '../errors';
import { type Air, checkAir, evaporation } from './evaporation';

/** Air that holds from one moment until the next sample. */
export interface AirSample extends Air {
  /** Seconds from the plan's start; the first sample also holds before it. */
  readonly from: number;
}

/** Air over the days of a plan: samples in rising order of `from`, at least one. */
export type AirSeries = readonly AirSample[];

/** An air sample with what the drying film needs of it, worked out once. */
export interface DryingAir extends AirSample {
  /** Until when it holds [s]; Infinity for the last. */
  readonly until: number;
  /** Free-surface evaporation [m/s]. */
  readonly evaporation: number;
  /** [K] */
  readonly surfaceTemperature: number;
}

/** Series worked out before: a plan is forecast many times in the same air, and its series is never changed in place. */
const known = new WeakMap<AirSeries, DryingAir[]>();

/**
 * Checks a series and works out the evaporation of every sample.
 * @throws InputError `air.samples` when empty or not rising, or the refused field of a sample
 */
export function dryingAir(series: AirSeries): readonly DryingAir[] {
  const before = known.get(series);
  if (before !== undefined) return before;
  if (series.length === 0) {
    throw new InputError({
      code: 'air.samples',
      field: 'air.samples',
      value: 0,
      allowed: 'at least one sample',
    });
  }
  const worked = series.map((sample, i) => {
    checkAir(sample);
    const until = series[i + 1]?.from ?? Infinity;
    if (!(until > sample.from)) {
      throw new InputError({
        code: 'air.samples',
        field: `air.samples[${i + 1}].from`,
        value: until,
        allowed: 'later than the sample before it',
      });
    }
    const { rate, surfaceTemperature } = evaporation(sample);
    return { ...sample, until, evaporation: rate, surfaceTemperature };
  });
  known.set(series, worked);
  return worked;
}

/** Index of the sample that holds at a moment [s]. */
export function airIndexAt(series: readonly { readonly from: number }[], moment: number): number {
  let low = 0;
  let high = series.length - 1;
  while (low < high) {
    const mid = (low + high + 1) >> 1;
    if ((series[mid]?.from ?? Infinity) <= moment) low = mid;
    else high = mid - 1;
  }
  return low;
}
