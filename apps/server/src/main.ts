import { fileURLToPath } from 'node:url';
import { createServer } from 'node:http';
import { pino } from 'pino';
import { buildApp } from './app';
import { openEmbedded, openServer } from './db/client';
import { DirectoryInUse } from './db/lock';
import { loadDemo } from './demo';

const fromHere = (path: string): string => fileURLToPath(new URL(path, import.meta.url));
const say = (line: string): void => void process.stdout.write(`${line}\n`);

const port = Number(process.env['PORT'] ?? 4310);
const host = process.env['ZAFFET_HOST'] ?? '127.0.0.1';
const directory = process.env['ZAFFET_DATA'] ?? fromHere('../../../data');
const databaseUrl = process.env['DATABASE_URL'];
const log = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' });

async function start(): Promise<void> {
  say(databaseUrl ? 'Opening the database server …' : `Opening the database in ${directory} …`);
  const database = await (databaseUrl ? openServer(databaseUrl) : openEmbedded(directory));
  const loaded =
    process.env['ZAFFET_DEMO'] === 'off' ? 0 : await loadDemo(database.db, fromHere('../../../demo/plans'));
  if (loaded > 0) say(`Loaded ${loaded} demo plans.`);
  const server = createServer(
    buildApp({ db: database.db, log, webDirectory: fromHere('../../../dist/web') }),
  );

  let stopping = false;
  const stop = async (): Promise<void> => {
    if (stopping) return;
    stopping = true;
    server.close();
    server.closeAllConnections();
    await database.close();
    process.exit(0);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
  server.on('error', (error: NodeJS.ErrnoException) => {
    say(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken. Set PORT to another one.`
        : `Cannot listen: ${error.message}`,
    );
    process.exitCode = 1;
    void database.close().then(() => process.exit(1));
  });
  server.listen(port, host, () =>
    say(`Zaffet is ready at http://${host.includes(':') ? `[${host}]` : host}:${port}`),
  );
}

start().catch((error: unknown) => {
  if (error instanceof DirectoryInUse) say(error.message);
  else log.fatal({ err: error }, 'could not start');
  process.exit(1);
});
