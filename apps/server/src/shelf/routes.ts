import { API, fault, ZaffetError } from '@zaffet/contract';
import { parseMeasures, parseShelfItem } from '@zaffet/contract/schemas';
import { Router } from 'express';
import { type Database } from '../db/client';
import { putItem, putMeasures, readShelf, takeItem } from './queries';

/** The shelf: one for the shop, each thing on it saved by itself. */
export function shelfRoutes(db: Database): Router {
  const router = Router();
  router.get(API.shelf, async (_request, response) => {
    response.json(await readShelf(db));
  });
  router.put('/api/shelf/items/:id', async (request, response) => {
    const item = parseShelfItem(request.body);
    if (item.id !== request.params.id)
      throw new ZaffetError(
        fault('shelf.invalid', [
          { path: 'id', message: `id must be ${request.params.id}, as in the address.` },
        ]),
      );
    response.json(await putItem(db, item));
  });
  router.delete('/api/shelf/items/:id', async (request, response) => {
    await takeItem(db, request.params.id);
    response.status(204).end();
  });
  router.put(API.measures, async (request, response) => {
    response.json(await putMeasures(db, parseMeasures(request.body)));
  });
  return router;
}
