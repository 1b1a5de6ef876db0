import {
  API,
  type ClockAnswer,
  type EventsAnswer,
  fault,
  ID,
  type RunAnswer,
  ZaffetError,
} from '@zaffet/contract';
import { Router } from 'express';
import { type Database } from '../db/client';
import { whoAsks } from '../door/door';
import { Streams } from '../http/stream';
import { type Newsroom } from '../news';
import { bodyOf, read } from '../reading/reader';
import { checkRun, eventsAfter, listRuns, takeEvents } from './queries';

/** A page whose stream broke calls again after [ms]. */
const RETRY = 2000;

const refusedField = (path: string, message: string): ZaffetError =>
  new ZaffetError(fault('run.invalid', [{ path, message }]));

/** A run's id as an address tells it. @throws ZaffetError where it could be no run's */
function idOf(told: string): string {
  if (ID.test(told)) return told;
  throw refusedField('id', `id is ${JSON.stringify(told)}; it must be letters, digits, - or _.`);
}

/** @throws ZaffetError where it is no count */
function countOf(told: unknown): number {
  if (told === undefined) return 0;
  if (typeof told === 'string' && /^\d{1,9}$/.test(told)) return Number(told);
  throw refusedField('after', `after is ${JSON.stringify(told)}; it must be a whole number from 0.`);
}

/** Plans carried out: devices send what happened and ask what others sent. */
export function runRoutes(db: Database, news: Newsroom): Router {
  const router = Router();
  /** Pages by the run they follow: told how many events there are, they fetch what they lack, so no lost line matters. */
  const streams = new Streams<string>();
  news.hear('run', ({ id, upTo }) => streams.send(String(upTo), (run) => run === id));
  // Whatever they follow may have gone on: they ask.
  news.hear('missed', () => streams.send('0', () => true));
  const now = (): string => new Date().toISOString();
  router.get(API.clock, (_request, response) => {
    const answer: ClockAnswer = { now: now() };
    response.json(answer);
  });
  router.get(API.runs, async (_request, response) => {
    response.json(await listRuns(db));
  });
  router.post('/api/runs/:id/events', async (request, response) => {
    const id = idOf(request.params.id);
    const events = await read('events', bodyOf(request));
    const answer: EventsAnswer = { ...(await takeEvents(db, id, events)), now: now() };
    response.json(answer);
    news.tell('run', { id, upTo: Math.max(0, ...Object.values(answer.taken)) });
  });
  router.get('/api/runs/:id/stream', async (request, response) => {
    const id = idOf(request.params.id);
    await checkRun(db, id);
    streams.add(response, whoAsks(response), id, `retry: ${RETRY}\n\n`);
  });
  router.get('/api/runs/:id/events', async (request, response) => {
    const { after, last } = request.query;
    const found = await eventsAfter(
      db,
      idOf(request.params.id),
      countOf(after),
      typeof last === 'string' ? last : null,
    );
    const answer: RunAnswer = { ...found, now: now() };
    response.json(answer);
  });
  return router;
}
