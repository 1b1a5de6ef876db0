import { API, fault, JSON_LIMITS } from '@zaffet/contract';
import compression from 'compression';
import express, { type Express } from 'express';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Logger } from 'pino';
import { airRoutes } from './air/routes';
import { type DailyBackups } from './backup/daily';
import { backupRoutes } from './backup/routes';
import { calibrationRoutes } from './calibration/routes';
import { type Database } from './db/client';
import { type Network, signedInOnly } from './door/door';
import { hostsOf, knownHostsOnly, ownPagesOnly } from './door/hosts';
import { doorRoutes } from './door/routes';
import { jsonBody } from './http/body';
import { errorAnswers } from './http/errors';
import { contentPolicy, webPages } from './http/page';
import { logRoutes } from './log';
import { type Newsroom, OwnNews } from './news';
import { photoRoutes } from './photos/routes';
import { planRoutes } from './plans/routes';
import { rawJson } from './reading/reader';
import { runRoutes } from './runs/routes';
import { type SheetMaker } from './sheet/maker';
import { shelfRoutes } from './shelf/routes';
import { shopRoutes } from './shop/routes';

export interface AppOptions {
  readonly db: Database;
  readonly log: Logger;
  readonly sheets: SheetMaker;
  /** Where the built web application lies. */
  readonly webDirectory: string;
  /** All the room that photographs may take [bytes]. */
  readonly photosMost?: number;
  /** What is kept of each day; null where nothing is. */
  readonly daily?: DailyBackups | null;
  /** Where backups are received that are brought in. */
  readonly uploads?: string;
  /** What it is reached by, as a request spells it; its own machine's names alone where nothing is told. */
  readonly hosts?: ReadonlySet<string>;
  /** How it is open to the shop's network; null where it is not. */
  readonly network?: Network | null;
  readonly news?: Newsroom;
}

/** As long as nothing else is set [bytes]. */
const PHOTOS_MOST = 16e9;

/** What may be large: read in a thread of its own. Runs begin with their plan. */
const WITH_PLANS = ['/api/plans', '/api/runs'];
/** The largest of the others is what two hundred factors teach [bytes]. */
const OTHERS_LIMIT = 2 * 1024 * 1024;

/** What is smaller goes out faster as it is [bytes]. */
const SMALL = 16_384;

/** Where it answers only to its own machine. */
const OWN_HOSTS = hostsOf({ names: ['localhost'], addresses: ['127.0.0.1', '::1'] });

/** Builds the application; `main` listens, tests send requests to it. */
export function buildApp({
  db,
  log,
  sheets,
  webDirectory,
  photosMost = PHOTOS_MOST,
  daily = null,
  uploads = join(tmpdir(), 'zaffet-uploads'),
  hosts = OWN_HOSTS,
  network = null,
  news = new OwnNews(),
}: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    knownHostsOnly(hosts),
    ownPagesOnly,
    ...contentPolicy(network?.secure ?? true),
    compression({ threshold: SMALL }),
  );
  app.use('/api', (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  app.get(API.health, (_request, response) => {
    response.json({ status: 'ready' });
  });
  // Before anything large is read: of a stranger nothing is.
  app.use(doorRoutes(db, network, news));
  app.use(WITH_PLANS, rawJson(JSON_LIMITS.bytes));
  app.use('/api', jsonBody(OTHERS_LIMIT));
  app.use(planRoutes(db, sheets));
  app.use(shelfRoutes(db));
  app.use(shopRoutes(db));
  app.use(airRoutes(db, log, news));
  app.use(runRoutes(db, news));
  app.use(calibrationRoutes(db));
  app.use(photoRoutes(db, photosMost));
  app.use(logRoutes(db, log));
  app.use(backupRoutes(db, photosMost, daily, uploads, log));
  app.use(webPages(webDirectory, network === null ? null : signedInOnly(db, network, news)));
  app.use((_request, response) => {
    response.status(404).json(fault('request.unknown-route'));
  });
  app.use(errorAnswers(log));
  return app;
}
