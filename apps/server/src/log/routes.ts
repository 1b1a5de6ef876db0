import { API, type LogAnswer } from '@zaffet/contract';
import { parseLogQuery } from '@zaffet/contract/log';
import { logCsv } from '@zaffet/words';
import { Router } from 'express';
import { type Logger } from 'pino';
import { type Database } from '../db/client';
import { allEntries, findInLog } from './find';
import { LogReader } from './reader';

/** Whoever looks for something waits no longer for what was not read yet [ms]. */
const PATIENCE = 1500;

/** The log: all runs, found by what was said and measured in them. */
export function logRoutes(db: Database, log: Logger): Router {
  const router = Router();
  const reader = new LogReader(db, log);
  router.get(API.log, async (request, response) => {
    const query = parseLogQuery(request.query);
    const behind = await reader.catchUp(PATIENCE);
    const answer: LogAnswer = { ...(await findInLog(db, query)), behind };
    response.json(answer);
  });
  router.get(API.logCsv, async (_request, response) => {
    await reader.catchUp(PATIENCE);
    response
      .attachment('log.csv')
      .type('text/csv')
      .send(logCsv(await allEntries(db)));
  });
  return router;
}
