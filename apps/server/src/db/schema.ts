import {
  type CalibrationFile,
  type LogEntry,
  type PhotoType,
  type PlanFile,
  type RunEvent,
  type ShelfItem,
  type Verdict,
} from '@zaffet/contract';
import { sql } from 'drizzle-orm';
import {
  boolean,
  customType,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  real,
  serial,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';

/** Plans, each with the save that its next save must name. A removed plan keeps its row so that it can come back. */
export const plans = pgTable('plans', {
  id: uuid().primaryKey().defaultRandom(),
  name: text().notNull(),
  revision: integer().notNull().default(1),
  saveId: uuid('save_id').notNull().defaultRandom(),
  plan: jsonb().$type<PlanFile>().notNull(),
  savedAt: timestamp('saved_at', { withTimezone: true, mode: 'date' }).notNull().defaultNow(),
  removedAt: timestamp('removed_at', { withTimezone: true, mode: 'date' }),
});

/** What stands on the shop's shelf. */
export const shelfItems = pgTable('shelf_items', {
  id: text().primaryKey(),
  item: jsonb().$type<ShelfItem>().notNull(),
  putAt: timestamp('put_at', { withTimezone: true, mode: 'date' }).notNull().defaultNow(),
});

/** What instruments read of the shop's air. */
export const airReadings = pgTable(
  'air_readings',
  {
    source: text().notNull(),
    at: timestamp({ withTimezone: true, mode: 'date' }).notNull(),
    temperatureC: real('temperature_c').notNull(),
    humidity: real().notNull(),
  },
  ({ at, source }) => [primaryKey({ columns: [at, source] })],
);

/** Plans carried out at the bench; `events` counts those of each, so that their numbers have no gap. */
export const runs = pgTable('runs', {
  id: text().primaryKey(),
  planId: text('plan_id'),
  name: text().notNull(),
  begunAt: timestamp('begun_at', { withTimezone: true, mode: 'date' }).notNull(),
  events: integer().notNull().default(0),
});

/** What happened in each run: only ever added to. */
export const runEvents = pgTable(
  'run_events',
  {
    run: text()
      .notNull()
      .references(() => runs.id),
    seq: integer().notNull(),
    id: text().notNull().unique(),
    device: text().notNull(),
    n: integer().notNull(),
    event: jsonb().$type<RunEvent>().notNull(),
  },
  ({ run, seq, device, n }) => [primaryKey({ columns: [run, seq] }), unique().on(device, n)],
);

/** What the shop has learned of its paints: only ever added to, the newest holds. */
export const calibrations = pgTable('calibrations', {
  id: serial().primaryKey(),
  at: timestamp({ withTimezone: true, mode: 'date' }).notNull().defaultNow(),
  file: jsonb().$type<CalibrationFile>().notNull(),
});

/** Bytes go in as base64 (RFC 4648): the embedded database writes a byte at a time otherwise, 50 times slower. */
const bytea = customType<{ data: Uint8Array; driverData: Uint8Array }>({
  dataType: () => 'bytea',
  toDriver: (bytes) => sql`decode(${Buffer.from(bytes).toString('base64')}, 'base64')`,
});
const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });

/**
 * Photographs by the SHA-256 of their bytes: as they came out of the camera, and no larger than a screen. A row stands
 * for a photograph whose pieces are all there.
 */
export const photos = pgTable('photos', {
  hash: text().primaryKey(),
  type: text().$type<PhotoType>().notNull(),
  size: integer().notNull(),
  /** Of the one for the screen; null while there is none in pieces. */
  screenSize: integer('screen_size'),
  /** Kept whole by a Zaffet before 0.2; null for what is kept in pieces. */
  bytes: bytea(),
  screen: bytea(),
});

/** Photographs in pieces, so that no statement takes long. */
export const photoPieces = pgTable(
  'photo_pieces',
  {
    hash: text().notNull(),
    /** Whether it is a piece of the one for the screen. */
    screen: boolean().notNull(),
    n: integer().notNull(),
    bytes: bytea().notNull(),
    putAt: timestamp('put_at', { withTimezone: true, mode: 'date' }).notNull().defaultNow(),
  },
  ({ hash, screen, n }) => [primaryKey({ columns: [hash, screen, n] })],
);

/**
 * What the log is searched by: worked out from the runs, and worked out again where a run has gone on since.
 * Nothing is in it that its run does not say.
 */
export const logEntries = pgTable(
  'log_entries',
  {
    run: text()
      .primaryKey()
      .references(() => runs.id),
    /** Events of the run that it was worked out from, and how it was. */
    upTo: integer('up_to').notNull(),
    version: integer().notNull(),
    doneAt: timestamp('done_at', { withTimezone: true, mode: 'date' }).notNull(),
    schools: text().array().notNull(),
    media: text().array().notNull(),
    colours: text().array().notNull(),
    verdict: text().$type<Verdict>(),
    spacingMm: real('spacing_mm'),
    chipped: real(),
    humidity: real(),
    entry: jsonb().$type<LogEntry>().notNull(),
    words: text().notNull(),
    search: tsvector().notNull(),
  },
  ({ search }) => [index('log_search').using('gin', search)],
);

/** Every word of the log, once: what a slip of the pen may have meant. */
export const logWords = pgTable('log_words', { word: text().primaryKey() }, ({ word }) => [
  index('log_words_like').using('gin', sql`${word} gin_trgm_ops`),
]);

/** Devices that are signed in. Of what they hold only a digest is here, so that the database lets nobody in. */
export const sessions = pgTable('sessions', {
  id: uuid().primaryKey().defaultRandom(),
  digest: text().notNull().unique(),
  name: text().notNull(),
  since: timestamp({ withTimezone: true, mode: 'date' }).notNull().defaultNow(),
  seenAt: timestamp('seen_at', { withTimezone: true, mode: 'date' }).notNull().defaultNow(),
  until: timestamp({ withTimezone: true, mode: 'date' }).notNull(),
});

/** Invitations that nobody has used yet, by the digest of their keys. */
export const invitations = pgTable('invitations', {
  digest: text().primaryKey(),
  until: timestamp({ withTimezone: true, mode: 'date' }).notNull(),
});

/** Facts about this shop's database itself: that the demo was loaded, what the painter measures with. */
export const marks = pgTable('marks', { key: text().primaryKey(), value: text().notNull() });
