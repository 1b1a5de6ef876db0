// Requests and files that nobody sends on purpose, by the hundred thousand: npm run fuzz [-- REQUESTS [FILES [SEED]]]
// One JSON line each for files and requests; exit 1 where something was found.
import { createServer, type Server } from 'node:http';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { buildApp } from '../apps/server/src/app';
import { openEmbedded } from '../apps/server/src/db/client';
import { type Network } from '../apps/server/src/door/door';
import { SheetMaker } from '../apps/server/src/sheet/maker';
import { mustNotFail, scratchFolder } from '../apps/server/src/testing';
import { fuzzedNetwork, fuzzFiles, fuzzRequests, TURN_MOST } from '../apps/server/src/testing/fuzz';
import { sendWorst } from '../apps/server/src/testing/worst';

const [requests = 100_000, files = 20_000, seed = 1] = process.argv.slice(2).map(Number);
const say = (what: string, found: object): void =>
  void process.stdout.write(`${JSON.stringify({ what, seed, ...found })}\n`);

const inFiles = fuzzFiles(seed, files);
say('files', { ...inFiles, answers: Object.fromEntries(inFiles.answers), number: files });

const folder = scratchFolder();
const database = await openEmbedded(folder.path, mustNotFail);
const sheets = new SheetMaker();
const webDirectory = fileURLToPath(new URL('../dist/web', import.meta.url));
/** A server of the same database, on a free port. */
async function served(network: Network | null): Promise<Server> {
  const log = pino({ level: 'error' });
  const app = buildApp({ db: database.db, log, sheets, webDirectory, network });
  const server = createServer(app).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  return server;
}
const end = (server: Server): void => {
  server.closeAllConnections();
  server.close();
};

const open = await served(null);
const worst = await sendWorst(open, database.db);
const long = Object.entries(worst.turns).filter(([, turn]) => turn > TURN_MOST);
say('worst', { ...worst, long });
end(open);

const server = await served(await fuzzedNetwork(database.db));
const inRequests = await fuzzRequests(server, database.db, seed, requests);
say('requests', { ...inRequests, answers: Object.fromEntries(inRequests.answers), number: requests });
end(server);
await sheets.close();
await database.close();
folder.remove();
process.exit(inFiles.wrong.length + inRequests.wrong.length + worst.wrong.length + long.length > 0 ? 1 : 0);
