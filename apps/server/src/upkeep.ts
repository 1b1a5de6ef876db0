import { type Logger } from 'pino';
import { thinAir } from './air/thin';
import { type Database } from './db/client';
import { logged } from './db/failures';
import { clearStrayPieces } from './photos/queries';
import { emptyBin } from './plans/queries';

/** Hours between two times; the first is an hour after the start [ms]. */
const EVERY = 3_600_000;

/**
 * Keeps the database small: thins the air out, deletes pieces of photographs that never came to their end, and plans that
 * were in the bin for too long.
 */
export async function keepSmall(db: Database, now: number): Promise<void> {
  await thinAir(db, now);
  await clearStrayPieces(db);
  await emptyBin(db, now);
}

/** Keeps the database small from now on. @returns ends it, after what is being done */
export function startUpkeep(db: Database, log: Logger): () => Promise<void> {
  let working: Promise<void> | null = null;
  const work = (): void => {
    working ??= keepSmall(db, Date.now())
      .catch((error: unknown) => log.error(logged(error), 'the database could not be kept small'))
      .finally(() => (working = null));
  };
  const timer = setInterval(work, EVERY);
  timer.unref();
  return async () => {
    clearInterval(timer);
    await working;
  };
}
