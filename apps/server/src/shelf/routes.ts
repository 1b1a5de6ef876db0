import { API, fault, ID, ZaffetError } from '@zaffet/contract';
import { parseItemChanges, parseMeasures, parseShelfItem } from '@zaffet/contract/schemas';
import { shelfCsv } from '@zaffet/words';
import { Router } from 'express';
import { type Database } from '../db/client';
import { changeItem, putItem, putMeasures, readShelf, takeItem } from './queries';

/** An id as an address tells it. @throws ZaffetError where it could be nobody's */
function idOf(told: string): string {
  if (ID.test(told)) return told;
  throw new ZaffetError(
    fault('shelf.invalid', [
      { path: 'id', message: `id is ${JSON.stringify(told)}; it must be letters, digits, - or _.` },
    ]),
  );
}

/** The shelf: one for the shop, each thing on it saved by itself. */
export function shelfRoutes(db: Database): Router {
  const router = Router();
  router.get(API.shelf, async (_request, response) => {
    response.json(await readShelf(db));
  });
  router.get(API.shelfCsv, async (_request, response) => {
    const { items } = await readShelf(db);
    response.attachment('shelf.csv').type('text/csv').send(shelfCsv(items));
  });
  router.put('/api/shelf/items/:id', async (request, response) => {
    const item = parseShelfItem(request.body);
    if (item.id !== request.params.id)
      throw new ZaffetError(
        fault('shelf.invalid', [
          { path: 'id', message: `id is "${item.id}"; it must be the one in the address.` },
        ]),
      );
    response.json(await putItem(db, item));
  });
  router.patch('/api/shelf/items/:id', async (request, response) => {
    response.json(await changeItem(db, idOf(request.params.id), parseItemChanges(request.body)));
  });
  router.delete('/api/shelf/items/:id', async (request, response) => {
    await takeItem(db, idOf(request.params.id));
    response.status(204).end();
  });
  router.put(API.measures, async (request, response) => {
    response.json(await putMeasures(db, parseMeasures(request.body)));
  });
  return router;
}
