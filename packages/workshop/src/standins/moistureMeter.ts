import { equilibriumMoisture } from '@zaffet/core/wood';
import { normalQuantile, uniform } from '@zaffet/core/numeric';
import { celsiusToKelvin } from '@zaffet/core/units';
import { hashOf } from './hashOf';

/*
 * A wood moisture meter with two pins that ships with Zaffet, where there is none: simulated, and always called so. It
 * reads wood that comes to rest with the shop's air, with the scatter of places and the error of warm and cold wood.
 */

/** Places that are read, as one does along a board. */
export const PLACES_READ = 5;
/** Pins read warm wood as damper: so much a degree from what they are made for [1/K, °C]; common practice. */
const WARM = { perDegree: 0.0015, at: 20 };
/** From place to place of one board [share of dry mass]. */
const SCATTER = 0.006;
/** Wood that came in not long ago holds more than the air would leave it: up to so much. */
const FRESH = 0.035;

export interface MeterReading {
  /** As the display shows it at each place, share of dry mass. */
  readonly places: readonly number[];
  /** Their mean, brought to what the pins are made for. */
  readonly content: number;
}

/** Reads a part in some air: the same part reads the same. */
export function meterReads(partId: string, temperatureC: number, humidity: number): MeterReading {
  const board = hashOf(partId);
  const rest = equilibriumMoisture(celsiusToKelvin(temperatureC), humidity);
  const content = rest + FRESH * uniform(board, 0, 21) ** 2;
  const warm = WARM.perDegree * (temperatureC - WARM.at);
  const places = Array.from({ length: PLACES_READ }, (_, i) => {
    const reads = content + warm + SCATTER * normalQuantile(uniform(board, i, 22));
    return Number(Math.max(0.04, reads).toFixed(3));
  });
  const mean = places.reduce((sum, one) => sum + one, 0) / PLACES_READ;
  return { places, content: Number((mean - warm).toFixed(3)) };
}
