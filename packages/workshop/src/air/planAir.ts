import { type AirFile, type AirOrigin, LIMITS, type Plan } from '@zaffet/contract';
import { type AirPoint, hourlyMeans } from './hourly';

/** What a plan can hold of the air's course. */
const MOST = LIMITS.later.max;

/**
 * The air over a plan's days, from hourly points: what holds when the plan begins, and what changes after. Points of
 * long before the start are left out; a plan that begins after all of them has the last.
 * @returns null where there are no points at all
 */
export function airOver(
  { air, startsAt }: Pick<Plan, 'air' | 'startsAt'>,
  points: readonly AirPoint[],
  origin: AirOrigin,
): AirFile | null {
  const start = Date.parse(startsAt);
  const hours = hourlyMeans(points);
  const first = hours.findLast(({ at }) => at <= start) ?? hours[0];
  if (first === undefined) return null;
  const later = hours.filter(({ at }) => at > start && at > first.at).slice(0, MOST);
  return {
    ...air,
    origin,
    temperatureC: first.temperatureC,
    humidity: first.humidity,
    later: later.map(({ at, temperatureC, humidity }) => ({
      at: new Date(at).toISOString(),
      temperatureC,
      humidity,
    })),
  };
}

/** The air of a plan as points, the first at its start. */
export const pointsOf = ({ air, startsAt }: Pick<Plan, 'air' | 'startsAt'>): AirPoint[] => [
  { at: Date.parse(startsAt), temperatureC: air.temperatureC, humidity: air.humidity },
  ...air.later.map(({ at, temperatureC, humidity }) => ({ at: Date.parse(at), temperatureC, humidity })),
];

/** What was read up to an instant, and from then on what is expected. */
export function readThenExpected(read: readonly AirPoint[], expected: readonly AirPoint[]): AirPoint[] {
  const until = Math.max(...read.map(({ at }) => at), Number.NEGATIVE_INFINITY);
  return [...read, ...expected.filter(({ at }) => at > until)];
}

const within = ({ min, max }: { min: number; max: number }, value: number): number =>
  Math.min(max, Math.max(min, value));

/** The whole course so much warmer and damper, within what can be forecast. */
export function shiftedAir(air: AirFile, temperatureBy: number, humidityBy: number): AirFile {
  const shifted = <T extends { readonly temperatureC: number; readonly humidity: number }>(point: T): T => ({
    ...point,
    temperatureC: within(LIMITS.temperatureC, Number((point.temperatureC + temperatureBy).toFixed(2))),
    humidity: within(LIMITS.humidity, Number((point.humidity + humidityBy).toFixed(4))),
  });
  return { ...shifted(air), later: air.later.map(shifted) };
}
