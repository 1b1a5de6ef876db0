import {
  BIN_DAYS,
  type BinnedPlan,
  fault,
  PLAN_VERSION,
  type PlanFile,
  type PlanSummary,
  type StoredPlan,
  ZaffetError,
} from '@zaffet/contract';
import { and, desc, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import { type Database } from '../db/client';
import { plans } from '../db/schema';
import { read } from '../reading/reader';
import { type ReadPlan } from '../reading/tasks';

const SUMMARY = {
  id: plans.id,
  name: plans.name,
  revision: plans.revision,
  saveId: plans.saveId,
  savedAt: plans.savedAt,
};

type Row = { id: string; name: string; revision: number; saveId: string; savedAt: Date };
const summary = ({ savedAt, ...row }: Row): PlanSummary => ({ ...row, savedAt: savedAt.toISOString() });

/** A save that names another save than the one that stands: nothing was changed. */
export class StaleSave extends ZaffetError {
  constructor(readonly current: StoredPlan) {
    super(fault('plan.stale'));
  }
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

function known(id: string): string {
  if (!UUID.test(id)) throw new ZaffetError(fault('plan.not-found'));
  return id;
}

/** Saves found good as they stand: their plans need not be read by the schema again. */
const good = new Set<string>();
const MOST_GOOD = 20_000;
function remember({ saveId }: Row): void {
  if (good.size >= MOST_GOOD) good.clear();
  good.add(saveId);
}

/** Whether a plan is stored as this Zaffet stores it, maps packed. */
const isPresent = (plan: PlanFile): boolean =>
  plan.version === PLAN_VERSION &&
  plan.piece.parts.every(({ maps }) =>
    Object.values(maps).every(({ percent }) => typeof percent === 'string'),
  );

/**
 * What stands in a row, brought to the present version: an older Zaffet may have saved it.
 * @throws ZaffetError `plan.unreadable` with what is wrong with it
 */
async function present(row: Row, stored: PlanFile): Promise<PlanFile> {
  if (good.has(row.saveId)) return stored;
  try {
    const { plan } = await read('plan', Buffer.from(JSON.stringify(stored)));
    if (!isPresent(stored)) return plan;
    remember(row);
    return stored;
  } catch (error) {
    if (!(error instanceof ZaffetError)) throw error;
    const { message, fields } = error.fault;
    throw new ZaffetError(fault('plan.unreadable', fields.length > 0 ? fields : [{ path: 'file', message }]));
  }
}

/** All plans without their content, newest save first. */
export async function listPlans(db: Database): Promise<PlanSummary[]> {
  const rows = await db
    .select(SUMMARY)
    .from(plans)
    .where(isNull(plans.removedAt))
    .orderBy(desc(plans.savedAt), plans.name);
  return rows.map(summary);
}

async function rowOf(db: Database, id: string): Promise<Row & { plan: PlanFile }> {
  const [row] = await db
    .select({ ...SUMMARY, plan: plans.plan })
    .from(plans)
    .where(and(eq(plans.id, known(id)), isNull(plans.removedAt)));
  if (!row) throw new ZaffetError(fault('plan.not-found'));
  return row;
}

/** Which save stands, without the plan. @throws ZaffetError `plan.not-found` */
export async function readSaveId(db: Database, id: string): Promise<string> {
  const [row] = await db
    .select({ saveId: plans.saveId })
    .from(plans)
    .where(and(eq(plans.id, known(id)), isNull(plans.removedAt)));
  if (!row) throw new ZaffetError(fault('plan.not-found'));
  return row.saveId;
}

/** @throws ZaffetError `plan.not-found`, or `plan.unreadable` with what is wrong with it */
export async function readPlan(db: Database, id: string): Promise<StoredPlan> {
  const row = await rowOf(db, id);
  return { ...summary(row), plan: await present(row, row.plan) };
}

/** What is stored of a plan, to take out: as it stands where it cannot be read. @throws ZaffetError `plan.not-found` */
export async function takeOut(db: Database, id: string): Promise<{ name: string; content: unknown }> {
  const row = await rowOf(db, id);
  try {
    return { name: row.name, content: await present(row, row.plan) };
  } catch (error) {
    if (!(error instanceof ZaffetError)) throw error;
    return { name: row.name, content: row.plan };
  }
}

export async function createPlan(db: Database, { name, plan }: ReadPlan): Promise<StoredPlan> {
  const [row] = await db.insert(plans).values({ name, plan }).returning(SUMMARY);
  if (!row) throw new ZaffetError(fault('server.failed'));
  remember(row);
  return { ...summary(row), plan };
}

/**
 * Saves over the save the caller started from, in one statement, so that of two saves only one can win. A save of what
 * stands there already is done: it was sent again because its answer was lost.
 * @param base - id of that save; '' where the caller does not know it
 * @throws StaleSave with what stands there now, or ZaffetError `plan.not-found`
 */
export async function savePlan(
  db: Database,
  id: string,
  base: string,
  { name, plan }: ReadPlan,
): Promise<PlanSummary> {
  const [row] = await db
    .update(plans)
    .set({
      name,
      plan,
      revision: sql`${plans.revision} + 1`,
      saveId: sql`gen_random_uuid()`,
      savedAt: sql`now()`,
    })
    .where(
      and(
        eq(plans.id, known(id)),
        eq(sql`${plans.saveId}::text`, base.toLowerCase()),
        isNull(plans.removedAt),
      ),
    )
    .returning(SUMMARY);
  if (row) {
    remember(row);
    return summary(row);
  }
  const { plan: stands, ...current } = await readPlan(db, id);
  if (isDeepStrictEqual(stands, plan)) return current;
  throw new StaleSave({ ...current, plan: stands });
}

/** Puts a plan into the bin; it can be restored. @throws ZaffetError `plan.not-found` */
export async function removePlan(db: Database, id: string): Promise<void> {
  const rows = await db
    .update(plans)
    .set({ removedAt: sql`now()` })
    .where(and(eq(plans.id, known(id)), isNull(plans.removedAt)))
    .returning({ id: plans.id });
  if (rows.length === 0) throw new ZaffetError(fault('plan.not-found'));
}

/** Takes a plan out of the bin. @throws ZaffetError `plan.not-found` */
export async function restorePlan(db: Database, id: string): Promise<PlanSummary> {
  const [row] = await db
    .update(plans)
    .set({ removedAt: null })
    .where(eq(plans.id, known(id)))
    .returning(SUMMARY);
  if (!row) throw new ZaffetError(fault('plan.not-found'));
  return summary(row);
}

/** The plans in the bin, without their content, last deleted first. */
export async function listBin(db: Database): Promise<BinnedPlan[]> {
  const rows = await db
    .select({ ...SUMMARY, removedAt: plans.removedAt })
    .from(plans)
    .where(isNotNull(plans.removedAt))
    .orderBy(desc(plans.removedAt), plans.name);
  return rows.map(({ removedAt, ...row }) => ({ ...summary(row), removedAt: removedAt!.toISOString() }));
}

/** Deletes for good what has been in the bin for too long. @param now - [ms since 1970] */
export async function emptyBin(db: Database, now: number): Promise<void> {
  await db.delete(plans).where(lt(plans.removedAt, new Date(now - BIN_DAYS * 86_400_000)));
}
