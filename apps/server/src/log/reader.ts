import { type RunEvent } from '@zaffet/contract';
import { logText } from '@zaffet/words';
import { entryOf, foldRun } from '@zaffet/workshop';
import { asc, eq, isNull, ne, or, sql } from 'drizzle-orm';
import { type Logger } from 'pino';
import { setImmediate as breathe } from 'node:timers/promises';
import { type Database } from '../db/client';
import { isDiskFull, logged } from '../db/failures';
import { logEntries, logWords, runEvents, runs } from '../db/schema';

/** Counts up where entries are worked out otherwise: then all are worked out anew. */
const VERSION = 1;
/** A word that a slip of the pen may be in. */
const WORD = /\p{L}{4,40}/gu;
/** Runs that are asked for at once. */
const BATCH = 50;

/** What was said in a run as PostgreSQL looks for it: by its stem, and as it stands. */
const searchOf = (words: string): ReturnType<typeof sql<string>> =>
  sql<string>`to_tsvector('english', ${words}) || to_tsvector('simple', ${words})`;

/** Reads runs into the log, as they go on: what is looked for was read before, or the asker is told what is behind. */
export class LogReader {
  private reading: Promise<void> | null = null;
  /** Runs that cannot be read, with how far they were: tried again once they go on. */
  private readonly unreadable = new Map<string, number>();

  constructor(
    private readonly db: Database,
    private readonly log: Logger,
  ) {}

  /** Runs the log has not read. */
  private async behind(): Promise<{ readonly id: string; readonly events: number }[]> {
    const rows = await this.db
      .select({ id: runs.id, events: runs.events })
      .from(runs)
      .leftJoin(logEntries, eq(logEntries.run, runs.id))
      .where(or(isNull(logEntries.run), ne(logEntries.upTo, runs.events), ne(logEntries.version, VERSION)));
    return rows.filter(({ id, events }) => this.unreadable.get(id) !== events);
  }

  /** Reads what is behind. @param patience - waits no longer than this [ms] @returns how many are still behind */
  async catchUp(patience: number): Promise<number> {
    const behind = await this.behind();
    if (behind.length === 0) return 0;
    this.reading ??= this.readAll(behind).finally(() => (this.reading = null));
    let timer: NodeJS.Timeout | undefined;
    const enough = new Promise<void>((resolve) => (timer = setTimeout(resolve, patience)));
    await Promise.race([this.reading, enough]);
    clearTimeout(timer);
    return (await this.behind()).length;
  }

  private async readAll(behind: readonly { readonly id: string; readonly events: number }[]): Promise<void> {
    for (let at = 0; at < behind.length; at += BATCH)
      for (const { id, events } of behind.slice(at, at + BATCH)) {
        try {
          await this.read(id);
        } catch (error) {
          // It is read once there is room.
          if (isDiskFull(error)) return;
          this.unreadable.set(id, events);
          this.log.warn({ run: id, ...logged(error) }, 'a run cannot be read into the log');
        }
        // Others are served in between.
        await breathe();
      }
  }

  /** Works out what the log says of a run. */
  private async read(id: string): Promise<void> {
    const rows = await this.db
      .select({ seq: runEvents.seq, event: runEvents.event })
      .from(runEvents)
      .where(eq(runEvents.run, id))
      .orderBy(asc(runEvents.seq));
    const events: RunEvent[] = rows.map(({ event }) => event);
    const run = foldRun(events);
    if (run === null) return;
    const entry = entryOf(id, run);
    const words = logText(id, run);
    const told = {
      upTo: rows.at(-1)!.seq,
      version: VERSION,
      doneAt: new Date(entry.finishedAt ?? entry.begunAt),
      schools: [...entry.schools],
      media: [...entry.media],
      colours: entry.colours.map(({ hex }) => hex),
      verdict: entry.verdict,
      spacingMm: entry.spacingMm,
      chipped: entry.chipped,
      humidity: entry.humidity,
      entry,
      words,
      search: searchOf(words),
    };
    const vocabulary = [...new Set(words.toLowerCase().match(WORD) ?? [])];
    if (vocabulary.length > 0)
      await this.db
        .insert(logWords)
        .values(vocabulary.map((word) => ({ word })))
        .onConflictDoNothing();
    await this.db
      .insert(logEntries)
      .values({ run: id, ...told })
      .onConflictDoUpdate({ target: logEntries.run, set: told });
  }
}
