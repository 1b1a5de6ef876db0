import { kelvinToCelsius, metresToMm, metresToUm, PLAN_RANGES, SECONDS_PER_MINUTE } from '@zaffet/core';

/** Range, step and unit of a number in a plan file, for schemas, fields and sliders alike. */
export interface Limit {
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly unit: string;
}

const round = (value: number): number => Math.round(value * 1e6) / 1e6;

/** The core's ranges in the plan file's units. */
export const LIMITS = {
  thicknessUm: {
    min: round(metresToUm(PLAN_RANGES.thickness.min)),
    max: round(metresToUm(PLAN_RANGES.thickness.max)),
    step: 1,
    unit: 'µm',
  },
  dilution: { ...PLAN_RANGES.dilution, step: 0.01, unit: 'L/L' },
  passes: { ...PLAN_RANGES.passes, step: 1, unit: '' },
  waitMin: { min: 0, max: PLAN_RANGES.wait.max / SECONDS_PER_MINUTE, step: 0.5, unit: 'min' },
  sideMm: {
    min: round(metresToMm(PLAN_RANGES.side.min)),
    max: round(metresToMm(PLAN_RANGES.side.max)),
    step: 1,
    unit: 'mm',
  },
  seed: { ...PLAN_RANGES.seed, step: 1, unit: '' },
  temperatureC: {
    min: round(kelvinToCelsius(PLAN_RANGES.temperature.min)),
    max: round(kelvinToCelsius(PLAN_RANGES.temperature.max)),
    step: 0.5,
    unit: '°C',
  },
  humidity: { ...PLAN_RANGES.humidity, step: 0.01, unit: '' },
  draughtMS: { ...PLAN_RANGES.speed, step: 0.01, unit: 'm/s' },
  altitudeM: { ...PLAN_RANGES.altitude, step: 1, unit: 'm' },
  spacingMm: { min: 0.1, max: 100, step: 0.1, unit: 'mm' },
  openingMm: { min: 0.01, max: 10, step: 0.01, unit: 'mm' },
  coats: { ...PLAN_RANGES.coats, step: 1, unit: '' },
  later: { min: 0, max: PLAN_RANGES.airSamples.max - 1, step: 1, unit: '' },
  textLength: { min: 1, max: 120, step: 1, unit: 'characters' },
} as const satisfies Record<string, Limit>;
