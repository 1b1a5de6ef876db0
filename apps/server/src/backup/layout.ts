import { PHOTO_BYTES } from '@zaffet/contract';

/** Names of a backup's entries: what is written, and all that is read. */
export const HEAD = 'zaffet.json';
export const SHELF = 'shelf.json';
export const CALIBRATIONS = 'calibrations.json';
export const SETTINGS = 'settings.json';
export const planEntry = (id: string): string => `plans/${id}.json`;
export const runEntry = (id: string): string => `runs/${id}.json`;
export const photoEntry = (hash: string): string => `photos/${hash}`;
export const screenEntry = (hash: string): string => `photos/${hash}.screen.jpg`;
/** @param month - such as 2026-05, of UTC */
export const airEntry = (month: string): string => `air/${month}.csv`;

/**
 * Names that Zaffet gives, with the most that each entry may hold unpacked [bytes]: a small file may unpack to much. What
 * is read piece by piece may hold more. All air was in `air.csv` in version 1.
 */
const ENTRIES: readonly (readonly [RegExp, number])[] = [
  [/^zaffet\.json$/, 65_536],
  [/^settings\.json$/, 1e6],
  [/^shelf\.json$/, 64e6],
  [/^calibrations\.json$/, 1e9],
  [/^air\.csv$/, 1e9],
  [/^air\/\d{4}-\d{2}\.csv$/, 1e9],
  [/^plans\/[0-9a-f-]{36}\.json$/, 64e6],
  [/^runs\/[A-Za-z0-9_-]{1,64}\.json$/, 1e9],
  [/^photos\/[0-9a-f]{64}(\.screen\.jpg)?$/, PHOTO_BYTES],
];

/** The most that an entry may hold [bytes]; null for a name that Zaffet does not give. */
export const limitOf = (name: string): number | null =>
  ENTRIES.find(([pattern]) => pattern.test(name))?.[1] ?? null;

export const isAir = (name: string): boolean => name.startsWith('air');

/** What is kept of the marks: the rest is of this database alone. */
export const SETTING_KEYS = ['measures', 'shop'] as const;
export type SettingKey = (typeof SETTING_KEYS)[number];

/** Columns of a list of the air. */
export interface AirRow {
  readonly source: string;
  readonly time: string;
  readonly temperature_c: string;
  readonly humidity: string;
}
export const AIR_COLUMNS: (keyof AirRow)[] = ['source', 'time', 'temperature_c', 'humidity'];
