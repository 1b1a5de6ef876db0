import { API, fault } from '@zaffet/contract';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import { type Logger } from 'pino';
import { airRoutes } from './air/routes';
import { type DailyBackups } from './backup/daily';
import { backupRoutes } from './backup/routes';
import { calibrationRoutes } from './calibration/routes';
import { type Database } from './db/client';
import { errorAnswers } from './errors';
import { contentPolicy, webPages } from './page';
import { logRoutes } from './log';
import { photoRoutes } from './photos/routes';
import { planRoutes } from './plans/routes';
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
}

/** As long as nothing else is set [bytes]. */
const PHOTOS_MOST = 16e9;

/** The most cells a plan's maps may have, packed, are 8 MB. */
const BODY_LIMIT = '12mb';

/** What is smaller goes out faster as it is [bytes]. */
const SMALL = 16_384;

const OWN_HOSTS = ['localhost', '127.0.0.1', '[::1]', '::1'];
const READS = ['GET', 'HEAD', 'OPTIONS'];

/** A page of another site must not reach a loopback server through a name of its own. */
const ownHostOnly: RequestHandler = (request, response, next) => {
  if (OWN_HOSTS.includes((request.hostname ?? '').toLowerCase())) next();
  else response.status(403).json(fault('request.host-refused'));
};

/** Nor may it change anything here by a form or a request that a browser sends for it. */
const ownPagesOnly: RequestHandler = (request, response, next) => {
  const { origin, host = '' } = request.headers;
  const site = request.headers['sec-fetch-site'] ?? 'same-origin';
  const own =
    origin === undefined
      ? site === 'same-origin' || site === 'none'
      : URL.canParse(origin) && new URL(origin).host === host.toLowerCase();
  if (own || READS.includes(request.method)) next();
  else response.status(403).json(fault('request.origin-refused'));
};

/** Builds the application; `main` listens, tests send requests to it. */
export function buildApp({
  db,
  log,
  sheets,
  webDirectory,
  photosMost = PHOTOS_MOST,
  daily = null,
}: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(ownHostOnly, ownPagesOnly, ...contentPolicy(), compression({ threshold: SMALL }));
  app.use('/api', express.json({ limit: BODY_LIMIT, strict: false }), (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  app.get(API.health, (_request, response) => {
    response.json({ status: 'ready' });
  });
  app.use(planRoutes(db, sheets));
  app.use(shelfRoutes(db));
  app.use(shopRoutes(db));
  app.use(airRoutes(db, log));
  app.use(runRoutes(db));
  app.use(calibrationRoutes(db));
  app.use(photoRoutes(db, photosMost));
  app.use(logRoutes(db, log));
  app.use(backupRoutes(db, photosMost, daily, log));
  app.use(webPages(webDirectory));
  app.use((_request, response) => {
    response.status(404).json(fault('request.unknown-route'));
  });
  app.use(errorAnswers(log));
  return app;
}
