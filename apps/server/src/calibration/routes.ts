import { API, type KeptCalibration } from '@zaffet/contract';
import { parseCalibration } from '@zaffet/contract/calibration';
import { desc } from 'drizzle-orm';
import { Router } from 'express';
import { type Database } from '../db/client';
import { calibrations } from '../db/schema';

/** So many are told, the newest first. */
const TOLD = 50;

/** What the shop has learned: only ever added to; taken back by adding what held before, or nothing. */
export async function readCalibrations(db: Database, most = TOLD): Promise<KeptCalibration[]> {
  const rows = await db
    .select()
    .from(calibrations)
    .orderBy(desc(calibrations.at), desc(calibrations.id))
    .limit(most);
  return rows.map(({ id, at, file }) => ({ ...file, id, at: at.toISOString() }));
}

export function calibrationRoutes(db: Database): Router {
  const router = Router();
  router.get(API.calibrations, async (_request, response) => {
    response.json(await readCalibrations(db));
  });
  router.post(API.calibrations, async (request, response) => {
    const file = parseCalibration(request.body);
    const [row] = await db.insert(calibrations).values({ file }).returning();
    const kept: KeptCalibration = { ...file, id: row!.id, at: row!.at.toISOString() };
    response.status(201).json(kept);
  });
  return router;
}
