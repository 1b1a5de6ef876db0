import { type RoomFile, type Shop, type WorkFile } from '@zaffet/contract';
import { indoors, type OutdoorSample } from '@zaffet/core/air';
import { celsiusToKelvin, kelvinToCelsius, SECONDS_PER_HOUR } from '@zaffet/core/units';
import { onWall, workTime } from '../calendar';
import { simulatedWeather } from '../standins/weather';
import { type AirPoint } from './hourly';

const MS = 1000;

/** The air in the shop, from points outside: heated while there is work, or all day where no hours are told. */
export function shopAir(outside: readonly AirPoint[], room: RoomFile, work: WorkFile | null): AirPoint[] {
  const first = outside[0];
  if (first === undefined) return [];
  const startsAt = new Date(first.at).toISOString();
  const stretches = workTime({ work, startsAt }).work;
  const heatedTo = (moment: number): number | null => {
    const works = stretches?.some(({ opens, closes }) => moment >= opens && moment < closes) ?? true;
    const wanted = works ? room.heatedC : room.restC;
    return wanted === null ? null : celsiusToKelvin(wanted);
  };
  const samples = outside.map(({ at, temperatureC, humidity }): OutdoorSample => ({
    from: (at - first.at) / MS,
    temperature: celsiusToKelvin(temperatureC),
    humidity,
  }));
  return indoors(
    samples,
    {
      volume: room.volumeM3,
      exchange: room.airChanges / SECONDS_PER_HOUR,
      holds: room.holdsH * SECONDS_PER_HOUR,
      moisture: room.moistureGH / 1000 / SECONDS_PER_HOUR,
    },
    heatedTo,
  ).map(({ from, temperature, humidity }) => ({
    at: first.at + from * MS,
    temperatureC: Number(kelvinToCelsius(temperature).toFixed(2)),
    humidity: Number(humidity.toFixed(4)),
  }));
}

/** The place of the simulated weather. */
const PLACE = 1;
/** A room is itself after so long [h]. */
const RUN_UP = 72;
const HOUR = 3_600_000;

/**
 * What the simulated weather makes of the shop's air, hour by hour: a stand-in for a forecast, and always called so.
 * @param from - [ms since 1970], taken to its full hour
 */
export function simulatedShopAir(
  from: number,
  hours: number,
  { room, work }: Pick<Shop, 'room' | 'work'>,
): AirPoint[] {
  const zoneMin = work === null ? 0 : -onWall(from, work.zone).getTimezoneOffset();
  const outside = simulatedWeather(from - RUN_UP * HOUR, RUN_UP + hours, PLACE, zoneMin);
  return shopAir(outside, room, work).slice(RUN_UP);
}
