import { API } from '@zaffet/contract';
import { parsePlan, parseSave } from '@zaffet/contract/schemas';
import { Router } from 'express';
import { type Database } from '../db/client';
import { jobSheet } from '../sheet/content';
import { jobSheetPdf } from '../sheet/pdf';
import { readShelf } from '../shelf/queries';
import { createPlan, listPlans, readPlan, removePlan, restorePlan, savePlan } from './queries';

/** A file name every system takes. */
function fileName(name: string, ending: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();
  return `${plain === '' ? 'plan' : plain}${ending}`;
}

/** List, open, save, file in and out. Each handler reads with the contract, asks the queries, answers. */
export function planRoutes(db: Database): Router {
  const router = Router();
  router.get(API.plans, async (_request, response) => {
    response.json(await listPlans(db));
  });
  router.post(API.plans, async (request, response) => {
    response.status(201).json(await createPlan(db, parsePlan(request.body)));
  });
  router.get('/api/plans/:id', async (request, response) => {
    response.json(await readPlan(db, request.params.id));
  });
  router.put('/api/plans/:id', async (request, response) => {
    const { revision, plan } = parseSave(request.body);
    response.json(await savePlan(db, request.params.id, revision, plan));
  });
  router.delete('/api/plans/:id', async (request, response) => {
    await removePlan(db, request.params.id);
    response.status(204).end();
  });
  router.post('/api/plans/:id/restore', async (request, response) => {
    response.json(await restorePlan(db, request.params.id));
  });
  router.get('/api/plans/:id/file', async (request, response) => {
    const saved = await readPlan(db, request.params.id);
    response.attachment(fileName(saved.name, '.zaffet.json')).type('application/json');
    response.send(`${JSON.stringify(saved.plan, null, 2)}\n`);
  });
  router.get('/api/plans/:id/sheet', async (request, response) => {
    const saved = await readPlan(db, request.params.id);
    const { zone } = request.query;
    const pdf = await jobSheetPdf(
      jobSheet(saved.plan, typeof zone === 'string' ? zone : 'UTC', await readShelf(db)),
    );
    response.attachment(fileName(saved.name, '-job-sheet.pdf')).type('application/pdf').send(pdf);
  });
  return router;
}
