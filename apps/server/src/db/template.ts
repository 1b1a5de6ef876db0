import { createHash } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
} from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { LOCK_FILE } from './lock';
import { RESERVE } from './room';

/*
 * A new database takes PostgreSQL many seconds to make. It is made once, empty, when Zaffet is built; a first start
 * copies it. Its name tells the PostgreSQL and the tables it was made with, so that an older one is never taken.
 */

export const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));
const FOLDER = fileURLToPath(new URL('../../../../dist', import.meta.url));
const PART = 'database-part-';
/** Each data directory has these for itself. */
const NO_PART = [LOCK_FILE, RESERVE];

function templatePath(): string {
  const hash = createHash('sha256').update(
    readFileSync(createRequire(import.meta.url).resolve('@electric-sql/pglite')),
  );
  const changes = readdirSync(MIGRATIONS).filter((file) => file.endsWith('.sql'));
  for (const name of changes.sort()) hash.update(readFileSync(join(MIGRATIONS, name)));
  return join(FOLDER, `database-${hash.digest('hex').slice(0, 16)}`);
}

/** Copies the ready-made database into an empty folder. @returns false where there is none */
export function copyTemplate(folder: string): boolean {
  const template = templatePath();
  if (!existsSync(template)) return false;
  cpSync(template, folder, { recursive: true });
  return true;
}

/**
 * Makes the ready-made database where it is missing.
 * @param make - makes a database in a folder that is not there yet, and closes it
 */
export async function makeTemplate(make: (folder: string) => Promise<void>): Promise<void> {
  const template = templatePath();
  if (existsSync(template)) return;
  mkdirSync(dirname(template), { recursive: true });
  const part = mkdtempSync(join(FOLDER, PART));
  try {
    await make(join(part, 'data'));
    for (const name of NO_PART) rmSync(join(part, 'data', name), { force: true });
    renameSync(join(part, 'data'), template);
  } catch (error) {
    // Another process may have made it meanwhile.
    if (!existsSync(template)) throw error;
  } finally {
    rmSync(part, { recursive: true, force: true });
  }
}
