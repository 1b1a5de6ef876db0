import {
  type BackupCalibration,
  type BackupItem,
  type BackupPlan,
  fault,
  filePlan,
  isInstant,
  JsonMeter,
  type KeptEvent,
  LIMITS,
  plainText,
  type PlanFile,
  type RunEvent,
  ZaffetError,
} from '@zaffet/contract';
import { parseCalibration } from '@zaffet/contract/calibration';
import { parseEvents } from '@zaffet/contract/runs';
import { parseMeasures, parsePlan, parseShelfItem, parseShop } from '@zaffet/contract/schemas';
import { JSONParser } from '@streamparser/json';
import Papa from 'papaparse';
import { Readable } from 'node:stream';
import { type airReadings } from '../db/schema';
import { type AirRow, SETTING_KEYS, type SettingKey } from './layout';

const unreadable = (): ZaffetError => new ZaffetError(fault('backup.unreadable'));

const dateOf = (value: unknown): Date => {
  if (typeof value !== 'string' || !isInstant(value)) throw unreadable();
  return new Date(value);
};

/** What an entry of `plans`, `runs` or `photos` is called by. */
export const idOf = (name: string): string => /^\w+\/([^.]+)/.exec(name)![1]!;

/** A plan of a backup. */
export interface PlanInBackup {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly savedAt: Date;
  readonly removedAt: Date | null;
  readonly plan: PlanFile;
}

/** @param value - of `plans/ID.json` @throws ZaffetError */
export function planIn(value: unknown): PlanInBackup {
  const { id, revision, savedAt, removedAt, plan } = value as BackupPlan;
  const filed = filePlan(parsePlan(plan));
  if (typeof id !== 'string' || !Number.isInteger(revision) || revision < 1) throw unreadable();
  return {
    id,
    name: filed.name,
    revision: Math.min(revision, LIMITS.revision.max),
    savedAt: dateOf(savedAt),
    removedAt: removedAt === null ? null : dateOf(removedAt),
    plan: filed,
  };
}

type Pieces = AsyncIterable<Uint8Array>;

/**
 * Entries of a long JSON list, as they are read: no more than one is in memory, and each is counted before anything is
 * made of it.
 * @param list - path of the list, such as `$.events`
 * @param field - told of another field that is wanted, such as `$.id`
 * @throws ZaffetError `request.too-complex`; the parser's error for what is no JSON
 */
async function* entriesIn(
  pieces: Pieces,
  list: string,
  field: { readonly path: string; readonly found: (value: unknown) => void } | null = null,
): AsyncGenerator<unknown> {
  const meter = new JsonMeter();
  const parser = new JSONParser({
    paths: [`${list}.*`, ...(field === null ? [] : [field.path])],
    keepStack: false,
  });
  let entries: unknown[] = [];
  let isList = false;
  parser.onValue = ({ value, key, parent }): void => {
    meter.restart();
    if (field !== null && `$.${String(key)}` === field.path) field.found(value);
    else {
      isList = Array.isArray(parent) || typeof key === 'number';
      if (!isList) throw unreadable();
      entries.push(value);
    }
  };
  for await (const piece of pieces) {
    meter.take(piece);
    parser.write(piece);
    yield* entries;
    entries = [];
  }
  if (!parser.isEnded) throw unreadable();
}

/** A list in batches. */
async function* batches<T>(all: AsyncIterable<T>, size: number): AsyncGenerator<T[]> {
  let batch: T[] = [];
  for await (const item of all) {
    batch.push(item);
    if (batch.length < size) continue;
    yield batch;
    batch = [];
  }
  if (batch.length > 0) yield batch;
}

/** Events of a run, as many at a time as are taken at once. @param id - the run's @throws where it is none */
export async function* eventsIn(pieces: Pieces, id: string): AsyncGenerator<RunEvent[]> {
  let found: unknown;
  let seq = 0;
  const entries = entriesIn(pieces, '$.events', { path: '$.id', found: (value) => (found = value) });
  for await (const batch of batches(entries, LIMITS.events.max)) {
    for (const entry of batch) if ((entry as KeptEvent | null)?.seq !== ++seq) throw unreadable();
    yield [...parseEvents({ events: batch.map((entry) => (entry as KeptEvent).event) }).events];
  }
  if (found !== id) throw unreadable();
}

export async function* itemsIn(pieces: Pieces): AsyncGenerator<BackupItem> {
  for await (const entry of entriesIn(pieces, '$')) {
    const { putAt, item } = entry as BackupItem;
    yield { putAt: dateOf(putAt).toISOString(), item: parseShelfItem(item) };
  }
}

export async function* calibrationsIn(pieces: Pieces): AsyncGenerator<BackupCalibration> {
  for await (const entry of entriesIn(pieces, '$')) {
    const { at, file } = entry as BackupCalibration;
    yield { at: dateOf(at).toISOString(), file: parseCalibration(file) };
  }
}

const SETTING_READERS: Readonly<Record<SettingKey, (value: unknown) => unknown>> = {
  measures: parseMeasures,
  shop: parseShop,
};

export interface Setting {
  readonly key: SettingKey;
  readonly value: string;
}

/** @param value - of `settings.json` */
export const settingsIn = (value: unknown): Setting[] =>
  SETTING_KEYS.flatMap((key) =>
    Object.hasOwn(value as object, key)
      ? [{ key, value: JSON.stringify(SETTING_READERS[key]((value as Record<string, unknown>)[key])) }]
      : [],
  );

export type AirReading = typeof airReadings.$inferInsert;

function readingIn({ source, time, temperature_c: temperature, humidity }: AirRow): AirReading {
  const [temperatureC, share] = [Number(temperature), Number(humidity)];
  const { temperatureC: degrees, humidity: shares } = LIMITS;
  const name = plainText(String(source ?? ''));
  const plain =
    name !== '' &&
    temperatureC >= degrees.min - 1 &&
    temperatureC <= degrees.max + 1 &&
    share >= shares.min - 0.01 &&
    share <= shares.max + 0.01;
  if (!plain) throw unreadable();
  return { source: name, at: dateOf(time), temperatureC, humidity: share };
}

/** Readings of the air, so many at a time. */
export async function* airIn(pieces: Pieces, size: number): AsyncGenerator<AirReading[]> {
  const rows = Papa.parse(Papa.NODE_STREAM_INPUT, { header: true, skipEmptyLines: true });
  const source = Readable.from(pieces);
  source.once('error', (error) => rows.destroy(error));
  for await (const batch of batches(source.pipe(rows) as AsyncIterable<AirRow>, size))
    yield batch.map(readingIn);
}
