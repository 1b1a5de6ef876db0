import { type CalibrationFile, type PlanFile, type RunEvent, type ShelfItem } from '@zaffet/contract';
import {
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

/** Plans, each with the revision its next save must name. A removed plan keeps its row so that it can come back. */
export const plans = pgTable('plans', {
  id: uuid().primaryKey().defaultRandom(),
  name: text().notNull(),
  revision: integer().notNull().default(1),
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

/** Facts about this shop's database itself: that the demo was loaded, what the painter measures with. */
export const marks = pgTable('marks', { key: text().primaryKey(), value: text().notNull() });
