import { fault, type FieldFault, isInstant, LIMITS, ZaffetError } from '@zaffet/contract';
import { type AirPoint, onClock } from '@zaffet/workshop';
import Papa from 'papaparse';

/** Columns of a file of air readings, as docs/air.md tells them. */
const COLUMNS = {
  time: 'time',
  warm: 'temperature_c',
  warmF: 'temperature_f',
  damp: 'humidity_percent',
} as const;
/** No file of a shop's air holds more: a reading a minute for three months. */
const MOST_ROWS = 140_000;
/** Refused cells that are told; more say the same. */
const MOST_TOLD = 20;
/** Letters of a cell that are told. */
const MOST_LETTERS = 40;

const LOCAL = /^(\d{4}-\d{2}-\d{2})[ T](\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?$/;
const WITH_ZONE = /(Z|[+-]\d{2}:?\d{2})$/;

/** An instant with its zone, or a time of the clock on the shop's wall. */
function instantOf(cell: string, zone: string): number | null {
  const text = cell.trim();
  if (WITH_ZONE.test(text)) {
    const written = text.replace(' ', 'T');
    return isInstant(written) ? Date.parse(written) : null;
  }
  const local = LOCAL.exec(text);
  if (local === null) return null;
  const written = `${local[1]!}T${local[2]!.padStart(2, '0')}:${local[3]!}:${local[4] ?? '00'}`;
  return isInstant(`${written}Z`) ? onClock(written, zone) : null;
}

/** A number with a point or a comma for its decimals; null where it is none. */
function numberOf(cell: string): number | null {
  const text = cell.trim().replace(',', '.');
  return /^[+-]?\d+(\.\d+)?$/.test(text) ? Number(text) : null;
}

/** A column's header without its case and the blanks around it. */
const named = (header: string): string =>
  header
    .replace(/^\uFEFF/, '')
    .trim()
    .toLowerCase();
const quoted = (cell: string): string =>
  `"${cell.length > MOST_LETTERS ? `${cell.slice(0, MOST_LETTERS)}…` : cell}"`;

/**
 * Reads a file of air readings: CSV (RFC 4180) with comma, semicolon or tab between cells, a line of headers with `time`,
 * `temperature_c` (or `temperature_f`) and `humidity_percent` in any order; other columns are left alone.
 *
 * Times are ISO 8601 with a zone, or the shop's clock without; decimals have a point or a comma.
 * @param zone - of the shop
 * @throws ZaffetError `air.unreadable` with row and column of every cell that cannot be read (at most twenty)
 */
export function readAirFile(text: string, zone: string): AirPoint[] {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const refuse = (details: readonly FieldFault[]): never => {
    throw new ZaffetError(fault('air.unreadable', details));
  };
  const headers = (data[0] ?? []).map(named);
  const [time, damp] = [headers.indexOf(COLUMNS.time), headers.indexOf(COLUMNS.damp)];
  const celsius = headers.indexOf(COLUMNS.warm);
  const warm = celsius >= 0 ? celsius : headers.indexOf(COLUMNS.warmF);
  const missing = [
    ...(time < 0 ? [COLUMNS.time] : []),
    ...(warm < 0 ? [COLUMNS.warm] : []),
    ...(damp < 0 ? [COLUMNS.damp] : []),
  ];
  if (missing.length > 0)
    return refuse(missing.map((name) => ({ path: name, message: `The first row has no column "${name}".` })));
  if (data.length - 1 > MOST_ROWS)
    return refuse([
      {
        path: 'rows',
        message: `It has ${data.length - 1} rows; at most ${MOST_ROWS} are read. Cut it to the plan's days.`,
      },
    ]);
  const details: FieldFault[] = [];
  const tell = (row: number, name: string, cell: string, allowed: string): void => {
    if (details.length < MOST_TOLD)
      details.push({
        path: `row ${row}, ${name}`,
        message: `Row ${row}, ${name}: ${quoted(cell)} is not ${allowed}.`,
      });
  };
  const { temperatureC: warmth, humidity: dampness } = LIMITS;
  const points = data.slice(1).flatMap((cells, i): AirPoint[] => {
    const row = i + 2;
    const cell = (column: number): string => cells[column] ?? '';
    const at = instantOf(cell(time), zone);
    if (at === null)
      tell(row, COLUMNS.time, cell(time), 'a time such as 2026-05-12T08:00 or 2026-05-12T08:00+02:00');
    const degrees = numberOf(cell(warm));
    const temperatureC = degrees === null || celsius >= 0 ? degrees : ((degrees - 32) * 5) / 9;
    const coldest =
      celsius >= 0 ? [warmth.min, warmth.max] : [warmth.min, warmth.max].map((c) => c * 1.8 + 32);
    if (temperatureC === null || temperatureC < warmth.min || temperatureC > warmth.max)
      tell(
        row,
        headers[warm]!,
        cell(warm),
        `a number from ${coldest[0]} to ${coldest[1]} ${celsius >= 0 ? '°C' : '°F'}`,
      );
    const percent = numberOf(cell(damp));
    if (percent === null || percent < dampness.min * 100 || percent > dampness.max * 100)
      tell(row, COLUMNS.damp, cell(damp), `a number from ${dampness.min * 100} to ${dampness.max * 100} %`);
    return at === null || temperatureC === null || percent === null
      ? []
      : [{ at, temperatureC, humidity: percent / 100 }];
  });
  if (details.length > 0) return refuse(details);
  if (points.length === 0) return refuse([{ path: 'rows', message: 'There are no readings in it.' }]);
  return points;
}

/** Writes the air's course as such a file: instants in UTC. */
export function airFile(points: readonly AirPoint[]): string {
  const rows = points.map(({ at, temperatureC, humidity }) => ({
    [COLUMNS.time]: new Date(at).toISOString(),
    [COLUMNS.warm]: temperatureC,
    [COLUMNS.damp]: Number((humidity * 100).toFixed(2)),
  }));
  return Papa.unparse(rows, { newline: '\r\n' });
}
