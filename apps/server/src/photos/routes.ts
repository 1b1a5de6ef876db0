import {
  API,
  fault,
  PHOTO_BYTES,
  PHOTO_HASH,
  PHOTO_TYPES,
  SCREEN_BYTES,
  ZaffetError,
} from '@zaffet/contract';
import express, { type ErrorRequestHandler, type Request, type Response, Router } from 'express';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Database } from '../db/client';
import { clearUnshown, keepPhoto, keepScreen, photosKept, readPhoto, unshownRoom } from './queries';

/** What is kept under the hash of its bytes never changes. */
const FOR_EVER = 'private, max-age=31536000, immutable';

const tooLarge: ErrorRequestHandler = (error: { readonly type?: string }, _request, _response, next) =>
  next(error.type === 'entity.too.large' ? new ZaffetError(fault('picture.too-large')) : error);

const bodyUpTo = (limit: number): express.RequestHandler => express.raw({ type: [...PHOTO_TYPES], limit });

/** Photographs of runs: sent by the devices that took them, as often as they like; the same bytes come back. */
export function photoRoutes(db: Database, most: number): Router {
  const router = Router();
  const hashOf = (request: Request): string => {
    const hash = String(request.params['hash']);
    if (!PHOTO_HASH.test(hash)) throw new ZaffetError(fault('photo.not-found'));
    return hash;
  };
  /** @throws ZaffetError where the body is no picture: it was not read at all */
  const bytesOf = (request: Request): Buffer => {
    if (!Buffer.isBuffer(request.body)) throw new ZaffetError(fault('photo.invalid'));
    return request.body;
  };
  const send = async (response: Response, hash: string, screen: boolean): Promise<void> => {
    const { type, size, pieces } = await readPhoto(db, hash, screen);
    response.set({ 'cache-control': FOR_EVER, 'content-length': String(size) }).type(type);
    if (response.req.method === 'HEAD') response.end();
    else await pipeline(Readable.from(pieces()), response);
  };
  router.get(API.photos, async (_request, response) => {
    response.json(await photosKept(db, most));
  });
  router.get(API.photosUnshown, async (_request, response) => {
    response.json(await unshownRoom(db));
  });
  router.delete(API.photosUnshown, async (_request, response) => {
    response.json(await clearUnshown(db));
  });
  router.get('/api/photos/:hash', (request, response) => send(response, hashOf(request), false));
  router.get('/api/photos/:hash/screen', (request, response) => send(response, hashOf(request), true));
  router.put('/api/photos/:hash', bodyUpTo(PHOTO_BYTES), async (request, response) => {
    await keepPhoto(db, hashOf(request), bytesOf(request), most);
    response.status(204).end();
  });
  router.put('/api/photos/:hash/screen', bodyUpTo(SCREEN_BYTES), async (request, response) => {
    await keepScreen(db, hashOf(request), bytesOf(request));
    response.status(204).end();
  });
  router.use(tooLarge);
  return router;
}
