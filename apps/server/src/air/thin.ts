import { eq, sql } from 'drizzle-orm';
import { type Database } from '../db/client';
import { airReadings, marks } from '../db/schema';

const DAY = 86_400_000;

/**
 * Readings of the air are kept as they came for a fortnight, as means of ten minutes for a year, and as means of an hour
 * after that; docs/air.md says so. A mean stands at the beginning of its stretch, for each instrument by itself.
 */
const RULES = [
  { mark: 'air-ten-minutes', every: '10 minutes', afterDays: 14 },
  { mark: 'air-hours', every: '1 hour', afterDays: 365 },
] as const;
/** Stretches are counted from here. */
const ORIGIN = sql`timestamptz '2000-01-01T00:00:00Z'`;

/** The beginning of a day of UTC. */
const dayOf = (moment: number): Date => new Date(Math.floor(moment / DAY) * DAY);

async function firstDay(db: Database): Promise<Date | null> {
  const [row] = await db.select({ at: airReadings.at }).from(airReadings).orderBy(airReadings.at).limit(1);
  return row === undefined ? null : dayOf(row.at.getTime());
}

/** Puts means in the place of one day's readings. */
async function thinDay(db: Database, day: Date, every: string): Promise<void> {
  const next = new Date(day.getTime() + DAY);
  await db.execute(sql`
    with old as (
      delete from ${airReadings} where at >= ${day.toISOString()} and at < ${next.toISOString()} returning *
    )
    insert into ${airReadings} (source, at, temperature_c, humidity)
    select source, date_bin(${every}::interval, at, ${ORIGIN}), avg(temperature_c), avg(humidity)
    from old group by 1, 2`);
}

/** Thins the air's readings out, a day at a time. @param now - [ms since 1970] */
export async function thinAir(db: Database, now: number): Promise<void> {
  for (const { mark, every, afterDays } of RULES) {
    const until = dayOf(now - afterDays * DAY);
    const [done] = await db.select().from(marks).where(eq(marks.key, mark));
    const from = done === undefined ? await firstDay(db) : new Date(done.value);
    if (from === null) return;
    for (let day = from; day < until; day = new Date(day.getTime() + DAY)) {
      await thinDay(db, day, every);
      const value = new Date(day.getTime() + DAY).toISOString();
      await db
        .insert(marks)
        .values({ key: mark, value })
        .onConflictDoUpdate({ target: marks.key, set: { value } });
    }
  }
}

/** Old readings came in: their days are thinned again. @param earliest - of them */
export async function thinAgainFrom(db: Database, earliest: Date): Promise<void> {
  const day = dayOf(earliest.getTime()).toISOString();
  // ISO texts stand in order of time.
  for (const { mark } of RULES)
    await db
      .update(marks)
      .set({ value: sql`least(${marks.value}, ${day})` })
      .where(eq(marks.key, mark));
}
