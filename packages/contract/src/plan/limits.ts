import { ROOM_RANGES } from '@zaffet/core/air';
import { FILM_MAP_RANGE, MAP_CELLS, MAP_RANGE, PLAN_RANGES } from '@zaffet/core/plan';
import { MINUTE_RANGE } from '@zaffet/core/schedule';
import {
  kelvinToCelsius,
  metresToMm,
  metresToUm,
  SECONDS_PER_HOUR,
  SECONDS_PER_MINUTE,
} from '@zaffet/core/units';

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
  texture: { ...PLAN_RANGES.texture, step: 0.05, unit: 'L/L' },
  except: { min: 0, max: 24, step: 1, unit: '' },
  others: { ...PLAN_RANGES.otherColours, step: 1, unit: '' },
  otherShares: { ...PLAN_RANGES.otherShares, step: 0.05, unit: '' },
  reliefDepthMm: {
    min: round(metresToMm(PLAN_RANGES.reliefDepth.min)),
    max: round(metresToMm(PLAN_RANGES.reliefDepth.max)),
    step: 0.1,
    unit: 'mm',
  },
  reliefPitchMm: {
    min: round(metresToMm(PLAN_RANGES.reliefPitch.min)),
    max: round(metresToMm(PLAN_RANGES.reliefPitch.max)),
    step: 0.5,
    unit: 'mm',
  },
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
  steps: { ...PLAN_RANGES.steps, step: 1, unit: '' },
  layers: { ...PLAN_RANGES.layers, step: 1, unit: '' },
  coats: { ...PLAN_RANGES.sealCoats, step: 1, unit: '' },
  share: { ...PLAN_RANGES.share, step: 0.01, unit: '' },
  bonding: { ...PLAN_RANGES.share, step: 0.05, unit: '' },
  smear: { ...PLAN_RANGES.share, step: 0.05, unit: '' },
  durationS: { ...PLAN_RANGES.heatDuration, step: 5, unit: 's' },
  amountUm: {
    min: round(metresToUm(PLAN_RANGES.rewetAmount.min)),
    max: round(metresToUm(PLAN_RANGES.rewetAmount.max)),
    step: 1,
    unit: 'µm',
  },
  rounds: { ...PLAN_RANGES.rounds, step: 1, unit: '' },
  pressure: { ...PLAN_RANGES.pressure, step: 0.1, unit: '' },
  mixedHours: { min: 0, max: PLAN_RANGES.mixedAge.max / SECONDS_PER_HOUR, step: 1, unit: 'h' },
  buffAfterMin: { min: 0, max: PLAN_RANGES.wait.max / SECONDS_PER_MINUTE, step: 1, unit: 'min' },
  durationMin: { min: 0, max: PLAN_RANGES.wait.max / SECONDS_PER_MINUTE, step: 1, unit: 'min' },
  ownMedia: { min: 0, max: 40, step: 1, unit: '' },
  price: { min: 0, max: 10000, step: 0.1, unit: '' },
  askedPrice: { min: 0, max: 1_000_000, step: 1, unit: '' },
  hours: { min: 0, max: 1000, step: 0.5, unit: 'h' },
  parts: { min: 1, max: 24, step: 1, unit: '' },
  finishes: { min: 1, max: 16, step: 1, unit: '' },
  zones: { min: 0, max: 24, step: 1, unit: '' },
  palette: { min: 0, max: 60, step: 1, unit: '' },
  ingredients: { min: 0, max: 8, step: 1, unit: '' },
  ingredientParts: { min: 0.05, max: 100, step: 0.5, unit: 'parts' },
  moisture: { min: 0.03, max: 0.6, step: 0.005, unit: '' },
  zoneMm: { min: 5, max: round(metresToMm(PLAN_RANGES.side.max)), step: 1, unit: 'mm' },
  tintStrength: { ...PLAN_RANGES.tintStrength, step: 0.01, unit: '' },
  printLength: { min: 0, max: 30_000, step: 1, unit: 'characters' },
  placeMm: { min: 0, max: round(metresToMm(PLAN_RANGES.side.max)), step: 1, unit: 'mm' },
  glossUnits: { min: 0, max: 100, step: 1, unit: 'GU' },
  clockMin: { min: 0, max: PLAN_RANGES.clock.max / SECONDS_PER_MINUTE, step: 5, unit: 'min' },
  stretches: { min: 0, max: 4, step: 1, unit: '' },
  daysOff: { min: 0, max: 60, step: 1, unit: '' },
  extra: { min: 0, max: 60, step: 1, unit: '' },
  people: { min: 1, max: 3, step: 1, unit: '' },
  minutes: { ...MINUTE_RANGE, step: 1, unit: 'min' },
  pins: { min: 0, max: 400, step: 1, unit: '' },
  pinnedCoat: { min: 0, max: 40, step: 1, unit: '' },
  deliveries: { min: 0, max: 40, step: 1, unit: '' },
  order: { min: 0, max: 40, step: 1, unit: '' },
  bodies: { min: 0, max: 12, step: 1, unit: '' },
  handsMin: { min: 0, max: PLAN_RANGES.hands.max / SECONDS_PER_MINUTE, step: 5, unit: 'min' },
  restMin: { min: 0, max: PLAN_RANGES.wait.max / SECONDS_PER_MINUTE, step: 5, unit: 'min' },
  amountMl: { min: 0, max: 50000, step: 10, unit: 'mL' },
  sheets: { min: 0, max: 1000, step: 1, unit: 'sheets' },
  measureMl: { min: 1, max: 2000, step: 1, unit: 'mL' },
  tinPrices: { min: 0, max: 60, step: 1, unit: '' },
  shelfItems: { min: 0, max: 400, step: 1, unit: '' },
  columns: { ...MAP_CELLS, step: 1, unit: '' },
  rows: { ...MAP_CELLS, step: 1, unit: '' },
  mapPercent: { min: MAP_RANGE.min * 100, max: MAP_RANGE.max * 100, step: 5, unit: '%' },
  filmMapPercent: { min: FILM_MAP_RANGE.min * 100, max: FILM_MAP_RANGE.max * 100, step: 5, unit: '%' },
  /** Cells of all maps of a plan together: 234 of the finest. */
  cells: { min: 0, max: 6_000_000, step: 1, unit: '' },
  /** Saves are counted in a database's whole numbers. */
  revision: { min: 1, max: 2_147_483_647, step: 1, unit: '' },
  volumeM3: { ...ROOM_RANGES.volume, step: 5, unit: 'm³' },
  airChanges: {
    min: round(ROOM_RANGES.exchange.min * SECONDS_PER_HOUR),
    max: round(ROOM_RANGES.exchange.max * SECONDS_PER_HOUR),
    step: 0.1,
    unit: 'an hour',
  },
  holdsH: {
    min: ROOM_RANGES.holds.min / SECONDS_PER_HOUR,
    max: ROOM_RANGES.holds.max / SECONDS_PER_HOUR,
    step: 1,
    unit: 'h',
  },
  moistureGH: {
    min: 0,
    max: round(ROOM_RANGES.moisture.max * SECONDS_PER_HOUR * 1000),
    step: 10,
    unit: 'g/h',
  },
  minutesAgo: { min: 0, max: 1440, step: 1, unit: 'min' },
  sections: { min: 0, max: 99, step: 1, unit: '' },
  /** What is read off a finished part. */
  readSpacingMm: { min: 0.05, max: 300, step: 0.1, unit: 'mm' },
  readOpeningMm: { min: 0.01, max: 50, step: 0.05, unit: 'mm' },
  readShare: { min: 0, max: 1, step: 0.01, unit: '' },
  /** Events a device counts, and how far its clock may be off. */
  eventCount: { min: 1, max: 1_000_000_000, step: 1, unit: '' },
  offsetMs: { min: -4e11, max: 4e11, step: 1, unit: 'ms' },
  /** Events of a run in one message. */
  events: { min: 1, max: 50, step: 1, unit: '' },
  /** Factors that were learned, and the runs they were learned from. */
  factors: { min: 0, max: 200, step: 1, unit: '' },
  calibrationRuns: { min: 0, max: 500, step: 1, unit: '' },
  /** Readings of the air in one message. */
  readings: { min: 1, max: 5000, step: 1, unit: '' },
  later: { min: 0, max: PLAN_RANGES.airSamples.max - 1, step: 1, unit: '' },
  textLength: { min: 1, max: 120, step: 1, unit: 'characters' },
  /** What somebody writes down of a run: some lines. */
  noteLength: { min: 0, max: 2000, step: 1, unit: 'characters' },
} as const satisfies Record<string, Limit>;
