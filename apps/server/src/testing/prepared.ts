import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openEmbedded } from '../db/client';
import { mustNotFail } from './index';

/*
 * A new database takes PostgreSQL seconds to make. Specs that are not about that copy one that was made before, for the
 * same PostgreSQL and the same tables.
 */

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

function templatePath(): string {
  const hash = createHash('sha256').update(
    readFileSync(createRequire(import.meta.url).resolve('@electric-sql/pglite')),
  );
  for (const name of readdirSync(MIGRATIONS)
    .filter((file) => file.endsWith('.sql'))
    .sort())
    hash.update(readFileSync(join(MIGRATIONS, name)));
  return join(tmpdir(), `zaffet-template-${hash.digest('hex').slice(0, 16)}`);
}

/** Makes an empty database in a folder that is not there yet. */
export async function prepare(folder: string): Promise<void> {
  const template = templatePath();
  if (!existsSync(template)) {
    const part = mkdtempSync(`${template}-`);
    const database = await openEmbedded(join(part, 'data'), mustNotFail);
    await database.close();
    try {
      renameSync(join(part, 'data'), template);
    } catch {
      // Another made it meanwhile.
    }
    rmSync(part, { recursive: true, force: true });
  }
  cpSync(template, folder, { recursive: true });
}
