import { API, fault } from '@zaffet/contract';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import { type Logger } from 'pino';
import { type Database } from './db/client';
import { errorAnswers } from './errors';
import { contentPolicy, webPages } from './page';
import { planRoutes } from './plans/routes';
import { shelfRoutes } from './shelf/routes';

export interface AppOptions {
  readonly db: Database;
  readonly log: Logger;
  /** Where the built web application lies. */
  readonly webDirectory: string;
}

/** Forty steps with a map each are less. */
const BODY_LIMIT = '4mb';

/** A page of another site must not reach a loopback server through a name of its own. */
const ownHostOnly: RequestHandler = (request, response, next) => {
  const host = request.hostname;
  if (host === 'localhost' || host === '127.0.0.1' || host === '[::1]' || host === '::1') next();
  else response.status(403).json(fault('request.host-refused'));
};

/** Builds the application; `main` listens, tests send requests to it. */
export function buildApp({ db, log, webDirectory }: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(ownHostOnly, ...contentPolicy(), compression());
  app.use('/api', express.json({ limit: BODY_LIMIT, strict: false }), (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  app.get(API.health, (_request, response) => {
    response.json({ status: 'ready' });
  });
  app.use(planRoutes(db));
  app.use(shelfRoutes(db));
  app.use(webPages(webDirectory));
  app.use((_request, response) => {
    response.status(404).json(fault('request.unknown-route'));
  });
  app.use(errorAnswers(log));
  return app;
}
