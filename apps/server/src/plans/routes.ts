import { API, type Notation } from '@zaffet/contract';
import { Router } from 'express';
import { readCalibrations } from '../calibration/routes';
import { type Database } from '../db/client';
import { whoAsks } from '../door/door';
import { bodyOf, read } from '../reading/reader';
import { type SheetMaker, type SheetOrder } from '../sheet/maker';
import { readShelf } from '../shelf/queries';
import {
  createPlan,
  listBin,
  listPlans,
  readPlan,
  readSaveId,
  removePlan,
  restorePlan,
  savePlan,
  takeOut,
} from './queries';

/** A plan's name as a file's: its letters, of whatever script, and digits. */
function fileName(name: string, ending: string): string {
  const plain = name
    .normalize('NFC')
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();
  return `${plain === '' ? 'plan' : plain}${ending}`;
}

/** How a reader wants a sheet written: metric and by 24 hours where nothing else is asked for. */
const notationOf = ({ units, clock }: Readonly<Record<string, unknown>>): Notation => ({
  units: units === 'imperial' ? 'imperial' : 'metric',
  clock: clock === '12' ? '12' : '24',
});

/** List, open, save, file in and out. Each handler reads with the contract, asks the queries, answers. */
export function planRoutes(db: Database, sheets: SheetMaker): Router {
  const router = Router();
  router.get(API.plans, async (_request, response) => {
    response.json(await listPlans(db));
  });
  router.post(API.plans, async (request, response) => {
    response.status(201).json(await createPlan(db, await read('plan', bodyOf(request))));
  });
  router.get('/api/plans/:id', async (request, response) => {
    const { id } = request.params;
    // A browser that has this save already is told so, without the plan being fetched.
    response.set('cache-control', 'private, no-cache');
    if (request.headers['if-none-match'] !== undefined) {
      response.set('etag', `W/"${await readSaveId(db, id)}"`);
      if (request.fresh) {
        response.status(304).end();
        return;
      }
    }
    const saved = await readPlan(db, id);
    response.set('etag', `W/"${saved.saveId}"`).json(saved);
  });
  router.put('/api/plans/:id', async (request, response) => {
    const { saveId, ...plan } = await read('save', bodyOf(request));
    response.json(await savePlan(db, request.params.id, saveId, plan));
  });
  router.delete('/api/plans/:id', async (request, response) => {
    await removePlan(db, request.params.id);
    response.status(204).end();
  });
  router.get(API.bin, async (_request, response) => {
    response.json(await listBin(db));
  });
  router.post('/api/plans/:id/restore', async (request, response) => {
    response.json(await restorePlan(db, request.params.id));
  });
  router.get('/api/plans/:id/file', async (request, response) => {
    const { name, content } = await takeOut(db, request.params.id);
    response.attachment(fileName(name, '.zaffet.json')).type('application/json');
    response.send(`${JSON.stringify(content, null, 2)}\n`);
  });
  router.get(API.sheets, (_request, response) => {
    response.json(sheets.queue(whoAsks(response)));
  });
  router.get('/api/plans/:id/sheet', async (request, response) => {
    const { name, plan } = await readPlan(db, request.params.id);
    const { zone } = request.query;
    const order: SheetOrder = {
      kind: 'job',
      plan,
      zone: typeof zone === 'string' ? zone : 'UTC',
      notation: notationOf(request.query),
      shelf: await readShelf(db),
      learned: (await readCalibrations(db, 1))[0]?.learned ?? null,
    };
    const pdf = await sheets.make(order, whoAsks(response));
    response.attachment(fileName(name, '-job-sheet.pdf')).type('application/pdf').send(pdf);
  });
  router.get('/api/plans/:id/board-sheet', async (request, response) => {
    const { name, plan } = await readPlan(db, request.params.id);
    const { page } = request.query;
    const one = typeof page === 'string' ? page : null;
    const order: SheetOrder = { kind: 'board', plan, notation: notationOf(request.query), page: one };
    const made = await sheets.make(order, whoAsks(response));
    if (one === null)
      response.attachment(fileName(name, '-board-sheet.pdf')).type('application/pdf').send(made);
    else
      response
        .attachment(fileName(name, `-${one}.svg`))
        .type('image/svg+xml')
        .send(made);
  });
  router.get('/api/plans/:id/map/:part/:step', async (request, response) => {
    const { name, plan } = await readPlan(db, request.params.id);
    const { part: partId, step: stepId } = request.params;
    const { tile } = request.query;
    const page = typeof tile === 'string' ? tile : null;
    const order: SheetOrder = { kind: 'trace', plan, partId, stepId, page };
    const made = await sheets.make(order, whoAsks(response));
    const [end, type] = page === null ? ['pdf', 'application/pdf'] : ['svg', 'image/svg+xml'];
    response
      .attachment(fileName(name, `-map${page === null ? '' : `-${page}`}.${end}`))
      .type(type)
      .send(made);
  });
  return router;
}
