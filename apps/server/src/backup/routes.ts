import { API, fault, RESTORE_WAYS, type RestoreWay, ZaffetError } from '@zaffet/contract';
import { type Request, Router } from 'express';
import { createWriteStream, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Logger } from 'pino';
import { type Database } from '../db/client';
import { logged } from '../db/failures';
import { type DailyBackups } from './daily';
import { restore } from './restore';
import { backupOf } from './write';

/** More than photographs may take, and than a browser sends [bytes]. */
const MOST = 8e9;

const isWay = (told: unknown): told is RestoreWay => (RESTORE_WAYS as readonly unknown[]).includes(told);

/** Writes what comes to a file, and gives up where it is too much. */
async function received(request: Request, path: string): Promise<void> {
  let length = 0;
  const counted = new Transform({
    transform: (piece: Buffer, _encoding, next) => {
      length += piece.length;
      next(length > MOST ? new ZaffetError(fault('backup.too-large')) : null, piece);
    },
  });
  try {
    await pipeline(request, counted, createWriteStream(path, { mode: 0o600 }));
  } catch (error) {
    if (error instanceof ZaffetError) throw error;
    const full = (error as NodeJS.ErrnoException).code === 'ENOSPC';
    throw new ZaffetError(fault(full ? 'server.disk-full' : 'backup.unreadable'));
  }
}

/**
 * All of a shop as one file, out and in.
 * @param uploads - folder for what comes in, empty at the start
 */
export function backupRoutes(
  db: Database,
  photosMost: number,
  daily: DailyBackups | null,
  uploads: string,
  log: Logger,
): Router {
  const router = Router();
  let restoring = false;
  router.get(API.backup, async (_request, response) => {
    const day = new Date().toISOString().slice(0, 10);
    response.attachment(`zaffet-${day}.zip`).type('application/zip');
    try {
      await pipeline(await backupOf(db), response);
    } catch (error) {
      // The connection ends within the file: whoever fetched it sees that it is cut short.
      log.warn(logged(error), 'a backup was not fetched to its end');
      response.destroy();
    }
  });
  router.get(API.backups, (_request, response) => {
    response.json(daily?.list() ?? []);
  });
  router.get('/api/backups/:name', (request, response) => {
    const path = daily?.path(request.params.name) ?? null;
    if (path === null) throw new ZaffetError(fault('backup.not-found'));
    response.download(path);
  });
  router.post('/api/restore', async (request, response) => {
    const { way = 'mine', look } = request.query;
    // What another reader has taken already is no zip.
    if (!isWay(way) || request.is('application/zip') === false)
      throw new ZaffetError(fault('backup.unreadable'));
    if (restoring) throw new ZaffetError(fault('server.busy'));
    restoring = true;
    mkdirSync(uploads, { recursive: true, mode: 0o700 });
    const folder = mkdtempSync(join(uploads, 'restore-'));
    try {
      const path = join(folder, 'backup.zip');
      await received(request, path);
      response.json(await restore(db, path, way, look === undefined, photosMost));
    } finally {
      restoring = false;
      rmSync(folder, { recursive: true, force: true });
    }
  });
  return router;
}
