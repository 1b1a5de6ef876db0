import { type Reading } from '@zaffet/contract';

/** Air over the days: from each instant [ms since 1970] on. */
export interface AirPoint {
  readonly at: number;
  readonly temperatureC: number;
  readonly humidity: number;
}

const HOUR = 3_600_000;
const round = (value: number, places: number): number => Number(value.toFixed(places));

export const pointOf = ({ at, temperatureC, humidity }: Reading): AirPoint => ({
  at: Date.parse(at),
  temperatureC,
  humidity,
});

/**
 * Readings as a plan can hold them: the mean of every hour in which something was read, at its beginning, in order of
 * time. Instruments read every minute; films do not answer to less than an hour's change of the air.
 */
export function hourlyMeans(points: readonly AirPoint[]): AirPoint[] {
  const hours = new Map<number, { count: number; temperatureC: number; humidity: number }>();
  for (const { at, temperatureC, humidity } of points) {
    const hour = Math.floor(at / HOUR) * HOUR;
    const sum = hours.get(hour) ?? { count: 0, temperatureC: 0, humidity: 0 };
    sum.count++;
    sum.temperatureC += temperatureC;
    sum.humidity += humidity;
    hours.set(hour, sum);
  }
  return [...hours]
    .sort(([a], [b]) => a - b)
    .map(([at, { count, temperatureC, humidity }]) => ({
      at,
      temperatureC: round(temperatureC / count, 2),
      humidity: round(humidity / count, 4),
    }));
}
