import { PGlite } from '@electric-sql/pglite';
import { type PgDatabase, type PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { DurableFS, flushTree } from './durableFs';
import { lockDirectory } from './lock';
import * as schema from './schema';

export type Database = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface OpenDatabase {
  readonly db: Database;
  /** How often a file was flushed to the disk; null where a database server sees to it. */
  flushes(): number | null;
  close(): Promise<void>;
}

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));
/** Saves are a few kB; the default of 128 MB would only be memory. Written into the configuration at first start. */
const SHARED_BUFFERS = '16MB';
/** Without the flag that switches fsync off, and with the one sync method the file layer carries through. */
const START_PARAMETERS = [
  ...PGlite.defaultStartParams.filter((parameter) => parameter !== '-F'),
  '-c',
  'wal_sync_method=fsync',
  '-c',
  `shared_buffers=${SHARED_BUFFERS}`,
];

/**
 * Opens the embedded database of a data directory, locked for this process, migrated, and flushed to the disk on
 * every commit.
 * @throws DirectoryInUse when another Zaffet has it open
 */
export async function openEmbedded(directory: string): Promise<OpenDatabase> {
  const release = lockDirectory(directory);
  try {
    const isNew = !existsSync(directory);
    const files = new DurableFS(directory);
    const client = await PGlite.create({ fs: files, startParams: START_PARAMETERS });
    const { drizzle } = await import('drizzle-orm/pglite');
    const { migrate } = await import('drizzle-orm/pglite/migrator');
    const db = drizzle(client, { schema });
    await migrate(db, { migrationsFolder: MIGRATIONS });
    if (isNew) {
      await client.exec('CHECKPOINT');
      flushTree(directory);
    }
    return {
      db,
      flushes: () => files.flushes,
      close: async () => {
        await client.exec('CHECKPOINT');
        await client.close();
        release();
      },
    };
  } catch (error) {
    release();
    throw error;
  }
}

/** Opens a PostgreSQL server's database, migrated. */
export async function openServer(url: string): Promise<OpenDatabase> {
  const { default: pg } = await import('pg');
  const { drizzle } = await import('drizzle-orm/node-postgres');
  const { migrate } = await import('drizzle-orm/node-postgres/migrator');
  const pool = new pg.Pool({ connectionString: url });
  const db = drizzle(pool, { schema });
  await migrate(db, { migrationsFolder: MIGRATIONS });
  return { db, flushes: () => null, close: () => pool.end() };
}
