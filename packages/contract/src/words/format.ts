import {
  kelvinToCelsius,
  metresToMm,
  metresToUm,
  SECONDS_PER_HOUR,
  SECONDS_PER_MINUTE,
  secondsToMinutes,
} from '@zaffet/core';

/** Three figures at most, no more digits than a painter can use. */
export function figures(value: number): string {
  const size = Math.abs(value);
  if (size === 0) return '0';
  if (size >= 100) return String(Math.round(value));
  const digits = size >= 10 ? 0 : size >= 1 ? 1 : size >= 0.1 ? 2 : 3;
  const text = value.toFixed(digits);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

export const mm = (metres: number): string => `${figures(metresToMm(metres))} mm`;
export const um = (metres: number): string => `${Math.round(metresToUm(metres))} µm`;
export const perCent = (share: number): string => `${figures(share * 100)} %`;
export const celsius = (kelvin: number): string => `${figures(kelvinToCelsius(kelvin))} °C`;

/** A length of time as a person says it: 45 s, 12 min, 1 h 20, 3 days. */
export function duration(seconds: number): string {
  const size = Math.abs(seconds);
  if (size < 90) return `${Math.round(seconds)} s`;
  if (size < SECONDS_PER_HOUR) {
    const minutes = secondsToMinutes(seconds);
    return `${size < 600 ? figures(minutes) : Math.round(minutes)} min`;
  }
  if (size < 48 * SECONDS_PER_HOUR) {
    const total = Math.round(secondsToMinutes(size));
    const rest = total % SECONDS_PER_MINUTE;
    const hours = Math.floor(total / SECONDS_PER_MINUTE);
    return rest === 0 || hours >= 10
      ? `${rest >= 30 && hours >= 10 ? hours + 1 : hours} h`
      : `${hours} h ${String(rest).padStart(2, '0')}`;
  }
  return `${figures(size / (24 * SECONDS_PER_HOUR))} days`;
}
