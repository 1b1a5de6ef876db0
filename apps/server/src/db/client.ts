import { PGlite } from '@electric-sql/pglite';
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm';
import { sql } from 'drizzle-orm';
import { type PgDatabase, type PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { setImmediate } from 'node:timers/promises';
import { type Logger } from 'pino';
import { type Newsroom, OwnNews } from '../news';
import { CannotStart, causeOf, refusalOf } from '../start/cannot';
import { copyBefore, newestChange, stamp } from './before';
import { DurableFS } from './durableFs';
import { makeFolder, onePath, readyFolder, VERSION } from './folder';
import { lockDirectory } from './lock';
import { isFull, makeWay } from './room';
import * as schema from './schema';
import { ServerNews } from './serverNews';
import { copyTemplate, MIGRATIONS } from './template';

export type Database = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface OpenDatabase {
  readonly db: Database;
  readonly news: Newsroom;
  /** How often a file was flushed to the disk; null where a database server sees to it. */
  flushes(): number | null;
  close(): Promise<void>;
}

/** What a new database takes, before anything is in it. */
const NEW_DATABASE = '100 MB';
/** What a start takes. */
const START_ROOM = '50 MB';
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

/** Why the disk could not be written, in a sentence. */
function diskTrouble(directory: string, code: string): string {
  const what = code === 'ENOSPC' || code === 'EDQUOT' ? 'is full' : 'cannot be written';
  return `The disk under ${directory} ${what} (${code}). Zaffet stops here; what it has acknowledged is kept. Make room or look after the disk, then start it again.`;
}

/** Statements may follow one another without a pause for [ms]. */
const WITHOUT_PAUSE = 8;

/**
 * The embedded database works in this thread, and its answers are there at once: one statement after the other would be a
 * single turn of the event loop, however many there are. Between them others are answered.
 */
function letOthersIn(client: PGlite): void {
  const send = client.execProtocolStream.bind(client);
  let paused = 0;
  client.execProtocolStream = async (...args) => {
    if (performance.now() - paused > WITHOUT_PAUSE) {
      await setImmediate();
      paused = performance.now();
    }
    return send(...args);
  };
}

/**
 * Opens the embedded database of a data directory, locked for this process, migrated, and flushed to the disk on
 * every commit. One that an older Zaffet made is copied before its tables are changed.
 * @param failed - told when the disk can no longer be written; must end the process
 * @param backups - where it is copied to; left out, or null, where it is not
 * @param say - prints a line if opening takes longer than usual
 * @throws DirectoryInUse when another Zaffet has it open, CannotStart where it cannot be used
 */
export async function openEmbedded(
  told: string,
  failed: (sentence: string) => never,
  backups: string | null = null,
  say?: (line: string) => void,
): Promise<OpenDatabase> {
  let release = (): void => undefined;
  try {
    const directory = onePath(told);
    makeFolder(directory);
    release = await lockDirectory(directory, { lost: failed, ...(say && { say }) });
    const open = async (folder: string): Promise<{ client: PGlite; files: DurableFS }> => {
      const files = new DurableFS(folder, (code) => failed(diskTrouble(directory, code)));
      const client = await PGlite.create({
        fs: files,
        startParams: START_PARAMETERS,
        extensions: { pg_trgm },
      });
      letOthersIn(client);
      return { files, client };
    };
    const older = existsSync(join(directory, VERSION));
    await readyFolder(directory, async (folder) => {
      try {
        if (copyTemplate(folder)) return;
        const { client } = await open(folder);
        await client.exec('CHECKPOINT');
        await client.close();
      } catch (error) {
        throw new CannotStart(
          `A new database cannot be made in ${directory} (${causeOf(error)}). See that there are ${NEW_DATABASE} free, then start again.`,
        );
      }
    });
    const newest = newestChange(MIGRATIONS);
    if (older && backups !== null) copyBefore(directory, backups, newest);
    makeWay(directory);
    const { client, files } = await open(directory).catch((error: unknown) => {
      if (isFull(directory))
        throw new CannotStart(
          `The disk under ${directory} is full, and the database cannot be opened. Free ${START_ROOM}, then start again: nothing is lost.`,
        );
      throw new CannotStart(
        `The database in ${directory} cannot be opened; it may be damaged or made by another version (${causeOf(error)}). Bring a backup into a new folder with npx zaffet restore FILE FOLDER, or set ZAFFET_DATA to an empty one.`,
      );
    });
    const { drizzle } = await import('drizzle-orm/pglite');
    const { migrate } = await import('drizzle-orm/pglite/migrator');
    const db = drizzle(client, { schema });
    await migrate(db, { migrationsFolder: MIGRATIONS });
    stamp(directory, newest);
    return {
      db,
      news: new OwnNews(),
      flushes: () => files.flushes,
      close: async () => {
        await client.exec('CHECKPOINT');
        await client.close();
        release();
      },
    };
  } catch (error) {
    release();
    throw refusalOf(told, error);
  }
}

/** How long a database server may take to answer a connection, and to a query [ms]. */
const CONNECT_WITHIN = 10_000;
const ANSWER_WITHIN = 30_000;
/** Any number, the same in every Zaffet: who holds it in the database may migrate it. */
const MIGRATION_LOCK = 7246331;

/**
 * Opens a PostgreSQL server's database, migrated: of several Zaffets that start at once one migrates and the others
 * wait for it. A connection that breaks later is only logged; the next query makes a new one.
 * @throws CannotStart where the server does not answer or lets nobody in
 */
export async function openServer(url: string, log: Logger): Promise<OpenDatabase> {
  const { default: pg } = await import('pg');
  const { drizzle } = await import('drizzle-orm/node-postgres');
  const { migrate } = await import('drizzle-orm/node-postgres/migrator');
  const pool = new pg.Pool({
    connectionString: url,
    connectionTimeoutMillis: CONNECT_WITHIN,
    query_timeout: ANSWER_WITHIN,
  });
  const lost = (error: unknown): void => log.warn(`database connection lost (${causeOf(error)})`);
  pool.on('error', lost);
  // One that is lent to a transaction the pool does not listen to; unheard, its breaking would end the process.
  pool.on('connect', (client) => void client.on('error', lost));
  const news = new ServerNews({
    connect: () =>
      new pg.Client({ connectionString: url, connectionTimeoutMillis: CONNECT_WITHIN, keepAlive: true }),
    notify: (channel, payload) => pool.query('select pg_notify($1, $2)', [channel, payload]),
    log,
  });
  try {
    const client = await pool.connect();
    try {
      const db = drizzle(client, { schema });
      await db.execute(sql`select pg_advisory_lock(${MIGRATION_LOCK})`);
      await migrate(db, { migrationsFolder: MIGRATIONS });
      await db.execute(sql`select pg_advisory_unlock(${MIGRATION_LOCK})`);
    } finally {
      client.release();
    }
    await news.start();
  } catch (error) {
    await pool.end().catch(() => undefined);
    throw new CannotStart(
      `The database server of DATABASE_URL cannot be used (${causeOf(error)}). See that it runs, that the address, the user and the password are right, and that the user may create tables.`,
    );
  }
  return {
    db: drizzle(pool, { schema }),
    news,
    flushes: () => null,
    close: async () => {
      await news.stop();
      await pool.end();
    },
  };
}
