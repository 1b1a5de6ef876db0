import { type KeptBackup } from '@zaffet/contract';
import { createWriteStream, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { type Logger } from 'pino';
import { type Database } from '../db/client';
import { logged } from '../db/failures';
import { flush } from '../db/folder';
import { backupOf } from './write';

/** So many of each are kept: one a day, one a week, one a month. */
const KEEP = { days: 7, weeks: 4, months: 12 } as const;
const NAME = /^zaffet-(\d{4}-\d{2}-\d{2})\.zip$/;
/** What is being written. */
const UNDER_WAY = '.part';
const DAY = 86_400_000;
/** It is looked this often whether a day has begun, and first when the start is over [ms]. */
const LOOK = 3_600_000;
const FIRST = 60_000;

const dayOf = (name: string): string => NAME.exec(name)![1]!;
/** Weeks are counted from a Monday. */
const weekOf = (day: string): number => Math.floor((Date.parse(day) / DAY + 3) / 7);
const monthOf = (day: string): string => day.slice(0, 7);

/**
 * Backups that need not be kept: all but the newest of each of the last days, weeks and months that have one.
 * @param names - of the files; others than backups are left alone
 */
export function outlived(names: readonly string[]): string[] {
  const all = names
    .filter((name) => NAME.test(name))
    .sort()
    .reverse();
  const keptOf = (most: number, kind: (day: string) => string | number): string[] => {
    const newest = new Map<string | number, string>();
    for (const name of all) {
      const key = kind(dayOf(name));
      if (!newest.has(key) && newest.size < most) newest.set(key, name);
    }
    return [...newest.values()];
  };
  const kept = new Set([
    ...keptOf(KEEP.days, (day) => day),
    ...keptOf(KEEP.weeks, weekOf),
    ...keptOf(KEEP.months, monthOf),
  ]);
  return all.filter((name) => !kept.has(name));
}

/** A backup of each day beside the data, and no more of them than are worth their room. */
export class DailyBackups {
  private timer: NodeJS.Timeout | null = null;
  private writing: Promise<void> | null = null;

  /** @param folder - where they are kept; made when the first is */
  constructor(
    private readonly db: Database,
    readonly folder: string,
    private readonly log: Logger,
  ) {}

  start(): void {
    const look = (): void =>
      void this.make(new Date()).catch((error: unknown) => {
        this.log.error(logged(error), 'the backup of today could not be written');
      });
    const first = setTimeout(() => {
      look();
      this.timer = setInterval(look, LOOK);
      this.timer.unref();
    }, FIRST);
    first.unref();
    this.timer = first;
  }

  /** Ends after what is being written. */
  async stop(): Promise<void> {
    if (this.timer !== null) clearTimeout(this.timer);
    await this.writing?.catch(() => undefined);
  }

  /** Writes the backup of a day where there is none, and takes away what has outlived its use. */
  make(at: Date): Promise<void> {
    this.writing ??= this.write(at).finally(() => (this.writing = null));
    return this.writing;
  }

  private async write(at: Date): Promise<void> {
    const path = join(this.folder, `zaffet-${at.toISOString().slice(0, 10)}.zip`);
    if (existsSync(path)) return;
    mkdirSync(this.folder, { recursive: true, mode: 0o700 });
    const part = `${path}${UNDER_WAY}`;
    await pipeline(await backupOf(this.db), createWriteStream(part, { mode: 0o600 }));
    // Whole on the disk before it has its name, and only then may others go.
    flush(part);
    renameSync(part, path);
    flush(this.folder);
    const names = readdirSync(this.folder);
    // What was under way when a Zaffet was killed is nothing any more.
    const left = names.filter((name) => name.endsWith(UNDER_WAY));
    for (const name of [...left, ...outlived(names)]) rmSync(join(this.folder, name));
  }

  /** The newest first. */
  list(): KeptBackup[] {
    if (!existsSync(this.folder)) return [];
    return readdirSync(this.folder)
      .filter((name) => NAME.test(name))
      .sort()
      .reverse()
      .map((name) => ({ name, bytes: statSync(join(this.folder, name)).size }));
  }

  /** Where a backup lies; null where there is none of that name. */
  path(name: string): string | null {
    const path = NAME.test(name) ? join(this.folder, name) : null;
    return path !== null && existsSync(path) ? path : null;
  }
}
