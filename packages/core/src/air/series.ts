import { InputError } from '../errors';
import { type Air, checkAir, evaporationOf } from './evaporation';
import { USUAL_PLATE } from './convection';
import { type Carrier } from './liquids';
import { type HotJet } from './wetSurface';

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
  /** Free-surface evaporation of water [m/s]. */
  readonly evaporation: number;
  /** Temperature of a surface wet with water [K]. */
  readonly surfaceTemperature: number;
  /** Hot air over the work while this sample holds. */
  readonly jet?: HotJet;
  /** Side of the panel it passes over [m]. */
  readonly plate: number;
  /** Factor on every evaporation, 1 as the model stands. */
  readonly factor: number;
}

/** Hot air for a while. */
export interface Burst {
  /** [s from the plan's start] */
  readonly from: number;
  readonly until: number;
  readonly jet: HotJet;
}

/**
 * A sample that holds for a while. What it evaporates is worked out when it is first asked for: films mostly dry in the
 * first of many days.
 */
class DryingSample implements DryingAir {
  readonly temperature: number;
  readonly humidity: number;
  readonly speed: number;
  readonly altitude: number;
  private wet: ReturnType<typeof evaporationOf> | null = null;

  constructor(
    { temperature, humidity, speed, altitude }: Air,
    readonly from: number,
    readonly until: number,
    readonly plate: number,
    readonly factor: number,
    readonly jet?: HotJet,
  ) {
    this.temperature = temperature;
    this.humidity = humidity;
    this.speed = speed;
    this.altitude = altitude;
  }

  private water(): ReturnType<typeof evaporationOf> {
    return (this.wet ??= evaporationOf('water', this, this.plate, this.jet));
  }
  get evaporation(): number {
    return this.water().rate * this.factor;
  }
  get surfaceTemperature(): number {
    return this.water().surfaceTemperature;
  }
}

/** Series worked out before, by panel: a plan is forecast many times in the same air, never changed in place. */
const known = new WeakMap<AirSeries, Map<number, DryingAir[]>>();

/**
 * Checks a series and works out the evaporation of every sample.
 * @param plate - side of the panel it passes over [m]
 * @throws InputError `air.samples` when empty or not rising, or the refused field of a sample
 */
export function dryingAir(series: AirSeries, plate = USUAL_PLATE): readonly DryingAir[] {
  const before = known.get(series)?.get(plate);
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
    return new DryingSample(sample, sample.from, until, plate, 1);
  });
  const panels = known.get(series) ?? new Map<number, DryingAir[]>();
  known.set(series, panels.set(plate, worked));
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

const solvents = new WeakMap<DryingAir, Map<Carrier, number>>();

/** Free-surface evaporation of a carrier in a sample [m/s]; worked out once a sample and carrier. */
export function evaporationIn(sample: DryingAir, carrier: Carrier): number {
  if (carrier === 'water') return sample.evaporation;
  if (carrier === 'none') return 0;
  let rates = solvents.get(sample);
  if (rates === undefined) solvents.set(sample, (rates = new Map()));
  let rate = rates.get(carrier);
  if (rate === undefined) {
    rate = evaporationOf(carrier, sample, sample.plate, sample.jet).rate * sample.factor;
    rates.set(carrier, rate);
  }
  return rate;
}

/** The series with every evaporation scaled: a shop that dries quicker or slower than the model says. */
export function scaledAir(series: readonly DryingAir[], by: number): readonly DryingAir[] {
  if (by === 1) return series;
  return series.map(
    (sample) =>
      new DryingSample(sample, sample.from, sample.until, sample.plate, sample.factor * by, sample.jet),
  );
}

/** The series with a burst of hot air laid over it; samples are cut at its beginning and end. */
export function withBurst(series: readonly DryingAir[], burst: Burst): readonly DryingAir[] {
  const cut: DryingAir[] = [];
  series.forEach((sample, i) => {
    const from = i === 0 ? -Infinity : sample.from;
    const begin = Math.max(from, burst.from);
    const end = Math.min(sample.until, burst.until);
    if (!(end > begin)) {
      cut.push(sample);
      return;
    }
    const { plate, factor, jet } = sample;
    if (begin > from) cut.push(new DryingSample(sample, sample.from, begin, plate, factor, jet));
    cut.push(new DryingSample(sample, begin, end, plate, factor, burst.jet));
    if (sample.until > end) cut.push(new DryingSample(sample, end, sample.until, plate, factor, jet));
  });
  return cut;
}
