import { checkRange, type Range } from '../errors';
import { kelvinToCelsius, ZERO_CELSIUS } from '../units';
import { MASS_RATIO, SEA_LEVEL_PRESSURE, VAPOUR_GAS_CONSTANT } from './constants';

const VAPOUR_RANGE: Range = { min: 233.15, max: 373.15 };
const HUMIDITY_RANGE: Range = { min: 0, max: 1 };

/** Buck's form without a door, in °C and Pa, for kernels whose input was checked. */
export function saturationPressureC(temperatureC: number): number {
  return 611.21 * Math.exp(((18.678 - temperatureC / 234.5) * temperatureC) / (257.14 + temperatureC));
}

/** Slope of Buck's form [Pa/K], for Newton steps. */
export function saturationSlopeC(temperatureC: number): number {
  const t = temperatureC;
  const sum = 257.14 + t;
  const slopeOfExponent = ((18.678 - (2 * t) / 234.5) * sum - (18.678 - t / 234.5) * t) / (sum * sum);
  return saturationPressureC(t) * slopeOfExponent;
}

/**
 * Saturation vapour pressure over water.
 *
 * @param temperature - [K], 233.15 … 373.15
 * @returns [Pa]
 * @throws InputError `air.temperature`
 * @remarks Within 0.03 % of the ASHRAE formulation from 0 to 60 °C (vapour.spec.ts).
 * @see Buck 1981, J. Appl. Meteorol. 20, with the 1996 coefficients 611.21 Pa, 18.678, 234.5, 257.14 °C
 * @example saturationVapourPressure(293.15) // ≈ 2338 Pa
 */
export function saturationVapourPressure(temperature: number): number {
  checkRange('air.temperature', temperature, VAPOUR_RANGE, 'K');
  return saturationPressureC(kelvinToCelsius(temperature));
}

/**
 * Vapour pressure deficit: how strongly the air takes up water. (1 − relativeHumidity) · pSat(T).
 *
 * @param temperature - [K]; @param relativeHumidity - fraction 0 … 1
 * @returns deficit [Pa], 0 in saturated air
 * @throws InputError `air.temperature` or `air.humidity`
 * @example vapourPressureDeficit(293.15, 0.5) // ≈ 1169 Pa
 */
export function vapourPressureDeficit(temperature: number, relativeHumidity: number): number {
  checkRange('air.humidity', relativeHumidity, HUMIDITY_RANGE, '');
  return (1 - relativeHumidity) * saturationVapourPressure(temperature);
}

/** Water in a cubic metre of air [kg/m³], ideal-gas law. */
export function absoluteHumidity(temperature: number, relativeHumidity: number): number {
  checkRange('air.humidity', relativeHumidity, HUMIDITY_RANGE, '');
  return (relativeHumidity * saturationVapourPressure(temperature)) / (VAPOUR_GAS_CONSTANT * temperature);
}

/** Humidity ratio [kg water / kg dry air] at a pressure [Pa]; W = 0.621945 e/(p − e) (ASHRAE). */
export function humidityRatio(
  temperature: number,
  relativeHumidity: number,
  pressure = SEA_LEVEL_PRESSURE,
): number {
  checkRange('air.humidity', relativeHumidity, HUMIDITY_RANGE, '');
  const e = relativeHumidity * saturationVapourPressure(temperature);
  return (MASS_RATIO * e) / (pressure - e);
}

/**
 * Dew point: the surface temperature at which this air begins to wet things.
 * Newton's method on Buck's form, started from the inverse of Magnus.
 *
 * @returns [K]
 * @throws InputError `air.temperature`, or `air.humidity` at zero (dry air has no dew point)
 * @remarks Within 0.01 K of psychrolib where both are above freezing (vapour.spec.ts).
 * @example dewPoint(294.15, 0.5) // ≈ 283.34 K, that is 10.19 °C
 */
export function dewPoint(temperature: number, relativeHumidity: number): number {
  checkRange('air.humidity', relativeHumidity, { min: 0.001, max: 1 }, '');
  const e = relativeHumidity * saturationVapourPressure(temperature);
  const logRatio = Math.log(e / 611.2);
  let t = (243.12 * logRatio) / (17.62 - logRatio);
  for (let step = 0; step < 3; step++) t -= (saturationPressureC(t) - e) / saturationSlopeC(t);
  return t + ZERO_CELSIUS;
}

/**
 * Wet-bulb temperature by the ASHRAE energy balance, bisected between dew point and air temperature.
 *
 * @returns [K]; valid above freezing only (no ice branch)
 * @throws InputError as `dewPoint`
 * @example wetBulb(294.15, 0.5) // ≈ 287.75 K, that is 14.60 °C
 */
export function wetBulb(
  temperature: number,
  relativeHumidity: number,
  pressure = SEA_LEVEL_PRESSURE,
): number {
  const tC = kelvinToCelsius(temperature);
  const ratio = humidityRatio(temperature, relativeHumidity, pressure);
  let low = kelvinToCelsius(dewPoint(temperature, relativeHumidity));
  let high = tC;
  for (let step = 0; step < 40; step++) {
    const mid = 0.5 * (low + high);
    const saturated = saturationPressureC(mid);
    const saturatedRatio = (MASS_RATIO * saturated) / (pressure - saturated);
    const balance =
      ((2501 - 2.326 * mid) * saturatedRatio - 1.006 * (tC - mid)) / (2501 + 1.86 * tC - 4.186 * mid);
    if (balance > ratio) high = mid;
    else low = mid;
  }
  return 0.5 * (low + high) + ZERO_CELSIUS;
}

/**
 * Air pressure of the standard atmosphere [Pa] at a height [m], −400 … 4000.
 * @see ICAO standard atmosphere: p = 101325 (1 − 2.25577e-5 z)^5.25588
 */
export function pressureAtAltitude(altitude: number): number {
  return SEA_LEVEL_PRESSURE * (1 - 2.25577e-5 * altitude) ** 5.25588;
}
