/** Names of a backup's entries: what is written, and all that is read. */
export const HEAD = 'zaffet.json';
export const SHELF = 'shelf.json';
export const CALIBRATIONS = 'calibrations.json';
export const SETTINGS = 'settings.json';
export const AIR = 'air.csv';
export const planEntry = (id: string): string => `plans/${id}.json`;
export const runEntry = (id: string): string => `runs/${id}.json`;
export const photoEntry = (hash: string): string => `photos/${hash}`;
export const screenEntry = (hash: string): string => `photos/${hash}.screen.jpg`;

/** Anything else does not come from Zaffet. */
const KNOWN = [
  /^(zaffet|shelf|calibrations|settings)\.json$/,
  /^air\.csv$/,
  /^plans\/[0-9a-f-]{36}\.json$/,
  /^runs\/[A-Za-z0-9_-]{1,64}\.json$/,
  /^photos\/[0-9a-f]{64}(\.screen\.jpg)?$/,
];
export const isKnown = (name: string): boolean => KNOWN.some((pattern) => pattern.test(name));

/** What is kept of the marks: the rest is of this database alone. */
export const SETTING_KEYS = ['measures', 'shop'] as const;
export type SettingKey = (typeof SETTING_KEYS)[number];

/** Columns of `air.csv`. */
export interface AirRow {
  readonly source: string;
  readonly time: string;
  readonly temperature_c: string;
  readonly humidity: string;
}
