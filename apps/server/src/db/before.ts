import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { basename, join } from 'node:path';
import { CannotStart, causeOf } from '../start/cannot';
import { flush, flushTree } from './folder';
import { LOCK_FILE } from './lock';
import { RESERVE } from './room';

/*
 * A newer Zaffet changes the tables of a database when it first opens it. Before that the database is copied whole, as
 * files, while nothing has it open: whatever the change does to it, the copy is what the Zaffet before had.
 */

/** In the data directory: the last change that its tables have seen. */
const STAMP = 'zaffet-tables';
const COPY = 'before-';
/** No part of the database. */
const NOT_COPIED: readonly string[] = [LOCK_FILE, RESERVE];
/** What is being copied. */
const UNDER_WAY = '.copying';
/** So many copies are kept. */
const KEPT = 2;

/** The name of the last change that this Zaffet makes. @param migrations - their folder */
export function newestChange(migrations: string): string {
  const { entries } = JSON.parse(readFileSync(join(migrations, 'meta/_journal.json'), 'utf8')) as {
    readonly entries: readonly { readonly tag: string }[];
  };
  return entries.at(-1)!.tag;
}

const stampOf = (directory: string): string | null => {
  const path = join(directory, STAMP);
  return existsSync(path) ? readFileSync(path, 'utf8').trim() : null;
};

/** Notes that a database's tables have seen all changes up to one. */
export function stamp(directory: string, newest: string): void {
  if (stampOf(directory) === newest) return;
  writeFileSync(join(directory, STAMP), `${newest}\n`);
  flush(join(directory, STAMP));
  flush(directory);
}

/**
 * Copies a database whose tables are about to be changed into a folder `before-CHANGE`, once, and keeps the newest copies
 * only. Nothing is done for one that has seen the change.
 * @param directory - locked, and opened by nobody
 * @param backups - where copies are kept
 * @throws CannotStart where it cannot be copied
 */
export function copyBefore(directory: string, backups: string, newest: string): void {
  if (stampOf(directory) === newest) return;
  const copy = join(backups, `${COPY}${newest}`);
  if (existsSync(copy)) return;
  const part = `${copy}${UNDER_WAY}`;
  try {
    mkdirSync(backups, { recursive: true, mode: 0o700 });
    rmSync(part, { recursive: true, force: true });
    cpSync(directory, part, { recursive: true, filter: (path) => !NOT_COPIED.includes(basename(path)) });
    flushTree(part);
    renameSync(part, copy);
    flush(backups);
  } catch (error) {
    try {
      rmSync(part, { recursive: true, force: true });
    } catch {
      // Why it could not be copied is what is told.
    }
    throw new CannotStart(
      `This Zaffet is newer than the database in ${directory}, and cannot copy it to ${backups} before it changes its tables (${causeOf(error)}). Make room there, or set ZAFFET_BACKUPS to another folder, or to off to do without the copy.`,
    );
  }
  const copies = readdirSync(backups).filter((name) => name.startsWith(COPY) && !name.endsWith(UNDER_WAY));
  for (const name of copies.sort().slice(0, -KEPT)) rmSync(join(backups, name), { recursive: true });
}
