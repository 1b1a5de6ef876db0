import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  type BackupCalibration,
  type BackupHead,
  type BackupItem,
  type BackupKind,
  type BackupPlan,
  type BackupRun,
} from '@zaffet/contract';
import { and, asc, eq, gt, gte, inArray, lt, or, sql } from 'drizzle-orm';
import Papa from 'papaparse';
import { Readable } from 'node:stream';
import yazl from 'yazl';
import { type Database } from '../db/client';
import { airReadings, calibrations, marks, photos, plans, runEvents, runs, shelfItems } from '../db/schema';
import { readPhoto } from '../photos/queries';
import {
  AIR_COLUMNS,
  airEntry,
  type AirRow,
  CALIBRATIONS,
  HEAD,
  limitOf,
  photoEntry,
  planEntry,
  runEntry,
  screenEntry,
  SETTING_KEYS,
  SETTINGS,
  SHELF,
} from './layout';

/** The same of all entries, so that two backups of one shop are the same bytes. */
const ENTRY = { mtime: new Date('2000-01-01T00:00:00.000Z'), mode: 0o100644 } as const;
/** Rows that are fetched at a time; larger ones by fewer. */
const ROWS = 1000;
const LARGE_ROWS = 20;

/** Something that is read only when the zip has come to it, piece by piece. */
interface Part {
  readonly name: string;
  /** Photographs are packed already. */
  readonly packed: boolean;
  read(): AsyncIterable<Buffer | string> | Iterable<string>;
}

type Counts = Record<BackupKind, number>;

const json = (value: unknown): string => `${JSON.stringify(value)}\n`;

/** Pages of rows, each asked for by the last row of the one before. */
async function* paged<Row>(
  size: number,
  page: (after: Row | null) => Promise<readonly Row[]>,
): AsyncGenerator<readonly Row[]> {
  for (let after: Row | null = null; ;) {
    const rows = await page(after);
    yield rows;
    if (rows.length < size) return;
    after = rows.at(-1)!;
  }
}

/** A JSON list, an entry a line. */
async function* listText(
  pages: AsyncIterable<readonly unknown[]> | Iterable<readonly unknown[]>,
): AsyncGenerator<string> {
  let before = '[\n';
  for await (const entries of pages)
    for (const entry of entries) {
      yield `${before}${JSON.stringify(entry)}`;
      before = ',\n';
    }
  yield before === '[\n' ? '[]\n' : '\n]\n';
}

async function* planText(db: Database, id: string): AsyncGenerator<string> {
  const [row] = await db.select().from(plans).where(eq(plans.id, id));
  const { name, revision, savedAt, removedAt, plan } = row!;
  yield json({
    id,
    name,
    revision,
    savedAt: savedAt.toISOString(),
    removedAt: removedAt?.toISOString() ?? null,
    plan,
  } satisfies BackupPlan);
}

type RunRow = Pick<typeof runs.$inferSelect, 'id' | 'planId' | 'name' | 'begunAt'>;
async function* runText(db: Database, { id, planId, name, begunAt }: RunRow): AsyncGenerator<string> {
  const head = { id, planId, name, begunAt: begunAt.toISOString() } satisfies Omit<BackupRun, 'events'>;
  const events = paged<{ seq: number; event: unknown }>(ROWS, (after) =>
    db
      .select({ seq: runEvents.seq, event: runEvents.event })
      .from(runEvents)
      .where(and(eq(runEvents.run, id), gt(runEvents.seq, after?.seq ?? 0)))
      .orderBy(asc(runEvents.seq))
      .limit(ROWS),
  );
  yield `${JSON.stringify(head).slice(0, -1)},"events":`;
  yield* listText(events);
  yield '}\n';
}

async function* photoBytes(db: Database, hash: string, screen: boolean): AsyncGenerator<Buffer> {
  yield* (await readPhoto(db, hash, screen)).pieces();
}

/** What was learned, oldest first. */
async function* calibrationsOf(db: Database, counts: Counts): AsyncGenerator<BackupCalibration[]> {
  // A moment is read to the millisecond, and pages must go by what is read.
  const at = sql<Date>`date_trunc('milliseconds', ${calibrations.at})`.mapWith(calibrations.at);
  const rows = paged<typeof calibrations.$inferSelect>(LARGE_ROWS, (after) =>
    db
      .select()
      .from(calibrations)
      .where(
        after === null
          ? undefined
          : or(gt(at, after.at), and(eq(at, after.at), gt(calibrations.id, after.id))),
      )
      .orderBy(asc(at), asc(calibrations.id))
      .limit(LARGE_ROWS),
  );
  for await (const page of rows) {
    counts.calibrations += page.length;
    yield page.map((row) => ({ at: row.at.toISOString(), file: row.file }));
  }
}

const HEAD_LINE = `${AIR_COLUMNS.join()}\r\n`;
const monthAfter = (month: Date): Date => new Date(Date.UTC(month.getUTCFullYear(), month.getUTCMonth() + 1));
const within = (month: Date): ReturnType<typeof and> =>
  and(gte(airReadings.at, month), lt(airReadings.at, monthAfter(month)));

