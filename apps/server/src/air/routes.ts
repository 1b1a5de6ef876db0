import { API, fault, type FieldFault, isInstant, type Reading, ZaffetError } from '@zaffet/contract';
import { parseReadings } from '@zaffet/contract/schemas';
import { hourlyMeans } from '@zaffet/workshop';
import { Router } from 'express';
import { type Logger } from 'pino';
import { type Database } from '../db/client';
import { logged } from '../db/failures';
import { whoAsks } from '../door/door';
import { type Newsroom } from '../news';
import { readShop } from '../shop/routes';
import { Instruments } from './instruments';
import { keepReadings, readingsBetween } from './queries';

const DAY = 86_400_000;
/** What is told where nobody says from when. */
const USUAL = 14 * DAY;

/** An instant of an address, or the usual one. @throws ZaffetError `air.refused` */
function instantOf(query: Record<string, unknown>, name: string, usual: number): Date {
  const told = query[name];
  if (told === undefined) return new Date(usual);
  if (typeof told === 'string' && isInstant(told)) return new Date(told);
  const refused: FieldFault = {
    path: name,
    message: `${name} is ${JSON.stringify(told)}; it must be an instant such as 2026-05-12T08:00:00Z.`,
  };
  throw new ZaffetError(fault('air.refused', [refused]));
}

/** The air in the shop: instruments send their readings here, pages ask for them and listen. docs/air.md tells how. */
export function airRoutes(db: Database, log: Logger, news: Newsroom): Router {
  const router = Router();
  const instruments = new Instruments({
    shop: () => readShop(db),
    keep: (request) => keepReadings(db, request),
    failed: (error) => log.warn(logged(error), 'the simulated hygrometer could not read'),
  });
  news.hear('air', (reading) => instruments.tell(reading));
  router.post(API.air, async (request, response) => {
    const told = parseReadings(request.body, new Date().toISOString());
    await keepReadings(db, told);
    const newest = told.readings.reduce((a, b) => (Date.parse(b.at) > Date.parse(a.at) ? b : a));
    news.tell('air', { ...newest, source: told.source });
    response.status(201).json({ kept: told.readings.length });
  });
  router.get(API.air, async (request, response) => {
    const until = instantOf(request.query, 'until', Date.now());
    const from = instantOf(request.query, 'from', until.getTime() - USUAL);
    const points = hourlyMeans(await readingsBetween(db, from, until));
    const readings = points.map(({ at, temperatureC, humidity }): Reading => ({
      at: new Date(at).toISOString(),
      temperatureC,
      humidity,
    }));
    response.json({ readings });
  });
  router.get('/api/air/stream', (request, response) => {
    instruments.listen(response, whoAsks(response), request.query['simulated'] === 'yes');
  });
  return router;
}
