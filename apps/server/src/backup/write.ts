import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  type BackupCalibration,
  type BackupHead,
  type BackupItem,
  type BackupPlan,
  type BackupRun,
} from '@zaffet/contract';
import { asc, eq, inArray, sql } from 'drizzle-orm';
import Papa from 'papaparse';
import { Readable } from 'node:stream';
import { setImmediate as breathe } from 'node:timers/promises';
import yazl from 'yazl';
import { type Database } from '../db/client';
import { airReadings, calibrations, marks, photos, plans, runEvents, runs, shelfItems } from '../db/schema';
import {
  AIR,
  type AirRow,
  CALIBRATIONS,
  HEAD,
  photoEntry,
  planEntry,
  runEntry,
  screenEntry,
  SETTING_KEYS,
  SETTINGS,
  SHELF,
} from './layout';
import { readPhoto } from '../photos/queries';

/** The same of all entries, so that two backups of one shop are the same bytes. */
const ENTRY = { mtime: new Date('2000-01-01T00:00:00.000Z'), mode: 0o100644 } as const;

/** Something that is read only when the zip has come to it. */
interface Part {
  readonly name: string;
  /** Photographs are packed already. */
  readonly packed: boolean;
  read(): Promise<Uint8Array | string>;
}

const json = (value: unknown): string => `${JSON.stringify(value, null, 1)}\n`;

async function planText(db: Database, id: string): Promise<string> {
  const [row] = await db.select().from(plans).where(eq(plans.id, id));
  const { name, revision, savedAt, removedAt, plan } = row!;
  const told: BackupPlan = {
    id,
    name,
    revision,
    savedAt: savedAt.toISOString(),
    removedAt: removedAt?.toISOString() ?? null,
    plan,
  };
  return json(told);
}

type RunRow = Pick<typeof runs.$inferSelect, 'id' | 'planId' | 'name' | 'begunAt'>;
async function runText(db: Database, { id, planId, name, begunAt }: RunRow): Promise<string> {
  const events = await db
    .select({ seq: runEvents.seq, event: runEvents.event })
    .from(runEvents)
    .where(eq(runEvents.run, id))
    .orderBy(asc(runEvents.seq));
  const told: BackupRun = { id, planId, name, begunAt: begunAt.toISOString(), events };
  return json(told);
}

const photoBytes = async (db: Database, hash: string, screen: boolean): Promise<Uint8Array> =>
  (await readPhoto(db, hash, screen)).bytes;

/** All of a shop, part by part; plans and runs are listed first and read when their turn comes. */
async function partsOf(db: Database): Promise<{ readonly head: BackupHead; readonly parts: Part[] }> {
  const planIds = await db.select({ id: plans.id }).from(plans).orderBy(asc(plans.id));
  const { id, planId, name, begunAt } = runs;
  const runRows: RunRow[] = await db.select({ id, planId, name, begunAt }).from(runs).orderBy(asc(runs.id));
  const hashes = await db
    .select({ hash: photos.hash, small: sql<boolean>`${photos.screen} is not null` })
    .from(photos)
    .orderBy(asc(photos.hash));
  const shelf = await db.select().from(shelfItems).orderBy(asc(shelfItems.putAt), asc(shelfItems.id));
  const learned = await db.select().from(calibrations).orderBy(asc(calibrations.at), asc(calibrations.id));
  const settings = await db
    .select()
    .from(marks)
    .where(inArray(marks.key, [...SETTING_KEYS]))
    .orderBy(asc(marks.key));
  const air = await db.select().from(airReadings).orderBy(asc(airReadings.at), asc(airReadings.source));
  const items = shelf.map(({ item, putAt }): BackupItem => ({ putAt: putAt.toISOString(), item }));
  const told = learned.map(({ at, file }): BackupCalibration => ({ at: at.toISOString(), file }));
  const rows = air.map(({ source, at, temperatureC, humidity }): AirRow => ({
    source,
    time: at.toISOString(),
    temperature_c: String(temperatureC),
    humidity: String(humidity),
  }));
  const whole = (name: string, text: string): Part => ({ name, packed: false, read: async () => text });
  const head: BackupHead = {
    format: BACKUP_FORMAT,
    version: BACKUP_VERSION,
    counts: {
      plans: planIds.length,
      runs: runRows.length,
      photos: hashes.length,
      shelf: items.length,
      calibrations: told.length,
      settings: settings.length,
      air: rows.length,
    },
  };
  return {
    head,
    parts: [
      whole(HEAD, json(head)),
      whole(SHELF, json(items)),
      whole(CALIBRATIONS, json(told)),
      whole(SETTINGS, json(Object.fromEntries(settings.map(({ key, value }) => [key, JSON.parse(value)])))),
      whole(
        AIR,
        Papa.unparse(rows, { newline: '\r\n', columns: ['source', 'time', 'temperature_c', 'humidity'] }),
      ),
      ...planIds.map(({ id }): Part => ({
        name: planEntry(id),
        packed: false,
        read: () => planText(db, id),
      })),
      ...runRows.map((row): Part => ({
        name: runEntry(row.id),
        packed: false,
        read: () => runText(db, row),
      })),
      ...hashes.flatMap(({ hash, small }): Part[] => [
        { name: photoEntry(hash), packed: true, read: () => photoBytes(db, hash, false) },
        ...(small ? [{ name: screenEntry(hash), packed: true, read: () => photoBytes(db, hash, true) }] : []),
      ]),
    ],
  };
}

/**
 * Everything of a shop as one zip file, told as it is written: however much there is, no more than one photograph and
 * one run is in memory.
 */
export async function backupOf(db: Database): Promise<Readable> {
  const zip = new yazl.ZipFile();
  const { parts } = await partsOf(db);
  const out = zip.outputStream as Readable;
  for (const { name, packed, read } of parts)
    zip.addReadStreamLazy(name, { ...ENTRY, compress: !packed }, (take) => {
      // Others are served in between: what is neither packed nor waited for would follow without a pause.
      breathe()
        .then(read)
        .then(
          (content) => take(null, Readable.from([Buffer.from(content)])),
          (error: unknown) => {
            out.destroy(error instanceof Error ? error : new Error(String(error)));
          },
        );
    });
  zip.end();
  return out;
}
