import { type ReadingsRequest } from '@zaffet/contract';
import { type AirPoint } from '@zaffet/workshop';
import { and, desc, gte, lt, sql } from 'drizzle-orm';
import { type Database } from '../db/client';
import { airReadings } from '../db/schema';
import { thinAgainFrom } from './thin';

/** Rows of one statement: a database takes so many values at a time. */
const BATCH = 1000;

/** Keeps readings; one of the same instrument and moment takes the place of the one before. */
export async function keepReadings(db: Database, { source, readings }: ReadingsRequest): Promise<void> {
  // One statement cannot change a row twice.
  const byMoment = new Map(readings.map((one) => [Date.parse(one.at), one]));
  const rows = [...byMoment].map(([at, { temperatureC, humidity }]) => ({
    source,
    at: new Date(at),
    temperatureC,
    humidity,
  }));
  await db.transaction(async (all) => {
    for (let i = 0; i < rows.length; i += BATCH)
      await all
        .insert(airReadings)
        .values(rows.slice(i, i + BATCH))
        .onConflictDoUpdate({
          target: [airReadings.at, airReadings.source],
          set: { temperatureC: sql`excluded.temperature_c`, humidity: sql`excluded.humidity` },
        });
    await thinAgainFrom(all, new Date(Math.min(...byMoment.keys())));
  });
}

/** Most readings that are told at once: a fortnight, every minute, from two instruments. */
export const MOST_TOLD = 40_000;

/** What was read from one instant until another, in order of time; the newest where there is too much. */
export async function readingsBetween(db: Database, from: Date, until: Date): Promise<AirPoint[]> {
  const rows = await db
    .select()
    .from(airReadings)
    .where(and(gte(airReadings.at, from), lt(airReadings.at, until)))
    .orderBy(desc(airReadings.at))
    .limit(MOST_TOLD);
  return rows.map(({ at, temperatureC, humidity }) => ({ at: at.getTime(), temperatureC, humidity }));
}
