import {
  fault,
  migratePlan,
  type Plan,
  type PlanSummary,
  type SavedPlan,
  ZaffetError,
} from '@zaffet/contract';
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { type Database } from '../db/client';
import { plans } from '../db/schema';

const SUMMARY = { id: plans.id, name: plans.name, revision: plans.revision, savedAt: plans.savedAt };

type Row = { id: string; name: string; revision: number; savedAt: Date };
const summary = ({ id, name, revision, savedAt }: Row): PlanSummary => ({
  id,
  name,
  revision,
  savedAt: savedAt.toISOString(),
});

/** A plan may have been saved by an older Zaffet: it is brought to the present version as it is read. */
const present = (plan: Plan): Plan => migratePlan(plan) as Plan;

/** A save that names another revision than the one that stands: nothing was changed. */
export class StaleSave extends ZaffetError {
  constructor(readonly current: SavedPlan) {
    super(fault('plan.stale'));
  }
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

function known(id: string): string {
  if (!UUID.test(id)) throw new ZaffetError(fault('plan.not-found'));
  return id;
}

/** All plans with their content, newest save first: a few kB each, and the list draws them. */
export async function listPlans(db: Database): Promise<SavedPlan[]> {
  const rows = await db
    .select({ ...SUMMARY, plan: plans.plan })
    .from(plans)
    .where(isNull(plans.removedAt))
    .orderBy(desc(plans.savedAt), plans.name);
  return rows.map((row) => ({ ...summary(row), plan: present(row.plan) }));
}

/** @throws ZaffetError `plan.not-found` */
export async function readPlan(db: Database, id: string): Promise<SavedPlan> {
  const [row] = await db
    .select({ ...SUMMARY, plan: plans.plan })
    .from(plans)
    .where(and(eq(plans.id, known(id)), isNull(plans.removedAt)));
  if (!row) throw new ZaffetError(fault('plan.not-found'));
  return { ...summary(row), plan: present(row.plan) };
}

export async function createPlan(db: Database, plan: Plan): Promise<SavedPlan> {
  const [row] = await db.insert(plans).values({ name: plan.name, plan }).returning(SUMMARY);
  if (!row) throw new ZaffetError(fault('server.failed'));
  return { ...summary(row), plan };
}

/**
 * Saves over the revision the caller started from, in one statement, so that of two saves only one can win.
 * @throws StaleSave with what stands there now, or ZaffetError `plan.not-found`
 */
export async function savePlan(db: Database, id: string, revision: number, plan: Plan): Promise<PlanSummary> {
  const [row] = await db
    .update(plans)
    .set({ name: plan.name, plan, revision: sql`${plans.revision} + 1`, savedAt: sql`now()` })
    .where(and(eq(plans.id, known(id)), eq(plans.revision, revision), isNull(plans.removedAt)))
    .returning(SUMMARY);
  if (!row) throw new StaleSave(await readPlan(db, id));
  return summary(row);
}

/** Takes a plan out of the list; it can be restored. @throws ZaffetError `plan.not-found` */
export async function removePlan(db: Database, id: string): Promise<void> {
  const rows = await db
    .update(plans)
    .set({ removedAt: sql`now()` })
    .where(and(eq(plans.id, known(id)), isNull(plans.removedAt)))
    .returning({ id: plans.id });
  if (rows.length === 0) throw new ZaffetError(fault('plan.not-found'));
}

/** Brings a removed plan back. @throws ZaffetError `plan.not-found` */
export async function restorePlan(db: Database, id: string): Promise<PlanSummary> {
  const [row] = await db
    .update(plans)
    .set({ removedAt: null })
    .where(eq(plans.id, known(id)))
    .returning(SUMMARY);
  if (!row) throw new ZaffetError(fault('plan.not-found'));
  return summary(row);
}
