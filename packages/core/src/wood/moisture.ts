import { AIR_RANGES } from '../air';
import { checkRange } from '../errors';
import { kelvinToCelsius } from '../units';

/**
 * Moisture content that wood comes to in some air, share of its dry mass.
 *
 * M = 18/W · [K h/(1 − K h) + (K1 K h + 2 K1 K2 K² h²)/(1 + K1 K h + K1 K2 K² h²)], the one-hydrate, two-sorption-site
 * form of the Wood Handbook (Forest Products Laboratory, chapter 4; coefficients quoted from memory).
 *
 * @param temperature - [K]
 * @param humidity - relative humidity, 0 … 1
 * @throws InputError `wood.temperature` or `wood.humidity` out of range
 * @example equilibriumMoisture(294.25, 0.5) // ≈ 0.092
 */
export function equilibriumMoisture(temperature: number, humidity: number): number {
  checkRange('wood.temperature', temperature, AIR_RANGES.temperature, 'K');
  checkRange('wood.humidity', humidity, AIR_RANGES.humidity, '');
  const t = kelvinToCelsius(temperature);
  const w = 349 + 1.29 * t + 0.0135 * t * t;
  const k = 0.805 + 0.000736 * t - 2.73e-6 * t * t;
  const k1 = 6.27 - 0.00938 * t - 3.03e-4 * t * t;
  const k2 = 1.91 + 0.0407 * t - 2.93e-4 * t * t;
  const kh = k * humidity;
  const first = k1 * kh;
  const second = k1 * k2 * kh * kh;
  return (18 / w) * (kh / (1 - kh) + (first + 2 * second) / (1 + first + second));
}

/** Wood is ready for paint within two points of its equilibrium and not over 12 %; common practice. */
export function moistureReady(content: number, temperature: number, humidity: number): boolean {
  return content <= 0.12 && Math.abs(content - equilibriumMoisture(temperature, humidity)) <= 0.02;
}
