import { sql } from 'drizzle-orm';
import { existsSync, rmSync, statfsSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { type Logger } from 'pino';
import { type Database } from './client';
import { logged } from './failures';

/*
 * A database cannot even be opened on a full disk, and dies where its log has no room. So Zaffet holds a file in reserve
 * beside it: a start on a full disk deletes it, and the database opens to be read and backed up. While the disk is full
 * every write is refused by the database itself, before any of it reaches the log.
 */

/** In the data directory. */
export const RESERVE = 'zaffet-reserve';
const MB = 1e6;
/** Two pieces of PostgreSQL's log, and what a start writes [bytes]. */
const RESERVE_BYTES = 40 * MB;
/** With less than this nothing more is written [bytes]; with more than this it is again. */
const LOW = 16 * MB;
const ENOUGH = 128 * MB;
/** Room is looked at this often [ms]. */
const LOOK_EVERY = 5000;

/** What others than the system's administrator may still write [bytes]. */
function freeIn(directory: string): number {
  const { bavail, bsize } = statfsSync(directory);
  return bavail * bsize;
}

export const isFull = (directory: string): boolean => freeIn(directory) < LOW;

/** Deletes the reserve if the disk is full, so that the database can be opened. */
export function makeWay(directory: string): void {
  if (isFull(directory)) rmSync(join(directory, RESERVE), { force: true });
}

/** Holds room in reserve, flushed to the disk; a part of it is none. */
async function reserve(directory: string): Promise<void> {
  const [path, part] = [join(directory, RESERVE), join(directory, `${RESERVE}.part`)];
  if (existsSync(path)) return;
  const file = await open(part, 'w', 0o600);
  try {
    // Not of zeros: some file systems keep those as nothing.
    const piece = Buffer.alloc(MB, 'zaffet');
    for (let written = 0; written < RESERVE_BYTES; written += MB) await file.write(piece);
    await file.sync();
  } finally {
    await file.close();
  }
  await rename(part, path);
}

/** The room under an open database: what is written while there is some, and only read while there is none. */
export class Room {
  private full = false;
  private timer: NodeJS.Timeout | null = null;
  private looking: Promise<void> | null = null;

  /** @param free - what is free in a folder [bytes] */
  constructor(
    private readonly db: Database,
    private readonly directory: string,
    private readonly log: Logger,
    private readonly free = freeIn,
  ) {}

  get isFull(): boolean {
    return this.full;
  }

  /** Looks once, and again and again. */
  async start(): Promise<void> {
    await this.look();
    this.timer = setInterval(() => {
      this.looking ??= this.look()
        .catch((error: unknown) =>
          this.log.error(logged(error), 'the room on the disk could not be looked at'),
        )
        .finally(() => (this.looking = null));
    }, LOOK_EVERY);
    this.timer.unref();
  }

  async stop(): Promise<void> {
    if (this.timer !== null) clearInterval(this.timer);
    await this.looking;
  }

  async look(): Promise<void> {
    const { directory } = this;
    const free = this.free(directory);
    const hasReserve = existsSync(join(directory, RESERVE));
    // A start that had to use the reserve has some room by it; that is for reading.
    if (!this.full && (free < LOW || (!hasReserve && free < RESERVE_BYTES + LOW))) await this.readOnly(true);
    else if (this.full && free > ENOUGH) await this.readOnly(false);
    if (hasReserve || free <= ENOUGH) return;
    await reserve(directory).catch(async (error: unknown) => {
      await rm(join(directory, `${RESERVE}.part`), { force: true });
      throw error;
    });
  }

  private async readOnly(is: boolean): Promise<void> {
    await this.db.execute(sql.raw(`set default_transaction_read_only = ${is ? 'on' : 'off'}`));
    this.full = is;
    this.log.warn(is ? 'the disk is full: nothing is saved' : 'the disk has room again: everything is saved');
  }
}
