/** Conversions at the edge of the core, which speaks SI and kelvin. */

export const ZERO_CELSIUS = 273.15;

export const celsiusToKelvin = (temperatureC: number): number => temperatureC + ZERO_CELSIUS;
export const kelvinToCelsius = (temperature: number): number => temperature - ZERO_CELSIUS;

export const UM_PER_METRE = 1e6;
export const umToMetres = (um: number): number => um / UM_PER_METRE;
export const metresToUm = (metres: number): number => metres * UM_PER_METRE;

export const MM_PER_METRE = 1e3;
export const mmToMetres = (mm: number): number => mm / MM_PER_METRE;
export const metresToMm = (metres: number): number => metres * MM_PER_METRE;

export const SECONDS_PER_MINUTE = 60;
export const SECONDS_PER_HOUR = 3600;
export const SECONDS_PER_DAY = 86400;
export const minutesToSeconds = (minutes: number): number => minutes * SECONDS_PER_MINUTE;
export const secondsToMinutes = (seconds: number): number => seconds / SECONDS_PER_MINUTE;
