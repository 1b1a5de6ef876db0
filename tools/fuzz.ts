// Requests and files that nobody sends on purpose, by the hundred thousand: npm run fuzz [-- REQUESTS [FILES [SEED]]]
// One JSON line each for files and requests; exit 1 where something was found.
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { buildApp } from '../apps/server/src/app';
import { openEmbedded } from '../apps/server/src/db/client';
import { SheetMaker } from '../apps/server/src/sheet/maker';
import { mustNotFail, scratchFolder } from '../apps/server/src/testing';
import { fuzzedNetwork, fuzzFiles, fuzzRequests } from '../apps/server/src/testing/fuzz';

const [requests = 100_000, files = 20_000, seed = 1] = process.argv.slice(2).map(Number);
const say = (what: string, found: object): void =>
  void process.stdout.write(`${JSON.stringify({ what, seed, ...found })}\n`);

const inFiles = fuzzFiles(seed, files);
say('files', { ...inFiles, answers: Object.fromEntries(inFiles.answers), number: files });

const folder = scratchFolder();
const database = await openEmbedded(folder.path, mustNotFail);
const sheets = new SheetMaker();
const webDirectory = fileURLToPath(new URL('../dist/web', import.meta.url));
const network = await fuzzedNetwork(database.db);
const server = createServer(
  buildApp({ db: database.db, log: pino({ level: 'error' }), sheets, webDirectory, network }),
).listen(0, '127.0.0.1');
await new Promise((resolve) => server.once('listening', resolve));
const inRequests = await fuzzRequests(server, database.db, seed, requests);
say('requests', { ...inRequests, answers: Object.fromEntries(inRequests.answers), number: requests });
server.closeAllConnections();
server.close();
await sheets.close();
await database.close();
folder.remove();
process.exit(inFiles.wrong.length + inRequests.wrong.length > 0 ? 1 : 0);
