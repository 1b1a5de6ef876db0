import {
  chmodSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { CannotStart } from '../start/cannot';
import { LOCK_FILE } from './lock';

/*
 * A new database is made in a folder of its own inside the data directory, flushed, and only then moved up, its
 * PG_VERSION last. So a directory with PG_VERSION holds a whole database, a first start that was killed left nothing
 * but that folder and what was moved from it, and nobody else's files are ever taken for a database or cleared away.
 */

const FIRST = '.first-start';
/** Stands in the first start's folder once all in it has reached the disk. */
const WHOLE = 'whole';
export const VERSION = 'PG_VERSION';
/** Beside a database: what a file system puts into a disk of its own, and the lock. */
const BESIDE = ['lost+found', LOCK_FILE];

/** Flushes one file or folder to the disk. */
export function flush(path: string): void {
  const file = openSync(path, 'r');
  try {
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}

/** Flushes a folder with all below it. */
export function flushTree(directory: string): void {
  for (const entry of readdirSync(directory, { withFileTypes: true })) {
    const path = join(directory, entry.name);
    if (entry.isDirectory()) flushTree(path);
    else if (entry.isFile()) flush(path);
  }
  flush(directory);
}

/**
 * The one path of a directory, whatever links, dots and slashes it is told with; it may not be there yet.
 * @throws the file system's error where a link leads nowhere or in a circle
 */
export function onePath(directory: string): string {
  const path = resolve(directory);
  const parent = dirname(path);
  try {
    return realpathSync(path);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT' || parent === path) throw error;
    return join(onePath(parent), basename(path));
  }
}

/** Moves a new database that is whole up into its data directory, its version last. */
function moveUp(directory: string): void {
  const first = join(directory, FIRST);
  const names = readdirSync(first).filter((name) => name !== WHOLE && name !== VERSION);
  for (const name of names) renameSync(join(first, name), join(directory, name));
  flush(directory);
  if (existsSync(join(first, VERSION))) renameSync(join(first, VERSION), join(directory, VERSION));
  rmSync(first, { recursive: true });
  flush(directory);
  flush(dirname(directory));
}

/**
 * Makes a data directory where there is none, for its owner alone. Nothing else is changed yet.
 * @param directory - as `onePath` gives it
 * @throws CannotStart where something else is there
 */
export function makeFolder(directory: string): void {
  if (existsSync(directory) && !statSync(directory).isDirectory())
    throw new CannotStart(
      `The data directory ${directory} is a file. Set ZAFFET_DATA to a folder, or to a name that is free.`,
    );
  mkdirSync(directory, { recursive: true, mode: 0o700 });
  const names = readdirSync(directory).filter((name) => !BESIDE.includes(name));
  const others = names.filter((name) => name !== FIRST);
  if (others.length === 0 || names.includes(VERSION) || existsSync(join(directory, FIRST, WHOLE))) return;
  throw new CannotStart(
    others.includes('pg_wal') || others.includes('global')
      ? `The database in ${directory} is damaged: its file ${VERSION} is missing. Bring a backup into a new folder with npx zaffet restore FILE FOLDER, or set ZAFFET_DATA to an empty one.`
      : `The data directory ${directory} is not empty and holds no database of Zaffet (${others[0]} is there). Set ZAFFET_DATA to an empty folder, or to a name that is free.`,
  );
}

/**
 * Makes a data directory ready to be opened: what a killed first start left is finished or begun again.
 * @param directory - from `makeFolder`, locked
 * @param make - makes a new database in an empty folder and closes it
 */
export async function readyFolder(directory: string, make: (folder: string) => Promise<void>): Promise<void> {
  chmodSync(directory, 0o700);
  const first = join(directory, FIRST);
  if (existsSync(join(first, WHOLE))) moveUp(directory);
  if (existsSync(join(directory, VERSION))) return;
  rmSync(first, { recursive: true, force: true });
  mkdirSync(first, { mode: 0o700 });
  await make(first);
  flushTree(first);
  writeFileSync(join(first, WHOLE), '');
  flush(join(first, WHOLE));
  flush(first);
  moveUp(directory);
}