/** Readings of a month, in order of time. */
async function* airText(db: Database, month: Date, counts: Counts): AsyncGenerator<string> {
  yield HEAD_LINE;
  const rows = paged<typeof airReadings.$inferSelect>(ROWS, (after) =>
    db
      .select()
      .from(airReadings)
      .where(
        and(
          within(month),
          after === null
            ? undefined
            : or(
                gt(airReadings.at, after.at),
                and(eq(airReadings.at, after.at), gt(airReadings.source, after.source)),
              ),
        ),
      )
      .orderBy(asc(airReadings.at), asc(airReadings.source))
      .limit(ROWS),
  );
  for await (const page of rows) {
    if (page.length === 0) return;
    counts.air += page.length;
    const lines = page.map(({ source, at, temperatureC, humidity }): AirRow => ({
      source,
      time: at.toISOString(),
      temperature_c: String(temperatureC),
      humidity: String(humidity),
    }));
    yield `${Papa.unparse(lines, { header: false, newline: '\r\n', columns: AIR_COLUMNS })}\r\n`;
  }
}

/** Months that have readings. */
async function monthsOf(db: Database): Promise<Date[]> {
  const [span] = await db
    .select({
      first: sql<Date | null>`min(${airReadings.at})`.mapWith(airReadings.at),
      last: sql<Date | null>`max(${airReadings.at})`.mapWith(airReadings.at),
    })
    .from(airReadings);
  const months: Date[] = [];
  const { first, last } = span!;
  if (first === null || last === null) return months;
  for (
    let month = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth()));
    month <= last;
    month = monthAfter(month)
  ) {
    const some = await db.select({ at: airReadings.at }).from(airReadings).where(within(month)).limit(1);
    if (some.length > 0) months.push(month);
  }
  return months;
}

/** All of a shop, part by part; what there is is listed first and read when its turn comes. The head counts and is last. */
async function partsOf(db: Database): Promise<Part[]> {
  const planIds = await db.select({ id: plans.id }).from(plans).orderBy(asc(plans.id));
  const { id, planId, name, begunAt } = runs;
  const runRows: RunRow[] = await db.select({ id, planId, name, begunAt }).from(runs).orderBy(asc(runs.id));
  const hashes = await db
    .select({
      hash: photos.hash,
      small: sql<boolean>`coalesce(${photos.screenSize}, length(${photos.screen})) is not null`,
    })
    .from(photos)
    .orderBy(asc(photos.hash));
  const shelf = await db.select().from(shelfItems).orderBy(asc(shelfItems.putAt), asc(shelfItems.id));
  const settings = await db
    .select()
    .from(marks)
    .where(inArray(marks.key, [...SETTING_KEYS]))
    .orderBy(asc(marks.key));
  const items = shelf.map(({ item, putAt }): BackupItem => ({ putAt: putAt.toISOString(), item }));
  const counts: Counts = {
    plans: planIds.length,
    runs: runRows.length,
    photos: hashes.length,
    shelf: items.length,
    calibrations: 0,
    settings: settings.length,
    air: 0,
  };
  const months = await monthsOf(db);
  const text = (entry: string, read: Part['read']): Part => ({ name: entry, packed: false, read });
  return [
    text(SHELF, () => listText([items])),
    text(CALIBRATIONS, () => listText(calibrationsOf(db, counts))),
    text(SETTINGS, () => [
      json(Object.fromEntries(settings.map(({ key, value }) => [key, JSON.parse(value)]))),
    ]),
    ...months.map((month) =>
      text(airEntry(month.toISOString().slice(0, 7)), () => airText(db, month, counts)),
    ),
    ...planIds.map((row) => text(planEntry(row.id), () => planText(db, row.id))),
    ...runRows.map((row) => text(runEntry(row.id), () => runText(db, row))),
    ...hashes.flatMap(({ hash, small }): Part[] => [
      { name: photoEntry(hash), packed: true, read: () => photoBytes(db, hash, false) },
      ...(small ? [{ name: screenEntry(hash), packed: true, read: () => photoBytes(db, hash, true) }] : []),
    ]),
    text(HEAD, () => [json({ format: BACKUP_FORMAT, version: BACKUP_VERSION, counts } satisfies BackupHead)]),
  ];
}

/** Worth packing at a time [bytes]. */
const PIECE = 65_536;

/** An entry's bytes, in pieces worth packing. @throws where they are more than a restore would read */
async function* measured({ name, read }: Part): AsyncGenerator<Buffer> {
  const most = limitOf(name)!;
  let all = 0;
  let pieces: Buffer[] = [];
  let held = 0;
  for await (const piece of read()) {
    const bytes = Buffer.from(piece);
    all += bytes.length;
    if (all > most) throw new Error(`${name} is larger than the ${most} bytes that a backup may hold`);
    pieces.push(bytes);
    held += bytes.length;
    if (held < PIECE) continue;
    yield Buffer.concat(pieces);
    [pieces, held] = [[], 0];
  }
  if (held > 0) yield Buffer.concat(pieces);
}

/**
 * Everything of a shop as one zip file, told as it is written: however much there is, no more than a page of rows and a
 * piece of a photograph is in memory.
 */
export async function backupOf(db: Database): Promise<Readable> {
  const zip = new yazl.ZipFile();
  const parts = await partsOf(db);
  const out = zip.outputStream as Readable;
  for (const part of parts)
    zip.addReadStreamLazy(part.name, { ...ENTRY, compress: !part.packed }, (take) => {
      const content = Readable.from(measured(part));
      content.once('error', (error) => out.destroy(error));
      take(null, content);
    });
  zip.end();
  return out;
}
