import { createServer, type Server } from 'node:http';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import { buildApp } from './app';
import { openEmbedded, type OpenDatabase } from './db/client';
import { SheetMaker } from './sheet/maker';
import { fuzzedNetwork, fuzzFiles, fuzzRequests } from './testing/fuzz';
import { mustNotFail, scratchFolder } from './testing';
import { prepare } from './testing/prepared';

const SEED = 20261127;
/** Twice what `npm run fuzz` asks for [ms of CPU time]. */
const TURN_MOST = 500;

describe('what nobody sends on purpose', () => {
  it('in files is taken and forecast, or refused in words, soon', () => {
    const { wrong, answers } = fuzzFiles(SEED, 1000);
    expect(wrong).toEqual([]);
    expect(answers.get('taken')).toBeGreaterThan(50);
    expect(answers.get('refused')).toBeGreaterThan(500);
  }, 120_000);

  it('in requests is answered soon, with a reason, and leaves what is stored as it was', async () => {
    const folder = scratchFolder();
    await prepare(folder.path);
    const database: OpenDatabase = await openEmbedded(folder.path, mustNotFail);
    const sheets = new SheetMaker();
    const web = `${folder.path}-web`;
    mkdirSync(join(web, 'browser'), { recursive: true });
    for (const name of ['index.html', 'favicon.svg', 'main-ABCDEF12.js'])
      writeFileSync(join(web, 'browser', name), 'x'.repeat(400));
    const log = pino({ level: 'silent' });
    const network = await fuzzedNetwork(database.db);
    const server: Server = createServer(
      buildApp({ db: database.db, log, sheets, webDirectory: web, network }),
    ).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const { wrong, answers, grewMb } = await fuzzRequests(server, database.db, SEED, 800, TURN_MOST);
    expect(wrong).toEqual([]);
    expect(answers.get('200')).toBeGreaterThan(40);
    expect(answers.get('400')).toBeGreaterThan(160);
    expect(grewMb).toBeLessThan(60);
    server.closeAllConnections();
    server.close();
    await sheets.close();
    await database.close();
    folder.remove();
  }, 300_000);
});
