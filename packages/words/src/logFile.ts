import { type LogEntry } from '@zaffet/contract';
import { type School, SCHOOLS } from '@zaffet/workshop';
import Papa from 'papaparse';
import { FATE_WORDS, VERDICT_WORDS } from './bench';

/** What a list of the log tells of an entry, column by column; lengths in mm, shares 0 … 1, air in °C and a share. */
const row = (entry: LogEntry): Readonly<Record<string, string | number>> => ({
  name: entry.name,
  piece: entry.piece,
  parts: entry.parts.join('; '),
  begun: entry.begunAt,
  finished: entry.finishedAt ?? '',
  way: entry.schools.map((key) => SCHOOLS[key as School] ?? key).join('; '),
  media: entry.media.join('; '),
  colours: entry.colours.map(({ name, hex }) => (name === '' ? hex : `${name} ${hex}`)).join('; '),
  spacing_mm: entry.spacingMm ?? '',
  opening_mm: entry.openingMm ?? '',
  chipped: entry.chipped ?? '',
  worn: entry.worn ?? '',
  verdict: entry.verdict === null ? '' : VERDICT_WORDS[entry.verdict],
  next_time: entry.next,
  temperature_c: entry.temperatureC ?? '',
  humidity: entry.humidity ?? '',
  hours: entry.hours ?? '',
  cost: entry.cost ?? '',
  price: entry.price ?? '',
  for_whom: entry.forWhom,
  became: entry.fate === null ? '' : FATE_WORDS[entry.fate],
  photographs: entry.photos.length,
  run: entry.runId,
});

/** The log as CSV (RFC 4180): a line an entry, the newest first. */
export const logCsv = (entries: readonly LogEntry[]): string =>
  Papa.unparse(entries.map(row), { newline: '\r\n', escapeFormulae: true });
