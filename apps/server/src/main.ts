import { rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { DailyBackups } from './backup/daily';
import { openEmbedded, openServer } from './db/client';
import { Room } from './db/room';
import { loadDemo } from './demo';
import { closeReader } from './reading/reader';
import { SheetMaker } from './sheet/maker';
import { CannotStart, causeOf } from './start/cannot';
import { listen } from './start/listen';
import { readSettings } from './start/settings';
import { watch } from './start/watchdog';
import { startUpkeep } from './upkeep';

const fromHere = (path: string): string => fileURLToPath(new URL(path, import.meta.url));
const say = (line: string): void => void process.stdout.write(`${line}\n`);
/** Where backups are received that are brought in. */
const UPLOADS = 'zaffet-uploads';
/** Says why, and ends at once: nothing that waits to be answered is. */
function end(sentence: string): never {
  writeSync(2, `${sentence}\n`);
  process.exit(1);
}

async function start(): Promise<void> {
  const settings = readSettings(process.env, fromHere('../../../data'));
  const { directory, databaseUrl } = settings;
  const log = pino({ level: settings.logLevel });
  say(databaseUrl === null ? `Opening the database in ${directory} …` : 'Opening the database server …');
  const database = await (databaseUrl === null
    ? openEmbedded(directory, end, settings.backups, say)
    : openServer(databaseUrl, log));
  const sheets = new SheetMaker();
  const daily = settings.backups === null ? null : new DailyBackups(database.db, settings.backups, log);
  const endUpkeep = startUpkeep(database.db, log);
  const room = databaseUrl === null ? new Room(database.db, directory, log) : null;
  const close = async (): Promise<void> => {
    await daily?.stop();
    await endUpkeep();
    await room?.stop();
    await sheets.close();
    await closeReader();
    await database.close();
  };
  try {
    await room?.start();
    if (room?.isFull === true)
      say(
        `The disk under ${directory} is full. Zaffet starts to read and to back up; nothing can be saved until there is room.`,
      );
    const loaded =
      settings.demo && room?.isFull !== true
        ? await loadDemo(database.db, fromHere('../../../demo/plans'))
        : 0;
    if (loaded > 0) say(`Loaded ${loaded} demo plans.`);
    const uploads =
      databaseUrl === null ? join(directory, UPLOADS) : join(tmpdir(), `${UPLOADS}-${settings.port}`);
    // What a Zaffet that was killed had received of a backup.
    rmSync(uploads, { recursive: true, force: true });
    const { server, closeAll, told } = await listen(settings, {
      db: database.db,
      news: database.news,
      log,
      sheets,
      daily,
      webDirectory: fromHere('../../../dist/web'),
      uploads,
      ...(settings.photosMost === null ? {} : { photosMost: settings.photosMost }),
    });
    const stop = (): void => {
      server.close();
      closeAll();
      void close().then(
        () => process.exit(0),
        (error: unknown) => end(`The database could not be closed: ${sentenceOf(error)}`),
      );
    };
    process.once('SIGINT', stop);
    process.once('SIGTERM', stop);
    watch(
      'Zaffet has worked for half a minute without an answer and is ended; what it has acknowledged is kept. Start it again.',
    );
    daily?.start();
    for (const line of told) say(line);
  } catch (error) {
    await close();
    throw error;
  }
}

function sentenceOf(error: unknown): string {
  if (error instanceof CannotStart) return error.message;
  return `Zaffet could not start (${causeOf(error)}).`;
}

start().catch((error: unknown) => end(sentenceOf(error)));
