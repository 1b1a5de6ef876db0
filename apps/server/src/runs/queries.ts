import {
  type EventsAnswer,
  fault,
  type KeptEvent,
  type Refused,
  type RunEvent,
  type RunSummary,
  ZaffetError,
} from '@zaffet/contract';
import { and, asc, desc, eq, gt, inArray, or } from 'drizzle-orm';
import { type Database } from '../db/client';
import { runEvents, runs } from '../db/schema';

/** Events that are told at once. */
const MOST_TOLD = 500;
/** Runs that are listed. */
const MOST_RUNS = 500;

/**
 * Takes events into a run: each once, however often it is sent; counted without a gap in the order they become visible,
 * since the run's row is held meanwhile.
 * @throws ZaffetError `run.not-found` where no event with the plan is among the first
 */
export async function takeEvents(
  db: Database,
  run: string,
  events: readonly RunEvent[],
): Promise<Pick<EventsAnswer, 'taken' | 'refused'>> {
  return db.transaction(async (all) => {
    const begin = events.find(({ kind }) => kind === 'run-begun');
    if (begin?.kind === 'run-begun')
      await all
        .insert(runs)
        .values({
          id: run,
          planId: begin.planId,
          name: begin.plan.name,
          begunAt: new Date(Date.parse(begin.at) + begin.offsetMs),
        })
        .onConflictDoNothing();
    const [row] = await all.select().from(runs).where(eq(runs.id, run)).for('update');
    if (row === undefined) throw new ZaffetError(fault('run.not-found'));
    const known = await all
      .select({
        run: runEvents.run,
        seq: runEvents.seq,
        id: runEvents.id,
        device: runEvents.device,
        n: runEvents.n,
      })
      .from(runEvents)
      .where(
        or(
          inArray(
            runEvents.id,
            events.map(({ id }) => id),
          ),
          ...events.map(({ device, n }) => and(eq(runEvents.device, device), eq(runEvents.n, n))),
        ),
      );
    const taken: Record<string, number> = {};
    const refused: Refused[] = [];
    const fresh: (typeof runEvents.$inferInsert)[] = [];
    let seq = row.events;
    for (const event of events) {
      const { id, device, n } = event;
      const same = [...known, ...fresh].find((one) => one.id === id);
      const place = [...known, ...fresh].find((one) => one.device === device && one.n === n);
      if (same !== undefined && same.run === run) taken[id] = same.seq;
      else if (same !== undefined)
        refused.push({ id, reason: 'id-taken', message: 'Another run has an event of this id.' });
      else if (place !== undefined)
        refused.push({
          id,
          reason: 'number-taken',
          message: `This device has told another event as its number ${n}. It was set back; begin a new count.`,
        });
      else {
        seq += 1;
        taken[id] = seq;
        fresh.push({ run, seq, id, device, n, event });
      }
    }
    // Without its plan a run is none.
    if (row.events === 0 && !fresh.some(({ event }) => event.kind === 'run-begun'))
      throw new ZaffetError(fault('run.not-found'));
    if (fresh.length > 0) {
      await all.insert(runEvents).values(fresh);
      await all.update(runs).set({ events: seq }).where(eq(runs.id, run));
    }
    return { taken, refused };
  });
}

/**
 * The events of a run after some count, in the order they became visible.
 * @param last - id of the event that the caller has under that count; where another one is, an older state of the
 * database was restored, and the run is told from its beginning. Null if the caller does not know it
 * @throws ZaffetError `run.not-found`
 */
export async function eventsAfter(
  db: Database,
  run: string,
  count: number,
  last: string | null = null,
): Promise<{ events: KeptEvent[]; upTo: number }> {
  const [row] = await db.select().from(runs).where(eq(runs.id, run));
  if (row === undefined) throw new ZaffetError(fault('run.not-found'));
  const after = count > 0 && last !== null && (await idAt(db, run, count)) !== last ? 0 : count;
  const rows = await db
    .select({ seq: runEvents.seq, event: runEvents.event })
    .from(runEvents)
    .where(and(eq(runEvents.run, run), gt(runEvents.seq, after)))
    .orderBy(asc(runEvents.seq))
    .limit(MOST_TOLD);
  return { events: rows, upTo: row.events };
}

async function idAt(db: Database, run: string, seq: number): Promise<string | null> {
  const [row] = await db
    .select({ id: runEvents.id })
    .from(runEvents)
    .where(and(eq(runEvents.run, run), eq(runEvents.seq, seq)));
  return row?.id ?? null;
}

/** @throws ZaffetError `run.not-found` */
export async function checkRun(db: Database, run: string): Promise<void> {
  const [row] = await db.select({ id: runs.id }).from(runs).where(eq(runs.id, run));
  if (row === undefined) throw new ZaffetError(fault('run.not-found'));
}

/** All runs, the newest first. */
export async function listRuns(db: Database): Promise<RunSummary[]> {
  const rows = await db.select().from(runs).orderBy(desc(runs.begunAt), asc(runs.id)).limit(MOST_RUNS);
  return rows.map(({ id, planId, name, begunAt, events }) => ({
    id,
    planId,
    name,
    begunAt: begunAt.toISOString(),
    upTo: events,
  }));
}
